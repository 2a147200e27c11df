// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/elimination.h"

#include <algorithm>
#include <cassert>
#include <set>

namespace mildpath {

Elimination::Elimination(int size, std::span<const std::pair<int, int>> pairs)
    : m_size(size)
    , m_slots(static_cast<size_t>(size))
{
    analyse(pairs);
}

int Elimination::slot(int a, int b) const
{
    if (a > b)
        std::swap(a, b);
    for (const auto &[larger, slot] : m_slots[static_cast<size_t>(a)])
        if (larger == b)
            return slot;
    return -1;
}

void Elimination::analyse(std::span<const std::pair<int, int>> pairs)
{
    std::vector<std::set<int>> open(static_cast<size_t>(m_size));
    const auto join = [&](int a, int b) {
        if (slot(a, b) < 0)
            m_slots[static_cast<size_t>(std::min(a, b))].emplace_back(std::max(a, b),
                                                                      m_slotCount++);
        open[static_cast<size_t>(a)].insert(b);
        open[static_cast<size_t>(b)].insert(a);
    };
    for (const auto &[a, b] : pairs)
        if (a != b)
            join(a, b);

    std::vector<bool> done(static_cast<size_t>(m_size), false);
    for (int step = 0; step < m_size; ++step) {
        int best = -1;
        for (int i = 0; i < m_size; ++i) {
            const auto at = static_cast<size_t>(i);
            if (!done[at] && (best < 0 || open[at].size() < open[static_cast<size_t>(best)].size()))
                best = i;
        }
        done[static_cast<size_t>(best)] = true;
        const std::vector<int> around(open[static_cast<size_t>(best)].begin(),
                                      open[static_cast<size_t>(best)].end());
        Pivot pivot { best, static_cast<std::int32_t>(m_neighbours.size()), 0,
                      static_cast<std::int32_t>(m_updates.size()), 0 };
        for (const int n : around) {
            open[static_cast<size_t>(n)].erase(best);
            m_neighbours.push_back({ n, slot(best, n) });
        }
        for (size_t i = 0; i < around.size(); ++i)
            for (size_t j = i + 1; j < around.size(); ++j) {
                join(around[i], around[j]);
                m_updates.push_back(
                    { slot(around[i], around[j]), slot(best, around[i]), slot(best, around[j]) });
            }
        pivot.endNeighbour = static_cast<std::int32_t>(m_neighbours.size());
        pivot.endUpdate = static_cast<std::int32_t>(m_updates.size());
        m_pivots.push_back(pivot);
    }
}

Elimination::Values Elimination::zero() const
{
    return { std::vector<double>(static_cast<size_t>(m_size), 0.0),
             std::vector<double>(static_cast<size_t>(m_slotCount), 0.0) };
}

int Elimination::factorize(Values &values) const
{
    double *diagonal = values.diagonal.data();
    double *off = values.offDiagonal.data();
    for (const Pivot &p : m_pivots) {
        const double d = diagonal[p.node];
        if (!(d > 0))
            return p.node;
        const double inverse = 1 / d;
        for (int u = p.firstUpdate; u < p.endUpdate; ++u) {
            const Update &update = m_updates[static_cast<size_t>(u)];
            off[update.target] -= off[update.a] * off[update.b] * inverse;
        }
        for (int k = p.firstNeighbour; k < p.endNeighbour; ++k) {
            const Neighbour &n = m_neighbours[static_cast<size_t>(k)];
            const double value = off[n.slot];
            diagonal[n.node] -= value * value * inverse;
            off[n.slot] = value * inverse;
        }
    }
    return -1;
}

void Elimination::solve(const Values &factor, std::span<double> x) const
{
    assert(static_cast<int>(x.size()) == m_size);
    const double *off = factor.offDiagonal.data();
    for (const Pivot &p : m_pivots) {
        const double value = x[static_cast<size_t>(p.node)];
        for (int k = p.firstNeighbour; k < p.endNeighbour; ++k) {
            const Neighbour &n = m_neighbours[static_cast<size_t>(k)];
            x[static_cast<size_t>(n.node)] -= off[n.slot] * value;
        }
    }
    for (auto p = m_pivots.rbegin(); p != m_pivots.rend(); ++p) {
        double value
            = x[static_cast<size_t>(p->node)] / factor.diagonal[static_cast<size_t>(p->node)];
        for (int k = p->firstNeighbour; k < p->endNeighbour; ++k) {
            const Neighbour &n = m_neighbours[static_cast<size_t>(k)];
            value -= off[n.slot] * x[static_cast<size_t>(n.node)];
        }
        x[static_cast<size_t>(p->node)] = value;
    }
}

} // namespace mildpath
