// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/checks.h"
#include "plan/hours.h"

#include <optional>
#include <vector>

namespace mildpath {

// How long hands were at a check: as somebody said, else by the clock of what was entered for it.
// docs/theory/plan.md.

/// Longer pauses between two entries are no work at the bench (own choice).
inline constexpr double longestPause_min = 30;

struct HandsTaken
{
    double minutes = 0; ///< for this place
    bool typed = false; ///< somebody said so; else by the clock
};
/// @return nothing where nobody said and fewer than two entries tell
std::optional<HandsTaken> handsTaken(const Build &build, const CheckList &list, const Check &check);

/// What teaches the plan: every time that was said, and every check the clock knows a time of.
std::vector<TimedWork> timedWork(const Build &build, const CheckList &list);

} // namespace mildpath
