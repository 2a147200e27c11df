// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "passage/passagenetwork.h"

#include <set>
#include <vector>

namespace mildpath {

// How brush and fluid can go through the passages: what the cleaning plan chooses from.

/// A straight line of drillings, end to end.
struct StraightRun
{
    struct Cell
    {
        int stretch;
        bool reversed; ///< passed from to_mm to from_mm
    };
    std::vector<Cell> cells; ///< from left to right
    std::vector<int> between; ///< gate (index) between cell i and i + 1; −1: none
    int leftEnd = -1, rightEnd = -1; ///< open ends (index); −1: no way in there
    std::vector<int> leftGates, rightGates; ///< gates (index) right at the ends
};
std::vector<StraightRun> straightRuns(const PassageNetwork &network);

/// How many cells one pull covers from the left, or from the right, when only these plugs stay.
struct BrushReach
{
    size_t left = 0, right = 0;
};
BrushReach brushReach(const PassageNetwork &network, const StraightRun &run,
                      const std::set<int> &staying);

/// Whether fluid can go in at one end, through the stretch and out at another end, meeting no place
/// twice.
/// @param usable  which open ends (index) may be used
/// @param open    which gates (index) let it pass
bool passesThrough(const PassageNetwork &network, int stretch, const std::vector<bool> &usable,
                   const std::vector<bool> &open);

/// A way between two open ends.
struct FlushWay
{
    int in, out; ///< open ends (index)
    std::vector<int> stretches; ///< in order
    std::set<int> plugs; ///< that must be out
};
/// Ways from every usable end to every other that go through at least one wanted stretch.
/// @param complete  set to false when the search was given up at its limit
std::vector<FlushWay> flushWays(const PassageNetwork &network, const std::vector<bool> &wanted,
                                const std::set<int> &staying, bool &complete);

/// A plug and every plug in front of it.
void addWithOuter(const PassageNetwork &network, int plug, std::set<int> &out);
/// These plugs and every one hidden behind one of them: it cannot come out either.
std::set<int> withHidden(const PassageNetwork &network, const std::set<int> &plugs);

} // namespace mildpath
