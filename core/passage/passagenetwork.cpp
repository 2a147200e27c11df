// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/passagenetwork.h"

#include <algorithm>
#include <numeric>

namespace mildpath {
PassageNetwork::PassageNetwork(std::span<const Passage> passages, std::span<const Plug> plugs)
    : m_passages(passages)
    , m_plugs(plugs)
{
    m_places.resize(passages.size());
    for (int p = 0; p < static_cast<int>(passages.size()); ++p)
        m_places[static_cast<size_t>(p)] = placesOf(p);
    join();
}

std::vector<PassageNetwork::Place> PassageNetwork::placesOf(int index)
{
    const Passage &p = m_passages[static_cast<size_t>(index)];
    std::vector<double> at { 0, p.l_mm };
    for (const Crossing &c : p.crossings)
        at.push_back(c.at_mm);
    for (const Passage &o : m_passages) {
        for (const PassageEnd &e : o.ends)
            if (e.kind == "joint" && e.passage == p.id)
                at.push_back(e.at_mm);
        for (const Crossing &c : o.crossings)
            if (c.passage == p.id)
                at.push_back(c.there_mm);
    }
    struct Sits
    {
        double at_mm;
        int plug;
    };
    std::vector<Sits> gates;
    for (size_t i = 0; i < m_plugs.size(); ++i)
        if (m_plugs[i].passage == p.id)
            gates.push_back({ m_plugs[i].at_mm, static_cast<int>(i) });
    for (const Restrictor &r : p.restrictors)
        gates.push_back({ r.at_mm, -1 });
    for (const Sits &g : gates)
        at.push_back(g.at_mm);
    std::sort(at.begin(), at.end());
    at.erase(std::unique(at.begin(), at.end(), samePlace), at.end());

    std::vector<Place> out;
    for (const double here : at) {
        Place place { here, m_nodes, m_nodes };
        ++m_nodes;
        for (const Sits &g : gates)
            if (samePlace(g.at_mm, here)) {
                place.after = m_nodes++;
                m_gates.push_back({ index, here, g.plug, place.before, place.after });
            }
        if (!out.empty())
            m_stretches.push_back(
                { index, out.back().at_mm, here, out.back().after, place.before });
        out.push_back(place);
    }
    for (int e = 0; e < 2; ++e) {
        const PassageEnd &end = p.ends[static_cast<size_t>(e)];
        if (end.kind == "hole" || end.kind == "plug")
            m_openEnds.push_back(
                { index, e, e == 0 ? out.front().before : out.back().after, end.kind == "plug" });
    }
    return out;
}

/// Nodes that are one place become one; then they are numbered anew.
void PassageNetwork::join()
{
    std::vector<int> root(static_cast<size_t>(m_nodes));
    std::iota(root.begin(), root.end(), 0);
    const auto find = [&](int n) {
        while (root[static_cast<size_t>(n)] != n)
            n = root[static_cast<size_t>(n)]
                = root[static_cast<size_t>(root[static_cast<size_t>(n)])];
        return n;
    };
    const auto unite = [&](int a, int b) {
        if (a >= 0 && b >= 0)
            root[static_cast<size_t>(find(a))] = find(b);
    };
    for (int p = 0; p < static_cast<int>(m_passages.size()); ++p) {
        const Passage &passage = m_passages[static_cast<size_t>(p)];
        for (int e = 0; e < 2; ++e) {
            const PassageEnd &end = passage.ends[static_cast<size_t>(e)];
            if (end.kind == "joint")
                unite(nodeAt(p, e == 0 ? 0 : passage.l_mm),
                      nodeAt(indexOf(end.passage), end.at_mm));
        }
        for (const Crossing &c : passage.crossings)
            unite(nodeAt(p, c.at_mm), nodeAt(indexOf(c.passage), c.there_mm));
    }
    std::vector<int> number(static_cast<size_t>(m_nodes), -1);
    int count = 0;
    const auto renumber = [&](int &n) {
        int &to = number[static_cast<size_t>(find(n))];
        if (to < 0)
            to = count++;
        n = to;
    };
    for (auto &places : m_places)
        for (Place &place : places) {
            renumber(place.before);
            renumber(place.after);
        }
    for (Stretch &s : m_stretches) {
        renumber(s.a);
        renumber(s.b);
    }
    for (Gate &g : m_gates) {
        renumber(g.a);
        renumber(g.b);
    }
    for (OpenEnd &o : m_openEnds)
        renumber(o.node);
    m_nodes = count;
    for (int p = 0; p < static_cast<int>(m_passages.size()); ++p)
        for (int e = 0; e < 2; ++e) {
            const Passage &passage = m_passages[static_cast<size_t>(p)];
            const PassageEnd &end = passage.ends[static_cast<size_t>(e)];
            const int other = indexOf(end.passage);
            if (end.kind != "hole" || other < 0)
                continue;
            const int a = nodeAt(p, e == 0 ? 0 : passage.l_mm), b = nodeAt(other, end.at_mm);
            if (a >= 0 && b >= 0)
                m_mates.push_back({ a, b, p, other });
        }
}

int PassageNetwork::indexOf(std::string_view id) const
{
    for (size_t i = 0; i < m_passages.size(); ++i)
        if (m_passages[i].id == id)
            return static_cast<int>(i);
    return -1;
}

int PassageNetwork::nodeAt(int passage, double at_mm) const
{
    if (passage < 0)
        return -1;
    for (const Place &p : m_places[static_cast<size_t>(passage)])
        if (samePlace(p.at_mm, at_mm))
            return p.before == p.after ? p.before : -1;
    return -1;
}

std::vector<bool> PassageNetwork::reached(std::span<const int> from,
                                          const std::function<bool(int)> &plugIn,
                                          const std::function<bool(int, int)> &assembled) const
{
    std::vector<bool> node(static_cast<size_t>(m_nodes)), out(m_passages.size());
    for (const int n : from)
        node[static_cast<size_t>(n)] = true;
    // Few and short lists: going over them until nothing changes is quick enough and plain.
    for (bool changed = true; changed;) {
        changed = false;
        const auto spread = [&](int a, int b) {
            auto na = node[static_cast<size_t>(a)], nb = node[static_cast<size_t>(b)];
            if (na != nb) {
                node[static_cast<size_t>(a)] = node[static_cast<size_t>(b)] = true;
                changed = true;
            }
        };
        for (const Stretch &s : m_stretches) {
            if (node[static_cast<size_t>(s.a)] || node[static_cast<size_t>(s.b)])
                out[static_cast<size_t>(s.passage)] = true;
            spread(s.a, s.b);
        }
        for (const Gate &g : m_gates)
            if (g.plug < 0 || !plugIn(g.plug))
                spread(g.a, g.b);
        if (assembled)
            for (const Mate &m : m_mates)
                if (assembled(m.passageA, m.passageB))
                    spread(m.a, m.b);
    }
    return out;
}

} // namespace mildpath
