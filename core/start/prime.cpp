// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/prime.h"

#include "assess/airreport.h"
#include "assess/calibrated.h"
#include "checks/assessment.h"
#include "circuit/elementtypes.h"
#include "quantity/types.h"
#include "rules/rules.h"
#include "sump/gas.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

/// Elements upstream of the pump: what the pump draws through.
std::set<std::string> suctionSide(const Build &build, const Element &pump)
{
    std::set<std::string> out, seen;
    std::vector<std::string> nodes { pump.from };
    while (!nodes.empty()) {
        const std::string node = nodes.back();
        nodes.pop_back();
        // The oil rests there: what flows into it comes back from the engine.
        const bool oil = node == sumpNode || build.circuit.fixed_kpa.contains(node);
        if (oil || !seen.insert(node).second)
            continue;
        for (const Element &e : build.circuit.elements)
            if (e.to == node && e.kind != ElementKind::Relief) {
                out.insert(e.id);
                nodes.push_back(e.from);
            }
    }
    return out;
}

/// Of anything with a bore and a length (m³); 0 where it has none.
double boreVolume_m3(const Element &e)
{
    const double d = e.value("d_mm") * 1e-3, l = e.value("l_mm") * 1e-3;
    const bool passage = e.kind == ElementKind::Pipe || e.kind == ElementKind::CrankDrilling;
    return passage ? pi * d * d / 4 * l : 0;
}

class Forecaster
{
public:
    Forecaster(const Build &build, const Assessment &assessment)
        : m_build(build)
        , m_assessment(assessment)
    {
    }

    PrimeForecast run()
    {
        m_out.causes = primeCauses(m_build, m_assessment);
        m_out.oil_c = primeOil_c(m_build);
        const PrimeTurn turn = primeTurn(m_build);
        m_out.drill = turn.drill;
        const Element *pump = pumpOf(m_build);
        if (!pump) {
            m_out.unsolved = Error { "/circuit", "there is no pump" };
            return m_out;
        }
        m_out.shaft_rpm = turn.shaft_rpm;
        m_out.crank_rpm = turn.crank_rpm;
        volumes(*pump);
        suction(*pump);
        steady(*pump);
        time(*pump);
        return m_out;
    }

private:
    void volumes(const Element &pump)
    {
        const auto before = suctionSide(m_build, pump);
        double passages = 0;
        for (const Element &e : m_build.circuit.elements)
            if (!before.contains(e.id))
                passages += boreVolume_m3(e);
        m_out.volumes.push_back({ "passages behind the pump", passages, "bores and lengths" });
        const double full = choiceOf(m_build, question::prefill) == "half" ? halfFull : 0;
        const auto add = [&](const char *key, const char *name, double share, std::string from) {
            const double litres = m_build.start.value(key).value_or(0) * share;
            if (litres > 0)
                m_out.volumes.push_back({ name, litres * 1e-3, std::move(from) });
        };
        const auto source = [&](const char *key) -> std::string {
            return m_build.start.own(key) ? "as entered"
                                          : std::string(findKey(startKeys(), key)->source);
        };
        if (m_build.engine.ofKind(StopKind::Filter))
            add("filter_l", full > 0 ? "filter, half filled by hand" : "filter, put on dry",
                1 - full, source("filter_l"));
        add("cooler_l", "cooler and its lines", 1, source("cooler_l"));
        add("other_l", "lifters and chambers", 1, source("other_l"));
    }

    void suction(const Element &pump)
    {
        const Sump &sump = m_build.sump;
        const AirLevel *rest = m_assessment.air.level("rest_cold");
        if (const auto inlet = sump.metres("pump_inlet_z_mm"); inlet && rest)
            m_out.lift_m = std::max(0.0, *inlet - rest->level_m);
        if (const auto own = m_build.start.own("suction_l")) {
            m_out.suction_m3 = *own * 1e-3;
            return;
        }
        // The tube over the oil holds air; below it the oil stands in it by itself.
        double volume = 0, length = 0;
        for (const std::string &id : suctionSide(m_build, pump))
            if (const Element *e = m_build.circuit.find(id)) {
                volume += boreVolume_m3(*e);
                length += e->kind == ElementKind::Pipe ? e->value("l_mm") * 1e-3 : 0;
            }
        m_out.suction_m3 = length > 0 ? volume * std::min(1.0, m_out.lift_m / length) : 0;
    }

    void steady(const Element &pump)
    {
        const auto r
            = assessAt(m_build, m_assessment.sizes, primeTurn(m_build).turned(), m_out.oil_c);
        if (!r) {
            m_out.unsolved = r.error();
            return;
        }
        m_out.steady = asGaugeShows(m_build, r->gauge);
        const std::string packed = choiceOf(m_build, question::packing);
        if (packed == "packed" || packed == "poured" || m_out.lift_m <= 0)
            return;
        const auto at = [&](const std::string &node) {
            const auto it = r->nodePressure_pa.find(node);
            return it == r->nodePressure_pa.end() ? 0.0 : it->second;
        };
        const double across = at(pump.to) - at(pump.from);
        const double slip = r->slip_m3_s;
        if (across <= 0 || slip <= 0)
            return;
        const Oil &oil = m_build.oil.oil;
        const auto line = waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s);
        if (!line)
            return;
        const OilState state = oilState(*line, oil.rho15_kg_m3, Celsius { m_out.oil_c });
        m_out.dryLift_m = dryLift(r->sweptFlow_m3_s, slip, across, state.dynamicViscosity_pa_s,
                                  airViscosity_pa_s, state.density_kg_m3)
                              .lift_m;
    }

    void time(const Element &pump)
    {
        m_out.time = primeTime({ .volume_m3 = m_out.volume_m3(),
                                 .swept_m3_s = pumpDisplacement_m3(pump) * m_out.shaft_rpm / 60,
                                 .efficiency = fillEfficiency,
                                 .suction_m3 = m_out.suction_m3,
                                 .lift_m = m_out.lift_m,
                                 .dryLift_m = m_out.dryLift_m,
                                 .burst_s = *m_build.start.value("burst_s") });
    }

    const Build &m_build;
    const Assessment &m_assessment;
    PrimeForecast m_out;
};

double edge(double steady_pa, const std::optional<double> &from_s, double rise_s, double t_s)
{
    if (!from_s || t_s <= *from_s)
        return 0;
    return steady_pa * (1 - std::exp(-(t_s - *from_s) / rise_s));
}

} // namespace

double PrimeForecast::volume_m3() const
{
    double sum = 0;
    for (const PrimeVolume &v : volumes)
        sum += v.volume_m3;
    return sum;
}

double PrimeForecast::upper_pa(double t_s) const
{
    return edge(steady.high_pa, time.low_s, quickestRise_s, t_s);
}

double PrimeForecast::lower_pa(double t_s) const
{
    return edge(steady.low_pa, time.high_s, slowestRise_s, t_s);
}

PrimeForecast primeForecast(const Build &build, const Assessment &assessment)
{
    return Forecaster(build, assessment).run();
}

} // namespace mildpath
