// SPDX-License-Identifier: GPL-3.0-or-later
#include "plan/workplan.h"

#include "document/logbook.h"
#include "plan/timed.h"
#include "quantity/dates.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <utility>

namespace mildpath {
namespace {

constexpr std::string_view firstStart = "fire";
/// Waits nobody promised are as likely shorter as longer (own choice).
constexpr double shortWait = 0.7, longWait = 1.6;

// Kinds done in one posture with one instrument. Common practice, no source.
constexpr std::array<std::string_view, 5> setups { {
    "jrnl",
    "bore clr bush lifclr piston",
    "float runout",
    "ptip pend crush",
    "tang feed groove camhole",
} };

class Planner
{
public:
    Planner(const Build &build, const CheckList &list, std::string_view now)
        : m_build(build)
        , m_list(list)
        , m_pace(timedWork(build, list))
    {
        m_out.begins = now.substr(0, 10);
        constexpr size_t hourAt = 11; // of 2026-03-21T08:30
        if (now.size() > hourAt + 4)
            m_begin_d = (std::stod(std::string(now.substr(hourAt, 2)))
                         + std::stod(std::string(now.substr(hourAt + 3, 2))) / 60)
                / 24;
        m_out.begin_d = m_begin_d;
    }

    WorkPlan run()
    {
        people();
        collect();
        lead();
        auto done = schedule(m_items, m_out.hands, m_begin_d);
        if (!done) {
            m_out.problem = done.error();
            return std::move(m_out);
        }
        rows(*done);
        hours();
        start(*done);
        return std::move(m_out);
    }

private:
    void people()
    {
        for (const Person *p : standing(m_build.people))
            if (p->hours_d > 0)
                m_out.hands.push_back({ p->name, p->hours_d });
        if (m_out.hands.empty())
            m_out.hands.push_back({});
    }

    void collect()
    {
        std::map<size_t, size_t> itemOf; // check → item
        std::map<std::string_view, int> stops;
        for (const Stop &s : m_build.engine.stops)
            stops.emplace(s.id, static_cast<int>(stops.size()));
        const auto &all = m_list.all();
        for (size_t i = 0; i < all.size(); ++i) {
            const Check &c = all[i];
            if (!c.asked || !c.isOpen())
                continue;
            itemOf[i] = m_items.size();
            WorkItem item;
            item.id = c.id();
            item.minutes = c.kind->minutes * m_pace.factor(c.kind->id);
            item.wait_d = c.kind->waitDays;
            if (c.isUnderWay()) {
                item.wait_d = 0; // it is passing
                item.from_d = std::max(0, daysBetween(m_out.begins, c.due).value_or(0));
                item.first = c.isLate(m_out.begins);
            }
            item.stage = static_cast<int>(c.kind->stage);
            item.setup = setupOf(*c.kind);
            const auto stop = stops.find(c.place.stop);
            item.place = stop == stops.end() ? -1 : stop->second;
            item.harm = static_cast<int>(c.cls);
            item.row = static_cast<int>(rowOf(*c.kind));
            m_items.push_back(std::move(item));
            m_checks.push_back(&c);
        }
        for (size_t n = 0; n < m_checks.size(); ++n)
            for (const size_t before : m_checks[n]->after)
                if (const auto at = itemOf.find(before); at != itemOf.end())
                    m_items[n].after.push_back(at->second);
        gates();
    }

    /// What goes through a gate waits for all that shuts it: nobody fires an engine whose filter is
    /// still to be looked at.
    void gates()
    {
        struct Through
        {
            std::string_view kind;
            CheckGate gate;
        };
        static constexpr std::array<Through, 3> through { {
            { "press", CheckGate::Turn },
            { "fire", CheckGate::Fire },
            { "sheet", CheckGate::Handover },
        } };
        for (size_t n = 0; n < m_checks.size(); ++n)
            for (const Through &t : through) {
                if (m_checks[n]->kind->id != t.kind)
                    continue;
                auto &after = m_items[n].after;
                for (size_t i = 0; i < m_checks.size(); ++i)
                    if (i != n && m_checks[i]->kind->gate() <= t.gate
                        && m_checks[i]->kind->stage <= m_checks[n]->kind->stage
                        && CheckList::shuts(*m_checks[i]))
                        after.push_back(i);
                std::ranges::sort(after);
                after.erase(std::unique(after.begin(), after.end()), after.end());
            }
    }

