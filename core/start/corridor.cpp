// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/corridor.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr size_t speeds = 9, temperatures = 8;
constexpr double aboveHot_k = 30;

std::vector<double> spread(double from, double to, size_t count, bool byFactor)
{
    std::vector<double> out;
    for (size_t i = 0; i < count; ++i) {
        const double share = static_cast<double>(i) / static_cast<double>(count - 1);
        out.push_back(byFactor ? from * std::pow(to / from, share) : from + (to - from) * share);
    }
    return out;
}

/// Index of the grid point at or below, and how far beyond it.
std::optional<std::pair<size_t, double>> find(const std::vector<double> &grid, double x)
{
    // A hair beyond an edge is the edge: both come out of the same numbers by different ways.
    const double hair = 1e-9 * std::max(1.0, std::abs(x));
    if (!(x >= grid.front() - hair && x <= grid.back() + hair))
        return std::nullopt;
    const auto next = std::upper_bound(grid.begin() + 1, grid.end() - 1, x);
    const auto i = static_cast<size_t>(next - grid.begin()) - 1;
    return std::pair(i, std::clamp((x - grid[i]) / (grid[i + 1] - grid[i]), 0.0, 1.0));
}

LikelyPressure between(const LikelyPressure &a, const LikelyPressure &b, double share)
{
    return { std::lerp(a.value_pa, b.value_pa, share), std::lerp(a.low_pa, b.low_pa, share),
             std::lerp(a.high_pa, b.high_pa, share) };
}

} // namespace

Result<PressureMap> PressureMap::make(const Build &build, const Assessment &assessment,
                                      Progress *progress)
{
    PressureMap out;
    const double slowest
        = std::min(*build.start.value("starter_rpm"), build.use.hotIdle_rpm) / 2;
    out.m_rpm = spread(slowest, 1.1 * build.use.most_rpm, speeds, true);
    out.m_oil_c = spread(std::min(build.use.coldestStart_c, build.heat.surroundings_c),
                         build.use.hotOil_c + aboveHot_k, temperatures, false);
    if (progress)
        progress->whole += static_cast<int>(temperatures);
    for (const double t : out.m_oil_c) {
        auto model = OperatingModel::make(build, assessment.sizes, t);
        if (!model)
            return tl::unexpected(model.error());
        for (const double rpm : out.m_rpm) {
            if (progress && progress->cancel)
                return fail("cancelled", "given up");
            const auto r = model->at(rpm, OperatingModel::Detail::Ranges);
            if (!r)
                return tl::unexpected(r.error());
            out.m_pressure.push_back(r->gauge);
        }
        if (progress)
            ++progress->done;
    }
    return out;
}

std::optional<LikelyPressure> PressureMap::at(double rpm, double oil_c) const
{
    const auto n = find(m_rpm, rpm);
    const auto t = find(m_oil_c, oil_c);
    if (!n || !t)
        return std::nullopt;
    const auto row = [&](size_t i) {
        const size_t first = i * speeds + n->first;
        return between(m_pressure[first], m_pressure[first + 1], n->second);
    };
    return between(row(t->first), row(t->first + 1), t->second);
}

} // namespace mildpath
