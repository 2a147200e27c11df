// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/hydraulics.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double power16(double x)
{
    const double x2 = x * x, x4 = x2 * x2, x8 = x4 * x4;
    return x8 * x8;
}

double power12(double x)
{
    const double x2 = x * x, x4 = x2 * x2;
    return x4 * x4 * x4;
}

double twelfthRoot(double x)
{
    return std::cbrt(std::sqrt(std::sqrt(x)));
}

} // namespace

Friction churchillFriction(double re, double relativeRoughness)
{
    if (re < laminarBelow)
        return { 64 / re, -64 / (re * re) };
    const double u = std::pow(7 / re, 0.9) + 0.27 * relativeRoughness;
    const double slopeU = -0.9 * (u - 0.27 * relativeRoughness) / re;
    const double logarithm = -std::log(u);
    const double a = power16(2.457 * logarithm);
    const double slopeA = -16 * a / logarithm * slopeU / u;
    const double b = power16(37530 / re);
    const double slopeB = -16 * b / re;
    const double s = a + b;
    const double turbulent = 1 / (s * std::sqrt(s));
    const double laminar = power12(8 / re);
    const double x = laminar + turbulent;
    const double slopeX = -12 * laminar / re - 1.5 * turbulent / s * (slopeA + slopeB);
    const double factor = 8 * twelfthRoot(x);
    return { factor, factor * slopeX / (12 * x) };
}

PassageDrop passageDrop(const Conduit &p, double flow_m3_s, const OilState &oil)
{
    PassageDrop out {};
    const double area = pi / 4 * p.diameter_m * p.diameter_m;
    out.velocity_m_s = flow_m3_s / area;
    const double speed = std::abs(out.velocity_m_s);
    out.reynolds = oil.density_kg_m3 * speed * p.diameter_m / oil.dynamicViscosity_pa_s;
    if (out.reynolds <= 0)
        return out;
    out.friction = churchillFriction(out.reynolds, p.roughness_m / p.diameter_m).factor;
    const double dynamic = oil.density_kg_m3 * out.velocity_m_s * speed / 2;
    out.friction_pa = dynamic * out.friction * p.length_m / p.diameter_m;
    out.minor_pa = dynamic * p.lossCoefficient;
    return out;
}

FlowSlope quadraticFlow(double a, double b, double dp_pa)
{
    const double root = std::sqrt(b * b + 4 * a * std::abs(dp_pa));
    // The textbook root of the quadratic would cancel at small dp; this form does not.
    return { 2 * dp_pa / (b + root), 1 / root };
}

FlowSlope passageFlow(const Conduit &p, double dp_pa, const OilState &oil, double near_m3_s,
                      const SlotResistance &slot)
{
    const double d = p.diameter_m;
    const double area = pi / 4 * d * d;
    const double inertia = oil.density_kg_m3 / (2 * area * area);
    const double a = p.lossCoefficient * inertia + slot.quadratic;
    const double b
        = 128 * oil.dynamicViscosity_pa_s * p.length_m / (pi * d * d * d * d) + slot.linear;
    if (a == 0 && b == 0)
        return { 0, 0 };
    const FlowSlope laminar = quadraticFlow(a, b, dp_pa);
    const double perFlow = 4 * oil.density_kg_m3 / (pi * d * oil.dynamicViscosity_pa_s);
    if (std::abs(laminar.flow_m3_s) * perFlow < laminarBelow)
        return laminar;

    // Churchill's factor is never below 64/Re, so the laminar flow is an upper bound.
    const double target = std::abs(dp_pa);
    const double roughness = p.roughness_m / d;
    const double slender = p.length_m / d;
    double low = 0, high = std::abs(laminar.flow_m3_s);
    double q = near_m3_s > 0 && near_m3_s < high ? near_m3_s : high;
    double slope = 1;
    for (int i = 0; i < 60; ++i) {
        const double re = std::max(q * perFlow, 1e-12);
        const Friction f = churchillFriction(re, roughness);
        const double k = f.factor * slender + p.lossCoefficient;
        const double excess = inertia * q * q * k + q * (slot.linear + slot.quadratic * q) - target;
        slope = inertia * (2 * q * k + q * q * f.slope * perFlow * slender) + slot.linear
            + 2 * slot.quadratic * q;
        (excess > 0 ? high : low) = q;
        double next = q - excess / slope;
        if (!(next >= low && next <= high))
            next = (low + high) / 2;
        const double step = std::abs(next - q);
        q = next;
        // Quadratic convergence: a step this small leaves an error below rounding.
        if (step <= 1e-9 * q)
            break;
    }
    return { std::copysign(q, dp_pa), 1 / slope };
}

