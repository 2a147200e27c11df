// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/looks.h"

#include "quantity/dates.h"

#include <algorithm>
#include <map>

namespace mildpath {
namespace {

template <class T> void addTo(std::optional<T> &sum, const std::optional<T> &more)
{
    if (more)
        sum = sum.value_or(0) + *more;
}

/// What an entry says of the engine's running: hours more, or hours in all.
struct HourMark
{
    std::string_view at;
    double more_h = 0;
    std::optional<double> total_h {};
};
std::vector<HourMark> hourMarks(const Build &build)
{
    std::vector<HourMark> out;
    for (const Act *a : standing(build.acts))
        if (a->ran_h)
            out.push_back({ a->at, *a->ran_h });
    const auto total = [&](const Record &r, double engine_h) {
        out.push_back({ r.at, 0, engine_h });
    };
    for (const FilterCut *c : standing(build.filterCuts))
        total(*c, c->engine_h);
    for (const Opening *o : standing(build.openings))
        total(*o, o->engine_h);
    for (const OilSample *s : standing(build.oilSamples))
        if (s->of == "used")
            total(*s, s->engine_h);
    std::ranges::stable_sort(out, {}, &HourMark::at);
    return out;
}

Quantity asKm(double km)
{
    return { km * 1000, Shows::Journey };
}
Phrase counted(int n, std::string_view pattern)
{
    return { "look.count", pattern, { asCount(n) } };
}

/// One interval: how much of it is over, and how it reads.
struct Interval
{
    double every;
    std::optional<double> used;
    Phrase (*text)(double);

    double share() const { return used ? *used / every : 0; }
};

std::vector<Interval> intervalsOf(const LookToCome &l)
{
    std::vector<Interval> out;
    const auto add = [&](const auto &every, const auto &used, Phrase (*text)(double)) {
        if (every)
            out.push_back({ static_cast<double>(*every),
                            used ? std::optional<double>(static_cast<double>(*used)) : std::nullopt,
                            text });
    };
    const NextLook &k = *l.look;
    add(k.every_h, l.ran.hours_h, [](double v) { return asPhrase(asHours(v)); });
    add(k.every_km, l.ran.km, [](double v) { return asPhrase(asKm(v)); });
    add(k.everyDays, l.days,
        [](double v) { return counted(static_cast<int>(v), "{0} {0|day|days}"); });
    add(k.everyTrackDays, l.ran.trackDays,
        [](double v) { return counted(static_cast<int>(v), "{0} track {0|day|days}"); });
    add(k.everyPasses, l.ran.passes,
        [](double v) { return counted(static_cast<int>(v), "{0} {0|pass|passes}"); });
    return out;
}

void judge(LookToCome &l)
{
    const std::vector<Interval> intervals = intervalsOf(l);
    std::vector<Phrase> every;
    const Interval *nearest = nullptr;
    bool unsaid = false;
    for (const Interval &i : intervals) {
        every.push_back(i.text(i.every));
        unsaid = unsaid || !i.used;
        if (i.used && (!nearest || i.share() > nearest->share()))
            nearest = &i;
    }
    l.every = joinedBy(every, "{*| or }");
    l.share = nearest ? nearest->share() : 0;
    const Phrase since = "no running noted since " + nearDayText(l.look->at);
    if (!nearest)
        l.says = { "look.unknown", "{0}: when it is due cannot be said", { since } };
    else if (l.isDue())
        l.says = { "look.due",
                   "due: {0} of {1}",
                   { nearest->text(*nearest->used), nearest->text(nearest->every) } };
    else
        l.says = { "look.in", "in {0}", { nearest->text(nearest->every - *nearest->used) } };
    if (nearest && unsaid)
        l.says = { "look.partly", "{0} ({1})", { l.says, since } };
}

} // namespace

RanSince ranSince(const Build &build, std::string_view since)
{
    RanSince out;
    for (const Act *a : standing(build.acts)) {
        if (a->at <= since)
            continue;
        addTo(out.km, a->ran_km);
        addTo(out.trackDays, a->trackDays);
        addTo(out.passes, a->passes);
    }
    double before = 0, now = 0;
    bool said = false;
    for (const HourMark &m : hourMarks(build)) {
        now = std::max(now + m.more_h, m.total_h.value_or(0));
        if (m.at <= since)
            before = now;
        else
            said = true;
    }
    if (said)
        out.hours_h = now - before;
    return out;
}

std::vector<LookToCome> looksToCome(const Build &build, std::string_view today)
{
    std::map<std::string_view, const NextLook *> last;
    for (const NextLook *l : standing(build.nextLooks))
        last[l->item] = l;
    std::vector<LookToCome> out;
    for (const auto &[item, look] : last) {
        if (!look->isSet())
            continue;
        LookToCome l { look, ranSince(build, look->at), {}, 0, {}, {} };
        if (!today.empty())
            l.days = daysBetween(look->at, today);
        judge(l);
        out.push_back(std::move(l));
    }
    std::ranges::stable_sort(out, std::greater {}, &LookToCome::share);
    return out;
}

} // namespace mildpath
