// SPDX-License-Identifier: GPL-3.0-or-later
#include "shelf/compare.h"

#include "assess/cutreport.h"
#include "assess/finishreport.h"
#include "assess/oilreport.h"
#include "assess/sealreport.h"
#include "checks/assessment.h"
#include "quantity/hours.h"
#include "quantity/rounding.h"
#include "storage/buildfile.h"
#include "storage/passagetables.h"
#include "storage/recordtable.h"

#include <algorithm>
#include <atomic>
#include <thread>

namespace mildpath {
namespace {

bool begins(const std::string &key, std::string_view with, std::string &rest)
{
    if (!key.starts_with(with))
        return false;
    rest = key.substr(with.size());
    return true;
}

ShelfValue ofFamily(const Build &build, const std::string &family)
{
    for (const FamilySummary &f : summarise(judgeSizes(build)))
        if (f.family == family && f.measured > 0)
            return { f.mean_um * 1e-6,
                     f.least_um * 1e-6,
                     f.most_um * 1e-6,
                     { "shelf.mean", "mean of {0}, least and most", { asCount(f.measured) } } };
    return { .of = "not measured" };
}

ShelfValue ofPressure(const LikelyPressure &p)
{
    return { p.value_pa, p.low_pa, p.high_pa, "likely range" };
}

ShelfValue ofForecast(const Build &build, const std::string &key)
{
    const Assessment a = assess(build);
    if (key == "holds")
        return { .value = a.holds(), .of = "count" };
    if (a.operating.unsolved)
        return { .of = { "", "no solution: {0}", { a.operating.unsolved->message } } };
    return ofPressure(key == "hot_idle"      ? a.operating.hotIdle.gauge
                          : key == "weakest" ? a.operating.hotIdle.weakestPressure
                                             : a.operating.highSpeed.gauge);
}

ShelfValue ofCut(const Build &build, const std::string &kind)
{
    const CutReport report = reportCuts(build);
    for (size_t i = report.cuts.size(); i-- > 0;)
        if (const JudgedKind &k = report.cuts[i].kind(kind); k.count)
            return { .value = k.per100h_100cm2,
                     .of = "last cut, " + hoursText(report.cuts[i].engine_h) };
    return { .of = "no cut" };
}

ShelfValue ofWear(const Build &build, const std::string &symbol)
{
    const OilReport report = reportOil(build);
    for (size_t i = report.samples.size(); i-- > 0;)
        if (const JudgedElement *e = report.samples[i].element(symbol); e && e->wear)
            return { .value = e->wear->per100h_mg_kg,
                     .of = "last sample, " + hoursText(report.samples[i].engine_h) };
    return { .of = "no sample with a rate" };
}

ShelfValue ofSeal(const Build &build, const std::string &kind)
{
    for (const SealPair &p : reportSeal(build).pairs)
        if (p.kind == kind) {
            const bool after = !p.after.values.empty();
            const double mean = (after ? p.after : p.before).mean();
            return { .value = kind == "vacuum" ? mean * 1e3 : mean / 100,
                     .of = { "", after ? "after, {0}" : "before, {0}", { asSpeed(p.rpm) } } };
        }
    return { .of = "not read" };
}

ShelfValue ofFinish(const Build &build, const FinishQuantity &q)
{
    const std::vector<ReadTrace> traces = readTraces(build);
    for (const char *phase : { "after", "before" })
        if (const FinishRange r = rangeOf(traces, 0, phase, q); r.traces > 0)
            return {
                q.asQuantity(r.mean).value,
                q.asQuantity(r.least).value,
                q.asQuantity(r.most).value,
                { "shelf.traces", "{0} {0|trace|traces} {1} strokes", { asCount(r.traces), phase } }
            };
    return { .of = "no trace" };
}

} // namespace

std::vector<ShelfQuantity> shelfQuantities()
{
    std::vector<ShelfQuantity> out {
        { "hot_idle", "Hot idle at the pressure gauge", Shows::Pressure, 2, "Forecast" },
        { "weakest", "Hot idle at the weakest feed", Shows::Pressure, 2, "Forecast" },
        { "high_speed", "Higher speed at the pressure gauge", Shows::Pressure, 2, "Forecast" },
        { "holds", "Holds", Shows::Count, 0, "Forecast" },
    };
    for (const Family &f : families())
        out.push_back({ "size." + std::string(f.id),
                        std::string(f.plural) + ", " + std::string(f.quantity), Shows::Clearance, 1,
                        "Sizes" });
    for (const CutKind &k : cutKinds())
        out.push_back({ "cut." + std::string(k.id), "Filter: " + std::string(k.name), Shows::Number,
                        1, "After run", "in 100 h, 100 cm²" });
    for (const OilElement &k : knownOilElements())
        if (k.wear)
            out.push_back({ "wear." + std::string(k.symbol), "Oil analysis: " + std::string(k.name),
                            Shows::Concentration, 1, "After run", "in 100 h" });
    out.push_back({ "seal.blow_by", "Blow-by of what it breathes", Shows::Share, 2, "After run" });
    out.push_back({ "seal.vacuum", "Crankcase vacuum", Shows::CasePressure, 1, "After run" });
    for (const FinishQuantity &q : finishQuantities())
        out.push_back({ std::string(q.key), "Bore: " + std::string(q.name), q.as, q.decimals,
                        "Bore finish" });
    return out;
}

ShelfValue shelfValue(const Build &build, const std::string &key)
{
    std::string rest;
    if (begins(key, "size.", rest))
        return ofFamily(build, rest);
    if (begins(key, "cut.", rest))
        return findCutKind(rest) ? ofCut(build, rest) : ShelfValue { .of = "no such kind" };
    if (begins(key, "wear.", rest))
        return ofWear(build, rest);
    if (begins(key, "seal.", rest))
        return ofSeal(build, rest);
    if (const FinishQuantity *q = findFinishQuantity(key))
        return ofFinish(build, *q);
    return ofForecast(build, key);
}

std::vector<ShelfRow> compareOnShelf(std::span<const ShelfEntry> entries, const std::string &key,
                                     Progress *progress)
{
    if (progress)
        progress->whole = static_cast<int>(entries.size());
    std::vector<ShelfRow> out(entries.size());
    std::vector<char> done(entries.size(), 0);
    std::atomic<size_t> next { 0 };
    {
        std::vector<std::jthread> threads;
        const size_t cores = std::max(1U, std::thread::hardware_concurrency());
        for (size_t k = 0; k < std::min(cores, entries.size()); ++k)
            threads.emplace_back([&] {
                for (size_t i = next++; i < entries.size(); i = next++) {
                    if (progress && progress->cancel)
                        return;
                    const ShelfEntry &e = entries[i];
                    ShelfRow row { e.path, e.name, e.engine, e.last, {}, e.trouble };
                    if (!e.damaged()) {
                        const auto loaded = loadBuild(e.path);
                        if (loaded)
                            row.value = shelfValue(loaded->build, key);
                        else
                            row.trouble = { "",
                                            "{0} {1}",
                                            { loaded.error().errors.front().place,
                                              loaded.error().errors.front().message } };
                    }
                    out[i] = std::move(row);
                    done[i] = 1;
                    if (progress)
                        ++progress->done;
                }
            });
    }
    std::vector<ShelfRow> finished;
    for (size_t i = 0; i < out.size(); ++i)
        if (done[i])
            finished.push_back(std::move(out[i]));
    return finished;
}

std::string shelfToCsv(std::span<const ShelfRow> rows, const ShelfQuantity &q)
{
    std::string unit(shownUnit(q.as, UnitSystem::Metric));
    unit += (unit.empty() || q.note.empty() ? "" : " ") + q.note;
    if (!unit.empty())
        unit = " (" + unit + ")";
    const auto cell = [&](const std::optional<double> &v) {
        return v ? formatPlain(inShownUnit(*v, q.as, UnitSystem::Metric), q.decimals) : "";
    };
    std::vector<Row> table { { "file", "name", "engine", "last", q.name + unit, "low" + unit,
                               "high" + unit, "of" } };
    for (const ShelfRow &r : rows)
        table.push_back(
            { r.path.filename().string(), r.name, r.engine, r.last, cell(r.value.value),
              cell(r.value.low), cell(r.value.high),
              render(r.trouble.empty() ? r.value.of : named("damaged", r.trouble), fileStyle) });
    return tableToCsv(table);
}

Mark markOf(const ShelfEntry &entry, const ShelfRow *row)
{
    return entry.damaged() || (row && !row->trouble.empty()) ? Mark::LookAgain : Mark::Proven;
}

} // namespace mildpath
