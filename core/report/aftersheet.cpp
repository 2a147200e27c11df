// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/aftersheet.h"

#include "assess/cutreport.h"
#include "assess/finishreport.h"
#include "assess/oilreport.h"
#include "assess/recheck.h"
#include "assess/sealreport.h"
#include "quantity/hours.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// The entry of a list with this id.
template <class T> const T &entryOf(const SharedList<T> &list, const std::string &id)
{
    return *std::find_if(list.begin(), list.end(), [&](const T &e) { return e.id == id; });
}

void add(std::vector<SheetBlock> &out, Phrase heading, SheetTable table)
{
    if (table.rows.empty())
        return;
    out.push_back(SheetHeading { std::move(heading) });
    out.push_back(std::move(table));
}

void cuts(const Build &build, std::vector<SheetBlock> &out)
{
    SheetTable t { { "engine", "bright", "copper", "magnetic", "black", "pliable", "says", "by" },
                   { 0.1, 0.09, 0.09, 0.1, 0.08, 0.08, 0.34, 0.12 },
                   {} };
    for (const JudgedCut &c : reportCuts(build).cuts) {
        const FilterCut &cut = entryOf(build.filterCuts, c.id);
        std::vector<SheetCell> row { { hoursText(c.engine_h), c.mark } };
        for (const JudgedKind &k : c.kinds)
            row.push_back({ k.count ? Phrase("", "{0}", { asCount(*k.count) }) : "not looked" });
        row.push_back({ joinedBy({ c.verdict, cut.settled }, "{*|; }") });
        row.push_back({ whoText(cut.by) });
        t.rows.push_back(std::move(row));
    }
    add(out, "Filter cuts: particles by kind", std::move(t));
}

void oil(const Build &build, std::vector<SheetBlock> &out)
{
    SheetTable t { { "engine", "over", "says", "viscosity", "by" },
                   { 0.1, 0.1, 0.36, 0.32, 0.12 },
                   {} };
    for (const JudgedSample &s : reportOil(build).samples) {
        const OilSample &sample = entryOf(build.oilSamples, s.id);
        Phrase says = s.verdict;
        for (const Phrase &r : s.remarks)
            append(says, r);
        append(says, sample.settled);
        t.rows.push_back({ { hoursText(s.engine_h), s.mark },
                           { hoursText(s.stretch_h) },
                           { says },
                           { s.viscosity },
                           { whoText(sample.by) } });
    }
    add(out, "Oil analysis, against this engine's own", std::move(t));
}

void rechecks(const Build &build, std::vector<SheetBlock> &out)
{
    SheetTable t { { "opened", "size", "before", "after", "says" },
                   { 0.1, 0.2, 0.12, 0.12, 0.46 },
                   {} };
    for (const Opening *o : standing(build.openings))
        for (const Rechecked &r : recheckOf(build, *o).sizes)
            t.rows.push_back({ { hoursText(o->engine_h) },
                               { r.name, r.mark },
                               { r.before_um ? asPhrase(asClearance(r.before_um->value)) : "–" },
                               { asPhrase(asClearance(r.after_um.value)) },
                               { r.verdict } });
    add(out, { "sheet.reinspected", "Re-inspection: diametral, at {0}", { asTemperature(20) } },
        std::move(t));
}

void bores(const Build &build, std::vector<SheetBlock> &out)
{
    const std::vector<ReadTrace> traces = readTraces(build);
    constexpr std::array keys { "rk_um", "rpk_um", "rvk_um", "vo_um3_um2", "rpq_um", "rvq_um" };
    SheetTable t { { "bore", "traces" }, { 0.22, 0.12 }, {} };
    for (const char *key : keys) {
        const FinishQuantity &q = *findFinishQuantity(key);
        t.head.push_back(q.name);
        t.widths.push_back(0.11);
    }
    for (int bore = 1; bore <= build.engine.cylinders; ++bore)
        for (const std::string_view phase : phases()) {
            const int n = rangeOf(traces, bore, phase, finishQuantities().front()).traces;
            if (n == 0)
                continue;
            std::vector<SheetCell> row {
                { std::to_string(bore) + ", " + std::string(phase) + " strokes" },
                { std::to_string(n) + (n < enoughTraces ? ", weak" : "") }
            };
            for (const char *key : keys) {
                const FinishQuantity &q = *findFinishQuantity(key);
                const FinishRange r = rangeOf(traces, bore, phase, q);
                row.push_back({ r.traces > 0 ? asPhrase(q.asQuantity(r.mean)) : "–" });
            }
            t.rows.push_back(std::move(row));
        }
    add(out, "Bore finish, mean of the traces", std::move(t));
}

void seal(const Build &build, std::vector<SheetBlock> &out)
{
    SheetTable t { { "read", "at", "before → after" }, { 0.24, 0.26, 0.5 }, {} };
    for (const SealPair &p : reportSeal(build).pairs)
        t.rows.push_back({ { p.kind == "vacuum" ? "crankcase vacuum" : "blow-by", p.mark },
                           { { "sheet.load",
                               "{0}, load {1}",
                               { asSpeed(p.rpm), asShare(p.load_percent / 100) } } },
                           { p.verdict } });
    add(out, "How the rings seal", std::move(t));
}

} // namespace

std::vector<SheetBlock> afterRunBlocks(const Build &build)
{
    std::vector<SheetBlock> out;
    cuts(build, out);
    oil(build, out);
    rechecks(build, out);
    bores(build, out);
    seal(build, out);
    return out;
}

} // namespace mildpath
