// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/runcard.h"

#include "assess/calibrated.h"
#include "assess/figuremarks.h"
#include "assess/flowproof.h"
#include "checks/assessment.h"
#include "kinds/cautions.h"
#include "start/corridor.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

struct StepRow
{
    std::string_view id;
    CardKind kind;
    std::string_view group, text, caution, question;
    std::vector<CardAnswer> answers;
};

// Steps and their order: common practice, no source. Both schools with their reasons.
const std::vector<StepRow> &stepRows()
{
    static const std::vector<StepRow> table {
        { "oil_in", CardKind::Tick, "prime", "Oil in, level checked", "", "", {} },
        { "prefill",
          CardKind::Choice,
          "prime",
          "Filter filled by hand?",
          "",
          question::prefill,
          { { "half", "half full", "saves seconds of dry running" },
            { "dry", "put on dry", "no unfiltered oil on the clean side" } } },
        { "packing",
          CardKind::Choice,
          "prime",
          "Pump packed?",
          "",
          question::packing,
          { { "packed", "grease or jelly", "sure suction at first" },
            { "poured", "oil poured in", "wets it for a while, leaves nothing behind" },
            { "none", "not packed", "a proper prime does it; grease can plug small jets" } } },
        { "fuel_off",
          CardKind::Tick,
          "prime",
          "Ignition and fuel off",
          "Ignition and fuel disabled; second person at the switch.",
          "",
          {} },
        { "prime_by",
          CardKind::Choice,
          "prime",
          "Turned by",
          "",
          question::primeBy,
          { { "drill", "drill", "no load on dry bearings; keep to the time limit" },
            { "starter", "starter, plugs out", "fills what only a turning crank fills" } } },
        { "turns",
          CardKind::Choice,
          "prime",
          "Pump shaft turns",
          "",
          question::drillTurns,
          { { "clockwise", "clockwise", "as the pump is driven, seen from the drill" },
            { "anticlockwise", "anticlockwise", "as the pump is driven, seen from the drill" } } },
        { "drive",
          CardKind::Tick,
          "prime",
          "Priming drive engaged, correct direction",
          caution::drillSnatches,
          "",
          {} },
        { "prime",
          CardKind::Prime,
          "prime",
          "Prime in bursts",
          "Let the starter cool between bursts. Battery lead off before hands go in. No pressure "
          "by the time limit: switch off and check.",
          "",
          {} },
        { "lifters", CardKind::Watch, "prime", "Every lifter pumps up", "", "", {} },
        { "rockers", CardKind::Watch, "prime", "Oil at every rocker", "", "", {} },
        { "gate", CardKind::Gate, "start", "Every hold fixed or signed off", "", "", {} },
        { "people",
          CardKind::Tick,
          "start",
          "Ready: extinguisher, second person, ventilation",
          caution::start(),
          "",
          {} },
        { "start", CardKind::Start, "start", "Start: pressure", "", "", {} },
        { "cold_idle", CardKind::Read, "start", "Cold idle", "", "", {} },
        { "fast", CardKind::Read, "start", "At speed", "", "", {} },
        { "warm_up",
          CardKind::Tick,
          "start",
          "Warmed up under watch",
          "Hot block, hot oil and exhaust burn.",
          "",
          {} },
        { "hot_idle", CardKind::Read, "start", "Hot idle", "", "", {} },
        { "stopped", CardKind::Tick, "after", "Stopped, ignition off", "", "", {} },
        { "leaks",
          CardKind::Tick,
          "after",
          "Leaks checked",
          "Look with a lamp, not with the hand: oil and metal are hot.",
          "",
          {} },
        { "filter_cut",
          CardKind::Tick,
          "after",
          "Filter cut, pleats and can inspected",
          caution::usedOil,
          "",
          {} },
    };
    return table;
}

class Card
{
public:
    Card(const Build &build, const Assessment &assessment, const PrimeForecast &prime,
         const StartGate &gate)
        : m_build(build)
        , m_assessment(assessment)
        , m_prime(prime)
        , m_gate(gate)
    {
        for (const CardStep *s : standing(build.cardSteps))
            m_done[s->step] = s;
    }

