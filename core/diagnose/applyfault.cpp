// SPDX-License-Identifier: GPL-3.0-or-later
// What each fault does to the running circuit (docs/theory/diagnosis.md).
#include "assess/circuitof.h"
#include "bearing/feed.h"
#include "diagnose/faultplaces.h"
#include "diagnose/faults.h"

#include "circuit/elementtypes.h"
#include "oil/blending.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

void widen(Circuit &circuit, const Stop &stop, std::string_view type, double by_um)
{
    for (const std::string &id : stop.elements)
        if (Element *e = circuit.find(id);
            e && (e->type == type || (type == "bearing" && isBearing(*e))))
            e->values["clearance_um"] += by_um;
}

Element hole(std::string id, std::string from, double d_mm, double l_mm, double cd)
{
    return { std::move(id),
             "orifice",
             std::move(from),
             std::string(sumpNode),
             { { "d_mm", d_mm }, { "l_mm", l_mm }, { "cd", cd } },
             {} };
}

/// Applies one fault to a circuit. A member a kind, so that each stands by itself.
class Applying
{
public:
    Applying(const Build &build, const Fault &fault, const FaultKind &kind, const Stop &stop,
             Circuit &circuit)
        : m_build(build)
        , m_fault(fault)
        , m_kind(kind)
        , m_stop(stop)
        , m_circuit(circuit)
        , m_s(fault.severity)
        , m_amount(kind.amount(fault.severity))
    {
    }

    Result<void> run()
    {
        const std::string_view k = m_kind.id;
        if (k == "plug_missing")
            return plug();
        if (k == "swarf")
            return swarf();
        if (k == "feed_hole_covered" || k == "shell_spun")
            return covered();
        if (k == "jet_lost")
            return jet();
        if (k.starts_with("relief_") || k.starts_with("bypass_"))
            return valve();
        if (k == "lines_swapped") {
            reverseFilter(m_build, m_circuit);
            return {};
        }
        if (k == "filter_clogged")
            return each("media",
                        [&](Element &e) { e.values["permeance_m3"] *= std::pow(10, -m_amount); });
        if (m_stop.kind == "pump" || k == "suction_air")
            return pump();
        if (k == "pickup_blocked" || k == "hose_collapsed")
            return suction();
        if (k.find("oil") != k.npos)
            return oil();
        return worn();
    }

private:
    Result<void> none() const
    {
        return fail("stop",
                    m_stop.name + " has nothing a fault \"" + std::string(m_kind.id)
                        + "\" could befall");
    }
    template <class Do> Result<void> each(std::string_view type, Do change)
    {
        bool any = false;
        for (const std::string &id : m_stop.elements)
            if (Element *e = m_circuit.find(id); e && e->type == type) {
                change(*e);
                any = true;
            }
        return any ? Result<void> {} : none();
    }
    /// The chosen item, or `usual` when none was; null past the end.
    template <class T> const T *item(const std::vector<T> &all, size_t usual) const
    {
        const size_t i = m_fault.item > 0 ? static_cast<size_t>(m_fault.item) - 1 : usual;
        return i < all.size() ? &all[i] : nullptr;
    }

