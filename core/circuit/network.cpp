// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/network.h"

#include "circuit/elementtypes.h"
#include "quantity/json.h"

#include <Eigen/Dense>

#include <algorithm>
#include <set>

namespace mildpath {

int Network::nodeIndex(std::string_view name) const
{
    const auto it = m_names->node.find(name);
    return it == m_names->node.end() ? -1 : it->second;
}

int Network::elementIndex(std::string_view id) const
{
    const auto it = m_names->element.find(id);
    return it == m_names->element.end() ? -1 : it->second;
}

const std::string &Network::elementId(int element) const
{
    return m_elements[static_cast<size_t>(element)].id;
}
int Network::fromNode(int element) const
{
    return m_elements[static_cast<size_t>(element)].from;
}
int Network::toNode(int element) const
{
    return m_elements[static_cast<size_t>(element)].to;
}
const Law &Network::law(int element) const
{
    return *m_elements[static_cast<size_t>(element)].law;
}

int Network::addNode(const std::string &name, std::map<std::string, int, std::less<>> &known)
{
    const auto [it, isNew] = known.try_emplace(name, static_cast<int>(m_nodes.size()));
    if (isNew) {
        m_nodes.push_back(name);
        m_fixed_pa.push_back(0);
    }
    return it->second;
}

Result<void> Network::addElements(const Circuit &circuit)
{
    auto names = std::make_shared<Names>();
    names->node.emplace(sumpNode, 0);
    for (size_t i = 0; i < circuit.elements.size(); ++i) {
        const Element &e = circuit.elements[i];
        const auto wrong = [&](const std::string &key, const Phrase &message) {
            return fail("/elements/" + std::to_string(i) + "/" + key,
                        e.id.empty() ? message : named("element \"" + e.id + "\"", message));
        };
        if (e.id.empty())
            return wrong("id", "is missing or empty");
        if (!names->element.emplace(e.id, static_cast<int>(i)).second)
            return wrong("id", "this id is used twice");
        if (e.from.empty() || e.to.empty())
            return wrong(e.from.empty() ? "from" : "to", "node is missing");
        if (e.from == e.to)
            return wrong("to", "leads back to its own node");
        if (const auto ok = checkElement(e); !ok)
            return wrong(ok.error().place,
                         Phrase("", "{0} {1}", { ok.error().place, ok.error().message }));
        for (const auto &[key, value] : e.extra.json().items())
            m_compileWarnings.push_back(
                { "unknown_key",
                  "element \"" + e.id + "\": key \"" + key + "\" is not known and has no effect" });
        if (e.kind == ElementKind::Pump) {
            if (m_pump >= 0)
                return wrong("type", "a second pressure pump; exactly one is needed");
            m_pump = static_cast<int>(i);
        }
        // A pump warms its own oil by churning it (own choice); nothing else does.
        const double own_k
            = e.kind == ElementKind::Pump && !e.values.contains("dt_k") ? 2.0 : e.value("dt_k");
        m_elements.push_back(
            { e.id, e.kind, addNode(e.from, names->node), addNode(e.to, names->node), -1, -1, -1,
              e.value("count", commonElementKeys()) * e.value("duty", commonElementKeys())
                  * e.value("flow_factor", commonElementKeys()),
              own_k, e.kind == ElementKind::Bearing, nullptr, makeLaw(e) });
        if (e.kind == ElementKind::FilmBearing)
            m_elements.back().film
                = static_cast<const FilmBearingLaw *>(m_elements.back().law.get());
    }
    if (m_pump < 0)
        return fail("/elements", "no pump; exactly one pressure pump is needed");
    m_names = std::move(names);
    return {};
}

Result<void> Network::checkPaths(const Circuit &circuit) const
{
    std::vector<bool> reached(m_nodes.size(), false);
    for (size_t i = 0; i < m_nodes.size(); ++i)
        reached[i] = m_freeOf[i] < 0;
    bool grown = true;
    while (grown) {
        grown = false;
        for (const Part &p : m_elements) {
            if (p.multiplier == 0)
                continue;
            const auto from = static_cast<size_t>(p.from), to = static_cast<size_t>(p.to);
            if (reached[from] != reached[to]) {
                reached[from] = reached[to] = true;
                grown = true;
            }
        }
    }
    for (size_t i = 0; i < circuit.elements.size(); ++i)
        for (const auto &[key, node] :
             { std::pair("from", m_elements[i].from), std::pair("to", m_elements[i].to) })
            if (!reached[static_cast<size_t>(node)])
                return fail("/elements/" + std::to_string(i) + "/" + key,
                            "node \"" + m_nodes[static_cast<size_t>(node)]
                                + "\" has no way to the sump");
    for (const auto &[tap, node] : circuit.taps)
        if (nodeIndex(node) < 0)
            return fail("/taps/" + tap, "no element meets node \"" + node + "\"");
    return {};
}

Result<Network> Network::compile(const Circuit &circuit)
{
    Network n;
    n.m_rise = circuit.bearingRise;
    n.m_nodes.emplace_back(sumpNode);
    n.m_fixed_pa.push_back(0);
    if (auto ok = n.addElements(circuit); !ok)
        return tl::unexpected(ok.error());
    n.m_freeOf.assign(n.m_nodes.size(), 0);
    n.m_freeOf[0] = -1;
    for (const auto &[name, pressure_kpa] : circuit.fixed_kpa) {
        const int node = n.nodeIndex(name);
        if (node < 0)
            return fail("/fixed_kpa/" + name, "no element meets this node");
        n.m_freeOf[static_cast<size_t>(node)] = -1;
        n.m_fixed_pa[static_cast<size_t>(node)] = pressure_kpa * 1e3;
    }
    for (size_t i = 0; i < n.m_nodes.size(); ++i)
        if (n.m_freeOf[i] == 0) {
            n.m_freeOf[i] = static_cast<int>(n.m_nodeOf.size());
            n.m_nodeOf.push_back(static_cast<int>(i));
        }
    if (auto ok = n.checkPaths(circuit); !ok)
        return tl::unexpected(ok.error());

    std::vector<std::pair<int, int>> pairs;
    for (Part &p : n.m_elements) {
        p.freeFrom = n.m_freeOf[static_cast<size_t>(p.from)];
        p.freeTo = n.m_freeOf[static_cast<size_t>(p.to)];
        if (p.freeFrom >= 0 && p.freeTo >= 0)
            pairs.emplace_back(p.freeFrom, p.freeTo);
    }
    n.m_elimination = Elimination(static_cast<int>(n.m_nodeOf.size()), pairs);
    n.m_inletUnknown = n.m_elements[static_cast<size_t>(n.m_pump)].freeFrom;
    const int outlet = n.m_elements[static_cast<size_t>(n.m_pump)].to;
    for (size_t i = 0; i < n.m_elements.size(); ++i) {
        Part &p = n.m_elements[i];
        if (p.freeFrom >= 0 && p.freeTo >= 0)
            p.slot = n.m_elimination.slot(p.freeFrom, p.freeTo);
        if (p.law->lagged() != Lagged::None)
            n.m_lagging.push_back(i);
        if (p.law->lagged() == Lagged::Supply)
            n.m_supplied.push_back(i);
        if (n.m_relief < 0 && p.kind == ElementKind::Relief && p.from == outlet)
            n.m_relief = static_cast<int>(i);
    }
    return n;
}

Network Network::withLaws(const std::vector<std::pair<int, std::shared_ptr<const Law>>> &laws,
                          const std::vector<std::pair<int, double>> &factors) const
{
    Network out = *this;
    for (const auto &[element, law] : laws) {
        Part &part = out.m_elements[static_cast<size_t>(element)];
        part.law = law;
        if (part.film)
            part.film = static_cast<const FilmBearingLaw *>(law.get());
    }
    for (const auto &[element, factor] : factors)
        out.m_elements[static_cast<size_t>(element)].multiplier *= factor;
    return out;
}

std::shared_ptr<const KnownCurves> Network::curvesOf(const Solution &solution,
                                                     const OperatingPoint &point) const
{
    auto out = std::make_shared<KnownCurves>(KnownCurves { point, {} });
    for (size_t i = 0; i < m_elements.size(); ++i)
        out->curves.emplace_back(m_elements[i].law.get(), solution.prepared[i].curve);
    return out;
}

/// (A + U Vᵀ)ᵀ λ = e with the symmetric A of constant lagged values (Woodbury): V holds how they
/// answer to the pressures before them, U what they do to the flows.
std::vector<std::vector<double>> Network::adjoints(const Solution &solution,
                                                   std::span<const int> nodes) const
{
    const size_t n = m_nodeOf.size();
    const auto at = [](const std::vector<double> &x, int free) {
        return free < 0 ? 0.0 : x[static_cast<size_t>(free)];
    };
    std::vector<size_t> live;
    for (const size_t i : m_lagging)
        if (solution.lagAnswer[i].slope != 0 && m_elements[i].freeFrom >= 0)
            live.push_back(i);
    const auto pushed = [&](size_t element, const std::vector<double> &x) {
        const Part &e = m_elements[element];
        return solution.lagAnswer[element].flowPer * (at(x, e.freeFrom) - at(x, e.freeTo));
    };
    const auto r = static_cast<Eigen::Index>(live.size());
    std::vector<std::vector<double>> answers;
    for (const size_t i : live) {
        std::vector<double> x(n, 0.0);
        x[static_cast<size_t>(m_elements[i].freeFrom)] = solution.lagAnswer[i].slope;
        m_elimination.solve(solution.factor, x);
        answers.push_back(std::move(x));
    }
    Eigen::MatrixXd small = Eigen::MatrixXd::Identity(r, r);
    for (Eigen::Index k = 0; k < r; ++k)
        for (Eigen::Index j = 0; j < r; ++j)
            small(k, j) += pushed(live[static_cast<size_t>(k)], answers[static_cast<size_t>(j)]);
    const Eigen::PartialPivLU<Eigen::MatrixXd> lu(small);
    std::vector<std::vector<double>> out;
    for (const int node : nodes) {
        std::vector<double> x(n, 0.0);
        if (const int unknown = m_freeOf[static_cast<size_t>(node)]; unknown >= 0) {
            x[static_cast<size_t>(unknown)] = 1;
            m_elimination.solve(solution.factor, x);
        }
        Eigen::VectorXd push(r);
        for (Eigen::Index k = 0; k < r; ++k)
            push(k) = pushed(live[static_cast<size_t>(k)], x);
        if (r > 0)
            push = lu.solve(push);
        for (Eigen::Index k = 0; k < r; ++k)
            for (size_t i = 0; i < n; ++i)
                x[i] -= answers[static_cast<size_t>(k)][i] * push(k);
        out.emplace_back(m_elements.size());
        for (size_t i = 0; i < m_elements.size(); ++i)
            out.back()[i] = -(at(x, m_elements[i].freeFrom) - at(x, m_elements[i].freeTo));
    }
    return out;
}

std::vector<double> Network::adjoint(const Solution &solution, int node) const
{
    return adjoints(solution, std::span(&node, 1)).front();
}

std::optional<WarmFilm> Network::filmAt(int element, const Solution &solution,
                                        const OperatingPoint &point,
                                        std::optional<double> load_n) const
{
    const auto i = static_cast<size_t>(element);
    const Part &part = m_elements[i];
    const double dp = solution.pressure_pa[static_cast<size_t>(part.from)]
        - solution.pressure_pa[static_cast<size_t>(part.to)];
    const auto line = waltherLine(point.oil.kv40_mm2_s, point.oil.kv100_mm2_s);
    if (!part.film || !(dp > 0) || !line)
        return std::nullopt;
    Running running = part.film->running(shaftSpeed_rad_s(i, point), point.sumpTemperature_c);
    running.load_n = load_n.value_or(running.load_n);
    return warmFilm(
        part.film->film(), running, dp, point.sumpTemperature_c + part.dt_k,
        [&](double t) {
            const OilState s = oilState(*line, point.oil.rho15_kg_m3, { t });
            return FilmOilState { s.density_kg_m3, s.dynamicViscosity_pa_s };
        },
        solution.thinning());
}

double Network::flowAt(int element, double dp_pa, const Solution &solution) const
{
    const auto i = static_cast<size_t>(element);
    const Part &part = m_elements[i];
    double memory = 0;
    return part.multiplier
        * part.law->flow(dp_pa, solution.prepared[i], solution.lagged[i], memory).flow_m3_s;
}

double Network::slopeAt(int element, const Solution &solution) const
{
    const auto i = static_cast<size_t>(element);
    const Part &part = m_elements[i];
    const double dp = solution.pressure_pa[static_cast<size_t>(part.from)]
        - solution.pressure_pa[static_cast<size_t>(part.to)];
    double memory = solution.flow_m3_s[i];
    return part.multiplier
        * part.law->flow(dp, solution.prepared[i], solution.lagged[i], memory).slope_m3_s_pa;
}

double Network::flowChange(int element, const Law &law, const Solution &solution,
                           const OperatingPoint &point) const
{
    const auto i = static_cast<size_t>(element);
    const Part &part = m_elements[i];
    const double dp = solution.pressure_pa[static_cast<size_t>(part.from)]
        - solution.pressure_pa[static_cast<size_t>(part.to)];
    const double speed = shaftSpeed_rad_s(i, point);
    const double supply_c = point.sumpTemperature_c + part.dt_k;
    if (part.film && dp > 0)
        for (const auto &oil : solution.filmOil)
            if (oil->supply_c == supply_c)
                return part.multiplier
                    * flowChange_m3_s(part.film->film(),
                                      part.film->running(speed, point.sumpTemperature_c),
                                      static_cast<const FilmBearingLaw &>(law).running(
                                          speed, point.sumpTemperature_c),
                                      dp, solution.oilTemperature_c[i] - supply_c, *oil);
    if (part.film)
        return 0;
    double memory = 0;
    const Prepared prepared = law.prepare(
        { solution.oil[i], speed, point.sumpTemperature_c, nullptr, solution.thinning() });
    // What a pump takes in is part of the change.
    const double from = solution.pressure_pa[static_cast<size_t>(part.from)];
    const double lagged = law.lagged() == Lagged::Fill ? law.laggedTarget(from, prepared).value
                                                       : solution.lagged[i];
    return part.multiplier * law.flow(dp, prepared, lagged, memory).flow_m3_s
        - solution.flow_m3_s[i];
}

} // namespace mildpath