HoleCoefficients holeCoefficients(double diameter_m, double length_m, double discharge,
                                  const OilState &oil)
{
    const double d3 = diameter_m * diameter_m * diameter_m;
    const double effective = discharge * pi / 4 * diameter_m * diameter_m;
    return { oil.density_kg_m3 / (2 * effective * effective),
             oil.dynamicViscosity_pa_s * (24 / d3 + 128 * length_m / (pi * d3 * diameter_m)) };
}

double eccentricityFactor(double eccentricity)
{
    return 1 + 1.5 * eccentricity * eccentricity;
}

double annulusConductance_m3_s_pa(double diameter_m, RadialClearance c, double length_m,
                                  double eccentricity, double viscosity_pa_s)
{
    const double gap = c.value_m;
    return pi * diameter_m * gap * gap * gap * eccentricityFactor(eccentricity)
        / (12 * viscosity_pa_s * length_m);
}

double bearingConductance_m3_s_pa(const BearingLeakGeometry &b, RadialClearance c,
                                  double viscosity_pa_s)
{
    const double gap = std::max(0.0, c.value_m);
    const double common
        = pi * gap * gap * gap * eccentricityFactor(b.eccentricity) / viscosity_pa_s;
    if (b.groove_deg > 0) {
        const double land = (b.width_m - b.grooveWidth_m) / 2;
        return b.groove_deg / 360 * common * b.diameter_m / 2 / (3 * land);
    }
    return common / (6 * std::log(2 * b.width_m / (pi * b.hole_m / 2)));
}

double bearingRotationFlow_m3_s(const BearingLeakGeometry &b, RadialClearance c,
                                double journalSpeed_rad_s)
{
    const double length = b.groove_deg > 0 ? b.width_m - b.grooveWidth_m : b.width_m;
    return b.speedFlow * journalSpeed_rad_s * b.diameter_m / 2 * std::max(0.0, c.value_m) * length
        * b.eccentricity;
}

ValueSlope smoothstep(double t)
{
    if (t <= 0)
        return { 0, 0 };
    if (t >= 1)
        return { 1, 0 };
    return { t * t * (3 - 2 * t), 6 * t * (1 - t) };
}

namespace {

/// ln(1 + e^x) and its slope, without overflow.
ValueSlope softplus(double x)
{
    if (x > 0) {
        const double e = std::exp(-x);
        return { x + std::log1p(e), 1 / (1 + e) };
    }
    const double e = std::exp(x);
    return { std::log1p(e), e / (1 + e) };
}

} // namespace

ValueSlope valveOpening(double t)
{
    constexpr double w = 0.02;
    const ValueSlope lower = softplus(t / w);
    const ValueSlope upper = softplus((t - 1) / w);
    return { w * (lower.value - upper.value), lower.slope - upper.slope };
}

ValueSlope valveOpenShare(double dp_pa, double crack_pa, double full_pa)
{
    const double range_pa = full_pa - crack_pa;
    const ValueSlope r = valveOpening((dp_pa - crack_pa) / range_pa);
    return { valveSeatLeak + (1 - valveSeatLeak) * r.value,
             (1 - valveSeatLeak) * r.slope / range_pa };
}

double crankColumn_pa(double density_kg_m3, double speed_rad_s, double rIn_m, double rOut_m)
{
    return density_kg_m3 * speed_rad_s * speed_rad_s * (rOut_m * rOut_m - rIn_m * rIn_m) / 2;
}

double crankSupplyNeeded_pa(double density_kg_m3, double speed_rad_s, double rIn_m,
                            double rClosest_m)
{
    return std::max(0.0, -crankColumn_pa(density_kg_m3, speed_rad_s, rIn_m, rClosest_m));
}

} // namespace mildpath
