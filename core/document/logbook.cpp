// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/logbook.h"

#include "quantity/hours.h"
#include "quantity/overloaded.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

/// An id no entry of the list has. Entries are numbered on, so the first try nearly always is free.
template <class T> std::string freeId(const SharedList<T> &list, std::string_view prefix)
{
    for (size_t n = list.size() + 1;; ++n) {
        const std::string id = std::string(prefix) + std::to_string(n);
        if (std::none_of(list.rbegin(), list.rend(), [&](const T &r) { return r.id == id; }))
            return id;
    }
}

std::string nameOfStop(const Build &build, const std::string &id)
{
    const Stop *s = build.engine.find(id);
    return s ? s->name : id;
}

} // namespace

std::string_view logOf(const LogEntry &entry)
{
    std::string_view out;
    std::visit(
        [&]<class T>(const T &) {
            forEachLog([&](const auto &log) {
                if constexpr (std::is_same_v<typename std::decay_t<decltype(log)>::Entry, T>)
                    out = log.key;
            });
        },
        entry);
    return out;
}

namespace {

/// A plug behind one that is in can neither be fitted nor looked at, but by what sees round it.
Result<void> canBeReached(const Build &build, const LogEntry &entry)
{
    const auto *event = std::get_if<CleanEvent>(&entry);
    if (!event || event->scope != "plug" || event->dated || !event->replaces.empty())
        return {};
    const Plug *plug = findPlug(build.plugs, event->target);
    const Plug *outer = plug ? findPlug(build.plugs, plug->behind) : nullptr;
    const bool fits = event->kind == "plug_in", looks = event->kind == "plug_seen";
    const CheckMeans *means = findCheckMeans(event->means);
    if (!outer || (!fits && !looks) || (looks && means && means->seesHidden))
        return {};
    const PassageNetwork network(build.passages, build.plugs);
    const CleaningBook book = readBook(network, build.events, stopKindsOf(build));
    for (const PlugState &p : book.plugs)
        if (p.plug == outer->id && p.place != PlugPlace::Out)
            return fail("target",
                        outer->name + " is in: draw it first"
                            + (looks ? ", or look by camera or wire" : ""));
    return {};
}

} // namespace

Result<Build> addEntry(Build build, const AddEntry &edit)
{
    Result<void> ok = canBeReached(build, edit.entry);
    if (!ok)
        return tl::unexpected(ok.error());
    std::visit(
        [&]<class T>(T entry) {
            forEachLog([&](const auto &log) {
                if constexpr (std::is_same_v<typename std::decay_t<decltype(log)>::Entry, T>) {
                    auto &list = build.*log.list;
                    if (!entry.replaces.empty() && !stands(list, entry.replaces)) {
                        ok = fail("replaces",
                                  "there is no entry \"" + entry.replaces + "\" that stands");
                        return;
                    }
                    entry.id = freeId(list, log.prefix);
                    list.push_back(std::move(entry));
                }
            });
        },
        edit.entry);
    if (!ok)
        return tl::unexpected(ok.error());
    return build;
}

Result<Build> takeBackEntry(Build build, const TakeBackEntry &e)
{
    Result<void> ok = fail("log", "there is no list \"" + e.log + "\"");
    forEachLog([&](const auto &log) {
        if (log.key != e.log)
            return;
        auto &list = build.*log.list;
        if (!stands(list, e.id)) {
            ok = fail("id", "there is no entry \"" + e.id + "\" that stands");
            return;
        }
        auto entry
            = *std::find_if(list.begin(), list.end(), [&](const auto &r) { return r.id == e.id; });
        entry.replaces = e.id;
        entry.id = freeId(list, log.prefix);
        entry.takenBack = true;
        entry.by = e.by;
        entry.at = e.at;
        list.push_back(std::move(entry));
        ok = {};
    });
    if (!ok)
        return tl::unexpected(ok.error());
    return build;
}

std::string shopJobName(const ShopJob &job)
{
    const MachiningJob *kind = findMachiningJob(job.job);
    return kind ? std::string(kind->name) : job.note;
}

bool isShopJob(const Build &build, std::string_view id)
{
    return std::ranges::any_of(build.shopJobs, [&](const ShopJob &j) { return j.id == id; });
}

std::string targetName(const Build &build, const CleanEvent &e)
{
    if (e.scope == "passage") {
        const Passage *p = findPassage(build.passages, e.target);
        return p ? p->name : e.target;
    }
    if (e.scope == "plug") {
        const Plug *p = findPlug(build.plugs, e.target);
        return p ? p->name : e.target;
    }
    if (e.scope == "job") {
        const MachiningJob *j = findMachiningJob(e.target);
        return j ? std::string(j->name) : e.target;
    }
    return e.scope == "part" ? std::string(partName(e.target)) : "the whole engine";
}

