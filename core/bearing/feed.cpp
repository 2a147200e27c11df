// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/feed.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double radians(double deg)
{
    return deg * pi / 180;
}

double filmAt(const FedBearing &b, double theta)
{
    return b.clearance.value_m / 2 * (1 + b.eccentricityRatio * std::cos(theta));
}

/// ∫(1 + ε cos t)³ dt.
double cubedFilmIntegral(double t, double e)
{
    const double s = std::sin(t);
    return t + 3 * e * s + 3 * e * e * (t / 2 + std::sin(2 * t) / 4)
        + e * e * e * (s - s * s * s / 3);
}

} // namespace

HoleOverlap holeOverlap(double d1, double d2, double e)
{
    const double r1 = d1 / 2, r2 = d2 / 2;
    const double smaller = pi * std::min(r1, r2) * std::min(r1, r2);
    double area = 0;
    if (e <= std::abs(r1 - r2)) {
        area = smaller;
    } else if (e < r1 + r2) {
        const auto arc = [](double x) { return std::acos(std::clamp(x, -1.0, 1.0)); };
        const double kite = (-e + r1 + r2) * (e + r1 - r2) * (e - r1 + r2) * (e + r1 + r2);
        area = r1 * r1 * arc((e * e + r1 * r1 - r2 * r2) / (2 * e * r1))
            + r2 * r2 * arc((e * e + r2 * r2 - r1 * r1) / (2 * e * r2))
            - 0.5 * std::sqrt(std::max(0.0, kite));
        area = std::clamp(area, 0.0, smaller); // rounding, where one all but covers the other
    }
    return { area, area / smaller, std::sqrt(4 * area / pi) };
}

double offsetFor(double d1, double d2, double openShare)
{
    // The overlap falls steadily from one inside the other to side by side.
    double open = std::abs(d1 - d2) / 2, shut = (d1 + d2) / 2;
    if (openShare >= 1)
        return open;
    for (int i = 0; i < 60; ++i) {
        const double middle = (open + shut) / 2;
        (holeOverlap(d1, d2, middle).ofSmaller > openShare ? open : shut) = middle;
    }
    return (open + shut) / 2;
}

double sharpOrificeFlow_m3_s(double area_m2, double dp_pa, double discharge, double rho)
{
    return discharge * area_m2 * std::sqrt(2 * dp_pa / rho);
}

double combinedFlow_m3_s(double side, double pressure, double s)
{
    if (side <= 0 || pressure <= 0)
        return pressure;
    return std::max(std::pow(side, s) * std::pow(pressure, 1 - s), pressure);
}

double axialGrooveExponent(double widthRatio)
{
    return 0.7 * std::pow(widthRatio, 0.7) + 0.4;
}

Result<FeedFlow> grooveFlow(const FedBearing &b, double w, double extent_deg, double centre_deg)
{
    if (!(w >= 0 && w < b.length_m))
        return fail("groove_axial_mm", "must be less than the bearing length");
    if (!((extent_deg > 0 && extent_deg <= 300) || extent_deg == 360))
        return fail("extent_deg", "must be above 0 and at most 300, or 360 for a full groove");
    const double r = b.journalDiameter_m / 2, c = b.clearance.value_m / 2;
    const double e = b.eccentricityRatio, land = (b.length_m - w) / 2;
    const double p = b.pressure_pa, mu = b.viscosity_pa_s;
    if (extent_deg == 360) {
        const double q = pi * r * c * c * c * p * (1 + 1.5 * e * e) / (3 * mu * land);
        return FeedFlow { q, 0, q };
    }
    const double from = radians(centre_deg - extent_deg / 2), to = from + radians(extent_deg);
    const double s = 1 / (1 - w / b.length_m);
    const double fringe = w > 0 ? (2 * s * std::log(s + 1) - (s - 1) * std::log(s * s - 1)) / pi
                                : 2 * std::log(2.0) / pi;
    const double integral = cubedFilmIntegral(to, e) - cubedFilmIntegral(from, e);
    const double lands = p / (12 * mu) * 2 * r * c * c * c * integral / land;
    const double ends
        = p / (12 * mu) * 2 * fringe * (std::pow(filmAt(b, from), 3) + std::pow(filmAt(b, to), 3));
    return FeedFlow { lands + ends, ends,
                      combinedFlow_m3_s(b.sideFlow_m3_s, lands + ends, arcExponent) };
}

Result<FeedFlow> axialGrooveFlow(const FedBearing &b, double w, double arc, double angle_deg)
{
    if (!(w > 0 && w < b.length_m))
        return fail("groove_axial_mm", "must be above 0 and less than the bearing length");
    const double h = filmAt(b, radians(angle_deg)), L = b.length_m;
    const double unit = b.pressure_pa * h * h * h / b.viscosity_pa_s;
    const double sides = unit * (arc / L) / (3 * (1 - w / L));
    const double ends = unit * (1.25 - 0.25 * w / L) / (3 * std::cbrt(L / w - 1));
    return FeedFlow { sides + ends, ends,
                      combinedFlow_m3_s(b.sideFlow_m3_s, sides + ends,
                                        axialGrooveExponent(w / L)) };
}

Result<HoleFlow> holeFlow(const FedBearing &b, double hole_m, double angle_deg)
{
    if (!(hole_m > 0 && hole_m <= 0.8 * b.length_m))
        return fail("hole_diameter_mm", "must be above 0 and at most 0.8 of the bearing length");
    const double h = filmAt(b, radians(angle_deg));
    const double q = 0.675 * b.pressure_pa * h * h * h / b.viscosity_pa_s
        * std::pow(hole_m / b.length_m + 0.4, 1.75);
    return HoleFlow { h, q, combinedFlow_m3_s(b.sideFlow_m3_s, q, holeExponent) };
}

double feedFraction(FeedGroove groove, double groove_deg, double R, double drilling,
                    double feedHole, int entries)
{
    const auto angle
        = [&](double d) { return 2 * std::asin(std::clamp(d / (2 * R), 0.0, 1.0)) * 180 / pi; };
    double share = 1;
    if (groove == FeedGroove::None)
        share = (angle(drilling) + angle(feedHole)) / 360;
    else if (groove == FeedGroove::Partial)
        share = (groove_deg + angle(drilling)) / 360;
    return std::min(1.0, share * entries);
}

} // namespace mildpath
