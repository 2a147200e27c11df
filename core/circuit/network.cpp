// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/network.h"

#include "circuit/elementtypes.h"

#include <algorithm>
#include <cassert>
#include <set>

namespace mildpath {

int Network::nodeIndex(std::string_view name) const
{
    const auto it = std::find(m_nodes.begin(), m_nodes.end(), name);
    return it == m_nodes.end() ? -1 : static_cast<int>(it - m_nodes.begin());
}

int Network::elementIndex(std::string_view id) const
{
    const auto it = std::find_if(m_elements.begin(), m_elements.end(),
                                 [&](const Part &p) { return p.id == id; });
    return it == m_elements.end() ? -1 : static_cast<int>(it - m_elements.begin());
}

const std::string &Network::elementId(int element) const
{
    return m_elements[static_cast<size_t>(element)].id;
}
int Network::fromNode(int element) const { return m_elements[static_cast<size_t>(element)].from; }
int Network::toNode(int element) const { return m_elements[static_cast<size_t>(element)].to; }
const Law &Network::law(int element) const { return *m_elements[static_cast<size_t>(element)].law; }

int Network::addNode(const std::string &name)
{
    const int known = nodeIndex(name);
    if (known >= 0)
        return known;
    m_nodes.push_back(name);
    m_fixed_pa.push_back(0);
    return static_cast<int>(m_nodes.size()) - 1;
}

Result<void> Network::addElements(const Circuit &circuit)
{
    std::set<std::string> ids;
    for (size_t i = 0; i < circuit.elements.size(); ++i) {
        const Element &e = circuit.elements[i];
        const std::string place = "/elements/" + std::to_string(i);
        const std::string name = "element \"" + e.id + "\": ";
        if (e.id.empty())
            return fail(place + "/id", "is missing or empty");
        if (!ids.insert(e.id).second)
            return fail(place + "/id", "\"" + e.id + "\" is used twice");
        if (e.from.empty() || e.to.empty())
            return fail(place + (e.from.empty() ? "/from" : "/to"), name + "node is missing");
        if (e.from == e.to)
            return fail(place + "/to", name + "leads back to its own node");
        if (const auto ok = checkElement(e); !ok)
            return fail(place + "/" + ok.error().place,
                        name + ok.error().place + " " + ok.error().message);
        for (const auto &[key, value] : e.extra.items())
            m_compileWarnings.push_back({ "unknown_key", "element \"" + e.id + "\": key \"" + key
                                                             + "\" is not known and has no effect" });
        const bool isBearing = e.type == "bearing";
        if (e.type == "pump") {
            if (m_pump >= 0)
                return fail(place + "/type", name + "a second pressure pump; exactly one is needed");
            m_pump = static_cast<int>(i);
        }
        m_elements.push_back({ e.id, e.type, addNode(e.from), addNode(e.to), -1, -1, -1,
                               e.value("count", 1) * e.value("duty", 1),
                               e.value("dt_k", e.type == "pump" ? 2.0 : 0.0), isBearing,
                               findElementType(e.type)->make(ElementValues(e)) });
    }
    if (m_pump < 0)
        return fail("/elements", "no pump; exactly one pressure pump is needed");
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
        for (const auto &[key, node] : { std::pair("from", &circuit.elements[i].from),
                                         std::pair("to", &circuit.elements[i].to) })
            if (!reached[static_cast<size_t>(nodeIndex(*node))])
                return fail("/elements/" + std::to_string(i) + "/" + key,
                            "node \"" + *node + "\" has no way to the sump");
    for (const auto &[tap, node] : circuit.taps)
        if (nodeIndex(node) < 0)
            return fail("/taps/" + tap, "no element meets node \"" + node + "\"");
    return {};
}

Result<Network> Network::compile(const Circuit &circuit)
{
    Network n;
    n.m_rise = circuit.bearingRise;
    n.addNode(std::string(sumpNode));
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
    const int outlet = n.m_elements[static_cast<size_t>(n.m_pump)].to;
    for (size_t i = 0; i < n.m_elements.size(); ++i) {
        Part &p = n.m_elements[i];
        if (p.freeFrom >= 0 && p.freeTo >= 0)
            p.slot = n.m_elimination.slot(p.freeFrom, p.freeTo);
        if (p.law->lagged() != Lagged::None)
            n.m_lagging.push_back(i);
        if (n.m_relief < 0 && p.type == "relief" && p.from == outlet)
            n.m_relief = static_cast<int>(i);
    }
    return n;
}

std::vector<double> Network::adjoint(const Solution &solution, int node) const
{
    std::vector<double> x(m_nodeOf.size(), 0.0);
    const int unknown = m_freeOf[static_cast<size_t>(node)];
    if (unknown >= 0) {
        x[static_cast<size_t>(unknown)] = 1;
        m_elimination.solve(solution.factor, x);
    }
    const auto at = [&](int free) { return free < 0 ? 0.0 : x[static_cast<size_t>(free)]; };
    std::vector<double> out(m_elements.size());
    for (size_t i = 0; i < m_elements.size(); ++i)
        out[i] = -(at(m_elements[i].freeFrom) - at(m_elements[i].freeTo));
    return out;
}

double Network::flowWith(const Element &changed, const Solution &solution,
                         const OperatingPoint &point) const
{
    const int index = elementIndex(changed.id);
    assert(index >= 0);
    const auto i = static_cast<size_t>(index);
    const Part &part = m_elements[i];
    const auto law = findElementType(changed.type)->make(ElementValues(changed));
    const auto line = waltherLine(point.oil.kv40_mm2_s, point.oil.kv100_mm2_s);
    assert(line);
    const LawConditions conditions {
        oilState(*line, point.oil.rho15_kg_m3, { solution.oilTemperature_c[i] }),
        radPerSecond(point.rpm), point.sumpTemperature_c
    };
    const double dp = solution.pressure_pa[static_cast<size_t>(part.from)]
        - solution.pressure_pa[static_cast<size_t>(part.to)];
    double memory = 0;
    return changed.value("count", 1) * changed.value("duty", 1)
        * law->flow(dp, law->prepare(conditions), solution.lagged[i], memory).flow_m3_s;
}

} // namespace mildpath
