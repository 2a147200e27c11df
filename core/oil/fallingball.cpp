// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/fallingball.h"

#include "quantity/types.h"
#include "rules/rules.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <utility>

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

double dragViscosity_pa_s(double viscosity_pa_s, double density_kg_m3, double speed_m_s,
                          double ball_m)
{
    const double re = density_kg_m3 * speed_m_s * ball_m / viscosity_pa_s;
    return viscosity_pa_s * (1 + 0.15 * std::pow(re, 0.687));
}

double fallSpeed_m_s(double viscosity_pa_s, double density_kg_m3, double ball_m,
                     double ballDensity_kg_m3)
{
    const double driven = gravity_m_s2 * ball_m * ball_m * (ballDensity_kg_m3 - density_kg_m3) / 18;
    const double creeping = driven / viscosity_pa_s;
    std::uintmax_t most = 60;
    const auto [a, b] = boost::math::tools::toms748_solve(
        [&](double v) {
            return dragViscosity_pa_s(viscosity_pa_s, density_kg_m3, v, ball_m) * v - driven;
        },
        1e-6 * creeping, creeping, boost::math::tools::eps_tolerance<double>(40), most);
    return (a + b) / 2;
}

Result<RacedBall> racedBall(const FallingBall &t)
{
    constexpr double leastTime_s = 1, watch_s = 0.1, between_k = 0.25, perKelvin = 0.06, law = 0.01;
    constexpr double mostReynolds = 800, mostOfGlass = 0.3, wallKnownTo = 1;
    const auto plain = fallingBall(t);
    if (!plain)
        return tl::unexpected(plain.error());
    if (t.ball_m > mostOfGlass * t.glass_m)
        return fail("ball_diameter_m", "must be at most 0.3 of the glass: nothing can be told");
    for (const auto &[key, time_s] : { std::pair("time_reference_s", t.referenceTime_s),
                                       std::pair("time_unknown_s", t.unknownTime_s) })
        if (time_s < leastTime_s)
            return fail(key, "must be 1 s at least, or no hand can time it");
    const double v1 = t.fall_m / t.referenceTime_s, v2 = t.fall_m / t.unknownTime_s;
    // What the reference says drives the ball, wall and all, and so the unknown.
    const double driven
        = dragViscosity_pa_s(t.referenceViscosity_pa_s, t.referenceDensity_kg_m3, v1, t.ball_m) * v1
        * plain->buoyancy;
    const auto over = [&](double mu) {
        return dragViscosity_pa_s(mu, t.unknownDensity_kg_m3, v2, t.ball_m) * v2 - driven;
    };
    const double high = driven / v2;
    std::uintmax_t most = 100;
    const auto [a, b] = boost::math::tools::toms748_solve(
        over, 1e-9 * high, high, boost::math::tools::eps_tolerance<double>(40), most);
    const double mu = (a + b) / 2;
    RacedBall out {};
    out.viscosityRatio = mu / t.referenceViscosity_pa_s;
    out.reynolds = t.ball_m
        * std::max(t.referenceDensity_kg_m3 * v1 / t.referenceViscosity_pa_s,
                   t.unknownDensity_kg_m3 * v2 / mu);
    if (out.reynolds > mostReynolds)
        return fail("ball_diameter_m",
                    "falls too quickly: nothing can be told; take a smaller one");
    out.predictedReference_s = t.fall_m
        / (fallSpeed_m_s(t.referenceViscosity_pa_s, t.referenceDensity_kg_m3, t.ball_m,
                         t.ballDensity_kg_m3)
           * plain->wallFactor);
    const double u = std::sqrt(std::pow(watch_s / t.referenceTime_s, 2)
                               + std::pow(watch_s / t.unknownTime_s, 2)
                               + std::pow(between_k * perKelvin, 2) + law * law);
    out.expandedShare = 2 * u + (out.reynolds > wallKnownTo ? 1 - plain->wallFactor : 0);
    return out;
}

} // namespace mildpath
