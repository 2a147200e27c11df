// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>

namespace mildpath {

/// Pressure at a main below which the oil column in the crank breaks (Pa):
///   ½ ρ ω² (R² − r_min²) + keep
/// r_min is the nearest the drilling comes to the axis. Pipe friction is left out.
/// Source: rotating column, textbook.
double crankFeedRequired_pa(double density_kg_m3, double speed_rad_s, double mainRadius_m,
                            double nearest_m, double keep_pa);
/// Pressure at the pin: main + ½ ρ ω² (r_exit² − R²), once the column stands.
double crankPinPressure_pa(double density_kg_m3, double speed_rad_s, double mainRadius_m,
                           double exit_m, double main_pa);
/// Nearest a straight drilling between two mouths comes to the axis at 0, 0.
double nearestToAxis_m(std::array<double, 2> main_m, std::array<double, 2> pin_m);
/// 10 psi per 1 000 rev/min, in Pa per rev/min. Common practice, no source.
inline constexpr double usualRule_pa_per_rpm = 68.9476;
/// That at a speed (Pa). Common practice, no source: linear where the need is quadratic.
double crankRuleOfThumb_pa(double rpm);

} // namespace mildpath
