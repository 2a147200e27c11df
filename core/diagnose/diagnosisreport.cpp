// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/remedies.h"
#include "diagnose/trials.h"
#include "diagnose/whatif.h"

#include "quantity/json.h"

#include <cmath>

namespace mildpath {
namespace {

Json candidateToJson(const Build &build, const Candidate &c)
{
    Json out;
    out["name"] = c.name;
    if (c.unlisted)
        out["unlisted"] = true;
    out["posterior"] = c.posterior;
    out["prior"] = c.prior;
    out["faults"] = Json::array();
    for (const Fault &f : c.faults)
        out["faults"].push_back({ { "fault", faultId(f) },
                                  { "severity", f.severity },
                                  { "measure", severityText(build, f) } });
    if (c.places.size() > 1) {
        out["places"] = Json::array();
        for (const Fault &f : c.places)
            out["places"].push_back(faultId(f));
    }
    if (c.faults.size() == 1) {
        out["severity_low"] = c.low;
        out["severity_high"] = c.high;
        out["severity_known"] = c.severityKnown;
        out["seen_from_severity"] = c.seenFrom ? Json(*c.seenFrom) : Json();
        out["gauges_can_from_severity"] = c.gaugesCanFrom ? Json(*c.gaugesCanFrom) : Json();
        out["looks"] = Json::array();
        for (const Look *l : c.looks)
            out["looks"].push_back(l->id);
    }
    return out;
}

Json crankToJson(const CrankFigures &f)
{
    return { { "gauge_kpa", f.gauge_pa / 1e3 },
             { "fed_share", f.fedShare },
             { "main_film_um", f.mainFilm_m * 1e6 },
             { "main_film_parameter", f.filmParameter } };
}

Json figuresToJson(const RemedyFigures &f)
{
    return { { "idle", crankToJson(f.idle) },
             { "most", crankToJson(f.most) },
             { "gauge_kpa", f.gauge_pa / 1e3 },
             { "gauge_fast_kpa", f.gaugeFast_pa / 1e3 },
             { "bearing", f.bearing },
             { "bearing_kpa", f.bearing_pa / 1e3 },
             { "bearing_ratio", f.bearingRatio },
             { "bearing_oil_l_min", f.bearingOil_m3_s * litresPerMinute },
             { "bearing_most", f.bearingMost },
             { "bearing_most_kpa", f.bearingMost_pa / 1e3 },
             { "bearing_most_ratio", f.bearingMostRatio },
             { "weakest", f.weakest },
             { "weakest_kpa", f.weakest_pa / 1e3 },
             { "weakest_ratio", f.weakestRatio },
             { "pump_power_w", f.power_w },
             { "relief_l_min", f.relief_m3_s * litresPerMinute },
             { "churn", churnWord(f.churn) } };
}

} // namespace

Json diagnosisToJson(const Build &build, const Diagnosis &d)
{
    Json out;
    out["verdict"] = d.verdict;
    out["advice"] = d.advice;
    out["readings"] = Json::array();
    for (size_t i = 0; i < d.readings.size(); ++i) {
        const GaugeReading &r = *d.readings[i];
        const double leads = d.candidates.empty() ? 0 : d.candidates.front().predicted_pa[i];
        out["readings"].push_back({ { "id", r.id },
                                    { "tap", r.tap },
                                    { "rpm", r.rpm },
                                    { "by_drill", r.byDrill },
                                    { "oil_temp_c", r.oil_c },
                                    { "pressure_kpa", r.pressure_kpa },
                                    { "u_kpa", r.u_kpa },
                                    { "healthy_kpa", d.healthy_pa[i] / 1e3 },
                                    { "leader_kpa", leads / 1e3 } });
    }
    out["symptoms"] = Json::array();
    for (const Symptom *s : d.symptoms)
        out["symptoms"].push_back({ { "symptom", s->symptom }, { "there", s->there } });
    out["candidates"] = Json::array();
    for (const Candidate &c : d.candidates)
        out["candidates"].push_back(candidateToJson(build, c));
    out["pairs"] = Json::array();
    for (const Candidate &c : d.pairs)
        out["pairs"].push_back(candidateToJson(build, c));
    out["next"] = Json::array();
    for (const NextStep &n : d.next) {
        Json one { { "kind", n.look ? "look" : "reading" },
                   { "id", n.id },
                   { "text", n.text },
                   { "bits", n.bits },
                   { "minutes", n.minutes },
                   { "bits_per_minute", n.worth() } };
        if (!n.look) {
            one["rpm"] = n.condition.rpm;
            one["oil_temp_c"] = n.condition.oil_c;
        }
        out["next"].push_back(std::move(one));
    }
    out["unsolved"] = d.unsolved;
    return out;
}

std::string diagnosisText(const Build &build, const Diagnosis &d, const UnitStyle &style)
{
    std::string out;
    const auto line = [&](const Phrase &phrase) { out += render(phrase, style) + "\n"; };
    line({ "", "{0}\n  {1}", { d.verdict, d.advice } });
    if (!d.readings.empty())
        line({ "", "\nReadings: read, healthy, {0}", { d.candidates.front().name } });
    for (size_t i = 0; i < d.readings.size(); ++i)
        line({ "",
               "  {0}  {1}  {2}  {3}",
               { asPressure(d.readings[i]->pressure_kpa * 1e3), asPressure(d.healthy_pa[i]),
                 asPressure(d.candidates.front().predicted_pa[i]),
                 placeText(build, *d.readings[i]) } });
    line("\nWhat fits");
    for (const Candidate &c : d.candidates) {
        if (c.posterior < 0.005 && c.prior * 100 < 1)
            continue;
        const std::string percent = render(asShare(c.posterior, 1), style);
        Phrase said = c.name;
        if (!c.faults.empty() && c.posterior >= 0.005) {
            const Phrase much = severityText(build, c.faults.front());
            if (!much.empty())
                append(said,
                       c.severityKnown ? Phrase("diagnose.about", "about {0}", { much })
                                       : Phrase("these readings do not show how severe it is"),
                       "{*|, }");
            if (c.seenFrom && graded(*findFaultKind(c.faults.front().kind)))
                append(said,
                       { "diagnose.from",
                         "detectable from {0}",
                         { severityAt(build, c, *c.seenFrom) } },
                       "{*|, }");
        }
        if (!c.faults.empty() && !c.gaugesCanFrom)
            append(said,
                   joinedBy({ "no pressure gauge can tell",
                              c.looks.empty() ? Phrase() : Phrase(c.looks.front()->text) },
                            "{*|: }"));
        line({ "",
               "  {0}{1}  {2}",
               { std::string(7 - std::min<size_t>(6, percent.size()), ' '), percent, said } });
    }
    if (!d.pairs.empty() && d.pairs.front().posterior >= 0.01) {
        line("\nTwo at once");
        for (const Candidate &c : d.pairs)
            if (c.posterior >= 0.01)
                line({ "", "  {0}  {1}", { asShare(c.posterior, 1), c.name } });
    }
    line("\nNext (bits, minutes)");
    for (size_t i = 0; i < std::min(stepsTold, d.next.size()); ++i)
        line({ "",
               "  {0}  {1}  {2}",
               { asNumber(d.next[i].bits, 2), asNumber(d.next[i].minutes, 0), d.next[i].text } });
    for (const std::string_view c : cautionsOf(d.next))
        line({ "", "Caution: {0}", { c } });
    return out;
}

Json whatIfToJson(const Build &build, const std::vector<Fault> &faults, const WhatIf &r)
{
    Json out;
    out["rpm"] = r.after.rpm;
    out["oil_temp_c"] = r.after.oil_c;
    out["faults"] = Json::array();
    for (const Fault &f : faults)
        out["faults"].push_back({ { "fault", faultId(f) },
                                  { "severity", f.severity },
                                  { "name", faultName(build, f) } });
    out["taps"] = Json::array();
    for (const TapChange &t : r.taps)
        out["taps"].push_back({ { "tap", t.tap },
                                { "before_kpa", t.before_pa / 1e3 },
                                { "after_kpa", t.after_pa / 1e3 },
                                { "shows", t.shows() } });
    out["points"] = Json::array();
    for (size_t i = 0; i < r.after.points.size(); ++i) {
        const PointPressure &p = r.after.points[i];
        out["points"].push_back({ { "stop", p.stop },
                                  { "name", p.name },
                                  { "before_kpa", r.before.points[i].pressure_pa / 1e3 },
                                  { "after_kpa", p.pressure_pa / 1e3 },
                                  { "need_kpa", p.need_pa / 1e3 } });
    }
    out["starved"] = Json::array();
    for (const size_t i : r.starved)
        out["starved"].push_back(r.after.points[i].name);
    out["gauge"] = r.gauge;
    out["elsewhere"] = r.elsewhere;
    return out;
}

Json remediesToJson(const RemedyTable &table)
{
    Json out;
    out["now"] = figuresToJson(table.now);
    out["remedies"] = Json::array();
    for (const Remedy &r : table.remedies) {
        Json one = r.solved ? figuresToJson(r.figures) : Json::object();
        one["id"] = r.id;
        one["name"] = r.name;
        one["what"] = r.what;
        one["verdict"] = r.verdict;
        one["needle_only"] = r.needleOnly;
        out["remedies"].push_back(std::move(one));
    }
    out["not_here"] = table.notHere;
    return out;
}

Json trialsToJson(const TrialReport &report)
{
    Json out;
    out["readings"] = report.readings;
    out["suspects"] = report.suspects;
    out["candidates"] = report.groups;
    for (const auto &[key, t] :
         { std::pair("seen", &report.seen), std::pair("seen_plainly", &report.plainly) })
        out[key]
            = { { "trials", t->trials }, { "first", t->first }, { "first_three", t->firstThree } };
    out["unseen"] = { { "trials", report.unseen },
                      { "said_so", report.unseenSaidSo },
                      { "blamed_something", report.unseenBlamed } };
    out["healthy"] = { { "trials", report.healthy }, { "first", report.healthyFirst } };
    out["rows"] = Json::array();
    for (const TrialRow &r : report.rows)
        out["rows"].push_back({ { "fault", r.fault.kind.empty() ? "nothing" : faultId(r.fault) },
                                { "severity", r.fault.kind.empty() ? 0 : r.fault.severity },
                                { "distance", r.distance },
                                { "trials", r.trials },
                                { "first", r.first },
                                { "first_three", r.firstThree },
                                { "led_by", r.ledBy } });
    return out;
}

} // namespace mildpath