    Result<void> plug()
    {
        const auto ends = endsOf(m_build, m_stop);
        const PlugEnd *end = item(ends, ends.size() - 1);
        if (!end)
            return none();
        if (m_s > 0)
            m_circuit.elements.push_back(hole("plug_missing@" + m_stop.id, end->node,
                                              end->bore_mm * m_amount, missingPlugLength_mm,
                                              missingPlugDischarge));
        return {};
    }
    Result<void> swarf()
    {
        const auto all = narrowable(m_build, m_stop);
        const auto *chosen = item(all, all.size() / 2);
        if (!chosen)
            return none();
        m_circuit.find((*chosen)->id)->values["d_mm"] *= std::sqrt(1 - m_amount);
        return {};
    }
    Result<void> covered()
    {
        const std::string node = m_stop.points.empty() ? "" : m_stop.points.front().node;
        const double f = 1 - m_amount;
        for (const std::string &id : m_stop.elements)
            if (Element *e = m_circuit.find(id); e && e->to == node) {
                if (f < 1)
                    e->values["k"] = e->value("k") + 1 / std::pow(coveredHoleDischarge * f, 2);
                return {};
            }
        return none();
    }
    Result<void> jet()
    {
        const Element *chosen = lostJet(m_build, m_stop, m_fault.item);
        if (!chosen)
            return none();
        Element &e = *m_circuit.find(chosen->id);
        const double l_mm = e.value("l_mm"), cd = e.value("cd");
        const double open_mm = lostJetBore_mm(e, m_kind, m_s);
        const double count = e.value("count");
        Element lost = hole(e.id, e.from, open_mm, l_mm, cd);
        if (count > 1) { // one of several alike
            e.values["count"] = count - 1;
            lost.id = "jet_lost@" + m_stop.id;
            m_circuit.elements.push_back(std::move(lost));
        } else {
            lost.to = e.to;
            e = std::move(lost);
        }
        return {};
    }
    Result<void> valve()
    {
        const std::string_view k = m_kind.id;
        if (k == "relief_leaking") {
            Element *e
                = m_stop.elements.empty() ? nullptr : m_circuit.find(m_stop.elements.front());
            if (!e)
                return none();
            if (m_s > 0) {
                Element leak = hole("relief_leak@" + m_stop.id, e->from,
                                    2 * std::sqrt(m_amount * e->value("full_area_mm2") / pi), 0,
                                    e->value("cd"));
                leak.to = e->to;
                m_circuit.elements.push_back(std::move(leak));
            }
            return {};
        }
        return each("relief", [&](Element &e) {
            if (k.ends_with("shut")) {
                e.values["crack_kpa"] += stuckShutBy_kpa;
                e.values["full_kpa"] += stuckShutBy_kpa;
            } else {
                e.values["stuck_open_fraction"] = graded(m_kind) ? m_amount : 1;
            }
        });
    }
    Result<void> pump()
    {
        const std::string_view k = m_kind.id;
        Element *pump = nullptr;
        for (Element &e : m_circuit.elements)
            if (e.type == "pump")
                pump = &e;
        if (!pump)
            return none();
        if (k == "suction_air") {
            pump->values["suction_air_hole_mm"] = m_amount;
        } else if (k == "pump_gasket") {
            pump->values["suction_air_fraction"] = m_amount;
        } else if (k == "pump_worn") {
            pump->values["end_clearance_um"] += m_amount;
            pump->values["tip_clearance_um"] += m_amount;
        } else {
            const auto tap = m_build.circuit.taps.find(m_build.gaugeTap);
            if (tap == m_build.circuit.taps.end())
                return none();
            m_circuit.elements.push_back(
                { "external_line",
                  "pipe",
                  pump->to,
                  tap->second,
                  { { "d_mm", helperLineBore_mm }, { "l_mm", helperLineLength_mm }, { "k", 3 } },
                  {} });
        }
        return {};
    }
    /// The mouth of the pickup, or the hose from the tank: what lies between the oil and the pump.
    Result<void> suction()
    {
        const bool mouth = m_kind.id == "pickup_blocked";
        const Stop *pickup = m_build.engine.ofKind("pickup");
        const auto all = pickup ? narrowable(m_build, *pickup) : std::vector<const Element *> {};
        for (const Element *e : all)
            if ((e->type == "orifice") == mouth) {
                m_circuit.find(e->id)->values["d_mm"] *= std::sqrt(1 - m_amount);
                return {};
            }
        return none();
    }
    /// What else than its viscosity changes: froth goes through the pump as air.
    Result<void> oil()
    {
        if (m_kind.id == "coolant_in_oil")
            for (Element &e : m_circuit.elements)
                if (e.type == "pump")
                    e.values["suction_air_fraction"] = coolantFroth * m_s;
        return {};
    }
    Result<void> worn()
    {
        const std::string_view k = m_kind.id;
        if (k == "bearing_worn")
            widen(m_circuit, m_stop, "bearing", m_amount);
        for (const Stop &stop : m_build.engine.stops) {
            if (!m_kind.wholeFamily || !happensAt(m_kind, stop))
                continue;
            if (k == "lifter_bores_worn" || k == "rockers_worn")
                widen(m_circuit, stop, "annulus", m_amount);
            else if (k == "pushrods_restricted")
                for (const Element *e : ofType(m_build, stop, "pipe")) {
                    if (e->to == sumpNode)
                        m_circuit.find(e->id)->values["k"]
                            += m_amount * restrictorLoss(e->value("d_mm"), pushrodRestrictor_mm);
                }
            else if (k.ends_with("_worn"))
                widen(m_circuit, stop, "bearing", m_amount);
        }
        return {};
    }

    const Build &m_build;
    const Fault &m_fault;
    const FaultKind &m_kind;
    const Stop &m_stop;
    Circuit &m_circuit;
    double m_s, m_amount; ///< severity, and in the kind's measure
};

} // namespace

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
    return Applying(build, fault, *kind, *stop, circuit).run();
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
    Oil oil = build.oil.oil;
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
