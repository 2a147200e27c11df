// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "rules/rules.h"

#include <string>
#include <vector>

namespace mildpath {

/// Cubic metres in a US and an imperial quart; both exact by definition.
inline constexpr double usQuart_m3 = 0.946352946e-3;
inline constexpr double imperialQuart_m3 = 1.1365225e-3;

/// A volume of oil at another temperature: V (1 + β (T₂ − T₁)). Textbook.
double volumeAt_m3(double volume_m3, double from_c, double to_c,
                   double expansion_per_k = oilExpansion_per_k);

/// A pan as a table: free horizontal area at heights above the lowest inside point, straight
/// between, so that the volume is exactly the trapezoid sum.
class HeightTable
{
public:
    /// @param height_m  first 0, strictly rising
    /// @param area_m2   whole area, ≥ 0
    /// @param immersed_m2  taken up by parts; empty: none
    /// Errors: place = the calculator's key: `height_mm`, `area_mm2`, `immersed_area_mm2`.
    static Result<HeightTable> make(std::vector<double> height_m, std::vector<double> area_m2,
                                    const std::vector<double> &immersed_m2 = {});

    double whole_m3() const;
    /// Volume below a height within the table.
    double volumeBelow_m3(double height_m) const;
    /// Height of the surface over a volume: x = 2 dV/(f + √(f² + 2 s dV)) within a layer, stable
    /// for upright walls. Errors: `fill_l` when it overflows the table.
    Result<double> level_m(double volume_m3) const;

private:
    HeightTable(std::vector<double> height, std::vector<double> free)
        : m_height(std::move(height))
        , m_free(std::move(free))
    {
    }
    std::vector<double> m_height, m_free;
};

/// What becomes of a fill in a sump.
struct SumpFill
{
    double fill_m3; ///< at fill_c
    double static_m3 = 0; ///< what never comes back at rest
    double circulating_m3_s = 0, residence_s = 0; ///< outside the sump
    double fill_c = 20, oil_c = 20;
    double expansion_per_k = oilExpansion_per_k;
    double gas = 0; ///< entrained in the sump, 0…1
};
struct SumpVolumes
{
    double rest_m3; ///< at the fill temperature
    double held_m3; ///< on its way
    double running_m3; ///< hot, swollen by gas; may be negative: the sump is empty
};
/// V_rest = V − V_static;
/// V_running = (V (1 + β (T − T_fill)) − V_static − Q t)/(1 − φ). Mass balance.
SumpVolumes sumpVolumes(const SumpFill &fill);

/// Oil on walls it runs down: film δ = (3 ν Q/(b g))^⅓ (Nusselt 1916) over the wall (m³).
/// @param flow_m3_s   running down
/// @param wetted_m    width it runs over
/// @param wall_m2     area wetted
double wallFilm_m3(double flow_m3_s, double nu_m2_s, double wetted_m, double wall_m2);
/// Time for the film left behind to thin to δ at a height z below the top: t = ν z/(g δ²).
/// Source: Jeffreys (1930), from memory.
double wallDrains_s(double nu_m2_s, double height_m, double film_m);

} // namespace mildpath
