// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

namespace mildpath {

/// The same ball let fall in the same glass through two oils of one temperature.
struct FallingBall
{
    double referenceTime_s, unknownTime_s; ///< over the fall height
    double referenceDensity_kg_m3, unknownDensity_kg_m3;
    double ballDensity_kg_m3 = 7800;
    double referenceViscosity_pa_s;
    double ball_m, glass_m; ///< diameters
    double fall_m;
};
struct FallingBallResult
{
    double timeRatio, buoyancy, viscosityRatio; ///< unknown over reference
    double viscosity_pa_s; ///< of the unknown oil
    double wallFactor;
    double predictedReferenceTime_s; ///< a check of the rig
    double reynoldsReference, reynoldsUnknown;
    bool creeping; ///< both at most 0.2: the ratio is good to about 2 %
};
/// Creeping fall with Faxén's wall correction, which drops out of the ratio:
///   v = g d² (ρb − ρ) K/(18 μ),  K = 1 − 2.104 x + 2.09 x³ − 0.95 x⁵, x = d/D
/// Errors: `ball_density_kg_m3` when the ball does not sink in both, `ball_diameter_m` above half
/// the glass.
/// Source: Stokes and Faxén, textbook; against Haberman and Sayre within 1.2 % to x = 0.4.
Result<FallingBallResult> fallingBall(const FallingBall &test);
double faxenFactor(double ballOverGlass);

} // namespace mildpath
