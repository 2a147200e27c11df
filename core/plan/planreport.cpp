// SPDX-License-Identifier: GPL-3.0-or-later
#include "plan/planreport.h"

#include "quantity/dates.h"
#include "quantity/rounding.h"

#include <algorithm>

namespace mildpath {
namespace {

class Teller
{
public:
    Teller(const WorkPlan &plan, const PlanShown &shown, const UnitStyle &style)
        : m_plan(plan)
        , m_shown(shown)
        , m_style(style)
    {
    }

    std::string run(const std::string &name)
    {
        line(name);
        if (m_plan.problem) {
            line({ "plan.problem",
                   "No order: {0} {1}",
                   { m_plan.problem->place, m_plan.problem->message } });
            return std::move(m_text);
        }
        if (const PlannedCheck *next = m_plan.next())
            line({ "plan.next",
                   "Next: {0}, {1}: {2}",
                   { doText(*next), asMinutes(next->minutes), whyText(m_plan, *next) } });
        else
            line(m_plan.rows.empty() ? Phrase("Nothing is open")
                                     : Phrase("Nothing can be done now"));
        if (m_plan.showsHours() || m_shown.hours)
            hours();
        line({ "plan.now", "\nCan be done now: {0}", { asCount(m_plan.nowCount()) } });
        for (const PlannedCheck &r : m_plan.rows)
            if (r.now)
                line({ "", "  {0}, {1}", { r.check->statement(), asMinutes(r.minutes) } });
        const auto waiting = static_cast<int>(m_plan.rows.size()) - m_plan.nowCount();
        line({ "plan.waiting", "\nWaits: {0}", { asCount(waiting) } });
        if (m_shown.all)
            for (const PlannedCheck &r : m_plan.rows)
                if (!r.now)
                    line({ "", "  {0}: {1}", { r.check->statement(), waitText(r) } });
        return std::move(m_text);
    }

private:
    void hours()
    {
        const HoursRange &h = m_plan.hours;
        line({ "plan.hours",
               "Hands left: about {0}, {1} nine times in ten; {2}",
               { asHours(h.likely_h), QuantityRange { asHours(h.low_h), asHours(h.high_h) },
                 m_plan.timed > 0
                     ? Phrase("plan.learned", "learned from {0} timed", { asCount(m_plan.timed) })
                     : Phrase("nothing timed yet") } });
        if (m_plan.start_d)
            line({ "plan.start",
                   "First start about {0}, {1} to {2}",
                   { startDay(m_plan.start_d->likely_h), startDay(m_plan.start_d->low_h),
                     startDay(m_plan.start_d->high_h) } });
    }
    std::string startDay(double in_d) const { return nearDayText(m_plan.startDay(in_d)); }
    void line(const Phrase &phrase) { m_text += render(phrase, m_style) + "\n"; }

    const WorkPlan &m_plan;
    const PlanShown &m_shown;
    const UnitStyle &m_style;
    std::string m_text;
};

} // namespace

std::string planText(const Build &build, const WorkPlan &plan, const PlanShown &shown,
                     const UnitStyle &style)
{
    return Teller(plan, shown, style).run(build.name);
}

Json planToJson(const WorkPlan &plan)
{
    Json out;
    const PlannedCheck *next = plan.next();
    out["next"] = next ? Json(next->check->id()) : Json();
    out["rows"] = Json::array();
    for (const PlannedCheck &r : plan.rows) {
        Json row = { { "id", r.check->id() },
                     { "minutes", roundedTo(r.minutes, 1) },
                     { "now", r.now },
                     { "start_d", roundedTo(r.time.start_d, 4) },
                     { "done_d", roundedTo(r.time.done_d, 4) },
                     { "slack_d", r.time.slack_d ? Json(roundedTo(*r.time.slack_d, 4)) : Json() },
                     { "who", plan.hands[r.time.hand].name } };
        row["waits_for"] = Json::array();
        for (const Check *c : r.waitsFor)
            row["waits_for"].push_back(c->id());
        out["rows"].push_back(std::move(row));
    }
    out["hours"] = { { "low", roundedTo(plan.hours.low_h, 2) },
                     { "likely", roundedTo(plan.hours.likely_h, 2) },
                     { "high", roundedTo(plan.hours.high_h, 2) },
                     { "timed", plan.timed } };
    if (plan.start_d)
        out["first_start_d"] = { { "low", roundedTo(plan.start_d->low_h, 2) },
                                 { "likely", roundedTo(plan.start_d->likely_h, 2) },
                                 { "high", roundedTo(plan.start_d->high_h, 2) } };
    if (plan.problem)
        out["problem"] = { { "place", plan.problem->place }, { "message", plan.problem->message } };
    return out;
}

} // namespace mildpath