    RunCard run()
    {
        for (const StepRow &r : stepRows()) {
            CardItem item { r.id, r.kind, r.group, r.text, {}, r.caution, r.question, r.answers };
            if (const auto it = m_done.find(r.id); it != m_done.end()) {
                item.done = it->second;
                item.by = item.done->by;
                item.at = item.done->at;
            }
            if (item.id == "turns" && !m_prime.drill)
                continue;
            fill(item);
            if (r.kind == CardKind::Watch && item.watched.empty())
                continue; // nothing of the kind on this engine
            m_out.items.push_back(std::move(item));
        }
        for (CardItem &i : m_out.items)
            fromList(i);
        lock();
        return std::move(m_out);
    }

private:
    void fill(CardItem &i)
    {
        switch (i.kind) {
        case CardKind::Tick:
            tick(i);
            break;
        case CardKind::Choice:
            choice(i);
            break;
        case CardKind::Prime:
            prime(i);
            break;
        case CardKind::Watch:
            watch(i);
            break;
        case CardKind::Gate:
            i.mark = m_gate.mayStart() ? m_gate.mark() : Mark::Hold;
            i.said = m_gate.says();
            break;
        case CardKind::Start:
            start(i);
            break;
        case CardKind::Read:
            read(i);
            break;
        }
    }

    static Mark outcome(const CardStep &s)
    {
        return s.outcome == "done"  ? Mark::Proven
            : s.outcome == "not_so" ? Mark::Hold
                                    : Mark::LookAgain;
    }

    void tick(CardItem &i) const
    {
        if (i.id == "oil_in")
            if (const auto fill = m_build.sump.own("fill_l"))
                i.text = { "card.oil_in", "Oil in: {0}, level checked", { asVolume(*fill, 1) } };
        if (i.id == "drive")
            i.threshold = m_prime.drill ? Phrase("card.shaft_speed", "about {0} at the pump shaft",
                                                 { asSpeed(m_prime.shaft_rpm) })
                                        : Phrase("card.crank_speed", "about {0} at the crank",
                                                 { asSpeed(m_prime.crank_rpm) });
        if (i.id == "warm_up")
            i.threshold
                = { "card.warm",
                    "oil to {0}, about {1}",
                    { asTemperature(m_build.use.hotOil_c),
                      Quantity { *m_build.start.value("hot_after_min"), Shows::Minutes } } };
        if (!i.done)
            return;
        i.mark = outcome(*i.done);
        const Phrase outcome = i.done->outcome == "done" ? ""
            : i.done->outcome == "not_so"                ? "not so"
                                                         : "skipped";
        i.said = joinedBy({ outcome, i.done->note }, "{*|: }");
    }

    void choice(CardItem &i) const
    {
        const std::string answer = choiceOf(m_build, i.question);
        for (const CardAnswer &a : i.answers)
            if (a.id == answer) {
                i.mark = Mark::Proven;
                i.said = a.text;
            }
        for (const Choice &c : m_build.choices)
            if (c.question == i.question) {
                i.by = c.by;
                i.at = c.at;
            }
    }

    void prime(CardItem &i) const
    {
        const PrimeTime &t = m_prime.time;
        if (t.time_s)
            i.threshold = { *t.stop_s > *t.high_s ? "card.prime_time" : "card.prime_time_edge",
                            *t.stop_s > *t.high_s ? "{0} of turning; time limit {1}"
                                                  : "{0} of turning; time limit {1}, no margin",
                            { QuantityRange { asTime(*t.low_s, 0), asTime(*t.high_s, 0) },
                              asTime(*t.stop_s) } };
        else
            i.threshold = "will not prime dry: pack the pump or pour oil in";
        const Quantity burst = asTime(*m_build.start.value("burst_s"));
        i.text = m_prime.drill ? Phrase("card.bursts", "Prime in bursts of {0}", { burst })
                               : Phrase("card.bursts_rest", "Prime in bursts of {0}, {1} rest",
                                        { burst, asTime(*m_build.start.value("rest_s")) });
        constexpr double long_s = 60;
        if (t.high_s && *t.high_s > long_s)
            i.why = "more than a minute: fill filter and pump by hand first, and let drill or "
                    "starter rest";
        if (!i.done)
            return;
        i.mark = outcome(*i.done);
        if (i.done->seconds && i.mark == Mark::Proven && t.high_s && *i.done->seconds > *t.high_s) {
            i.mark = Mark::LookAgain;
            i.why = "later than expected";
        }
        i.said = i.done->outcome == "skipped" ? "skipped" : saidOf(*i.done);
    }

