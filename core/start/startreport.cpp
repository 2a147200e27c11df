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
                       const RunCard &card, const ReadAgainst &against)
{
    Json holds = Json::array();
    const auto tell = [&](const Check &c) {
        const bool open = c.state != CheckState::SignedOff;
        holds.push_back({ { "id", c.id() },
                          { "stop", c.place.stop },
                          { "text", render(c.reason, fileStyle) },
                          { "open", open },
                          { "signed_by", open ? Json() : Json(c.signatures.back().signOff.by) },
                          { "why", open ? Json() : Json(c.signatures.back().signOff.note) } });
    };
    for (const GateGroup &g : gate.open)
        for (const Check *c : g.checks)
            if (c->state == CheckState::Hold)
                tell(*c);
    for (const Check *c : gate.signedOff)
        tell(*c);
    Json out { { "may_start", gate.mayStart() }, { "open_checks", gate.openChecks() },
               { "open_holds", gate.holds() },   { "holds", std::move(holds) },
               { "prime", primeJson(prime) },    { "run_card", cardJson(card) } };
    out["readings"] = Json::array();
    for (const Residual &r : against.residuals)
        out["readings"].push_back({ { "id", r.reading->id },
                                    { "tap", r.reading->tap },
                                    { "rpm", r.reading->rpm },
                                    { "by_drill", r.reading->byDrill },
                                    { "oil_temp_c", r.reading->oil_c },
                                    { "pressure_kpa", r.reading->pressure_kpa },
                                    { "expected", band(r.expected) },
                                    { "residual_kpa", r.residual_pa / 1e3 },
                                    { "distance", r.distance },
                                    { "mark", markId(r.mark) } });
    out["believed"] = nullptr;
    if (against.believed) {
        const BelievedIdle &b = *against.believed;
        Json inputs = Json::array();
        for (const BelievedInput &i : b.moved)
            inputs.push_back({ { "cause", i.cause }, { "z", i.z } });
        out["believed"] = { { "readings", b.readings },
                            { "hot_idle", band(b.alone) },
                            { "hot_idle_with_readings", band(b.with) },
                            { "off_probability", b.offProbability },
                            { "nothing_explains", b.nothingExplains },
                            { "inputs", std::move(inputs) } };
    }
    out["build"] = build.name;
    return out;
}

namespace {

/// The report, line by line.
class StartText
{
public:
    StartText(const Build &build, const UnitStyle &style)
        : m_build(build)
        , m_style(style)
    {
    }

    void gate(const StartGate &gate)
    {
        line({ "", "{0}.", { gate.says() } });
        std::optional<Stage> stage;
        for (const GateGroup &g : gate.open) {
            if (stage != g.kind->stage) {
                stage = g.kind->stage;
                line({ "start.stage", "  {0}", { aboutStage(*stage).name } });
            }
            const Phrase where = g.where();
            line(where.empty() ? Phrase("start.kind", "    {0} [{1}]",
                                        { g.kind->statement, markWord(g.mark()) })
                               : Phrase("start.kind_at", "    {0}: {1} [{2}]",
                                        { g.kind->statement, where, markWord(g.mark()) }));
            for (const Check *c : g.checks)
                if (c->state == CheckState::Hold)
                    line({ "start.holds", "      holds: {0}: {1}", { c->place.name, c->reason } });
        }
        for (const Check *c : gate.signedOff)
            line({ "start.signed", "  {0} [{1}]", { c->statement(), c->reason } });
    }

    void prime(const PrimeForecast &prime)
    {
        line({ "start.prime",
               "Priming by {0}, pump at {1}, oil {2}: {3} to fill",
               { prime.drill ? "drill" : "starter", asSpeed(prime.shaft_rpm),
                 asTemperature(prime.oil_c), asVolume(prime.volume_m3() * 1e3) } });
        for (const PrimeVolume &v : prime.volumes)
            line({ "", "  {0}: {1} ({2})", { v.name, asVolume(v.volume_m3 * 1e3), v.from } });
        if (prime.time.time_s)
            line({ "start.comes",
                   "  pressure after {0}, then {1}; time limit {2}",
                   { QuantityRange { asTime(*prime.time.low_s, 0), asTime(*prime.time.high_s, 0) },
                     QuantityRange { asPressure(prime.steady.low_pa),
                                     asPressure(prime.steady.high_pa) },
                     asTime(*prime.time.stop_s) } });
        else
            line("  will not prime dry: pack the pump or pour oil in");
        line("  if no pressure comes:");
        for (const PrimeCause &c : prime.causes)
            line({ "",
                   c.proven ? "    {0} ({1}; proven: {2})" : "    {0} ({1}; {2})",
                   { c.text, c.effort, c.why } });
        line("");
    }

    void card(const RunCard &card)
    {
        line("Start-up checklist:");
        for (const CardItem &i : card.items) {
            line({ "",
                   "  [{0}] {1}",
                   { markWord(i.mark),
                     joinedBy({ i.text, i.threshold, i.said, i.why }, "{*|; }") } });
            if (!i.caution.empty())
                line({ "", "      Caution: {0}", { i.caution } });
        }
    }

    void readings(const ReadAgainst &against)
    {
        if (!against.residuals.empty())
            line("\nRead against forecast:");
        for (const Residual &r : against.residuals)
            line({ "start.read",
                   "  {0}, {1}, {2}: {3}, likely {4}",
                   { tapName(m_build, r.reading->tap),
                     turnedText(r.reading->rpm, r.reading->byDrill),
                     asTemperature(r.reading->oil_c), asPressure(r.reading->pressure_kpa * 1e3),
                     QuantityRange { asPressure(r.expected.low_pa),
                                     asPressure(r.expected.high_pa) } } });
        if (!against.believed)
            return;
        line({ "start.believed", "  {0}", { believedText(*against.believed) } });
        for (const BelievedInput &i : against.believed->told())
            line({ "start.moved", "  {0}", { movedText(i) } });
    }

    std::string text;

private:
    void line(const Phrase &phrase) { text += render(phrase, m_style) + "\n"; }

    const Build &m_build;
    const UnitStyle &m_style;
};

} // namespace

std::string startReportText(const Build &build, const StartGate &gate, const PrimeForecast &prime,
                            const RunCard &card, const ReadAgainst &against, const UnitStyle &style)
{
    StartText out(build, style);
    out.gate(gate);
    out.prime(prime);
    out.card(card);
    out.readings(against);
    return out.text;
}

} // namespace mildpath
