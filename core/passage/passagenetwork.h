// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "passage/passage.h"

#include <functional>
#include <span>
#include <vector>

namespace mildpath {

/// A length of one passage between two neighbouring places where something meets it or sits in it.
struct Stretch
{
    int passage; ///< index
    double from_mm, to_mm;
    int a, b; ///< nodes at from_mm and to_mm
    double length_mm() const { return to_mm - from_mm; }
};

/// A place in a passage that a plug or a restrictor takes up: two nodes with it in between.
struct Gate
{
    int passage;
    double at_mm;
    int plug; ///< index; −1: a restrictor
    int a, b; ///< nodes on the side of end 0 and of end 1
};

/// An end through which one gets in from outside: a hole, or what a plug closes.
struct OpenEnd
{
    int passage;
    int end; ///< 0 or 1
    int node;
    bool plugged; ///< closed while its outermost plug is in
};

/// The passages as a graph: stretches between nodes, gates where plugs and restrictors sit. Parts
/// hang together only where passages join within them; holes of parts that meet when the engine is
/// assembled are listed apart (`mates`).
class PassageNetwork
{
public:
    /// @param passages,plugs  in order by checkPassages(); must outlive the network
    PassageNetwork(std::span<const Passage> passages, std::span<const Plug> plugs);

    std::span<const Passage> passages() const { return m_passages; }
    std::span<const Plug> plugs() const { return m_plugs; }
    int nodes() const { return m_nodes; }
    const std::vector<Stretch> &stretches() const { return m_stretches; } ///< passage by passage
    const std::vector<Gate> &gates() const { return m_gates; }
    const std::vector<OpenEnd> &openEnds() const { return m_openEnds; }
    /// Pairs of nodes that meet when their parts are assembled.
    struct Mate
    {
        int a, b; ///< nodes
        int passageA, passageB;
    };
    int indexOf(std::string_view passage) const; ///< −1: unknown
    /// The node of a passage at a place where no gate sits; −1 where there is none.
    int nodeAt(int passage, double at_mm) const;

    /// What can be got to from some nodes: one flag a passage.
    /// @param plugIn    whether a plug (index) is in its place; what is behind it is not reached
    /// @param assembled whether two passages' parts are together; null: nothing is
    std::vector<bool> reached(std::span<const int> from, const std::function<bool(int)> &plugIn,
                              const std::function<bool(int, int)> &assembled = {}) const;

private:
    struct Place
    {
        double at_mm;
        int before, after; ///< nodes on both sides; one and the same without a gate
    };
    std::vector<Place> placesOf(int passage);
    void join();

    std::span<const Passage> m_passages;
    std::span<const Plug> m_plugs;
    int m_nodes = 0;
    std::vector<std::vector<Place>> m_places; ///< by passage
    std::vector<Stretch> m_stretches;
    std::vector<Gate> m_gates;
    std::vector<OpenEnd> m_openEnds;
    std::vector<Mate> m_mates;
};

} // namespace mildpath
