// SPDX-License-Identifier: GPL-3.0-or-later
// What each fault does to the running circuit (docs/theory/diagnosis.md).
#include "assess/circuitof.h"
#include "bearing/feed.h"
#include "diagnose/faultactions.h"
#include "diagnose/faultplaces.h"
#include "diagnose/faults.h"

#include "circuit/elementtypes.h"
#include "oil/blending.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

void widen(Circuit &circuit, const Stop &stop, ElementKind kind, double by_um)
{
    for (const std::string &id : stop.elements)
        if (Element *e = circuit.find(id);
            e && (e->kind == kind || (kind == ElementKind::Bearing && isBearing(*e))))
            e->values["clearance_um"] += by_um;
}

Element hole(std::string id, std::string from, double d_mm, double l_mm, double cd)
{
    return { std::move(id),
             ElementKind::Orifice,
             std::move(from),
             std::string(sumpNode),
             { { "d_mm", d_mm }, { "l_mm", l_mm }, { "cd", cd } },
             {} };
}

Result<void> none(const FaultAt &at)
{
    return fail("stop",
                at.stop.name + " has nothing a fault \"" + std::string(at.kind.id)
                    + "\" could befall");
}

template <class Do> Result<void> each(const FaultAt &at, ElementKind kind, Do change)
{
    bool any = false;
    for (const std::string &id : at.stop.elements)
        if (Element *e = at.circuit.find(id); e && e->kind == kind) {
            change(*e);
            any = true;
        }
    return any ? Result<void> {} : none(at);
}

/// The chosen item, or `usual` when none was; null past the end.
template <class T> const T *item(const FaultAt &at, const std::vector<T> &all, size_t usual)
{
    const size_t i = at.fault.item > 0 ? static_cast<size_t>(at.fault.item) - 1 : usual;
    return i < all.size() ? &all[i] : nullptr;
}

Element *pumpOf(Circuit &circuit)
{
    Element *pump = nullptr;
    for (Element &e : circuit.elements)
        if (e.kind == ElementKind::Pump)
            pump = &e;
    return pump;
}

template <class Do> Result<void> atPump(const FaultAt &at, Do change)
{
    Element *pump = pumpOf(at.circuit);
    return pump ? change(*pump) : none(at);
}

/// The mouth of the pickup, or the hose from the tank: what lies between the oil and the pump.
Result<void> narrowSuction(const FaultAt &at, bool mouth)
{
    const Stop *pickup = at.build.engine.ofKind(StopKind::Pickup);
    const auto all = pickup ? narrowable(at.build, *pickup) : std::vector<const Element *> {};
    for (const Element *e : all)
        if ((e->kind == ElementKind::Orifice) == mouth) {
            at.circuit.find(e->id)->values["d_mm"] *= std::sqrt(1 - at.amount);
            return {};
        }
    return none(at);
}

} // namespace

