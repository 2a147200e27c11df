// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/assessmentreport.h"

#include "assess/air.h"
#include "assess/believed.h"
#include "assess/cleanmarks.h"
#include "assess/fits.h"
#include "assess/forecast.h"
#include "checks/assessment.h"
#include "quantity/json.h"
#include "study/beside.h"

#include <cmath>

namespace mildpath {
namespace {

double kpa(double pa)
{
    return roundedTo(pa / 1e3, 2);
}

Json likelyJson(const LikelyPressure &p)
{
    return { { "kpa", kpa(p.value_pa) },
             { "likely_low_kpa", kpa(p.low_pa) },
             { "likely_high_kpa", kpa(p.high_pa) } };
}

/// Null without a feed that needs something.
Json weakestJson(const OperatingResult &r)
{
    if (r.weakest < 0)
        return {};
    const PointPressure &p = r.points[static_cast<size_t>(r.weakest)];
    return { { "stop", p.stop },
             { "name", p.name },
             { "pressure", likelyJson(r.weakestPressure) },
             { "need_kpa", kpa(p.need_pa) },
             { "ratio", roundedTo(p.ratio(), 3) } };
}

Json operatingJson(const OperatingResult &r)
{
    Json out = { { "rpm", r.rpm }, { "oil_temp_c", r.oil_c }, { "gauge", likelyJson(r.gauge) } };
    if (const Json weakest = weakestJson(r); !weakest.is_null())
        out["weakest"] = weakest;
    out["points"] = Json::array();
    for (const PointPressure &p : r.points)
        out["points"].push_back({ { "stop", p.stop },
                                  { "name", p.name },
                                  { "kpa", kpa(p.pressure_pa) },
                                  { "column_kpa", kpa(p.column_pa) },
                                  { "need_kpa", kpa(p.need_pa) } });
    out["pump_l_min"] = roundedTo(r.pumpFlow_m3_s * litresPerMinute, 4);
    out["relief_l_min"] = roundedTo(r.reliefFlow_m3_s * litresPerMinute, 4);
    out["shares"] = Json::array();
    for (const OilShare &s : r.shares)
        out["shares"].push_back({ { "id", s.id },
                                  { "l_min", roundedTo(s.flow_m3_s * litresPerMinute, 4) },
                                  { "of_swept", roundedTo(s.ofSwept, 5) } });
    out["films"] = Json::array();
    for (const BearingFilm &f : r.films) {
        Json row = { { "stop", f.stop },
                     { "name", f.name },
                     { "film_um", roundedTo(f.smallest_m * 1e6, 3) },
                     { "film_c", roundedTo(f.film_c, 1) },
                     { "full_load", nullptr } };
        if (f.loaded)
            row["full_load"] = { { "film_um", roundedTo(f.loaded->smallest_m * 1e6, 3) },
                                 { "film_c", roundedTo(f.loaded->film_c, 1) } };
        out["films"].push_back(std::move(row));
    }
    return out;
}

Json stateJson(const OperatingState &s)
{
    Json out = { { "id", s.kind->id },
                 { "rpm", s.result.rpm },
                 { "oil_temp_c", s.result.oil_c },
                 { "gauge", likelyJson(s.result.gauge) },
                 { "pump_out_kpa", kpa(s.pumpOut_pa) },
                 { "filter_in_kpa", kpa(s.filterIn_pa) },
                 { "element_kpa", kpa(s.element_pa) },
                 { "cooler_in_kpa", kpa(s.coolerIn_pa) },
                 { "inlet_abs_kpa", kpa(s.inletAbs_pa) },
                 { "fill_share", roundedTo(s.fillShare, 4) },
                 { "lowest_abs_kpa", kpa(s.lowestAbs_pa) } };
    if (const Json weakest = weakestJson(s.result); !weakest.is_null())
        out["weakest"] = weakest;
    return out;
}

Json sizeJson(const GaugedSize &c)
{
    Json out = { { "stop", c.stop },
                 { "family", c.family },
                 { "item", c.item },
                 { "name", c.name },
                 { "element", c.element },
                 { "element_key", findFamily(c.family)->elementKey },
                 { "measured", c.measured },
                 { "method", c.method() },
                 { "cold_um", roundedTo(c.cold_um.value, 2) },
                 { "expanded_uncertainty_um", roundedTo(c.cold_um.expanded(), 2) },
                 { "running_um", roundedTo(c.running_um, 2) },
                 { "coldest_start_um", roundedTo(c.coldestStart_um, 2) },
                 { "mark", markId(c.mark) },
                 { "verdict", c.verdict } };
    if (c.form) {
        out["taper_um"] = roundedTo(c.form->taper_m * 1e6, 2);
        out["out_of_round_um"] = roundedTo(c.form->outOfRound_m * 1e6, 2);
    }
    if (c.limits)
        out["limits_um"] = { c.limits->min_um, c.limits->max_um };
    return out;
}

Json familyJson(const FamilySummary &f)
{
    Json out = { { "family", f.family }, { "items", f.items },       { "measured", f.measured },
                 { "n", f.readings },    { "mark", markId(f.mark) }, { "verdict", f.verdict } };
    if (f.measured > 0)
        out.update({ { "mean_um", roundedTo(f.mean_um, 2) },
                     { "least_um", roundedTo(f.least_um, 2) },
                     { "most_um", roundedTo(f.most_um, 2) },
                     { "taper_um", roundedTo(f.taper_um, 2) },
                     { "out_of_round_um", roundedTo(f.outOfRound_um, 2) },
                     { "expanded_uncertainty_um", roundedTo(f.expanded_um, 2) },
                     { "weakest_method", f.weakestMethod } });
    return out;
}

/// One line a family: n, mean, range, form, U, verdict, weakest method.
Phrase familyText(const FamilySummary &f)
{
    const std::string_view name = findFamily(f.family)->plural;
    if (f.measured == 0)
        return { "family.none", "  {0}: not measured, {1}", { name, f.verdict } };
    const auto um = [&](double v) { return asClearance(v, f.expanded_um / 2); };
    return { "family.line",
             "  {0}: n {1}, mean {2}, range {3}, taper {4}, out-of-round {5}, U (k = 2) {6}; {7}; "
             "weakest method: {8}",
             { name, asCount(f.readings), um(f.mean_um),
               QuantityRange { um(f.least_um), um(f.most_um) }, um(f.taper_um), um(f.outOfRound_um),
               um(f.expanded_um), f.verdict, f.weakestMethod } };
}

Json orNull(const std::optional<double> &value, int decimals)
{
    return value ? Json(roundedTo(*value, decimals)) : Json();
}

/// Heated-block logs that hold a point.
Json heatLogsJson(const BesideAssessment &beside)
{
    Json out = Json::array();
    for (const auto &[stop, log] : beside.heatLogs) {
        Json points = Json::array();
        for (const JudgedHeatPoint &p : log.points)
            points.push_back({ { "id", p.id },
                               { "metal_c", orNull(p.metal_c, 1) },
                               { "spread_k", roundedTo(p.spread_k, 1) },
                               { "reading_um", orNull(p.reading_um, 2) },
                               { "running_um", orNull(p.counts ? p.running_um : std::nullopt, 2) },
                               { "counts", p.counts },
                               { "mark", markId(p.mark) },
                               { "verdict", p.verdict } });
        Json row = { { "stop", stop }, { "mark", markId(log.mark) }, { "verdict", log.verdict } };
        if (log.fit)
            row.update({ { "alpha_per_k", log.expansion_per_k },
                         { "alpha_u_per_k", orNull(log.expansionU_per_k, 9) },
                         { "running_um_per_k", roundedTo(log.running_um_per_k, 4) },
                         { "gauge_um_per_k", roundedTo(log.gauge_um_per_k, 4) } });
        row["points"] = std::move(points);
        out.push_back(std::move(row));
    }
    return out;
}

/// Room to choose by family; where the circuit has no solution there is none.
Json roomJson(const BesideAssessment &beside)
{
    Json out = Json::object();
    for (const Room &r : beside.rooms) {
        Json levers = Json::array();
        for (const RoomLever &l : r.levers)
            levers.push_back({ { "name", l.name },
                               { "opens_um", roundedTo(l.opens_um, 1) },
                               { "hot_idle_change", roundedTo(l.idleChange, 4) },
                               { "remark", l.remark } });
        Json edges = Json::array();
        for (const RoomEdge &e : r.edges)
            edges.push_back({ { "id", roomBoundId(e.bound) }, { "um", orNull(e.um, 1) } });
        edges.push_back({ { "id", "pressure_low" }, { "um", orNull(r.pressureLow_um, 1) } });
        out[r.family] = { { "cold_mean_um", roundedTo(r.here_um, 2) },
                          { "edges", std::move(edges) },
                          { "bounded_by", roomBoundId(r.mostBy) },
                          { "tight_bounded_by", roomBoundId(r.leastBy) },
                          { "least_um", roundedTo(r.least_um, 1) },
                          { "most_um", roundedTo(r.most_um, 1) },
                          { "hot_mean_um", roundedTo(r.hot_um, 2) },
                          { "hot_ceiling_um", roundedTo(r.hotCeiling_um, 1) },
                          { "turns_down_to_c", orNull(r.turnsDownTo_c, 1) },
                          { "preheat_c", orNull(r.preheat_c, 1) },
                          { "levers", std::move(levers) } };
    }
    return out;
}

Json lineJson(const ForecastLine &l)
{
    Json out = { { "oil_temp_c", l.oil_c } };
    out["relief_opens_rpm"] = l.reliefOpens_rpm ? Json(roundedTo(*l.reliefOpens_rpm, 0)) : Json();
    out["points"] = Json::array();
    for (size_t i = 0; i < l.rpm.size(); ++i) {
        Json p = { { "rpm", roundedTo(l.rpm[i], 1) } };
        p.update(likelyJson(l.gauge[i]));
        if (i < l.updated.size()) {
            p["updated_kpa"] = kpa(l.updated[i].value_pa);
            p["updated_low_kpa"] = kpa(l.updated[i].low_pa);
            p["updated_high_kpa"] = kpa(l.updated[i].high_pa);
        }
        p["weakest_kpa"] = kpa(l.weakest_pa[i]);
        p["weakest_ratio"] = roundedTo(l.weakestRatio[i], 3);
        p["big_ends_of_crank_oil"] = roundedTo(l.bigEndsOfCrank[i], 4);
        out["points"].push_back(std::move(p));
    }
    return out;
}

} // namespace

Json forecastToJson(const Build &build, const std::vector<ForecastLine> &lines)
{
    Json out = { { "format", "mild-path-forecast" }, { "version", 1 }, { "build", build.name } };
    out["forecast"] = Json::array();
    for (const ForecastLine &l : lines)
        out["forecast"].push_back(lineJson(l));
    return out;
}

Json forecastToJson(const Build &build, const std::vector<ForecastLine> &lines,
                    const Believed &believed)
{
    Json out = forecastToJson(build, lines);
    out["readings"] = believed.readings();
    out["chi2"] = roundedTo(believed.chi2(), 4);
    out["p_value"] = roundedTo(believed.pValue(), 5);
    out["off_probability"] = roundedTo(believed.offProbability(), 5);
    return out;
}

namespace {

void cleaningToJson(const Build &build, const Assessment &a, Json &out)
{
    out["passages"] = Json::array();
    for (const PassageState &p : a.cleaning.passages) {
        Json missing = Json::array(), chain = Json::array();
        for (const std::string &m : p.missing)
            missing.push_back(m);
        for (const ChainLink &l : p.chain)
            chain.push_back(build.events[static_cast<size_t>(l.event)].id);
        out["passages"].push_back({ { "passage", p.passage },
                                    { "state", cleanStateId(p.state) },
                                    { "mark", markId(markOf(p)) },
                                    { "reason", p.reason },
                                    { "missing", std::move(missing) },
                                    { "events", std::move(chain) } });
    }
    out["plugs"] = Json::array();
    for (const PlugState &p : a.cleaning.plugs)
        out["plugs"].push_back({ { "plug", p.plug },
                                 { "seen", p.seen },
                                 { "mark", markId(markOf(p)) },
                                 { "verdict", plugVerdict(p) } });
    out["spreads"] = Json::array();
    for (const Spread &s : a.spreads) {
        Json items = Json::array();
        for (const SpreadItem &i : s.items)
            items.push_back({ { "item", i.id },
                              { "rule", i.rule },
                              { "way", i.way },
                              { "done", i.done },
                              { "mark", markId(i.mark) } });
        out["spreads"].push_back({ { "stop", s.stop }, { "items", std::move(items) } });
    }
}

} // namespace

Json assessmentToJson(const Build &build, const Assessment &a, const BesideAssessment &beside)
{
    Json out = { { "format", "mild-path-assessment" }, { "version", 1 }, { "build", build.name } };
    out["holds"] = a.holds();
    out["findings"] = Json::array();
    for (const Finding &f : a.findings)
        out["findings"].push_back({ { "id", f.id },
                                    { "mark", markId(f.mark) },
                                    { "stop", f.stop },
                                    { "text", f.text },
                                    { "action", f.action } });
    out["marks"] = Json::array();
    for (const StopMarks &m : a.marks)
        out["marks"].push_back({ { "stop", m.stop },
                                 { "size", markId(m.size) },
                                 { "clean", markId(m.clean) },
                                 { "flow", markId(m.flow) } });
    out["clearances"] = Json::array();
    for (const GaugedSize &c : a.sizes)
        out["clearances"].push_back(sizeJson(c));
    out["families"] = Json::array();
    for (const FamilySummary &f : a.families)
        out["families"].push_back(familyJson(f));
    out["feed_holes"] = Json::array();
    for (const FeedHole &f : a.feedHoles)
        out["feed_holes"].push_back({ { "stop", f.stop },
                                      { "open_mm2", roundedTo(f.openArea_mm2, 3) },
                                      { "open_share", roundedTo(f.openShare, 4) },
                                      { "mark", markId(f.mark) },
                                      { "verdict", f.verdict } });
    out["air"] = airToJson(a.air);
    out["fits"] = Json::array();
    for (const FitVerdict &f : a.fits)
        out["fits"].push_back({ { "id", f.id },
                                { "stop", f.stop },
                                { "mark", markId(f.mark) },
                                { "title", f.title },
                                { "detail", f.detail } });
    cleaningToJson(build, a, out);
    out["heat_logs"] = heatLogsJson(beside);
    if (a.operating.unsolved) {
        out["unsolved"] = { { "node", a.operating.unsolved->place },
                            { "message", a.operating.unsolved->message } };
        return out;
    }
    out["hot_idle"] = operatingJson(a.operating.hotIdle);
    out["high_speed"] = operatingJson(a.operating.highSpeed);
    out["most_speed"] = operatingJson(a.operating.mostSpeed);
    out["states"] = Json::array();
    for (const OperatingState &s : a.states)
        out["states"].push_back(stateJson(s));
    out["forecast"] = forecastToJson(build, a.forecast.lines)["forecast"];
    out["room"] = roomJson(beside);
    out["other_oils"] = Json::array();
    for (const OtherOil &o : a.forecast.otherOils)
        out["other_oils"].push_back({ { "grade", o.grade },
                                      { "gear_oil", o.gearOil },
                                      { "fitted", o.fitted },
                                      { "gauge_kpa", kpa(o.gauge_pa) },
                                      { "weakest_kpa", kpa(o.weakest_pa) },
                                      { "mark", markId(o.mark) } });
    out["levers"] = Json::array();
    for (const Lever &l : a.forecast.levers)
        out["levers"].push_back(
            { { "name", l.name }, { "change_kpa", kpa(l.change_pa) }, { "remark", l.remark } });
    return out;
}

std::string assessmentText(const Build &build, const Assessment &a, const UnitStyle &style)
{
    std::string out;
    const auto line = [&](const Phrase &phrase) { out += render(phrase, style) + "\n"; };
    line(build.name);
    if (!a.operating.unsolved) {
        const auto operating = [&](const char *title, const OperatingResult &r) {
            Phrase said {
                "assess.gauge",
                "{0} ({1}, {2}): pressure gauge {3}, likely {4}",
                { title, asTemperature(r.oil_c), asSpeed(r.rpm), asPressure(r.gauge.value_pa),
                  QuantityRange { asPressure(r.gauge.low_pa), asPressure(r.gauge.high_pa) } }
            };
            if (r.weakest >= 0) {
                const PointPressure &p = r.points[static_cast<size_t>(r.weakest)];
                append(said,
                       { "assess.weakest",
                         "weakest feed {0} {1}, {2} × its required pressure",
                         { p.name, asPressure(p.pressure_pa), asNumber(p.ratio(), 1) } });
            }
            line(said);
        };
        operating("Hot idle", a.operating.hotIdle);
        operating("Hot", a.operating.highSpeed);
    }
    line({ "assess.families", "\nFamilies (at {0}; clearances diametral)", { asTemperature(20) } });
    for (const FamilySummary &f : a.families)
        line(familyText(f));
    line({ "assess.sizes", "\nSizes (at {0})", { asTemperature(20) } });
    for (const GaugedSize &c : a.sizes) {
        Phrase said = c.verdict;
        if (c.known)
            append(said, { "assess.running", "running {0}", { asWholeClearance(c.running_um) } });
        line({ "", "  {0}: {1} [{2}]", { c.name, said, markWord(c.mark) } });
    }
    out += "\n" + airText(a.air, style);
    line("\nFindings");
    for (const Finding &f : a.findings)
        line({ "", "  [{0}] {1}. {2}.", { markWord(f.mark), f.text, f.action } });
    if (a.findings.empty())
        line("  none");
    line({ "assess.holds", "\nHolds before the start: {0}", { asCount(a.holds()) } });
    return out;
}

} // namespace mildpath
