// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"
#include "rules/rules.h"

#include <optional>

namespace mildpath {

inline constexpr double gasConstant_j_kgk = 287.05; ///< of air
inline constexpr double airExponent = 1.4;
inline constexpr double airViscosity_pa_s = 1.85e-5;

/// Gas per oil volume at a place of low pressure.
struct GasAtPressure
{
    double released; ///< came out of solution
    double carried; ///< bubbles that were there
    double share() const { return (released + carried) / (1 + released + carried); }
};
/// released = x αB max(0, p_s − p)/p T/273.15; carried = φ₀/(1 − φ₀) p_s/p. Definition of the
/// Bunsen coefficient and Henry's law, textbook. Equilibrium (x = 1) is an upper bound: oil is in a
/// suction tube for some hundredths of a second.
/// @param entrained  φ₀ at the pressure the oil is saturated at
GasAtPressure gasAtPressure(AbsolutePressure p, AbsolutePressure saturated, double temperature_c,
                            double bunsen = usualBunsen, double releasedShare = 1,
                            double entrained = 0);

/// A bubble's surface: rigid where additives cover it (the safe side), else mobile.
enum class Bubble { Rigid, Mobile };
/// Rising speed (m/s): (ρ − ρg) g d²/(18 μ) (Stokes), /(12 μ) mobile (Hadamard–Rybczynski, the gas'
/// viscosity neglected). Valid to Re 1, where it is 15 % fast.
double riseSpeed_m_s(double diameter_m, double nu_m2_s, double density_kg_m3,
                     double gasDensity_kg_m3, Bubble surface);
/// Smallest bubble that rises a depth in the oil's stay: √(18 μ h/((ρ − ρg) g t)), 12 for mobile.
double escapingBubble_m(double depth_m, double stay_s, double nu_m2_s, double density_kg_m3,
                        double gasDensity_kg_m3, Bubble surface);

/// Share of gas at another pressure: r = φ₀/(1 − φ₀) (p₀/p)^(1/n), φ = r/(1 + r).
/// @param exponent  1 (small bubbles, slow) … 1.4
double shareAt(double share, AbsolutePressure from, AbsolutePressure to, double exponent = 1);

/// Liquid with bubbles at one pressure.
struct AeratedOil
{
    double modulus_pa; ///< K of 1/K = (1 − φ)/K_l + φ/(n p)
    double density_kg_m3;
    double soundSpeed_m_s;
};
/// Source: Wood (1930). @param share  at this pressure
AeratedOil aeratedOil(double share, AbsolutePressure p, double exponent, double liquidModulus_pa,
                      double density_kg_m3, double temperature_c);
/// Density of the mixture: (1 − φ) ρ + φ p/(R T).
double mixedDensity_kg_m3(double share, AbsolutePressure p, double density_kg_m3,
                          double temperature_c);

} // namespace mildpath
