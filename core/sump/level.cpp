// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/level.h"

#include "quantity/types.h"

#include <cmath>

namespace mildpath {

double volumeAt_m3(double volume, double from_c, double to_c, double expansion)
{
    return volume * (1 + expansion * (to_c - from_c));
}

Result<HeightTable> HeightTable::make(std::vector<double> height, std::vector<double> area,
                                      const std::vector<double> &immersed)
{
    if (height.size() < 2)
        return fail("height_mm", "needs at least two heights");
    if (height.front() != 0)
        return fail("height_mm", "must begin with 0");
    for (size_t i = 1; i < height.size(); ++i)
        if (!(height[i] > height[i - 1]))
            return fail("height_mm", "must rise");
    if (area.size() != height.size())
        return fail("area_mm2", "needs one area for each height");
    if (!immersed.empty() && immersed.size() != height.size())
        return fail("immersed_area_mm2", "needs one area for each height");
    for (size_t i = 0; i < area.size(); ++i) {
        if (!(area[i] >= 0))
            return fail("area_mm2", "must not be below 0");
        if (!immersed.empty()) {
            if (!(immersed[i] >= 0))
                return fail("immersed_area_mm2", "must not be below 0");
            area[i] -= immersed[i];
        }
        // Only a sloping floor may begin in a point.
        if (!(i == 0 ? area[i] >= 0 : area[i] > 0))
            return fail(immersed.empty() ? "area_mm2" : "immersed_area_mm2",
                        "leaves no room for oil at height " + std::to_string(i + 1));
    }
    return HeightTable(std::move(height), std::move(area));
}

double HeightTable::whole_m3() const
{
    return volumeBelow_m3(m_height.back());
}

double HeightTable::volumeBelow_m3(double height) const
{
    double volume = 0;
    for (size_t i = 0; i + 1 < m_height.size() && m_height[i] < height; ++i) {
        const double dh = m_height[i + 1] - m_height[i], x = std::min(height - m_height[i], dh);
        volume += m_free[i] * x + (m_free[i + 1] - m_free[i]) / dh * x * x / 2;
    }
    return volume;
}

Result<double> HeightTable::level_m(double volume) const
{
    for (size_t i = 0; i + 1 < m_height.size(); ++i) {
        const double dh = m_height[i + 1] - m_height[i];
        const double layer = (m_free[i] + m_free[i + 1]) / 2 * dh;
        if (volume <= layer) {
            if (volume <= 0)
                return m_height[i];
            const double s = (m_free[i + 1] - m_free[i]) / dh;
            return m_height[i]
                + 2 * volume / (m_free[i] + std::sqrt(m_free[i] * m_free[i] + 2 * s * volume));
        }
        volume -= layer;
    }
    // Rounding of a table filled to the brim is no overflow.
    if (volume <= 1e-12 * whole_m3())
        return m_height.back();
    return fail("fill_l",
                { "sump.overflow", "overflows the table by {0}", { asVolume(volume * 1e3) } });
}

SumpVolumes sumpVolumes(const SumpFill &f)
{
    SumpVolumes out;
    out.rest_m3 = f.fill_m3 - f.static_m3;
    out.held_m3 = f.circulating_m3_s * f.residence_s;
    out.running_m3
        = (volumeAt_m3(f.fill_m3, f.fill_c, f.oil_c, f.expansion_per_k) - f.static_m3 - out.held_m3)
        / (1 - f.gas);
    return out;
}

double wallFilm_m3(double flow, double nu, double wetted, double wall)
{
    return std::cbrt(3 * nu * flow / (wetted * gravity_m_s2)) * wall;
}

double wallDrains_s(double nu, double height, double film)
{
    return nu * height / (gravity_m_s2 * film * film);
}

} // namespace mildpath