    /// Which of them the first start waits for; once it ran, the hand-over.
    void lead()
    {
        const auto at = std::ranges::find_if(
            m_checks, [](const Check *c) { return c->kind->id == firstStart; });
        m_fires = at != m_checks.end();
        if (!m_fires)
            return;
        for (WorkItem &i : m_items)
            i.leadsToStart = false;
        std::vector<size_t> open { static_cast<size_t>(at - m_checks.begin()) };
        m_fire = open.front();
        while (!open.empty()) {
            WorkItem &i = m_items[open.back()];
            open.pop_back();
            if (i.leadsToStart)
                continue;
            i.leadsToStart = true;
            open.insert(open.end(), i.after.begin(), i.after.end());
        }
    }

    void rows(const Schedule &done)
    {
        for (const size_t i : done.order) {
            PlannedCheck row { m_checks[i], done.times[i] };
            row.minutes = m_items[i].minutes;
            row.late = m_items[i].first;
            row.now = m_items[i].after.empty() && m_items[i].from_d <= m_begin_d;
            if (!row.now)
                row.waitsFor = rootsOf(i);
            m_out.rows.push_back(std::move(row));
        }
    }

    /// Each root once, in the order of the list.
    std::vector<const Check *> rootsOf(size_t item) const
    {
        std::vector<char> seen(m_items.size(), 0);
        std::set<size_t> roots;
        std::vector<size_t> open { item };
        while (!open.empty()) {
            const size_t i = open.back();
            open.pop_back();
            for (const size_t before : m_items[i].after)
                if (!std::exchange(seen[before], char(1))) {
                    if (m_items[before].after.empty())
                        roots.insert(before);
                    open.push_back(before);
                }
        }
        std::vector<const Check *> out;
        for (const size_t i : roots)
            out.push_back(m_checks[i]);
        return out;
    }

    void hours()
    {
        std::map<Stage, std::vector<WorkToDo>> work;
        for (const Check *c : m_checks) {
            auto &ofStage = work[c->kind->stage];
            const auto same = std::ranges::find(ofStage, c->kind->id, &WorkToDo::kind);
            if (same != ofStage.end())
                ++same->count;
            else
                ofStage.push_back(
                    { std::string(c->kind->id), static_cast<double>(c->kind->minutes) });
        }
        std::vector<WorkToDo> all;
        for (const auto &[stage, ofStage] : work) {
            m_out.stageHours[stage] = m_pace.hours(ofStage);
            all.insert(all.end(), ofStage.begin(), ofStage.end());
        }
        m_out.hours = m_pace.hours(all);
        m_out.timed = m_pace.timed();
    }

    /// The forward pass with hands and waits at their low, usual and high.
    void start(const Schedule &usual)
    {
        if (!m_fires)
            return;
        const auto with = [&](double hands, double waits) -> double {
            std::vector<WorkItem> items = m_items;
            for (size_t i = 0; i < items.size(); ++i) {
                items[i].minutes *= hands;
                items[i].wait_d *= items[i].due_d ? 1 : waits;
                items[i].from_d *= m_checks[i]->promised ? 1 : waits;
            }
            const auto at = schedule(items, m_out.hands, m_begin_d);
            return at ? at->times[m_fire].hands_d - m_begin_d : 0;
        };
        const HoursRange &h = m_out.hours;
        const double ratio = h.likely_h > 0 ? h.high_h / h.likely_h : 1;
        m_out.start_d
            = HoursRange { with(1 / ratio, shortWait), usual.times[m_fire].hands_d - m_begin_d,
                           with(ratio, longWait) };
    }

