// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/startlog.h"

#include <algorithm>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 3> outcomes { "done", "not_so", "skipped" };
constexpr std::array<std::string_view, 3> kinds { "prime", "start", "run" };

} // namespace

std::span<const std::string_view> cardOutcomes()
{
    return outcomes;
}

std::span<const std::string_view> runKinds()
{
    return kinds;
}

std::vector<RunPoint> thinned(std::span<const RunPoint> points, size_t most)
{
    if (points.size() <= most)
        return { points.begin(), points.end() };
    // Two points a stretch: its lowest and its highest pressure, so that no spike is lost.
    std::vector<RunPoint> out;
    const size_t stretches = std::max<size_t>(1, most / 2);
    const auto pressure = [](const RunPoint &p) { return p.pressure_kpa.value_or(-1); };
    for (size_t k = 0; k < stretches; ++k) {
        const auto from
            = points.begin() + static_cast<std::ptrdiff_t>(k * points.size() / stretches);
        const auto to
            = points.begin() + static_cast<std::ptrdiff_t>((k + 1) * points.size() / stretches);
        const auto [low, high]
            = std::minmax_element(from, to, [&](const RunPoint &a, const RunPoint &b) {
                  return pressure(a) < pressure(b);
              });
        out.push_back(*std::min(low, high));
        if (low != high)
            out.push_back(*std::max(low, high));
    }
    return out;
}

void summariseRun(std::span<const RunPoint> points, RunLog &out)
{
    out.readings = static_cast<int>(points.size());
    out.seconds = points.empty() ? 0 : points.back().t_s;
    out.firstPressure_s.reset();
    out.most_kpa = 0;
    for (const RunPoint &p : points) {
        if (!p.pressure_kpa)
            continue;
        if (!out.firstPressure_s && *p.pressure_kpa >= firstPressure_kpa)
            out.firstPressure_s = p.t_s;
        out.most_kpa = std::max(out.most_kpa, *p.pressure_kpa);
    }
    out.trace = thinned(points, mostTracePoints);
}

} // namespace mildpath
