// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/daysheet.h"

#include "assess/figuremarks.h"
#include "kinds/cautions.h"
#include "plan/orders.h"
#include "plan/workplan.h"
#include "quantity/dates.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// What to lay out for these rows, and what to look out for, by stage, each once.
void addStages(const DayOfWork &day, BuildSheet &sheet)
{
    std::vector<Stage> stages;
    for (const PlannedCheck *r : day.rows)
        if (const Stage stage = r->check->kind->stage;
            std::ranges::find(stages, stage) == stages.end())
            stages.push_back(stage);
    for (const Stage stage : stages) {
        const AboutStage &about = aboutStage(stage);
        if (!about.needs.empty())
            sheet.blocks.emplace_back(
                SheetText { { "day.needs", "{0}: {1}.", { about.name, about.needs } } });
        if (!about.caution.empty())
            sheet.blocks.emplace_back(SheetText { about.caution });
    }
}

SheetTable tableOf(const DayOfWork &day)
{
    SheetTable out { { "what", "where", "min", "done" }, { 0.56, 0.22, 0.08, 0.14 }, {} };
    for (const PlannedCheck *r : day.rows) {
        const Check &c = *r->check;
        out.rows.push_back({ { c.kind->statement, markOf(c) },
                             { c.place.name },
                             { r->minutes > 0 ? asPhrase(asNumber(r->minutes, 0)) : Phrase() },
                             {} });
    }
    return out;
}

} // namespace

std::vector<DayOfWork> daysOfWork(const WorkPlan &plan)
{
    double day = INFINITY;
    for (const PlannedCheck &r : plan.rows)
        if (r.minutes > 0)
            day = std::min(day, std::floor(r.time.start_d));
    std::vector<DayOfWork> out;
    for (const WorkHand &h : plan.hands)
        out.push_back({ h.name, {}, 0 });
    for (const PlannedCheck &r : plan.rows)
        if (r.minutes > 0 && std::floor(r.time.start_d) <= day) {
            out[r.time.hand].rows.push_back(&r);
            out[r.time.hand].minutes += r.minutes;
        }
    std::erase_if(out, [](const DayOfWork &d) { return d.rows.empty(); });
    return out;
}

BuildSheet daySheet(const Build &build, const WorkPlan &plan, const std::string &date,
                    const UnitStyle &style)
{
    BuildSheet out;
    out.title = build.name;
    out.style = style;
    out.under.emplace_back(Phrase { "day.of", "Day sheet, {0}", { dayText(date) } });
    const auto days = daysOfWork(plan);
    out.mark = doneMark(plan.rows.empty());
    out.state = days.empty()
        ? (plan.rows.empty() ? Phrase("Nothing is open") : Phrase("Nothing can be done: all waits"))
        : Phrase("day.open", "{0} checks open, {1} can be done now",
                 { asCount(plan.rows.size()), asCount(plan.nowCount()) });
    for (const DayOfWork &day : days) {
        out.blocks.emplace_back(
            SheetHeading { day.name.empty() ? Phrase("To do") : Phrase(day.name) });
        addStages(day, out);
        out.blocks.emplace_back(tableOf(day));
    }
    out.blocks.emplace_back(SheetText { std::string(caution::deferring), true });
    return out;
}

BuildSheet orderSheet(const Build &build, const Orders &orders, const std::string &date,
                      const UnitStyle &style)
{
    BuildSheet out;
    out.title = build.name;
    out.style = style;
    out.under.emplace_back(Phrase { "order.of", "To order and to send, {0}", { dayText(date) } });
    const auto by
        = [](const std::string &day) { return day.empty() ? Phrase() : Phrase(nearDayText(day)); };
    SheetTable buy { { "what", "size", "how many", "order by", "state" },
                     { 0.3, 0.26, 0.1, 0.12, 0.22 },
                     {} };
    int open = 0;
    for (const ToBuy &b : orders.buy) {
        open += b.isToOrder();
        buy.rows.push_back({ { b.row.what, b.mark() },
                             { b.size() },
                             { buyAmount(b.row) },
                             { by(b.latest) },
                             { b.state() } });
    }
    SheetTable send { { "work", "note", "send by", "state" }, { 0.34, 0.28, 0.12, 0.26 }, {} };
    for (const ToSend &s : orders.send) {
        open += s.isToSend();
        send.rows.push_back(
            { { s.what(), s.mark }, { s.job->note }, { by(s.latest) }, { s.state() } });
    }
    out.mark = doneMark(open == 0);
    out.state = open == 0 ? Phrase("Nothing is to be ordered or sent")
                          : Phrase("order.open", "{0} to order or send", { asCount(open) });
    for (auto &[heading, table] :
         { std::pair("To buy", &buy), std::pair("To the machine shop", &send) })
        if (!table->rows.empty()) {
            out.blocks.emplace_back(SheetHeading { heading });
            out.blocks.emplace_back(std::move(*table));
        }
    if (!orders.together.empty())
        out.blocks.emplace_back(SheetText { orders.together });
    out.blocks.emplace_back(SheetText { std::string(caution::deferring), true });
    out.blocks.emplace_back(SheetNotes {});
    return out;
}

} // namespace mildpath