    const Build &m_build;
    const CheckList &m_list;
    PaceModel m_pace;
    double m_begin_d = 0;
    bool m_fires = false;
    size_t m_fire = 0;
    std::vector<WorkItem> m_items;
    std::vector<const Check *> m_checks;
    WorkPlan m_out;
};

} // namespace

int setupOf(const CheckKind &kind)
{
    for (size_t i = 0; i < setups.size(); ++i)
        if (hasWord(setups[i], kind.id))
            return static_cast<int>(i);
    return static_cast<int>(setups.size() + rowOf(kind));
}

const PlannedCheck *WorkPlan::next() const
{
    const auto late = std::ranges::find_if(rows, &PlannedCheck::late);
    const auto at = late != rows.end() ? late : std::ranges::find_if(rows, &PlannedCheck::now);
    return at == rows.end() ? nullptr : &*at;
}

const PlannedCheck *WorkPlan::find(std::string_view check) const
{
    const auto at
        = std::ranges::find_if(rows, [&](const PlannedCheck &r) { return r.check->id() == check; });
    return at == rows.end() ? nullptr : &*at;
}

const PlannedCheck *WorkPlan::find(const Check &check) const
{
    const auto at = std::ranges::find(rows, &check, &PlannedCheck::check);
    return at == rows.end() ? nullptr : &*at;
}

std::string WorkPlan::dayOf(double moment_d) const
{
    return dayAfter(begins, static_cast<int>(std::floor(moment_d)));
}

int WorkPlan::nowCount() const
{
    return static_cast<int>(std::ranges::count_if(rows, &PlannedCheck::now));
}

WorkPlan planOf(const Build &build, const CheckList &list, std::string_view now)
{
    return Planner(build, list, now).run();
}

namespace {

/// "Main bearing half shells, green: ordered since Fri 27 Nov; due Tue 1 Dec", or what is to be
/// done.
Phrase waitedFor(const Check &check)
{
    if (!check.isUnderWay())
        return check.statement();
    return { "plan.under_way", "{0}: {1}", { check.place.name, check.reason } };
}

} // namespace

Phrase waitText(const PlannedCheck &row)
{
    constexpr size_t told = 2;
    std::vector<Phrase> names;
    if (row.waitsFor.empty()) // itself under way
        return row.check->reason;
    for (size_t i = 0; i < std::min(told, row.waitsFor.size()); ++i)
        names.push_back(waitedFor(*row.waitsFor[i]));
    const Phrase all = joinedBy(names, "{*|; }");
    if (row.waitsFor.size() <= told)
        return { "plan.waits", "waits for {0}", { all } };
    return { "plan.waits_more",
             "waits for {0}; and {1} more",
             { all, asCount(row.waitsFor.size() - told) } };
}

Phrase doText(const PlannedCheck &row)
{
    const Check &c = *row.check;
    // A look that is due stands for the check that asks for looks.
    const bool told = row.late || (c.kind->id == "again" && !c.next.empty());
    return told ? c.next : c.statement();
}

Phrase whyText(const WorkPlan &plan, const PlannedCheck &row)
{
    if (row.late)
        return "the day it was promised for has passed";
    int behind = 0;
    const Check *first = nullptr;
    for (const PlannedCheck &r : plan.rows)
        if (std::ranges::find(r.waitsFor, row.check) != r.waitsFor.end()) {
            ++behind;
            if (!first)
                first = r.check;
        }
    if (row.check->kind->waitDays > 0)
        return { "plan.why_wait",
                 "its {0} days pass by themselves: the sooner it is begun",
                 { asCount(row.check->kind->waitDays) } };
    if (behind == 0)
        return row.time.slack_d ? Phrase("the first start waits for it")
                                : Phrase("last of its kind");
    return { "plan.why", "then {0} can be done", { first->statement() } };
}

} // namespace mildpath