    static Phrase saidOf(const CardStep &s)
    {
        const bool none = s.outcome == "not_so";
        std::vector<Phrase> parts;
        if (s.seconds)
            parts.emplace_back(none ? "card.none_in" : "card.came_after",
                               none ? "no pressure in {0}" : "pressure after {0}",
                               std::vector<Phrase::Argument> { asTime(*s.seconds, 1) });
        if (none)
            return parts.empty() ? Phrase("no pressure") : parts.front();
        if (s.pressure_kpa)
            parts.emplace_back("", "{0}",
                               std::vector<Phrase::Argument> { asPressure(*s.pressure_kpa * 1e3) });
        if (s.rpm)
            parts.emplace_back("", "{0}", std::vector<Phrase::Argument> { asSpeed(*s.rpm) });
        if (s.oil_c)
            parts.emplace_back("card.oil", "oil {0}",
                               std::vector<Phrase::Argument> { asTemperature(*s.oil_c) });
        return joinedBy(parts);
    }

    void watch(CardItem &i) const
    {
        const StopKind kind = i.id == "lifters" ? StopKind::Lifter : StopKind::Rocker;
        int outlets = 0, seen = 0;
        std::string bad;
        const auto flows = standing(m_build.flows);
        for (const Stop &s : m_build.engine.stops) {
            if (s.kind != kind)
                continue;
            i.watched.push_back(s.id);
            const FlowProof p = flowProof(m_build, s, flows);
            for (const FlowOutlet &o : p.outlets) {
                ++outlets;
                seen += o.seen != nullptr;
                if (o.seen && o.mark() != Mark::Proven)
                    bad += (bad.empty() ? "" : ", ") + o.name;
            }
        }
        if (!bad.empty()) {
            i.mark = Mark::LookAgain;
            i.said = { "card.not_all", "not at {0}", { bad } };
        } else if (seen > 0) {
            i.mark = seen == outlets ? Mark::Proven : i.mark;
            i.said = { "card.seen", "{0} of {1} checked", { asCount(seen), asCount(outlets) } };
        }
        if (i.mark != Mark::Proven && i.done && i.done->outcome == "skipped") {
            i.mark = Mark::LookAgain;
            i.said = joinedBy({ i.said, "skipped" });
        }
    }

    void start(CardItem &i) const
    {
        const double within = *m_build.start.value("pressure_within_s");
        i.text = { "card.start", "Start: pressure within {0}", { asTime(within) } };
        i.threshold = { "card.at_least",
                        "at least {0}, else switch off",
                        { asPressure(m_build.use.hotIdleFloor_kpa * 1e3) } };
        if (!i.done)
            return;
        i.mark = outcome(*i.done);
        if (i.mark == Mark::Proven && i.done->seconds && *i.done->seconds > within) {
            i.mark = Mark::Hold;
            i.why = "too late";
        }
        i.said = saidOf(*i.done);
    }

