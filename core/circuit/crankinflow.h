// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/hydraulics.h"

namespace mildpath {

/// A drilling from a turning main journal to a pin, and how the shell meets its mouths.
struct CrankInflow
{
    Conduit passage; ///< whole length; its loss counts on the way to the pin
    double rIn_m, rOut_m; ///< of its mouths from the crank's axis
    double closest_m; ///< nearest it comes to the axis
    double windowShare = 1; ///< of a turn, that a mouth meets oil, 0…1
    int mouths = 1; ///< in the journal: 2 when it is drilled across
    double openMean = 1; ///< overlap of the holes over the bore's area, mean over the window
    /// The groove the oil comes along; length 0: none.
    double slotWidth_m = 0, slotDepth_m = 0, slotLength_m = 0;
    double keep_pa = 0; ///< least pressure the column keeps at its innermost place

    /// Share of a turn it is open at all: min(1, mouths × windowShare).
    double openShare() const;
};

/// A slot's resistance to laminar flow over the viscosity, K l/(2 D_h² A), with the shape factor
/// K = f Re of Shah and London, "Laminar Flow Forced Convection in Ducts", 1978 (from memory), and
/// the kinetic loss 1.5 ρ/(2 A²). Zero for a slot of no length.
struct SlotShape
{
    double perViscosity; ///< 1/m³: times μ is Pa per m³/s
    double perDensity; ///< 1/m⁴: times ρ is Pa per (m³/s)²
};
SlotShape slotShape(double width_m, double depth_m, double length_m);

/// An operating point's part in it.
struct InflowConditions
{
    OilState oil;
    double need_pa; ///< N: below it at the main no oil enters
    double column_pa; ///< H: what turning adds on the way out
    double window_s; ///< one window lasts; infinite where it never shuts
};
InflowConditions inflowConditions(const CrankInflow &drilling, const OilState &oil,
                                  double speed_rad_s);

struct CrankFlow
{
    double flow_m3_s = 0;
    double byMain = 0; ///< ∂Q/∂p_main, ≥ 0 (m³/s per Pa)
    double byPin = 0; ///< ∂Q/∂p_pin, ≤ 0
    double inflowLimit_m3_s = 0; ///< what the windows let in were the pin no resistance
};
/// What a drilling passes, mean over a turn.
///
/// The oil stands against N = ½ρω²(R² − r_c²) + keep to get in. In a window the inner leg starts
/// from rest and fills what ran out while the mouth was shut: ρ l v̇ = D − loss, so it passes
/// Q∞(D) η, η = ln cosh x / x, x = (window) D A/(ρ l Q∞). From there ½ρω²(r_o² − R²) drives it on.
/// Both limits join as Q = (Q_in⁻⁸ + Q_on⁻⁸)^(−1/8). Zero when p_main does not reach N; never
/// negative. Monotone in both pressures.
/// Source: rotating column and pipe loss, textbook; window, filling and joining own derivation,
/// within −3…+15 % of a time integration with the opening lens.
/// @param main_pa, pin_pa  gauge
CrankFlow crankFlow(const CrankInflow &drilling, const InflowConditions &at, double main_pa,
                    double pin_pa);

} // namespace mildpath
