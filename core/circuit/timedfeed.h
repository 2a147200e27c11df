// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

namespace mildpath {

/// Two holes, one in a turning journal, one in its bearing, that meet now and then.
struct TimedFeed
{
    double openShare; ///< of a turn they overlap at all
    double meanArea_m2; ///< over a turn
    double duty; ///< that over the smaller hole's area
};
/// Mean area n/(π D) ∫ 4 √(r1² − y²) √(r2² − y²) dy over the smaller hole.
/// @param alignments  how often a turn
/// Errors: `alignments_per_rev` when the holes would never part.
/// Source: geometry; for equal holes 16 r³ n/(3 π D).
Result<TimedFeed> timedFeed(double journal_m, double hole1_m, double hole2_m, int alignments);

} // namespace mildpath