namespace act {

Result<void> nothing(const FaultAt &)
{
    return {}; // to the circuit: it is the oil's, or no steady pressure shows it
}

Result<void> leavePlugOut(const FaultAt &at)
{
    const auto ends = endsOf(at.build, at.stop);
    const PlugEnd *end = item(at, ends, ends.size() - 1);
    if (!end)
        return none(at);
    if (at.severity > 0)
        at.circuit.elements.push_back(hole("plug_missing@" + at.stop.id, end->node,
                                           end->bore_mm * at.amount, missingPlugLength_mm,
                                           missingPlugDischarge));
    return {};
}

Result<void> narrow(const FaultAt &at)
{
    const auto all = narrowable(at.build, at.stop);
    const auto *chosen = item(at, all, all.size() / 2);
    if (!chosen)
        return none(at);
    at.circuit.find((*chosen)->id)->values["d_mm"] *= std::sqrt(1 - at.amount);
    return {};
}

Result<void> cover(const FaultAt &at)
{
    const std::string node = at.stop.points.empty() ? "" : at.stop.points.front().node;
    const double f = 1 - at.amount;
    for (const std::string &id : at.stop.elements)
        if (Element *e = at.circuit.find(id); e && e->to == node) {
            if (f < 1)
                e->values["k"] = e->value("k") + 1 / std::pow(coveredHoleDischarge * f, 2);
            return {};
        }
    return none(at);
}

Result<void> loseJet(const FaultAt &at)
{
    const Element *chosen = lostJet(at.build, at.stop, at.fault.item);
    if (!chosen)
        return none(at);
    Element &e = *at.circuit.find(chosen->id);
    const double l_mm = e.value("l_mm"), cd = e.value("cd");
    const double open_mm = lostJetBore_mm(e, at.kind, at.severity);
    const double count = e.value("count");
    Element lost = hole(e.id, e.from, open_mm, l_mm, cd);
    if (count > 1) { // one of several alike
        e.values["count"] = count - 1;
        lost.id = "jet_lost@" + at.stop.id;
        at.circuit.elements.push_back(std::move(lost));
    } else {
        lost.to = e.to;
        e = std::move(lost);
    }
    return {};
}

Result<void> leakPastValve(const FaultAt &at)
{
    Element *e = at.stop.elements.empty() ? nullptr : at.circuit.find(at.stop.elements.front());
    if (!e)
        return none(at);
    if (at.severity > 0) {
        Element leak
            = hole("relief_leak@" + at.stop.id, e->from,
                   2 * std::sqrt(at.amount * e->value("full_area_mm2") / pi), 0, e->value("cd"));
        leak.to = e->to;
        at.circuit.elements.push_back(std::move(leak));
    }
    return {};
}

Result<void> holdValveShut(const FaultAt &at)
{
    return each(at, ElementKind::Relief, [](Element &e) {
        e.values["crack_kpa"] += stuckShutBy_kpa;
        e.values["full_kpa"] += stuckShutBy_kpa;
    });
}

Result<void> holdValveOpen(const FaultAt &at)
{
    return each(at, ElementKind::Relief, [&](Element &e) {
        e.values["stuck_open_fraction"] = graded(at.kind) ? at.amount : 1;
    });
}

Result<void> clogMedia(const FaultAt &at)
{
    return each(at, ElementKind::Media,
                [&](Element &e) { e.values["permeance_m3"] *= std::pow(10, -at.amount); });
}

Result<void> swapLines(const FaultAt &at)
{
    reverseFilter(at.build, at.circuit);
    return {};
}

Result<void> drawAir(const FaultAt &at)
{
    return atPump(at, [&](Element &pump) -> Result<void> {
        pump.values["suction_air_hole_mm"] = at.amount;
        return {};
    });
}

Result<void> leavePortOpen(const FaultAt &at)
{
    return atPump(at, [&](Element &pump) -> Result<void> {
        pump.values["suction_air_fraction"] = at.amount;
        return {};
    });
}

Result<void> widenPump(const FaultAt &at)
{
    return atPump(at, [&](Element &pump) -> Result<void> {
        pump.values["end_clearance_um"] += at.amount;
        pump.values["tip_clearance_um"] += at.amount;
        return {};
    });
}

Result<void> runLineToGauge(const FaultAt &at)
{
    return atPump(at, [&](Element &pump) -> Result<void> {
        const auto tap = at.build.circuit.taps.find(at.build.gaugeTap);
        if (tap == at.build.circuit.taps.end())
            return none(at);
        at.circuit.elements.push_back(
            { "external_line",
              ElementKind::Pipe,
              pump.to,
              tap->second,
              { { "d_mm", helperLineBore_mm }, { "l_mm", helperLineLength_mm }, { "k", 3 } },
              {} });
        return {};
    });
}

Result<void> blockMouth(const FaultAt &at)
{
    return narrowSuction(at, true);
}

Result<void> foldHose(const FaultAt &at)
{
    return narrowSuction(at, false);
}

/// What else than its viscosity changes: froth goes through the pump as air.
Result<void> froth(const FaultAt &at)
{
    if (Element *pump = pumpOf(at.circuit))
        pump->values["suction_air_fraction"] = coolantFroth * at.severity;
    return {};
}

Result<void> widenBearings(const FaultAt &at)
{
    widen(at.circuit, at.stop, ElementKind::Bearing, at.amount);
    return {};
}

Result<void> widenAnnuli(const FaultAt &at)
{
    widen(at.circuit, at.stop, ElementKind::Annulus, at.amount);
    return {};
}

Result<void> restrictPushrods(const FaultAt &at)
{
    for (const Element *e : ofType(at.build, at.stop, ElementKind::Pipe))
        if (e->to == sumpNode)
            at.circuit.find(e->id)->values["k"]
                += at.amount * restrictorLoss(e->value("d_mm"), pushrodRestrictor_mm);
    return {};
}

} // namespace act

