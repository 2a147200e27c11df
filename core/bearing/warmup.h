// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"

namespace mildpath {

/// Temperatures of oil and parts at one moment (°C).
struct PartTemperatures
{
    double oil_c;
    double block_c; ///< the bearings' housings in it
    double cap_c; ///< caps or girdle of another material
    double journal_c;
    double rod_c;
};

/// Everything at one temperature: a cold engine, or a soaked one.
inline constexpr PartTemperatures allAt(double c)
{
    return { c, c, c, c, c };
}

/// How far parts stand below the oil once everything has settled (K). Own choice.
struct SettledParts
{
    double housingBelowOil_k = 2; ///< block and rod
    double capBelowOil_k = 2;
    double journalBelowOil_k = 0;
    bool operator==(const SettledParts &) const = default;
};
PartTemperatures settledAt(double oil_c, const SettledParts &parts);

/// How an engine warms, by time constants. Own choice, no source.
struct WarmUp
{
    double start_c = 20; ///< everything, at first
    double oilEnd_c = 100;
    double blockEnd_c = 92; ///< what the coolant makes of the block
    double idle_rpm = 800;
    double oilAtIdle_s = 420, oilAtSpeed_s = 180;
    double blockAtIdle_s = 240, blockAtSpeed_s = 120;
    double journalLag_s = 60; ///< journal and rod behind the oil
    double capLag_s = 120; ///< a cap or girdle behind the oil
};

/// Time constant at a speed (s): 1/τ linear between the two; below idle that of idle.
double timeConstant_s(double atIdle_s, double atSpeed_s, double idle_rpm, double rpm);

/// Temperatures `time_s` after a start at steady speed. Oil: first order to its end. Block: first
/// order to what the coolant makes of it; the little that is missing to the settled housing comes
/// with the oil. Journal, rod and cap: first-order lag behind the oil. Everything ends settled.
/// @param time_s  0 and up
PartTemperatures duringWarmUp(const WarmUp &warmUp, const SettledParts &parts, double rpm,
                              double time_s);

} // namespace mildpath