Phrase describeEntry(const Build &build, const LogEntry &entry)
{
    const auto words = Overloaded {
        [&](const CleanEvent &e) {
            const EventKind *k = findEventKind(e.kind);
            const std::string on = targetName(build, e);
            if (e.scope == "job")
                return on;
            return on + ": " + (k ? std::string(k->name) : e.kind)
                + (e.result.empty() ? "" : ", " + e.result);
        },
        [&](const DebrisFind &f) {
            return "found in " + (f.stop.empty() ? f.place : nameOfStop(build, f.stop)) + ": "
                + f.colour + " " + f.size;
        },
        [&](const Sign &s) {
            const SignKind *k = findSignKind(s.sign);
            return nameOfStop(build, s.stop) + ": " + (k ? std::string(k->text) : s.sign)
                + (s.there ? "" : ", not there");
        },
        [&](const BearingFailure &f) { return nameOfStop(build, f.stop) + " failed"; },
        [&](const Repair &r) { return nameOfStop(build, r.item) + " " + r.done; },
        [&](const ShopJob &j) { return "for the machine shop: " + shopJobName(j); },
        [&](const GaugeReading &r) {
            return Phrase("log.gauge", "{0}, {1}: {2}",
                          { tapName(build, r.tap), turnedText(r.rpm, r.byDrill),
                            asPressure(r.pressure_kpa * 1e3) });
        },
        [&](const Symptom &s) {
            if (s.symptom == otherNoise && !s.sound.empty())
                return s.sound + " heard";
            const SymptomKind *k = findSymptomKind(s.symptom);
            return (k ? std::string(k->text) : s.symptom) + (s.there ? "" : ", not there");
        },
        [&](const FlowSeen &f) { return nameOfStop(build, f.stop) + ": oil " + f.saw; },
        [&](const Scenario &s) { return "what if: " + s.name; },
        [&](const SignOff &s) { return "signed: " + s.said; },
        [&](const Job &j) {
            std::string out = "job";
            for (const std::string &k : j.kinds)
                if (const JobKind *kind = findJobKind(k))
                    out += (&k == &j.kinds.front() ? ": " : ", ") + std::string(kind->name);
            return out;
        },
        [&](const Person &p) { return p.name + (p.role.empty() ? "" : ", " + p.role); },
        [&](const Act &a) {
            const ActKind *k = findActKind(a.act);
            std::string out(k ? k->name : std::string_view(a.act));
            for (const std::string &place : a.places)
                out += (&place == &a.places.front() ? ": " : ", ") + nameOfStop(build, place);
            return a.instrument.empty() ? out : out + ": " + a.instrument;
        },
        [&](const Order &o) {
            const std::string what = o.what.empty() ? o.row : o.what;
            return what + (o.isOut() ? ": ordered" : ": to be ordered")
                + (o.from.empty() ? "" : ", " + o.from);
        },
        [&](const TimeTaken &t) {
            return Phrase("log.time", "{0} for {1} {1|check|checks}",
                          { asMinutes(t.minutes), asCount(t.checks.size()) });
        },
        [&](const Instrument &i) { return "instrument: " + i.name; },
        [&](const OwnCheck &c) { return "own check: " + c.text; },
        [&](const NextLook &l) {
            return (l.isSet() ? "to be looked at again: " : "not looked at again: ") + l.item;
        },
        [&](const CardStep &s) {
            std::string step = s.step;
            std::replace(step.begin(), step.end(), '_', ' ');
            return "start-up checklist, " + step
                + (s.outcome == "done"         ? ""
                       : s.outcome == "not_so" ? ": not so"
                                               : ": skipped");
        },
        [&](const RunLog &r) {
            return Phrase("log.run", "recorded {0}, {1}", { r.kind, asTime(r.seconds) });
        },
        [&](const Calibration &c) { return "forecast calibrated: " + c.input; },
        [&](const FilterCut &c) { return "filter cut at " + hoursText(c.engine_h); },
        [&](const OilSample &o) {
            return o.of == "new" ? "new oil analysed" + (o.oil.empty() ? "" : ": " + o.oil)
                                 : "oil sample at " + hoursText(o.engine_h);
        },
        [&](const Opening &o) { return "re-inspection at " + hoursText(o.engine_h); },
        [&](const SealCheck &c) {
            return Phrase(
                "log.seal", "{0} {1}, {2}",
                { c.kind == "vacuum" ? "crankcase vacuum" : "blow-by", c.phase, asSpeed(c.rpm) });
        },
        [&](const BoreTrace &t) { return "bore " + std::to_string(t.bore) + ", trace " + t.phase; },
        // A kind without words of its own is called what it is.
        [](const auto &e) -> std::string {
            return std::string(recordType<std::remove_cvref_t<decltype(e)>>().name);
        },
    };
    return std::visit([&](const auto &e) { return Phrase(words(e)); }, entry);
}

bool isCalibrated(std::string_view input)
{
    return input == "readings" || input == "oil" || input == "gauge" || input == "model"
        || findFamily(input);
}

Phrase turnedText(double rpm, bool byDrill)
{
    return byDrill ? Phrase("turned.drill", "drill at {0}", { asSpeed(rpm) })
                   : asPhrase(asSpeed(rpm));
}

std::string tapName(const Build &build, const std::string &tap)
{
    std::string out = tap;
    std::replace(out.begin(), out.end(), '_', ' ');
    if (!out.empty())
        out[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(out[0])));
    return tap == build.gaugeTap ? out + " (gauge)" : out;
}

std::vector<std::string> flowOutlets(const Build &build, const Stop &stop)
{
    std::vector<std::string> out;
    if (stop.points.size() > 1)
        for (const StopPoint &p : stop.points)
            out.push_back(p.name);
    if (!out.empty())
        return out;
    // Jets and rockers have no points of their own; each hole or gap to the crankcase is one.
    if (stop.kind == StopKind::Jet || stop.kind == StopKind::Rocker)
        for (const std::string &id : stop.elements)
            if (const Element *e = build.circuit.find(id); e && e->to == sumpNode)
                for (int i = 0; i < static_cast<int>(e->value("count")); ++i)
                    out.push_back((stop.kind == StopKind::Jet ? "Jet " : "Rocker ")
                                  + std::to_string(out.size() + 1));
    if (out.empty())
        out.push_back(stop.name);
    return out;
}

std::map<std::string, StopKind> stopKindsOf(const Build &build)
{
    std::map<std::string, StopKind> out;
    for (const Stop &s : build.engine.stops)
        out[s.id] = s.kind;
    return out;
}

} // namespace mildpath
