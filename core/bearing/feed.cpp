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

/// ∫(1 + ε cos t)³ dt.
double cubedFilmIntegral(double t, double e)
{
    const double s = std::sin(t);
    return t + 3 * e * s + 3 * e * e * (t / 2 + s * std::cos(t) / 2)
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

FeedShape FeedShape::hole(double length_m, double hole_m, bool inJournal)
{
    FeedShape out;
    out.m_kind = inJournal ? Kind::JournalHole : Kind::Hole;
    out.m_sides = 0.675 * std::pow(hole_m / length_m + 0.4, 1.75);
    out.m_exponent = holeExponent;
    return out;
}

FeedShape FeedShape::axialGroove(double length_m, double width_m, double arc_m)
{
    const double share = width_m / length_m;
    FeedShape out;
    out.m_kind = Kind::Axial;
    out.m_sides = arc_m / length_m / (3 * (1 - share));
    out.m_ends = (1.25 - 0.25 * share) / (3 * std::cbrt(1 / share - 1));
    out.m_exponent = axialGrooveExponent(share);
    return out;
}

double grooveEndFactor(double widthRatio)
{
    if (!(widthRatio > 0))
        return 2 * std::log(2.0) / pi;
    const double s = 1 / (1 - widthRatio);
    return (2 * s * std::log(s + 1) - (s - 1) * std::log(s * s - 1)) / pi;
}

FeedShape FeedShape::groove(double radius_m, double length_m, double width_m, double extent_rad)
{
    const double land = (length_m - width_m) / 2;
    FeedShape out;
    if (extent_rad >= 2 * pi - 1e-9) {
        out.m_kind = Kind::Full;
        out.m_sides = pi * radius_m / (3 * land);
        return out;
    }
    out.m_kind = Kind::Arc;
    out.m_half_rad = extent_rad / 2;
    out.m_sides = radius_m / (6 * land);
    out.m_ends = grooveEndFactor(width_m / length_m) / 6;
    out.m_exponent = arcExponent;
    return out;
}

FeedShape::Conductance FeedShape::at(RadialClearance clearance, double e, double angle_rad,
                                     double viscosity_pa_s) const
{
    const double c = clearance.value_m, unit = c * c * c / viscosity_pa_s;
    const auto cubed = [](double h) { return h * h * h; };
    switch (m_kind) {
    case Kind::Full:
    case Kind::JournalHole:
        return { m_sides * unit * (1 + 1.5 * e * e), 0 };
    case Kind::Hole:
        return { m_sides * unit * cubed(1 + e * std::cos(angle_rad)), 0 };
    case Kind::Axial: {
        const double there = unit * cubed(1 + e * std::cos(angle_rad));
        return { m_sides * there, m_ends * there };
    }
    case Kind::Arc:
        break;
    }
    const double from = angle_rad - m_half_rad, to = angle_rad + m_half_rad;
    const double integral = cubedFilmIntegral(to, e) - cubedFilmIntegral(from, e);
    return { m_sides * unit * integral,
             m_ends * unit * (cubed(1 + e * std::cos(from)) + cubed(1 + e * std::cos(to))) };
}

namespace {

RadialClearance gapOf(const FedBearing &b)
{
    return radial(b.clearance);
}

FeedFlow flowOf(const FeedShape &shape, const FedBearing &b, double angle_deg)
{
    const auto g = shape.at(gapOf(b), b.eccentricityRatio, radians(angle_deg), b.viscosity_pa_s);
    const double q = g.total() * b.pressure_pa;
    return { q, g.ends * b.pressure_pa,
             shape.exponent() > 0 ? combinedFlow_m3_s(b.sideFlow_m3_s, q, shape.exponent()) : q };
}

} // namespace

Result<FeedFlow> grooveFlow(const FedBearing &b, double w, double extent_deg, double centre_deg)
{
    if (!(w >= 0 && w < b.length_m))
        return fail("groove_axial_mm", "must be less than the bearing length");
    if (!((extent_deg > 0 && extent_deg <= 300) || extent_deg == 360))
        return fail("extent_deg", "must be above 0 and at most 300, or 360 for a full groove");
    return flowOf(FeedShape::groove(b.journalDiameter_m / 2, b.length_m, w, radians(extent_deg)), b,
                  centre_deg);
}

Result<FeedFlow> axialGrooveFlow(const FedBearing &b, double w, double arc, double angle_deg)
{
    if (!(w > 0 && w < b.length_m))
        return fail("groove_axial_mm", "must be above 0 and less than the bearing length");
    return flowOf(FeedShape::axialGroove(b.length_m, w, arc), b, angle_deg);
}

Result<HoleFlow> holeFlow(const FedBearing &b, double hole_m, double angle_deg)
{
    if (!(hole_m > 0 && hole_m <= 0.8 * b.length_m))
        return fail("hole_diameter_mm", "must be above 0 and at most 0.8 of the bearing length");
    const double h = gapOf(b).value_m * (1 + b.eccentricityRatio * std::cos(radians(angle_deg)));
    const FeedFlow f = flowOf(FeedShape::hole(b.length_m, hole_m), b, angle_deg);
    return HoleFlow { h, f.pressure_m3_s, f.total_m3_s };
}

double meanHoleOverlap(double drilling_m, double hole_m)
{
    constexpr int steps = 400;
    const double reach = (drilling_m + hole_m) / 2;
    double sum = 0;
    for (int i = 0; i < steps; ++i)
        sum += holeOverlap(drilling_m, hole_m, reach * (i + 0.5) / steps).area_m2;
    return sum / steps / (pi / 4 * drilling_m * drilling_m);
}

double arcSlot_m(double journalRadius_m, double arc_deg)
{
    return journalRadius_m * arc_deg * pi / 180 / 4;
}

double wholeSlot_m(double journalRadius_m)
{
    return 2 * pi * journalRadius_m / 6;
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
