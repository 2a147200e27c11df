// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <span>
#include <utility>
#include <vector>

namespace mildpath {

/// Sparse LDLᵀ of a symmetric positive definite matrix whose pattern is known beforehand.
///
/// The pattern (a circuit's nodes and elements) is analysed once: minimum-degree order, fill and
/// the list of operations. Factorising is then one straight run through that list. A tree of
/// passages makes no fill at all. Not for indefinite or changing patterns; factorize() reports a
/// pivot that is not positive.
class Elimination
{
public:
    Elimination() = default;
    /// @param size   number of unknowns
    /// @param pairs  unknowns joined by an element; order and repeats do not matter
    Elimination(int size, std::span<const std::pair<int, int>> pairs);

    int size() const { return m_size; }
    /// Slot of an off-diagonal entry, for Values::offDiagonal. The pair must be in the pattern.
    int slot(int a, int b) const;

    /// Numbers of the matrix, and after factorize() its factor.
    struct Values
    {
        std::vector<double> diagonal;
        std::vector<double> offDiagonal;
    };
    /// All zeros, ready for stamping.
    Values zero() const;

    /// Factorises in place. @return index of the first pivot that is not positive, or −1 if all
    /// are.
    int factorize(Values &values) const;
    /// Solves in place with a factor. @param x  right side in, solution out; size() entries
    void solve(const Values &factor, std::span<double> x) const;

private:
    /// off[target] −= off[a] · off[b] / pivot
    struct Update
    {
        std::int32_t target, a, b;
    };
    struct Neighbour
    {
        std::int32_t node, slot;
    };
    struct Pivot
    {
        std::int32_t node;
        std::int32_t firstNeighbour, endNeighbour;
        std::int32_t firstUpdate, endUpdate;
    };
    void analyse(std::span<const std::pair<int, int>> pairs);

    int m_size = 0;
    std::vector<Pivot> m_pivots;
    std::vector<Neighbour> m_neighbours;
    std::vector<Update> m_updates;
    std::vector<std::vector<std::pair<int, int>>> m_slots; ///< per smaller index: (larger, slot)
    int m_slotCount = 0;
};

} // namespace mildpath
