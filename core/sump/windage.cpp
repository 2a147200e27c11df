// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/windage.h"

#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

Windage windage(const CrankOverOil &c)
{
    Windage out {};
    const double gap = std::max(c.gap_m, 0.0);
    out.tip_m_s = c.speed_rad_s * c.radius_m;
    out.wind_m_s = c.coupling * c.trayOpen * out.tip_m_s * c.radius_m / (c.radius_m + gap);
    const double rl = c.density_kg_m3, rg = c.gasDensity_kg_m3;
    out.onset_m_s = std::sqrt(2 * (rl + rg) / (rl * rg)
                              * std::sqrt(c.tension_n_m * gravity_m_s2 * (rl - rg)));
    out.windHead_m = rg * out.wind_m_s * out.wind_m_s / (2 * rl * gravity_m_s2);
    out.allowance_m = c.ripple_m + out.windHead_m;
    if (c.gap_m > 0)
        out.index = out.allowance_m / c.gap_m;
    else
        out.immersedShare = std::acos(std::clamp(1 + c.gap_m / c.radius_m, -1.0, 1.0)) / pi;
    out.state = !out.index || *out.index >= 1 ? "high" : *out.index >= 0.5 ? "watch" : "low";
    return out;
}

} // namespace mildpath
