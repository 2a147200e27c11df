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
    double timeRatio, buoyancy, viscosityRatio; ///< unknown over reference, creeping
    double viscosity_pa_s; ///< of the unknown oil, creeping
    double wallFactor;
    double predictedReferenceTime_s; ///< a check of the rig, creeping
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

/// Drag of a falling ball over 3 π d v: μ (1 + 0.15 Re^0.687), Re = ρ v d/μ (Pa s), to Re 800.
/// Source: L. Schiller, A. Naumann, 1933, from memory.
double dragViscosity_pa_s(double viscosity_pa_s, double density_kg_m3, double speed_m_s,
                          double ball_m);
/// Speed at which a ball falls in an oil, the wall far away.
double fallSpeed_m_s(double viscosity_pa_s, double density_kg_m3, double ball_m,
                     double ballDensity_kg_m3);

/// The race with what the balls' wakes hold back: the reference's fall measures ball, glass and
/// watch, the unknown's is solved for its viscosity.
struct RacedBall
{
    double viscosityRatio; ///< unknown over reference
    double expandedShare; ///< U of it, k = 2, as a share
    double reynolds; ///< the larger of the two
    double predictedReference_s; ///< a check of the rig
};
/// U: watches 0.1 s each by hand, 0.25 K between the glasses, 1 % of the law; above Re 1, where the
/// wall is known for creeping only, its whole part as well. Own choice, no source.
/// Errors: as fallingBall(); besides `time_reference_s`, `time_unknown_s` under 1 s,
/// `ball_diameter_m` over 0.3 of the glass or over Re 800, where nothing can be told.
Result<RacedBall> racedBall(const FallingBall &test);

} // namespace mildpath
