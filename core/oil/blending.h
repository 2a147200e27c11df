// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"

namespace mildpath {

/// Refutas blending index of a viscosity: 14.534 ln(ln(ν + 0.8)) + 10.975.
/// @param kv_mm2_s  above 0.2. Source: Refutas, from memory.
double blendingIndex(double kv_mm2_s);

/// An oil with fuel in it.
struct FuelBlend
{
    double oilIndex, fuelIndex, blendIndex;
    double kv_mm2_s; ///< of the blend
    double loss; ///< share of the oil's viscosity that is gone
};
/// Indices mixed by mass; both viscosities at one temperature.
/// @param fuelFraction  0…0.5
/// Not for methanol: it hardly mixes with oil (see methanolNote).
/// Source: Refutas, from memory; ASTM D7152 by the D341 double logarithm gives 9.8 where this gives
/// 9.74 for 5 % in a 14 mm²/s oil.
FuelBlend fuelBlend(double oil_mm2_s, double fuel_mm2_s, double fuelFraction);

/// Fuel 2 per fuel 1 by mass, for equal air: (AFR1 λ1)/(AFR2 λ2).
double fuelMassRatio(double airFuel1, double lambda1, double airFuel2, double lambda2);

inline constexpr const char *methanolNote
    = "Methanol hardly mixes with oil: with water it makes an emulsion, washes the film from the "
      "wall and corrodes. No viscosity can be reckoned for it. Change the oil.";

} // namespace mildpath
