// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/startreport.h"

#include "document/logbook.h"

namespace mildpath {
namespace {

Json orNone(const std::optional<double> &value)
{
    return value ? Json(*value) : Json();
}

Json band(const LikelyPressure &p)
{
    return { { "kpa", p.value_pa / 1e3 },
             { "low_kpa", p.low_pa / 1e3 },
             { "high_kpa", p.high_pa / 1e3 } };
}

Json primeJson(const PrimeForecast &p)
{
    Json out { { "by", p.drill ? "drill" : "starter" },
               { "shaft_rpm", p.shaft_rpm },
               { "oil_temp_c", p.oil_c },
               { "volume_l", p.volume_m3() * 1e3 },
               { "suction_l", p.suction_m3 * 1e3 },
               { "lift_mm", p.lift_m * 1e3 },
               { "dry_lift_mm", p.dryLift_m ? Json(*p.dryLift_m * 1e3) : Json() },
               { "time_s", orNone(p.time.time_s) },
               { "time_low_s", orNone(p.time.low_s) },
               { "time_high_s", orNone(p.time.high_s) },
               { "stop_s", orNone(p.time.stop_s) },
               { "bursts", p.time.bursts ? Json(*p.time.bursts) : Json() },
               { "steady", band(p.steady) } };
    out["volumes"] = Json::array();
    for (const PrimeVolume &v : p.volumes)
        out["volumes"].push_back(
            { { "name", v.name }, { "volume_l", v.volume_m3 * 1e3 }, { "from", v.from } });
    out["causes"] = Json::array();
    for (const PrimeCause &c : p.causes)
        out["causes"].push_back({ { "id", c.id },
                                  { "name", c.name },
                                  { "text", c.text },
                                  { "effort", c.effort },
                                  { "stop", c.stop },
                                  { "proven", c.proven },
                                  { "why", c.why } });
    return out;
}

Json cardJson(const RunCard &card)
{
    Json out = Json::array();
    for (const CardItem &i : card.items) {
        Json one { { "step", i.id },
                   { "text", i.text },
                   { "threshold", i.threshold },
                   { "caution", i.caution },
                   { "mark", markId(i.mark) },
                   { "said", i.said },
                   { "locked", i.locked },
                   { "why", i.why } };
        if (i.expected)
            one["expected"] = band(*i.expected);
        out.push_back(std::move(one));
    }
    return out;
}

} // namespace

Json startReportToJson(const Build &build, const StartGate &gate, const PrimeForecast &prime,
                       const RunCard &card, const std::vector<Residual> &residuals,
                       const std::vector<Explanation> &explanations)
{
    Json holds = Json::array();
    for (const GateHold &h : gate.holds)
        holds.push_back({ { "id", h.finding->id },
                          { "stop", h.finding->stop },
                          { "text", h.finding->text },
                          { "action", h.finding->action },
                          { "open", h.open() },
                          { "signed_by", h.signature ? Json(h.signature->by) : Json() },
                          { "why", h.signature ? Json(h.signature->note) : Json() } });
    Json out { { "may_start", gate.mayStart() },
               { "open_holds", gate.open() },
               { "holds", std::move(holds) },
               { "prime", primeJson(prime) },
               { "run_card", cardJson(card) } };
    out["readings"] = Json::array();
    for (const Residual &r : residuals)
        out["readings"].push_back({ { "id", r.reading->id },
                                    { "tap", r.reading->tap },
                                    { "rpm", r.reading->rpm },
                                    { "oil_temp_c", r.reading->oil_c },
                                    { "pressure_kpa", r.reading->pressure_kpa },
                                    { "expected", band(r.expected) },
                                    { "residual_kpa", r.residual_pa / 1e3 },
                                    { "distance", r.distance },
                                    { "mark", markId(r.mark) } });
    out["explanations"] = Json::array();
    for (const Explanation &e : explanations)
        out["explanations"].push_back({ { "input", e.input },
                                        { "name", e.name },
                                        { "amount", e.amount },
                                        { "z", e.z },
                                        { "misfit_before", e.before },
                                        { "misfit_after", e.after },
                                        { "explains", e.explains } });
    out["build"] = build.name;
    return out;
}

std::string startReportText(const Build &build, const StartGate &gate, const PrimeForecast &prime,
                            const RunCard &card, const std::vector<Residual> &residuals,
                            const std::vector<Explanation> &explanations)
{
    std::string out;
    const auto line = [&](const std::string &text) { out += text + "\n"; };
    line(gate.mayStart() ? "Nothing holds the start."
                         : formatPlain(gate.open(), 0) + " holds are open:");
    for (const GateHold &h : gate.holds)
        line("  " + h.finding->text
             + (h.signature ? " [signed by " + h.signature->by + ": " + h.signature->note + "]"
                            : " - " + h.finding->action));
    line("");
    line("Priming by " + std::string(prime.drill ? "drill" : "starter") + ", "
         + formatPlain(prime.shaft_rpm, 0) + " rev/min of the pump, oil "
         + formatPlain(prime.oil_c, 0) + " C: " + formatPlain(prime.volume_m3() * 1e3, 2)
         + " l to fill");
    for (const PrimeVolume &v : prime.volumes)
        line("  " + v.name + ": " + formatPlain(v.volume_m3 * 1e3, 2) + " l (" + v.from + ")");
    if (prime.time.time_s)
        line("  pressure after " + formatPlain(*prime.time.low_s, 0) + " to "
             + formatPlain(*prime.time.high_s, 0) + " s, then " + barNumber(prime.steady.low_pa)
             + " to " + barNumber(prime.steady.high_pa) + " bar; stop at "
             + formatPlain(*prime.time.stop_s, 0) + " s");
    else
        line("  dry it does not lift the oil: pack it or pour oil in");
    line("  if nothing comes:");
    for (const PrimeCause &c : prime.causes)
        line("    " + std::string(c.text) + " (" + std::string(c.effort) + "; "
             + (c.proven ? "proven: " : "") + c.why + ")");
    line("");
    line("Run card:");
    for (const CardItem &i : card.items) {
        std::string text = "  [" + std::string(markWord(i.mark)) + "] " + i.text;
        for (const std::string *more : { &i.threshold, &i.said, &i.why })
            if (!more->empty())
                text += "; " + *more;
        line(text);
    }
    if (!residuals.empty())
        line("\nRead against forecast, bar:");
    for (const Residual &r : residuals)
        line("  " + tapName(build, r.reading->tap) + ", " + formatPlain(r.reading->rpm, 0)
             + " rev/min, " + formatPlain(r.reading->oil_c, 0)
             + " C: " + barNumber(r.reading->pressure_kpa * 1e3) + ", expected "
             + barNumber(r.expected.low_pa) + " to " + barNumber(r.expected.high_pa));
    for (const Explanation &e : explanations)
        if (e.explains)
            line("  would explain it: " + e.name + " " + e.text);
    return out;
}

} // namespace mildpath