    void read(CardItem &i) const
    {
        const bool hot = i.id == "hot_idle", fast = i.id == "fast";
        i.rpm = fast ? *m_build.start.value("fast_rpm") : m_build.use.hotIdle_rpm;
        i.oil_c = hot ? m_build.use.hotOil_c : primeOil_c(m_build);
        if (i.done && i.done->rpm && i.done->oil_c) {
            i.rpm = *i.done->rpm;
            i.oil_c = *i.done->oil_c;
        }
        if (fast)
            // What is to be done, whatever was met.
            i.text = { "card.at_speed", "At {0}", { asSpeed(*m_build.start.value("fast_rpm")) } };
        if (hot)
            i.text = { "card.hot_idle",
                       "Hot idle, {0}",
                       { QuantityRange { { 10, Shows::Minutes }, { 15, Shows::Minutes } } } };
        if (const auto r = assessAt(m_build, m_assessment.sizes, i.rpm, i.oil_c)) {
            i.expected = asGaugeShows(m_build, r->gauge);
            i.threshold = { hot ? "card.likely_minimum" : "card.likely",
                            hot ? "likely {0}, minimum {1}" : "likely {0}",
                            { QuantityRange { asPressure(i.expected->low_pa),
                                              asPressure(i.expected->high_pa) },
                              asPressure(m_build.use.hotIdleFloor_kpa * 1e3) } };
        }
        if (!i.done)
            return;
        i.mark = outcome(*i.done);
        i.said = i.done->outcome == "skipped" ? "skipped" : saidOf(*i.done);
        if (i.mark != Mark::Proven || !i.done->pressure_kpa || !i.expected)
            return;
        const double pa = *i.done->pressure_kpa * 1e3;
        i.mark = markOfReading(pa, *i.expected, m_build.use.hotIdleFloor_kpa * 1e3);
        if (i.mark == Mark::Hold)
            i.why = "below the minimum";
        else if (i.mark == Mark::LookAgain)
            i.why = pa < i.expected->low_pa ? "below the likely range" : "above the likely range";
    }

    /// A step nobody went through may have been answered in the list of checks; one that was gone
    /// through is worth what the list makes of it.
    void fromList(CardItem &i) const
    {
        const Check *c = m_assessment.checks.find(checkOfStep(i.id));
        if (!c || !c->asked || (!i.done && c->isOpen()))
            return;
        i.mark = markOf(*c);
        if (!i.done)
            i.said = c->reason;
        else if (c->isOpen() && i.why.empty())
            i.why = c->reason;
    }

    /// The start waits for the gate and for what must be seen before; what follows waits for it.
    void lock()
    {
        const auto gone = [&](std::string_view id) {
            const CardItem *i = m_out.find(id);
            return !i || i->mark != Mark::NotDone;
        };
        const auto because = [&](CardItem &i, Phrase why) {
            i.locked = true;
            i.why = std::move(why);
        };
        for (CardItem &i : m_out.items) {
            if (i.kind == CardKind::Prime && !gone("fuel_off"))
                because(i, "ignition and fuel off first");
            if (i.group != "prime" && i.kind != CardKind::Start && i.kind != CardKind::Gate
                && i.id != "people" && !m_done.contains("start"))
                because(i, "after the start");
            if (i.kind != CardKind::Start)
                continue;
            if (!m_gate.mayStart())
                because(i, m_gate.says());
        }
    }

    const Build &m_build;
    const Assessment &m_assessment;
    const PrimeForecast &m_prime;
    const StartGate &m_gate;
    std::map<std::string_view, const CardStep *> m_done;
    RunCard m_out;
};

} // namespace

const CardItem *RunCard::find(std::string_view id) const
{
    for (const CardItem &i : items)
        if (i.id == id)
            return &i;
    return nullptr;
}

int RunCard::next() const
{
    for (size_t i = 0; i < items.size(); ++i)
        if (items[i].mark == Mark::NotDone && !items[i].locked)
            return static_cast<int>(i);
    return -1;
}

RunCard runCardOf(const Build &build, const Assessment &assessment, const PrimeForecast &prime,
                  const StartGate &gate)
{
    return Card(build, assessment, prime, gate).run();
}

StartCard startCardOf(const Build &build, const Assessment &assessment)
{
    StartCard out { gateOf(assessment), primeForecast(build, assessment), {} };
    out.card = runCardOf(build, assessment, out.prime, out.gate);
    return out;
}

} // namespace mildpath
