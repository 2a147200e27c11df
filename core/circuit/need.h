// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/stopkind.h"

#include <optional>

namespace mildpath {

/// What a kind of consumer needs at its feed, at hot idle and at the highest speed; in between by
/// speed: a pressure, and of some an oil flow. Common practice, no source; the figures stand with
/// the rules.
struct StopNeed
{
    StopKind stopKind;
    double idle_pa = 0, most_pa = 0; ///< 0: none
    /// Bearings of crank and rods: at least the user's own minimum, and what their crank drilling
    /// takes.
    bool atLeastFloor = false;
    double idle_l_min = 0, most_l_min = 0; ///< of each of them; 0: any
};
/// @return null where a stop has no need of its own (galleries, open outlets)
const StopNeed *stopNeed(StopKind stopKind);
/// The same of a turbocharger with ball bearings.
const StopNeed &ballBearingTurboNeed();

/// Linear from hot idle to the highest speed, held beyond either.
/// @param rpm  crank; hotIdle_rpm below most_rpm
double betweenSpeeds(double idle, double most, double rpm, double hotIdle_rpm, double most_rpm);
double needFlowAt_m3_s(const StopNeed &need, double rpm, double hotIdle_rpm, double most_rpm);
double needAt_pa(const StopNeed &need, double rpm, double hotIdle_rpm, double most_rpm,
                 double floor_pa);
/// Least at the gauge by the rule of pressure over speed: never more than needGaugeMost_pa.
double gaugeNeedAt_pa(double base_pa, double rise_pa_per_rpm, double rpm);

} // namespace mildpath
