// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/uncertain.h"

#include "circuit/elementtypes.h"
#include "document/enginevalue.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {
namespace {

constexpr double smallBore_mm = 5; ///< a drill's own play counts below
constexpr double leastClearance_um = 1; ///< no gap at all has no law

bool isHole(ElementKind kind)
{
    return kind == ElementKind::Orifice || kind == ElementKind::Check || kind == ElementKind::Jet
        || kind == ElementKind::Thermostat;
}

class Table
{
public:
    Table(const Build &build, const std::vector<GaugedSize> &sizes, const PartTemperatures &parts,
          const Circuit &circuit)
        : m_build(build)
        , m_sizes(sizes)
        , m_parts(parts)
        , m_circuit(circuit)
    {
    }

    std::vector<UncertainInput> run()
    {
        clearances();
        if (!m_build.heat.settledEntered())
            filmWarmth();
        shells();
        pump();
        flowLaws();
        bores();
        valves();
        common("how thick the oil is").oil_ln = usedOrUnknown() ? bandOilUsed_ln : bandOilNew_ln;
        common("oil temperature").oil_k = bandOil_k;
        common("the model itself").pressure_ln = bandModelCommon_ln;
        return std::move(m_out);
    }

private:
    UncertainInput &own(std::string cause)
    {
        m_out.push_back({ std::move(cause) });
        return m_out.back();
    }
    /// The same input for all that share a cause.
    UncertainInput &common(const std::string &cause, const std::string &family = {})
    {
        const auto [at, fresh] = m_common.try_emplace(cause, m_out.size());
        if (fresh)
            m_out.push_back({ cause, family });
        return m_out[at->second];
    }
    bool typical(const std::string &element, const char *key) const
    {
        return originOf(m_build, "circuit/" + element + "/" + key) == Origin::Typical;
    }
    bool usedOrUnknown() const { return m_build.oil.grade.empty() || !m_build.runs.empty(); }

    void clearances()
    {
        for (const GaugedSize &s : m_sizes) {
            const Family &family = *findFamily(s.family);
            const std::string key(family.elementKey);
            if (key.empty() || !s.known || !m_circuit.find(s.element))
                continue;
            const auto add = [&](UncertainInput &to, double u_um) {
                to.steps.push_back({ s.element, key, u_um });
            };
            // What nobody gauged comes out of one box: it moves together. So do parts of one metal.
            add(s.measured ? own(s.name + ", as gauged")
                           : common(std::string(family.plural) + ", assumed", s.family),
                s.cold_um.standardUncertainty);
            const Growth &g = s.growth;
            if (!g.grows())
                continue;
            add(common(g.part == HousingPart::Rod ? "how the rods grow"
                           : g.effective          ? "how the main housings grow"
                                                  : "how the block grows"),
                g.housingU_um_per_k * (g.housing_c(m_parts) - 20));
            add(common(family.shells ? "how the crank grows" : "how the camshaft grows"),
                -g.journalU_um_per_k * (m_parts.journal_c - 20));
            // The mean of a hybrid bore is good to half its spread either way (engineering
            // estimate).
            if (g.spreadHousing_um_per_k != 0 || g.spreadCap_um_per_k != 0)
                add(common("bores of two metals"), g.spread_um(m_parts) / 2 / std::sqrt(3.0));
        }
    }

    void filmWarmth()
    {
        for (const GaugedSize &s : m_sizes) {
            const Element *e = m_circuit.find(s.element);
            if (!e || !e->values.contains("film_growth_um_per_k"))
                continue;
            const Growth &g = s.growth;
            common("how warm journals run")
                .steps.push_back(
                    { s.element, "film_growth_um_per_k", bandWarmth * g.journal_um_per_k });
            common("how warm housings run")
                .steps.push_back({ s.element, "film_growth_um_per_k",
                                   bandWarmth * (g.housing_um_per_k + g.cap_um_per_k) });
        }
    }

    void shells()
    {
        for (const GaugedSize &s : m_sizes) {
            const Element *e = m_circuit.find(s.element);
            if (!e || !e->values.contains("form_factor") || !s.leak)
                continue;
            if (!s.leak->read)
                common("shells thinner at the joint")
                    .steps.push_back({ s.element, "form_factor", s.leak->byEccentric_ln, true });
            common("shells relieved at the joint")
                .steps.push_back({ s.element, "form_factor", s.leak->byRelief_ln, true });
        }
    }

    void pump()
    {
        for (const Element &e : m_circuit.elements) {
            if (e.kind != ElementKind::Pump)
                continue;
            const bool entered
                = !typical(e.id, "displacement_m3") || !typical(e.id, "rotor_length_mm");
            own("what the pump moves")
                .steps.push_back({ e.id, "displacement_m3",
                                   entered ? bandDisplacement_ln : bandDisplacementTypical_ln,
                                   true });
            for (const char *key : { "tip_land_mm", "end_path_length_mm", "body_path_length_mm" }) {
                own("pump leaks, each").steps.push_back({ e.id, key, bandPumpPath_ln, true });
                common("pump leaks, together")
                    .steps.push_back({ e.id, key, bandPumpPaths_ln, true });
            }
            own("air in the oil").steps.push_back({ e.id, "entrained_air", bandAir });
        }
    }

