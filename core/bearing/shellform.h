// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/clearance.h"

#include <span>

namespace mildpath {

// What a real pair of shells leaks, against a round one of the same upright clearance.

/// How a bore departs from a cylinder. Lengths radial unless said.
struct ShellShape
{
    double upright_m = 0; ///< mean diametral clearance at 90°
    /// Wall thinner toward the joint: the gap grows by e (1 − cos a), a from the nearer crown.
    double eccentric_m = 0;
    double reliefDepth_m = 0,
           reliefLength_m = 0; ///< scraped at the joint, and how far along the arc
    double taper_m = 0; ///< change of diameter from end to end of the bearing
    double bell_m = 0; ///< both ends wider by this
};
/// From readings: e by least squares over all flanks, Σ g (C − C₉₀ of the station)/Σ g² with
/// g = 2 (1 − cos(90° − angle)); taper from the outer stations over the whole length; bell-mouth
/// where there are three stations. e is kept within 0…40 µm, and 8 µm (usual) without a flank
/// reading. Own derivation; the usual figures common practice, no source.
/// Errors: `readings` without an upright one.
/// @param readings  diametral clearances
/// @param u_m  standard, of one reading: e, good to √2 u/√Σg², is then joined with the usual
/// 8 ± 4 µm by inverse variance; 0: readings alone
Result<ShellShape> shellShape(std::span<const PositionReading> readings, double length_m,
                              double stationDistance_m, double u_m = 0);
/// As shells usually are: e 8 µm, relieved 15 µm over 6 mm. Common practice, no source.
ShellShape usualShells();
/// Standard uncertainties of the two. Common practice, no source.
inline constexpr double usualEccentricU_m = 4e-6, usualReliefU_m = 8e-6;
/// Largest less smallest of the counted readings at one station, less what e accounts for (m).
double outOfRound_m(std::span<const PositionReading> readings, const ShellShape &shape);

/// Limits of a bore's form where the maker gives none: proven up to `fine`, beyond `most` it holds.
/// Common practice, no source.
struct FormLimits
{
    double fine_m, most_m;
};
FormLimits usualTaperLimits(DiametralClearance clearance); ///< over the whole length
FormLimits usualRoundLimits(DiametralClearance clearance); ///< at one station

/// Between the outer stations, of the bearing's length. Common practice, no source.
inline constexpr double usualStationsApart = 0.6;

/// A bearing as its leak sees it.
struct ShellGeometry
{
    double diameter_m, length_m;
    double grooveWidth_m;
    double extent_rad; ///< of the groove, up to 2π; 0: a hole in the journal
    double eccentricityRatio;
};
/// Flow by pressure of the real shell over that of a round one with the upright clearance:
///   h = C₉₀/2 + C₉₀/2 ε cos θ + e (1 − cos a) + d max(0, 1 − y/b) + T z/(2L) + B (2z/L)²
/// with θ from the middle of the groove, where the film is largest. Groove: both lands
/// (R/l) ∫ dθ/⟨h⁻³⟩ and its ends 2k Σ h³ (not all round); hole in the journal: mean of h³.
/// 181 points along a groove, 721 round a turn, 41 along the bearing. Within 3 % of an own solution
/// of Reynolds' equation in two dimensions.
double formFactor(const ShellGeometry &bearing, const ShellShape &shape);

} // namespace mildpath