Result<void> applyFault(const Build &build, const Fault &fault, Circuit &circuit, Oil &oil)
{
    const FaultKind *kind = findFaultKind(fault.kind);
    if (!kind)
        return fail("kind", "there is no fault \"" + fault.kind + "\"");
    const Stop *stop = build.engine.find(fault.stop);
    if (!stop || !happensAt(*kind, *stop))
        return fail("stop",
                    (stop ? stop->name : "\"" + fault.stop + "\"") + " has no fault \"" + fault.kind
                        + "\"");
    if (!(fault.severity >= 0 && fault.severity <= 1))
        return fail("severity", "must be 0 to 1");
    applyOilFault(fault, oil);
    if (!kind->changesPressure)
        return {};
    const double amount = kind->amount(fault.severity);
    if (!kind->wholeFamily)
        return kind->apply({ build, fault, *kind, *stop, circuit, fault.severity, amount });
    for (const Stop &one : build.engine.stops)
        if (happensAt(*kind, one))
            if (auto ok
                = kind->apply({ build, fault, *kind, one, circuit, fault.severity, amount });
                !ok)
                return ok;
    return {};
}

void applyOilFault(const Fault &fault, Oil &oil)
{
    const FaultKind *kind = findFaultKind(fault.kind);
    if (!kind)
        return;
    const double a = kind->amount(fault.severity);
    const auto scale = [&](double factor) {
        oil.kv40_mm2_s *= factor;
        oil.kv100_mm2_s *= factor;
    };
    switch (kind->measure) {
    case Measure::Thinner:
        return scale(1 - a);
    case Measure::Thicker:
        return scale(1 + a);
    case Measure::Coolant:
        return scale(1 + 2.5 * a); // Einstein's suspension: 1 + 2.5 φ
    case Measure::Petrol:
        oil.kv40_mm2_s = fuelBlend(oil.kv40_mm2_s, petrolAt40_mm2_s, a).kv_mm2_s;
        oil.kv100_mm2_s = fuelBlend(oil.kv100_mm2_s, petrolAt100_mm2_s, a).kv_mm2_s;
        return;
    default:
        return; // a fault of the metal
    }
}

double lostJetBore_mm(const Element &jet, const FaultKind &kind, double severity)
{
    const double own_mm = jet.value("d_mm");
    return own_mm + severity * std::max(0.0, kind.most - own_mm);
}

double restrictorLoss(double pipe_mm, double hole_mm)
{
    return std::pow(std::pow(pipe_mm / hole_mm, 2) / 0.7, 2);
}

Result<void> checkFaults(const Build &build, const std::vector<Fault> &faults)
{
    Circuit circuit = build.circuit;
    Oil oil = runningOil(build.oil);
    return faultChange(build, faults)(circuit, oil);
}

CircuitChange faultChange(const Build &build, std::vector<Fault> faults)
{
    return [&build, faults = std::move(faults)](Circuit &circuit, Oil &oil) -> Result<void> {
        for (const Fault &f : faults)
            if (auto ok = applyFault(build, f, circuit, oil); !ok)
                return ok;
        return {};
    };
}

} // namespace mildpath