    void flowLaws()
    {
        const auto each = [&](const Element &e, const char *what, double own_ln, double all_ln) {
            own(std::string(what) + ", each")
                .steps.push_back({ e.id, "flow_factor", own_ln, true });
            common(std::string(what) + ", together")
                .steps.push_back({ e.id, "flow_factor", all_ln, true });
        };
        for (const Element &e : m_circuit.elements) {
            if (isBearing(e))
                each(e, "bearing flow", bandBearing_ln, bandBearings_ln);
            else if (isHole(e.kind))
                each(e, "hole flow", bandHole_ln, bandHoles_ln);
            else if (e.kind == ElementKind::Annulus)
                common("how seeping parts lie")
                    .steps.push_back({ e.id, "ecc", bandSeepEccentricity });
            else if (e.kind == ElementKind::Media)
                own("the filter").steps.push_back({ e.id, "permeance_m3", bandFilter_ln, true });
        }
    }

    void bores()
    {
        for (const Element &e : m_circuit.elements) {
            const double d = e.value("d_mm");
            const bool bored = isHole(e.kind) || e.kind == ElementKind::Pipe
                || e.kind == ElementKind::Drilling || e.kind == ElementKind::CrankDrilling;
            if (!bored || !(d > 0) || d >= smallBore_mm)
                continue;
            const Origin from = originOf(m_build, "circuit/" + e.id + "/d_mm");
            own("bores and holes, as said")
                .steps.push_back({ e.id, "d_mm",
                                   from == Origin::Measured      ? bandBoreMeasured_mm
                                       : from == Origin::Typical ? bandBoreTypical * d
                                                                 : bandBoreDrawn_mm });
        }
    }

    void valves()
    {
        for (const Stop &stop : m_build.engine.stops)
            if (stop.kind == StopKind::Relief && !stop.elements.empty()
                && m_circuit.find(stop.elements.front())) {
                const double u
                    = stop.has("spring_rate_n_per_mm") ? bandSpringMeasured_ln : bandSpring_ln;
                UncertainInput &in = own("where the relief valve opens");
                for (const char *key : { "crack_kpa", "full_kpa" })
                    in.steps.push_back({ stop.elements.front(), key, u, true });
            }
    }

    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    const PartTemperatures &m_parts;
    const Circuit &m_circuit;
    std::vector<UncertainInput> m_out;
    std::map<std::string, size_t> m_common;
};

/// Kept where its law has one.
double kept(const ElementStep &step, double value)
{
    if (step.key == "clearance_um" || step.key.ends_with("_clearance_um"))
        return std::max(leastClearance_um, value);
    if (step.key == "ecc")
        return std::clamp(value, 0.0, 0.99);
    if (step.key == "entrained_air")
        return std::clamp(value, 0.0, 0.5);
    if (step.key == "form_factor")
        return std::clamp(value, 0.2, 10.0);
    if (step.key == "d_mm")
        return std::max(0.05, value);
    return value;
}

} // namespace

std::vector<UncertainInput> uncertainInputs(const Build &build,
                                            const std::vector<GaugedSize> &sizes,
                                            const PartTemperatures &parts, const Circuit &circuit)
{
    return Table(build, sizes, parts, circuit).run();
}

double commonPart_ln(std::span<const UncertainInput> inputs, std::span<const double> z)
{
    double out = 0;
    for (size_t i = 0; i < inputs.size(); ++i)
        out += inputs[i].pressure_ln * z[i];
    return out;
}

PossibleBuild possibleBuild(const Circuit &circuit, const Oil &oil, double oil_c,
                            std::span<const UncertainInput> inputs, std::span<const double> z)
{
    PossibleBuild out { circuit, oil, oil_c };
    std::map<std::string_view, Element *> byId;
    for (Element &e : out.circuit.elements)
        byId[e.id] = &e;
    // Sums first, bounds after: what several inputs move is bounded once.
    std::map<std::pair<Element *, std::string>, std::pair<double, double>> moved; // by, ln
    double oil_ln = 0;
    for (size_t i = 0; i < inputs.size(); ++i) {
        for (const ElementStep &s : inputs[i].steps) {
            const auto there = byId.find(s.element); // a fault may have taken it away
            if (there == byId.end())
                continue;
            auto &sum = moved[{ there->second, s.key }];
            (s.ofLogarithm ? sum.second : sum.first) += s.by * z[i];
        }
        oil_ln += inputs[i].oil_ln * z[i];
        out.oil_c += inputs[i].oil_k * z[i];
        out.pressure_ln += inputs[i].pressure_ln * z[i];
    }
    for (const auto &[at, by] : moved) {
        double &value
            = at.first->values.try_emplace(at.second, at.first->value(at.second)).first->second;
        value = kept({ {}, at.second, 0 }, (value + by.first) * std::exp(by.second));
    }
    out.oil.kv40_mm2_s *= std::exp(oil_ln);
    out.oil.kv100_mm2_s *= std::exp(oil_ln);
    return out;
}

} // namespace mildpath
