// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/afterreport.h"

#include "assess/cutreport.h"
#include "assess/finishreport.h"
#include "assess/oilreport.h"
#include "assess/recheck.h"
#include "assess/rules.h"
#include "assess/sealreport.h"
#include "quantity/hours.h"
#include "quantity/json.h"

namespace mildpath {
namespace {

template <class T> Json orNull(const std::optional<T> &value)
{
    return value ? Json(*value) : Json();
}

std::string bracketed(Mark mark)
{
    return " [" + std::string(markWord(mark)) + "]";
}

Json cutsToJson(const Build &build)
{
    Json out = Json::array();
    for (const JudgedCut &c : reportCuts(build).cuts) {
        Json kinds = Json::array();
        for (const JudgedKind &k : c.kinds) {
            Json one { { "kind", k.kind },
                       { "count", orNull(k.count) },
                       { "per_100h_100cm2", k.count ? Json(k.per100h_100cm2) : Json() },
                       { "mark", markId(k.mark) },
                       { "verdict", k.verdict } };
            if (k.against)
                one["against"] = { { "cut", k.againstCut },
                                   { "rate_ratio", orNull(k.against->ratio) },
                                   { "ratio_low_95", orNull(k.against->low95) },
                                   { "ratio_high_95", orNull(k.against->high95) },
                                   { "p_value", k.against->p } };
            kinds.push_back(std::move(one));
        }
        out.push_back({ { "id", c.id },
                        { "engine_hours_h", c.engine_h },
                        { "first_hours", c.firstHours },
                        { "mark", markId(c.mark) },
                        { "verdict", c.verdict },
                        { "remarks", c.remarks },
                        { "kinds", std::move(kinds) } });
    }
    return out;
}

Json samplesToJson(const OilReport &report)
{
    Json out = Json::array();
    for (const JudgedSample &s : report.samples) {
        Json elements = Json::array();
        for (const JudgedElement &e : s.elements)
            elements.push_back(
                { { "symbol", e.symbol },
                  { "mg_kg", e.mg_kg },
                  { "baseline_mg_kg", orNull(e.baseline_mg_kg) },
                  { "rate_mg_kg_per_100h", e.wear ? Json(e.wear->per100h_mg_kg) : Json() },
                  { "history_median", e.pattern ? Json(e.pattern->median) : Json() },
                  { "robust_z", e.pattern ? orNull(e.pattern->z) : Json() },
                  { "alarm", e.alarm },
                  { "mark", markId(e.mark) },
                  { "verdict", e.verdict } });
        out.push_back({ { "id", s.id },
                        { "engine_hours_h", s.engine_h },
                        { "stretch_h", s.stretch_h },
                        { "mark", markId(s.mark) },
                        { "verdict", s.verdict },
                        { "viscosity_loss_fraction", orNull(s.viscosityLoss) },
                        { "fuel_loss_fraction", orNull(s.fuelLoss) },
                        { "viscosity", s.viscosity },
                        { "remarks", s.remarks },
                        { "elements", std::move(elements) } });
    }
    return out;
}

Json openingsToJson(const Build &build)
{
    Json out = Json::array();
    for (const Opening *o : standing(build.openings)) {
        Json sizes = Json::array();
        for (const Rechecked &r : recheckOf(build, *o).sizes)
            sizes.push_back({ { "stop", r.stop },
                              { "name", r.name },
                              { "before_um", r.before_um ? Json(r.before_um->value) : Json() },
                              { "after_um", r.after_um.value },
                              { "change_um", r.before_um ? Json(r.change_um) : Json() },
                              { "u_um", r.before_um ? Json(r.u_um) : Json() },
                              { "changed", r.changed },
                              { "mark", markId(r.mark) },
                              { "verdict", r.verdict } });
        out.push_back(
            { { "id", o->id }, { "engine_hours_h", o->engine_h }, { "sizes", std::move(sizes) } });
    }
    return out;
}

Json boresToJson(const Build &build)
{
    const std::vector<ReadTrace> traces = readTraces(build);
    Json out = Json::array();
    for (int bore = 1; bore <= build.engine.cylinders; ++bore)
        for (const std::string_view phase : phases()) {
            Json values = Json::object();
            int most = 0;
            for (const FinishQuantity &q : finishQuantities()) {
                const FinishRange r = rangeOf(traces, bore, phase, q);
                most = std::max(most, r.traces);
                if (r.traces > 0)
                    values[std::string(q.key)]
                        = { { "mean", r.mean }, { "least", r.least }, { "most", r.most } };
            }
            if (most > 0)
                out.push_back({ { "bore", bore },
                                { "phase", phase },
                                { "traces", most },
                                { "trust", trustIn(most) },
                                { "parameters", std::move(values) } });
        }
    return out;
}

std::string oilText(const Build &build, const UnitStyle &style)
{
    const OilReport report = reportOil(build);
    std::string out = "\nOil analysis\n";
    const auto line = [&](const Phrase &phrase) { out += render(phrase, style) + "\n"; };
    if (report.samples.empty())
        line("  no sample");
    else if (report.sump_kg)
        line({ "after.oil",
               "  oil in the engine: {0} kg, {1}",
               { asNumber(*report.sump_kg, 2), report.sumpFrom } });
    else
        line({ "", "  oil in the engine: {0}", { report.sumpFrom } });
    for (const JudgedSample &s : report.samples) {
        line({ "", "  {0}: {1}{2}", { hoursText(s.engine_h), s.verdict, bracketed(s.mark) } });
        for (const JudgedElement &e : s.elements)
            if (e.alarm || e.mark == Mark::LookAgain)
                line({ "", "    {0}: {1}", { e.symbol, e.verdict } });
        if (!s.viscosity.empty())
            line({ "", "    {0}", { s.viscosity } });
        for (const Phrase &r : s.remarks)
            line({ "", "    note: {0}", { r } });
    }
    return out;
}

std::string boreText(const Build &build, const UnitStyle &style)
{
    const std::vector<ReadTrace> traces = readTraces(build);
    std::string out = "\nBore finish\n";
    if (traces.empty())
        return out + "  no trace\n";
    for (const ReadTrace &t : traces)
        if (!t.trace)
            out += render({ "", "  {0}: {1}\n", { t.id, t.trouble } }, style);
    for (int bore = 1; bore <= build.engine.cylinders; ++bore)
        for (const std::string_view phase : phases()) {
            const int n = rangeOf(traces, bore, phase, finishQuantities().front()).traces;
            if (n == 0)
                continue;
            out += "  bore " + std::to_string(bore) + " " + std::string(phase) + " strokes, "
                + std::to_string(n) + (n == 1 ? " trace:" : " traces:");
            for (const FinishQuantity &q : finishQuantities())
                if (const FinishRange r = rangeOf(traces, bore, phase, q); r.traces > 0)
                    out += render({ "", " {0} {1}", { q.name, q.asQuantity(r.mean) } }, style);
            out += "\n";
            if (!trustIn(n).empty())
                out += render({ "", "    {0}\n", { trustIn(n) } }, style);
        }
    return out;
}

} // namespace

Json afterRunToJson(const Build &build)
{
    const OilReport oil = reportOil(build);
    Json seal = Json::array();
    for (const SealPair &p : reportSeal(build).pairs)
        seal.push_back({ { "kind", p.kind },
                         { "rpm", p.rpm },
                         { "load_percent", p.load_percent },
                         { "before", p.before.values },
                         { "after", p.after.values },
                         { "change", orNull(p.change) },
                         { "counts", p.counts },
                         { "mark", markId(p.mark) },
                         { "verdict", p.verdict } });
    return { { "name", build.name },
             { "filter_cuts", cutsToJson(build) },
             { "sump_mass_kg", orNull(oil.sump_kg) },
             { "oil_samples", samplesToJson(oil) },
             { "openings", openingsToJson(build) },
             { "ring_seal", std::move(seal) },
             { "bores", boresToJson(build) } };
}

std::string afterRunText(const Build &build, const UnitStyle &style)
{
    std::string out = build.name + "\n\nFilter cuts\n";
    const auto line = [&](const Phrase &phrase) { out += render(phrase, style) + "\n"; };
    const CutReport cuts = reportCuts(build);
    if (cuts.cuts.empty())
        line("  none");
    for (const JudgedCut &c : cuts.cuts) {
        line({ "", "  {0}: {1}{2}", { hoursText(c.engine_h), c.verdict, bracketed(c.mark) } });
        for (const JudgedKind &k : c.kinds)
            line({ "", "    {0}: {1}", { findCutKind(k.kind)->name, k.verdict } });
        for (const std::string &r : c.remarks)
            line({ "", "    note: {0}", { r } });
    }
    out += oilText(build, style);
    out += "\nRe-inspection\n";
    for (const Opening *o : standing(build.openings)) {
        line({ "", "  at {0}", { hoursText(o->engine_h) } });
        for (const Rechecked &r : recheckOf(build, *o).sizes)
            line({ "", "    {0}: {1}{2}", { r.name, r.verdict, bracketed(r.mark) } });
    }
    out += "\nRing seal\n";
    for (const SealPair &p : reportSeal(build).pairs)
        line({ "",
               "  {0}, {1}: {2}",
               { p.kind == "vacuum" ? "vacuum" : "blow-by", asSpeed(p.rpm), p.verdict } });
    return out + boreText(build, style);
}

} // namespace mildpath
