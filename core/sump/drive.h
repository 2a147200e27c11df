// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

namespace mildpath {

/// A moment of a lap or a crossing.
struct DriveMoment
{
    double time_s;
    double lateral_g = 0; ///< positive: a left turn, oil goes to the right
    double longitudinal_g = 0; ///< positive: accelerating, oil goes to the rear
    bool operator==(const DriveMoment &) const = default;
};

/// Mean over a window round every moment, the signal straight between moments and held at its ends.
/// Oil cannot follow what is quicker than its first slosh: a mean over one such period leaves what
/// the steady tilt may answer to, and nothing of the slosh itself. Own choice of filter.
/// @param moments   time strictly rising
/// @param window_s  > 0
std::vector<DriveMoment> smoothed(std::span<const DriveMoment> moments, double window_s);

} // namespace mildpath
