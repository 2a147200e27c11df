// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/fillwindow.h"

#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

double clearance_m(const OilSurface &surface, const Sweep &sweep)
{
    return -surface.depthOf_m(sweep.centre) - sweep.radius_m;
}

Result<OilSurface> surfaceIn(const PanPrism &pan, const HungSection &section, double tilt_rad,
                             double volume_m3)
{
    const double area = volume_m3 / pan.width_m;
    if (!section.slice)
        return surfaceOver(pan.profile, tilt_rad, area);
    const auto level = surfaceOver(pan.profile, 0, area);
    if (!level)
        return level;
    return surfaceOver(section.profile, tilt_rad, areaBelow_m2(section.profile, *level));
}

CaseLimits limitsOf(const PanPrism &pan, const FillTaken &taken, const FillCase &use)
{
    const HungSection &s = *use.section;
    const auto fill = [&](double offset_m) {
        double area = areaBelow_m2(s.profile, { use.tilt_rad, offset_m });
        if (s.slice) {
            const auto level = surfaceOver(s.profile, 0, area);
            area = areaBelow_m2(pan.profile, level.value_or(OilSurface { 0, 1e9 }));
        }
        return (std::max(0.0, area * pan.width_m - taken.displaced_m3) + taken.static_m3
                + use.held_m3)
            / use.expansion;
    };
    const OilSurface origin { use.tilt_rad, 0 };
    double highest = 1e9; // metres: above any pan
    for (const Sweep &w : s.sweeps)
        highest = std::min(highest, -origin.depthOf_m(w.centre) - w.radius_m - use.allowance_m);
    return { fill(use.submergence_m - origin.depthOf_m(s.mouth)), fill(highest) };
}

FillWindow fillWindow(const PanPrism &pan, const FillTaken &taken, std::span<const FillCase> cases)
{
    FillWindow out { -1e300, 1e300, 0, 0 };
    // Mirrored cases are equal but for rounding: the first of them counts.
    const double equal = 1e-12 * profileArea_m2(pan.profile) * pan.width_m;
    for (size_t i = 0; i < cases.size(); ++i) {
        const CaseLimits l = limitsOf(pan, taken, cases[i]);
        if (l.least_m3 > out.least_m3 + equal) {
            out.least_m3 = l.least_m3;
            out.leastCase = i;
        }
        if (l.most_m3 < out.most_m3 - equal) {
            out.most_m3 = l.most_m3;
            out.mostCase = i;
        }
    }
    return out;
}

Uncovering pickupUncovers(const Compartment &c)
{
    Uncovering out { std::nullopt, c.start_m };
    const double q = c.draw_m3_s, k = c.discharge * c.opening_m2 * std::sqrt(2 * gravity_m_s2);
    if (!(k > 0)) {
        if (q > 0)
            out.time_s = c.area_m2 * (c.start_m - c.limit_m) / q;
        return out;
    }
    out.equilibrium_m = c.outside_m - (q / k) * (q / k);
    if (out.equilibrium_m >= c.limit_m)
        return out;
    const double u0 = std::sqrt(c.outside_m - c.start_m), u1 = std::sqrt(c.outside_m - c.limit_m);
    out.time_s
        = 2 * c.area_m2 * (-(u1 - u0) / k - q / (k * k) * std::log((q - k * u1) / (q - k * u0)));
    return out;
}

std::optional<double> refills_s(const Compartment &c)
{
    const double q = c.draw_m3_s, k = c.discharge * c.opening_m2 * std::sqrt(2 * gravity_m_s2);
    const double u0 = std::sqrt(std::max(0.0, c.outside_m - c.start_m));
    const double u1 = std::sqrt(c.outside_m - c.limit_m);
    if (!(k * u0 > q))
        return std::nullopt;
    return 2 * c.area_m2 * ((u1 - u0) / k + q / (k * k) * std::log((k * u1 - q) / (k * u0 - q)));
}

double baffleCosts_m(double flow, double opening, double discharge)
{
    const double v = flow / (discharge * opening);
    return v * v / (2 * gravity_m_s2);
}

double openingDischarge(double reynolds)
{
    constexpr double sharp = 0.6;
    return std::min(sharp, 0.2 * std::sqrt(reynolds));
}

double baffleCostsThick_m(double flow, double opening, double nu)
{
    const double d = 2 * std::sqrt(opening / pi);
    return baffleCosts_m(flow, opening, openingDischarge(flow / opening * d / nu));
}

} // namespace mildpath
