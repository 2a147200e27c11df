// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"
#include "rules/rules.h"

#include <optional>
#include <string_view>

namespace mildpath {

/// How deep a mouth must lie.
struct Submergence
{
    double velocity_m_s;
    double froude;
    double vortexFree_m; ///< for water: D (1 + 2.3 Fr)
    double dip_m; ///< below this gas is drawn whatever the oil
    std::optional<double> reynolds; ///< Q/(ν S); with a viscosity
    bool viscous = false; ///< the oil is too thick for a full vortex
    double required_m;

    /// low | watch | high for a depth.
    std::string_view state(double depth_m) const;
};
/// S = D (1 + 2.3 Fr), Fr = V/√(g D): ANSI/HI 9.8, from memory. S_dip = 0.69 (Q²/g)^⅕: Lubin and
/// Springer (1967), J. Fluid Mech., from memory. Required: S for thin liquids or unknown ν, else
/// the lesser of S and `dipFactor` S_dip (own choice, for slosh and foam).
/// @param diameter_m  outside of the mouth
Submergence submergence(double flow_m3_s, double diameter_m, std::optional<double> nu_m2_s,
                        double dipFactor = 2);

/// A suction line from sump to pump.
struct SuctionLine
{
    double flow_m3_s;
    double bore_m, length_m;
    double nu_m2_s, density_kg_m3 = 850;
    double loss = 0.5, lossCold = 0; ///< K = K∞ + K₁/Re (Hooper 1981, from memory)
    double lift_m = 0; ///< pump's inlet over the running level; negative: flooded
    double screen_pa = 0;
    double crankcase_pa = atmosphere_pa; ///< absolute
};
struct SuctionPressure
{
    double velocity_m_s, reynolds;
    double friction_pa, minor_pa, velocityHead_pa, static_pa;
    std::optional<AbsolutePressure> inlet; ///< absent: the flow cannot happen
};
/// p = p_c − ρ g lift − ρ v²/2 (1 + f L/d + K) − screen; f = 64/Re to 2300, 0.3164 Re^−¼ from 4000
/// (Blasius), straight between. Textbook.
SuctionPressure suctionPressure(const SuctionLine &line);

/// Air through a hole on the suction side.
struct AirLeak
{
    bool choked;
    double mass_kg_s;
    double atInlet_m3_s, free_m3_s; ///< at the inlet's and the crankcase's pressure
};
/// Isentropic orifice, r = p/p₀ not below 0.5283: m = Cd A p₀/√(R T) √(2γ/(γ−1) (r^(2/γ) −
/// r^((γ+1)/γ))). Textbook. Errors: `inlet_abs_kpa` above the crankcase.
Result<AirLeak> airLeak(double area_m2, AbsolutePressure inlet, AbsolutePressure crankcase,
                        double temperature_c, double discharge = 0.7);
/// Mass flow (kg/s) of air through a thin slot: w h³ (p₀² − p₁²)/(24 μ l R T), laminar, textbook.
double slotLeak_kg_s(double height_m, double width_m, double length_m, AbsolutePressure inlet,
                     AbsolutePressure crankcase, double temperature_c);

/// Outside pressure over inside at which a long, plain tube folds (Pa): E t³/(4 (1 − ν²) r³).
/// Thin ring buckling, textbook.
/// @param modulus_pa  of the wall; soft rubber, hot: about 5 MPa, no source
double hoseFolds_pa(double wall_m, double radius_m, double modulus_pa, double poisson = 0.5);

} // namespace mildpath
