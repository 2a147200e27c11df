// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/crankfeed.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

double crankFeedRequired_pa(double rho, double omega, double R, double nearest, double keep_pa)
{
    return rho * omega * omega * (R * R - nearest * nearest) / 2 + keep_pa;
}

double crankPinPressure_pa(double rho, double omega, double R, double exit, double main_pa)
{
    return main_pa + rho * omega * omega * (exit * exit - R * R) / 2;
}

double nearestToAxis_m(std::array<double, 2> a, std::array<double, 2> b)
{
    const double dx = b[0] - a[0], dy = b[1] - a[1], length2 = dx * dx + dy * dy;
    // Foot of the perpendicular, kept between the mouths.
    const double t = length2 > 0 ? std::clamp(-(a[0] * dx + a[1] * dy) / length2, 0.0, 1.0) : 0;
    return std::hypot(a[0] + t * dx, a[1] + t * dy);
}

double crankRuleOfThumb_pa(double rpm)
{
    return usualRule_pa_per_rpm * rpm;
}

} // namespace mildpath
