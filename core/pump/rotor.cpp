// SPDX-License-Identifier: GPL-3.0-or-later
#include "pump/rotor.h"
#include "quantity/types.h"

#include <algorithm>
#include <cmath>
#include <complex>

namespace mildpath {
namespace {

using Complex = std::complex<double>;

/// Point of the inner profile in its own frame: the epitrochoid moved in by S along its normal.
Complex innerPoint(const RotorSet &set, double theta)
{
    const double teeth = set.innerLobes + 1;
    const Complex centre
        = std::polar(set.toothCentre_m, theta) + std::polar(set.eccentricity_m, teeth * theta);
    const Complex tangent = Complex(0, 1)
        * (std::polar(set.toothCentre_m, theta)
           + std::polar(teeth * set.eccentricity_m, teeth * theta));
    // The curve runs anticlockwise, so the inside lies to the left of the tangent.
    return centre + Complex(0, 1) * tangent / std::abs(tangent) * set.toothRadius_m;
}

/// Smallest radius of the epitrochoid's outward bends, in units of e: larger teeth would cut under
/// the inner rotor's flanks.
double smallestBend(double teeth, double centreOverE)
{
    double least = 1e300;
    for (int i = 0; i < 720; ++i) {
        const double theta = 2 * pi * i / 720;
        const Complex first
            = Complex(0, 1) * (std::polar(centreOverE, theta) + std::polar(teeth, teeth * theta));
        const Complex second
            = -(std::polar(centreOverE, theta) + std::polar(teeth * teeth, teeth * theta));
        const double bend = first.real() * second.imag() - first.imag() * second.real();
        if (bend > 0)
            least = std::min(least, std::pow(std::abs(first), 3) / bend);
    }
    return least;
}

} // namespace

double rotorDisplacement_m3(double rotorLength_m, double eccentricity_m, double innerTip_m)
{
    const double swept = innerTip_m - 2 * eccentricity_m;
    return swept > 0 ? 2 * pi * rotorLength_m * eccentricity_m * swept : 0;
}

Result<RotorSet> rotorSetFor(int innerLobes, double displacement_m3, double rotorLength_m)
{
    if (innerLobes < 3 || innerLobes > 12)
        return fail("inner_lobes", "must be 3 to 12");
    if (!(displacement_m3 > 0))
        return fail("displacement_m3", "must be above 0");
    if (!(rotorLength_m > 0))
        return fail("rotor_length_mm", "must be above 0");
    const double teeth = innerLobes + 1;
    const double centreOverE = 1.5 * teeth;
    const double radiusOverE
        = std::min(0.35 * centreOverE, 0.85 * smallestBend(teeth, centreOverE));
    // r_tip² − r_root² = 4 e (L − S)
    const double e
        = std::sqrt(displacement_m3 / (4 * pi * rotorLength_m * (centreOverE - radiusOverE)));
    RotorSet out { innerLobes, e, centreOverE * e, radiusOverE * e, 0 };
    out.outerRadius_m = out.innerTip_m() + e + 0.45 * out.toothRadius_m;
    return out;
}

RotorPicture rotorPicture(const RotorSet &set, double turn_rad, int pointsPerLobe)
{
    RotorPicture out;
    const Complex innerCentre(0, -set.eccentricity_m);
    out.innerCentre = { innerCentre.real(), innerCentre.imag() };
    const int points = pointsPerLobe * set.innerLobes;
    for (int i = 0; i < points; ++i) {
        const Complex p
            = innerCentre + innerPoint(set, 2 * pi * i / points) * std::polar(1.0, turn_rad);
        out.inner.push_back({ p.real(), p.imag() });
    }
    // Seen from the inner rotor the outer's centre stands at `seen`; its teeth share that angle
    // out.
    const int teeth = set.innerLobes + 1;
    const double seen = pi / 2 - turn_rad;
    const double reach = set.innerTip_m() + set.eccentricity_m;
    for (int k = 0; k < teeth; ++k) {
        const Complex c = std::polar(set.toothCentre_m, (seen + 2 * pi * k) / teeth + turn_rad);
        out.toothCentres.push_back({ c.real(), c.imag() });
    }
    // The opening: as far as the inner tips reach, less the teeth that stand in it.
    const double L = set.toothCentre_m, S = set.toothRadius_m;
    const double first = seen / teeth + turn_rad;
    const int steps = pointsPerLobe * teeth;
    for (int i = 0; i < steps; ++i) {
        const double phi = first + 2 * pi * i / steps;
        const double fromTooth = std::remainder(phi - first, 2 * pi / teeth);
        const double across = L * std::sin(fromTooth);
        double r = reach;
        if (std::abs(across) < S)
            r = std::min(r, L * std::cos(fromTooth) - std::sqrt(S * S - across * across));
        out.outerHole.push_back({ r * std::cos(phi), r * std::sin(phi) });
    }
    return out;
}

double effectiveTipClearance(std::span<const double> clearances)
{
    double sum = 0;
    for (const double h : clearances)
        sum += h * h * h;
    return clearances.empty() ? 0 : std::cbrt(sum / static_cast<double>(clearances.size()));
}

} // namespace mildpath
