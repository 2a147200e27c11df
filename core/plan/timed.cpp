// SPDX-License-Identifier: GPL-3.0-or-later
#include "plan/timed.h"

#include "checks/visible.h"
#include "document/document.h"
#include "quantity/dates.h"

#include <algorithm>
#include <charconv>
#include <map>
#include <set>
#include <string>
#include <string_view>

namespace mildpath {
namespace {

using Id = std::string;

/// Minutes from one moment (ISO 8601 to the minute or second) to another; absent where one is none.
std::optional<double> minutesBetween(std::string_view from, std::string_view to)
{
    const auto ofDay = [](std::string_view at) -> std::optional<double> {
        constexpr size_t hour = 11, minute = 14, second = 17; // of 2026-03-21T08:30:00
        const auto number = [&](size_t begin) {
            int out = 0;
            if (begin + 2 <= at.size())
                std::from_chars(at.data() + begin, at.data() + begin + 2, out);
            return out;
        };
        if (at.size() < minute + 2 || at[hour - 1] != 'T')
            return std::nullopt;
        return number(hour) * 60.0 + number(minute) + number(second) / 60.0;
    };
    const auto days = daysBetween(from, to);
    const auto a = ofDay(from), b = ofDay(to);
    if (!days || !a || !b)
        return std::nullopt;
    return *days * 24.0 * 60 + *b - *a;
}

/// Hands from the first moment to the last, pauses cut; absent where there is no work between.
std::optional<double> clocked(std::vector<std::string_view> moments)
{
    std::ranges::sort(moments);
    double out = 0;
    for (size_t i = 1; i < moments.size(); ++i)
        if (const auto gap = minutesBetween(moments[i - 1], moments[i]);
            gap && *gap <= longestPause_min)
            out += *gap;
    return out > 0 ? std::optional(out) : std::nullopt;
}

class Clock
{
public:
    Clock(const Build &build, const CheckList &list)
        : m_build(build)
        , m_list(list)
    {
        for (const Reading &r : build.readings)
            m_moments["size@" + r.stop + "/" + r.family + "/" + std::to_string(r.item)].push_back(
                r.at);
        for (const CleanEvent &e : build.events)
            if (!e.dated && (e.scope == "passage" || e.scope == "plug"))
                m_moments[e.scope + "@" + e.target].push_back(e.at);
        for (const TorqueTick &t : build.ticks)
            m_moments["torq@" + t.card].push_back(t.at);
        said(build);
    }

    std::optional<HandsTaken> of(const Check &check) const
    {
        if (const auto said = m_said.find(check.id()); said != m_said.end())
            return HandsTaken { said->second.minutes, true };
        const auto at = m_moments.find(keyOf(check));
        const auto minutes = at == m_moments.end() ? std::nullopt : clocked(at->second);
        return minutes ? std::optional(HandsTaken { *minutes, false }) : std::nullopt;
    }

    /// What was said, once a kind of check however many places shared it: they are one piece of
    /// work. What was said anew since teaches nothing.
    void addSaid(std::vector<TimedWork> &out) const
    {
        for (size_t i = 0; i < m_entries.size(); ++i) {
            std::set<std::string> kinds;
            for (const Id &id : m_entries[i].ids)
                if (const auto said = m_said.find(id); said->second.entry == i)
                    kinds.insert(id.substr(0, id.find('@')));
            for (const std::string &k : kinds)
                if (const CheckKind *kind = findCheckKind(k); kind && kind->minutes > 0)
                    out.push_back({ k, m_entries[i].each_min, static_cast<double>(kind->minutes) });
        }
    }

private:
    /// What is entered at a check's own page: its readings, its passage or plug, its bolts.
    Id keyOf(const Check &c) const
    {
        const std::string_view kind = c.kind->id;
        if (kind == "clean")
            return "passage@" + c.place.id;
        if (kind == "plugin")
            return "plug@" + c.place.id;
        if (kind == "torq")
            return "torq@" + c.place.id;
        if (const std::string family = takesFigure(c) ? sizeFamilyOf(m_build, c) : "";
            !family.empty())
            return "size@" + c.place.stop + "/" + family + "/"
                + std::to_string(std::max(1, c.place.item));
        return {};
    }

    /// An entry of several places, or of a whole family, is shared among them; the last one counts.
    void said(const Build &build)
    {
        for (const CheckEntry *e : standing(build.checkEntries)) {
            if (!e->minutes || *e->minutes <= 0 || e->says == "none")
                continue;
            std::vector<Id> ids;
            for (const std::string &place : e->places)
                ids.push_back(e->kind + "@" + place);
            if (e->places.empty())
                for (const Check &c : m_list.all())
                    if (c.asked && c.kind->id == e->kind
                        && std::ranges::find(e->except, c.place.id) == e->except.end())
                        ids.push_back(c.id());
            share(std::move(ids), *e->minutes);
        }
        for (const TimeTaken *t : standing(build.times))
            if (t->minutes > 0)
                share(t->checks, t->minutes);
    }
    void share(std::vector<Id> ids, double minutes)
    {
        if (ids.empty())
            return;
        const double each = minutes / static_cast<double>(ids.size());
        for (const Id &id : ids)
            m_said[id] = { each, m_entries.size() };
        m_entries.push_back({ std::move(ids), each });
    }

    /// One time that was said, however many places shared it.
    struct Entry
    {
        std::vector<Id> ids;
        double each_min;
    };
    struct Said
    {
        double minutes;
        size_t entry; ///< the last one of the place
    };

    const Build &m_build;
    const CheckList &m_list;
    std::map<Id, std::vector<std::string_view>> m_moments;
    std::map<Id, Said> m_said;
    std::vector<Entry> m_entries;
};

} // namespace

std::optional<HandsTaken> handsTaken(const Build &build, const CheckList &list, const Check &check)
{
    return Clock(build, list).of(check);
}

std::vector<TimedWork> timedWork(const Build &build, const CheckList &list)
{
    const Clock clock(build, list);
    std::vector<TimedWork> out;
    clock.addSaid(out);
    for (const Check &c : list.all())
        if (c.kind->minutes > 0)
            if (const auto taken = clock.of(c); taken && !taken->typed)
                out.push_back({ std::string(c.kind->id), taken->minutes,
                                static_cast<double>(c.kind->minutes) });
    return out;
}

} // namespace mildpath
