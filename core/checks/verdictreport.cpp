// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/verdictreport.h"

#include "assess/rules.h"
#include "quantity/rounding.h"
#include "quantity/types.h"

namespace mildpath {
namespace {

/// SI → the unit of files.
double filed(const VerdictCell &cell, double si)
{
    switch (cell.shows) {
    case Shows::Flow:
        return roundedTo(si * litresPerMinute, 4);
    case Shows::Clearance:
        return roundedTo(si * 1e6, 2);
    default:
        return roundedTo(si / 1e3, 2);
    }
}

std::string_view filedUnit(const VerdictCell &cell)
{
    return cell.shows == Shows::Flow ? "l/min" : cell.shows == Shows::Clearance ? "µm" : "kPa";
}

Json cellToJson(const VerdictCell &c, const OperatingState &state, const VerdictRange *range)
{
    return { { "state", state.kind->id },
             { "stop", c.stop },
             { "at", c.at },
             { "unit", filedUnit(c) },
             { "value", filed(c, c.value) },
             { "limit", c.limit > 0 ? Json(filed(c, c.limit)) : Json() },
             { "low", range ? Json(filed(c, range->low_pa)) : Json() },
             { "high", range ? Json(filed(c, range->high_pa)) : Json() },
             { "ratio", roundedTo(c.ratio, 3) },
             { "mark", markId(c.mark) } };
}

} // namespace

Json verdictsToJson(const VerdictTable &table, const VerdictRanges &ranges)
{
    Json rows = Json::array(), wide = Json::array();
    for (const VerdictRow &r : table.rows) {
        Json cells = Json::array();
        for (size_t at = 0; at < table.states.size(); ++at)
            if (r.cells[at].mark != Mark::NotAsked)
                cells.push_back(cellToJson(r.cells[at], *table.states[at],
                                           ranges.find(r.id, table.states[at]->kind->id)));
        rows.push_back({ { "id", r.id },
                         { "name", r.name },
                         { "limit_is_a_most", r.upper },
                         { "absolute", r.absolute },
                         { "cells", std::move(cells) } });
    }
    for (const WideCause &c : wideCauses(table, ranges))
        wide.push_back({ { "by", c.by },
                         { "action", c.action },
                         { "figures", c.figures },
                         { "past", c.past },
                         { "settled", c.settled } });
    return { { "inside", table.inside },
             { "doubtful", table.doubtful },
             { "beyond", table.beyond },
             { "rows", std::move(rows) },
             { "wide", std::move(wide) } };
}

std::string verdictsText(const VerdictTable &table, const VerdictRanges &ranges,
                         const UnitStyle &style)
{
    std::string out;
    const auto line = [&](const Phrase &phrase) { out += render(phrase, style) + "\n"; };
    line({ "verdicts.count",
           "{0} of {1} inside",
           { asCount(table.inside), asCount(table.inside + table.doubtful + table.beyond) } });
    for (const VerdictRow &r : table.rows)
        for (size_t at = 0; at < table.states.size(); ++at) {
            const VerdictCell &c = r.cells[at];
            const OperatingState &state = *table.states[at];
            const VerdictRange *range = ranges.find(r.id, state.kind->id);
            const bool past = range && c.limit > 0 && reachesPast(r, c, *range);
            if (c.mark == Mark::NotAsked || (c.isInside() && !past))
                continue;
            Phrase said { "verdicts.cell",
                          r.upper ? "  {0}, {1}: {2}, holds above {3}"
                                  : "  {0}, {1}: {2}, needs {3}",
                          { c.at.empty() ? r.name : r.name + " (" + c.at + ")", state.kind->name,
                            c.figure(c.value), c.figure(c.limit) } };
            if (range)
                append(said,
                       { "verdicts.likely",
                         "likely {0}",
                         { QuantityRange { c.figure(range->low_pa), c.figure(range->high_pa) } } },
                       "{*|, }");
            append(said, std::string(markWord(c.mark)), "{*|: }");
            line(said);
        }
    const auto causes = wideCauses(table, ranges);
    if (!causes.empty())
        line("\nWhat would narrow most");
    for (const WideCause &c : causes)
        line({ "", "  {0}", { wideText(c) } });
    return out;
}

Phrase wideText(const WideCause &c)
{
    const Phrase figures { "verdicts.wide",
                           c.figures == 1 ? "{0} range too wide" : "{0} ranges too wide",
                           { asCount(c.figures) } };
    if (c.past == 0)
        return { "verdicts.narrows", "{0}: {1}", { c.action, figures } };
    return { "verdicts.settles",
             "{0}: {1}, {2} past a limit, of which it settles {3}",
             { c.action, figures, asCount(c.past), asCount(c.settled) } };
}

} // namespace mildpath
