// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/operatinginside.h"

#include "circuit/elementtypes.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>

namespace mildpath {

const OperatingModel::Inside::Effects &OperatingModel::Inside::effects() const
{
    std::call_once(m_effectsMade, [this] { findEffects(); });
    return m_effects;
}

void OperatingModel::Inside::findEffects() const
{
    using enum Effect::Kind;
    for (const UncertainInput &input : m_inputs) {
        std::vector<Effect> &out = m_effects.ofInput.emplace_back();
        std::map<std::string, Element> raised; // several keys of one element move together
        for (const ElementStep &s : input.steps) {
            const int element = m_network->elementIndex(s.element);
            const Element *e = m_circuit.find(s.element);
            if (element < 0 || s.by == 0) // a fault may have taken it away
                continue;
            const bool film = e->kind == ElementKind::FilmBearing;
            if (s.key == "flow_factor") {
                out.push_back({ Flow, element, s.by });
            } else if (film && s.key == "clearance_um") {
                out.push_back({ Clearance, element, s.by });
                if (!m_effects.wider.contains(element)) {
                    Element wider = *e;
                    wider.values["clearance_um"] += 1;
                    m_effects.wider[element] = makeLaw(wider);
                }
            } else if (film && s.key == "film_growth_um_per_k") {
                out.push_back({ Warmth, element, s.by });
            } else if (film && s.key == "form_factor") {
                out.push_back({ Form, element, s.by });
            } else {
                Element &moved = raised.try_emplace(s.element, *e).first->second;
                double &value = moved.values.try_emplace(s.key, e->value(s.key)).first->second;
                value = s.ofLogarithm ? value * std::exp(s.by) : value + s.by;
            }
        }
        for (const auto &[id, e] : raised)
            out.push_back({ Law, m_network->elementIndex(id), 0, makeLaw(e) });
    }
    // What warms a film widens it by what one micrometre does.
    for (const auto &effects : m_effects.ofInput)
        for (const Effect &e : effects)
            if (e.kind == Warmth && !m_effects.wider.contains(e.element)) {
                Element wider = m_circuit.elements[static_cast<size_t>(e.element)];
                wider.values["clearance_um"] += 1;
                m_effects.wider[e.element] = makeLaw(wider);
            }
}

namespace {

/// What the inputs of the oil do to every flow. A change of temperature is one of viscosity, for
/// each element by as much as its own oil thins: one pass serves both.
void addOilSteps(const Network &network, const std::vector<UncertainInput> &inputs,
                 const Solution &solution, const OperatingPoint &point,
                 std::vector<std::vector<std::pair<int, double>>> &out)
{
    const auto line = waltherLine(point.oil.kv40_mm2_s, point.oil.kv100_mm2_s);
    if (!line)
        return;
    constexpr double step_ln = 0.04;
    OperatingPoint other = point;
    other.oil.kv40_mm2_s *= std::exp(step_ln);
    other.oil.kv100_mm2_s *= std::exp(step_ln);
    const std::vector<double> flows = network.flowsAt(other, solution);
    for (size_t e = 0; e < flows.size(); ++e) {
        const double change = flows[e] - solution.flow_m3_s[e];
        const double c = solution.oilTemperature_c[e];
        const auto thickness = [&](double t) {
            return std::log(oilState(*line, point.oil.rho15_kg_m3, { t }).dynamicViscosity_pa_s);
        };
        const double perKelvin = thickness(c + 0.5) - thickness(c - 0.5);
        for (size_t i = 0; i < inputs.size(); ++i) {
            const double by_ln = inputs[i].oil_ln + inputs[i].oil_k * perKelvin;
            if (by_ln != 0 && change != 0)
                out[i].emplace_back(static_cast<int>(e), change * by_ln / step_ln);
        }
    }
}

} // namespace

OperatingModel::Steps OperatingModel::Inside::flowSteps(const Solution &solution,
                                                        const OperatingPoint &point) const
{
    const Effects &known = effects();
    std::map<int, double> byWidth; // m³/s per µm
    for (const auto &[element, law] : known.wider)
        byWidth[element] = m_network->flowChange(element, *law, solution, point);
    std::vector<std::vector<std::pair<int, double>>> out(m_inputs.size());
    for (size_t i = 0; i < m_inputs.size(); ++i) {
        for (const Effect &e : known.ofInput[i]) {
            const auto at = static_cast<size_t>(e.element);
            const auto across = [&] {
                return solution.pressure_pa[static_cast<size_t>(m_network->fromNode(e.element))]
                    - solution.pressure_pa[static_cast<size_t>(m_network->toNode(e.element))];
            };
            double change = 0;
            switch (e.kind) {
            case Effect::Kind::Flow:
                change = e.by * solution.flow_m3_s[at];
                break;
            case Effect::Kind::Clearance:
                change = e.by * byWidth[e.element];
                break;
            case Effect::Kind::Warmth:
                change = e.by * (solution.oilTemperature_c[at] - point.sumpTemperature_c)
                    * byWidth[e.element];
                break;
            case Effect::Kind::Form: // the feed's conductance times the pressure is what counts
                change = e.by * across() * m_network->slopeAt(e.element, solution);
                break;
            case Effect::Kind::Law:
                change = m_network->flowChange(e.element, *e.raised, solution, point);
                break;
            }
            out[i].emplace_back(e.element, change);
        }
    }
    addOilSteps(*m_network, m_inputs, solution, point, out);
    return out;
}

std::vector<OperatingModel::Inside::Changes>
OperatingModel::Inside::changesBy(const Steps &steps, const Solution &solution,
                                  std::span<const int> nodes) const
{
    const auto answers = m_network->adjoints(solution, nodes);
    std::vector<Changes> out;
    for (size_t n = 0; n < nodes.size(); ++n) {
        Changes &changes = out.emplace_back(m_inputs.size(), 0.0);
        const double value = solution.pressure_pa[static_cast<size_t>(nodes[n])];
        for (size_t i = 0; i < m_inputs.size(); ++i) {
            for (const auto &[element, change] : steps[i])
                changes[i] += answers[n][static_cast<size_t>(element)] * change;
            changes[i] += m_inputs[i].pressure_ln * value;
        }
    }
    return out;
}

void OperatingModel::Inside::asRead(LikelyPressure &p) const
{
    for (double *pa : { &p.value_pa, &p.low_pa, &p.high_pa })
        *pa *= m_narrowed.factor();
}

void OperatingModel::Inside::asRead(OperatingResult &r) const
{
    if (!m_narrowed.any())
        return;
    asRead(r.gauge);
    asRead(r.weakestPressure);
    for (PointPressure &p : r.points)
        p.pressure_pa *= m_narrowed.factor();
    for (auto &[node, pa] : r.nodePressure_pa)
        pa *= m_narrowed.factor();
}

DoubtfulPressure OperatingModel::Inside::doubtful(double value_pa, const Changes &changes) const
{
    DoubtfulPressure out { m_narrowed.range(value_pa, changes), {}, {} };
    const double own = bandModelOwn_ln * value_pa;
    // What readings tell of several together is taken off each by its part.
    std::vector<double> parts = m_narrowed.left(changes);
    for (const double part : parts)
        out.left_ln.push_back(value_pa > 0 ? part / value_pa : 0);
    for (size_t i = 0; i < parts.size(); ++i)
        parts[i] = std::max(0.0, parts[i] * changes[i]);
    const double whole = std::accumulate(parts.begin(), parts.end(), own * own);
    if (!(whole > 0))
        return out;
    std::map<std::string, size_t> known;
    const auto add = [&](const std::string &cause, const std::string &family, double by) {
        const auto [at, fresh] = known.try_emplace(cause, out.from.size());
        if (fresh)
            out.from.push_back({ cause, family, 0 });
        out.from[at->second].share += by / whole;
    };
    for (size_t i = 0; i < changes.size(); ++i)
        add(m_inputs[i].cause, m_inputs[i].family, parts[i]);
    add("the model itself", {}, own * own);
    std::ranges::stable_sort(out.from, std::greater {}, &Doubt::share);
    return out;
}

bool OperatingModel::Inside::valveTowards(const Solution &solution, double value_pa,
                                          double edge_pa) const
{
    if (!(value_pa > 0))
        return false;
    for (const Valve &valve : m_valves) {
        const double across
            = solution.pressure_pa[static_cast<size_t>(m_network->fromNode(valve.element))]
            - solution.pressure_pa[static_cast<size_t>(m_network->toNode(valve.element))];
        // Pressures behind the pump rise and fall about alike.
        const double there = across * edge_pa / value_pa;
        if (std::max(across, there) > valve.opens_pa && std::min(across, there) < valve.open_pa)
            return true;
    }
    return false;
}

void OperatingModel::Inside::findValves()
{
    for (size_t e = 0; e < m_circuit.elements.size(); ++e) {
        const Element &valve = m_circuit.elements[e];
        const int element = static_cast<int>(e);
        if (valve.kind == ElementKind::Relief)
            m_valves.push_back(
                { element, valve.value("crack_kpa") * 1e3, valve.value("full_kpa") * 1e3 });
        else if (valve.kind == ElementKind::Jet)
            m_valves.push_back({ element, valve.value("open_kpa") * 1e3,
                                 (valve.value("open_kpa") + valve.value("open_width_kpa")) * 1e3 });
    }
}

Result<std::vector<double>> OperatingModel::drawn(std::span<const double> z,
                                                  std::span<const double> rpm,
                                                  std::span<const SolveState> from) const
{
    const Inside &in = *m_inside;
    const PossibleBuild possible = possibleBuild(in.m_circuit, in.m_oil, in.m_oil_c, in.m_inputs,
                                                 in.m_narrowed.spread(z.first(in.m_inputs.size())));
    std::vector<std::pair<int, std::shared_ptr<const Law>>> laws;
    std::vector<std::pair<int, double>> factors;
    for (size_t e = 0; e < in.m_circuit.elements.size(); ++e) {
        const Element &was = in.m_circuit.elements[e], &is = possible.circuit.elements[e];
        if (was.values == is.values)
            continue;
        laws.emplace_back(static_cast<int>(e), makeLaw(is));
        factors.emplace_back(static_cast<int>(e),
                             is.value("flow_factor") / was.value("flow_factor"));
    }
    const Network network = in.m_network->withLaws(laws, factors);
    std::vector<double> out;
    for (size_t i = 0; i < rpm.size(); ++i) {
        const OperatingPoint point { possible.oil, rpm[i], possible.oil_c };
        SolveState state = i < from.size() ? from[i] : m_state;
        const auto solution = network.solve(point, &state);
        if (!solution)
            return tl::unexpected(solution.error());
        out.push_back(solution->pressure_pa[static_cast<size_t>(in.m_gaugeNode)]
                      * std::exp(possible.pressure_ln) * in.m_narrowed.factor());
    }
    return out;
}

/// A valve that opens towards an edge of a range bends it: both edges are solved, all inputs
/// moved the way that leads there. What they do to each flow stands as a factor of it, so that the
/// films' curves serve again.
void OperatingModel::solveEdges(const Solution &solution, const OperatingPoint &point,
                                const Steps &steps, LikelyPressure &gauge) const
{
    const Inside &in = *m_inside;
    const double value = gauge.value_pa;
    if (!in.valveTowards(solution, value, gauge.low_pa)
        && !in.valveTowards(solution, value, gauge.high_pa))
        return;
    const Network &network = *in.m_network;
    const auto changes = in.changesBy(steps, solution, std::span(&in.m_gaugeNode, 1)).front();
    const double own = bandModelOwn_ln * value;
    const double sigma = std::sqrt(in.m_narrowed.variance(changes) + own * own);
    const std::vector<double> towards = in.m_narrowed.left(changes);
    for (const double side : { -1.0, 1.0 }) {
        std::vector<double> moved(network.elementCount(), 0.0); // m³/s
        double common_ln = 0;
        for (size_t i = 0; i < changes.size(); ++i) {
            const double z = side * likelyFactor * towards[i] / sigma;
            for (const auto &[element, change] : steps[i])
                moved[static_cast<size_t>(element)] += z * change;
            common_ln += z * in.m_inputs[i].pressure_ln;
        }
        std::vector<std::pair<int, double>> factors;
        for (size_t e = 0; e < moved.size(); ++e)
            if (const double flow = solution.flow_m3_s[e]; moved[e] != 0 && flow != 0)
                factors.emplace_back(static_cast<int>(e),
                                     std::exp(std::clamp(moved[e] / flow, -2.0, 2.0)));
        const Network edge = network.withLaws({}, factors);
        SolveState state = m_state;
        state.formerRpm = 0;
        state.curves = network.curvesOf(solution, point);
        // Pressures behind the pump rise and fall about alike.
        for (double &pa : state.pressure_pa)
            if (pa > 0)
                pa *= (side < 0 ? gauge.low_pa : gauge.high_pa) / value;
        const auto there = edge.solve(point, &state);
        if (!there)
            continue; // the straight one stays
        const double rest = side * likelyFactor * bandModelOwn_ln * own / sigma;
        (side < 0 ? gauge.low_pa : gauge.high_pa)
            = there->pressure_pa[static_cast<size_t>(in.m_gaugeNode)] * std::exp(rest + common_ln);
    }
    gauge.low_pa = std::min(gauge.low_pa, value);
    gauge.high_pa = std::max(gauge.high_pa, value);
}

Result<std::vector<DoubtfulPressure>> OperatingModel::likelyAt(const Turned &turned,
                                                               std::span<const std::string> nodes)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { in.m_oil, turned, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    std::vector<int> known;
    for (const std::string &node : nodes)
        known.push_back(std::max(0, in.m_network->nodeIndex(node)));
    const auto steps = in.flowSteps(*solution, point);
    const auto changes = in.changesBy(steps, *solution, known);
    std::vector<DoubtfulPressure> out;
    for (size_t i = 0; i < nodes.size(); ++i)
        out.push_back(
            in.m_network->nodeIndex(nodes[i]) < 0
                ? DoubtfulPressure {}
                : in.doubtful(solution->pressure_pa[static_cast<size_t>(known[i])], changes[i]));
    for (size_t i = 0; i < nodes.size(); ++i) {
        if (known[i] == in.m_gaugeNode)
            solveEdges(*solution, point, steps, out[i].pressure);
        in.asRead(out[i].pressure);
    }
    return out;
}

Result<std::vector<NodeEffects>> OperatingModel::effectsAt(const Turned &turned,
                                                           std::span<const std::string> nodes)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { in.m_oil, turned, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    std::vector<int> known;
    for (const std::string &node : nodes) {
        known.push_back(in.m_network->nodeIndex(node));
        if (known.back() < 0)
            return fail(node, "no element meets this node");
    }
    const auto changes = in.changesBy(in.flowSteps(*solution, point), *solution, known);
    std::vector<NodeEffects> out;
    for (size_t i = 0; i < nodes.size(); ++i) {
        const double value = solution->pressure_pa[static_cast<size_t>(known[i])];
        NodeEffects &e
            = out.emplace_back(NodeEffects { value * in.m_narrowed.factor(), changes[i] });
        for (double &change : e.ln)
            change = value > 0 ? change / value : 0;
    }
    return out;
}

const std::vector<UncertainInput> &OperatingModel::inputList() const
{
    return m_inside->m_inputs;
}

LikelyPressure DoubtfulPressure::without(const Doubt &doubt) const
{
    const double value = pressure.value_pa, left = std::sqrt(1 - doubt.share);
    if (!(value > 0) || !(pressure.low_pa > 0))
        return { value, value - (value - pressure.low_pa) * left,
                 value + (pressure.high_pa - value) * left };
    return { value, value * std::pow(pressure.low_pa / value, left),
             value * std::pow(pressure.high_pa / value, left) };
}

} // namespace mildpath
