// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/drainback.h"

#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// a and b of a v² + b v = g H, and the holes' area.
struct Coefficients
{
    double a, b, area_m2;
};
Coefficients of(const DrainBack &d)
{
    return { d.loss / 2, 32 * d.nu_m2_s * d.length_m / (d.hole_m * d.hole_m),
             d.count * pi * d.hole_m * d.hole_m / 4 };
}
double backHead_m(const DrainBack &d)
{
    return d.back_pa / (d.density_kg_m3 * gravity_m_s2);
}

} // namespace

std::optional<double> DrainBack::speed_m_s(double depth_m) const
{
    const double head = depth_m + drop_m - backHead_m(*this);
    if (!(head > 0))
        return std::nullopt;
    const auto [a, b, area] = of(*this);
    return 2 * gravity_m_s2 * head / (b + std::sqrt(b * b + 4 * a * gravity_m_s2 * head));
}

double DrainBack::flow_m3_s(double depth_m) const
{
    return speed_m_s(depth_m).value_or(0) * of(*this).area_m2;
}

std::optional<double> DrainBack::time_s(double from_m, double to_m) const
{
    const auto v0 = speed_m_s(from_m), v1 = speed_m_s(to_m);
    if (!v0 || !v1)
        return std::nullopt;
    const auto [a, b, area] = of(*this);
    return pool_m2 / (area * gravity_m_s2) * (2 * a * (*v0 - *v1) + b * std::log(*v0 / *v1));
}

double DrainBack::steadyDepth_m(double supply) const
{
    const auto [a, b, area] = of(*this);
    const double v = supply / area;
    return std::max(0.0, (a * v * v + b * v) / gravity_m_s2 - drop_m + backHead_m(*this));
}

std::optional<int> DrainBack::holesFor(double supply, double depth) const
{
    const auto v = speed_m_s(depth);
    if (!v)
        return std::nullopt;
    return std::max(1, static_cast<int>(std::ceil(supply / (of(*this).area_m2 / count * *v))));
}

double DrainBack::selfVenting_m3_s() const
{
    return of(*this).area_m2 * 0.31 * std::sqrt(gravity_m_s2 * hole_m);
}

} // namespace mildpath
