// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/fallingball.h"

#include "quantity/types.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
double faxenFactor(double x)
{
    return 1 - 2.104 * x + 2.09 * std::pow(x, 3) - 0.95 * std::pow(x, 5);
}

Result<FallingBallResult> fallingBall(const FallingBall &t)
{
    if (!(t.ballDensity_kg_m3 > std::max(t.referenceDensity_kg_m3, t.unknownDensity_kg_m3)))
        return fail("ball_density_kg_m3", "must be above both oils', or the ball does not sink");
    const double x = t.ball_m / t.glass_m;
    if (!(x <= 0.5))
        return fail("ball_diameter_m", "must be at most half the glass");
    FallingBallResult out {};
    out.timeRatio = t.unknownTime_s / t.referenceTime_s;
    out.buoyancy = (t.ballDensity_kg_m3 - t.unknownDensity_kg_m3)
        / (t.ballDensity_kg_m3 - t.referenceDensity_kg_m3);
    out.viscosityRatio = out.timeRatio * out.buoyancy;
    out.viscosity_pa_s = out.viscosityRatio * t.referenceViscosity_pa_s;
    out.wallFactor = faxenFactor(x);
    const double speed = gravity_m_s2 * t.ball_m * t.ball_m
        * (t.ballDensity_kg_m3 - t.referenceDensity_kg_m3) * out.wallFactor
        / (18 * t.referenceViscosity_pa_s);
    out.predictedReferenceTime_s = t.fall_m / speed;
    out.reynoldsReference = t.referenceDensity_kg_m3 * t.fall_m / t.referenceTime_s * t.ball_m
        / t.referenceViscosity_pa_s;
    out.reynoldsUnknown
        = t.unknownDensity_kg_m3 * t.fall_m / t.unknownTime_s * t.ball_m / out.viscosity_pa_s;
    out.creeping = std::max(out.reynoldsReference, out.reynoldsUnknown) <= creepingTo;
    return out;
}

} // namespace mildpath
