// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/whatif.h"

#include "assess/operatingmodel.h"
#include "diagnose/diagnosis.h"
#include "document/logbook.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

Phrase withinStrength(double pa)
{
    if (pa > beyondStrength_pa)
        return { "pressure.above", "above {0}", { asPressure(beyondStrength_pa, 0) } };
    return { "", "{0}", { asPressure(pa) } };
}

/// Difference over the standard deviation of one reading against its forecast.
double distanceOf(double before_pa, double after_pa)
{
    const double gauge = GaugeReading::usualGaugeU_kpa * 1e3;
    return std::abs(after_pa - before_pa) / std::hypot(gauge, bandModel_ln * before_pa);
}

double pressureAt(const Build &build, const OperatingResult &r, const std::string &tap)
{
    const auto node = r.nodePressure_pa.find(build.circuit.taps.at(tap));
    return node == r.nodePressure_pa.end() ? 0 : node->second;
}

void say(const Build &build, WhatIf &out)
{
    const TapChange &gauge = out.taps.front();
    const auto change = [](const TapChange &t) {
        return Phrase("whatif.change", "{0} to {1}",
                      { withinStrength(t.before_pa), withinStrength(t.after_pa) });
    };
    if (gauge.shows())
        out.gauge = { "whatif.shows", "The pressure gauge shows it here: {0}", { change(gauge) } };
    else if (out.starved.empty())
        out.gauge = { "whatif.hidden",
                      "The pressure gauge does not show it here: {0}, within its uncertainty",
                      { change(gauge) } };
    else
        out.gauge = { "whatif.starves",
                      "The pressure gauge does not show it: {0}, while {1} starves",
                      { change(gauge), out.after.points[out.starved.front()].name } };
    const auto best = std::max_element(
        out.taps.begin() + 1, out.taps.end(),
        [](const TapChange &a, const TapChange &b) { return a.distance < b.distance; });
    if (best != out.taps.end() && best->shows() && best->distance > 1.5 * gauge.distance)
        out.elsewhere = { "whatif.elsewhere",
                          "{0} shows it better: {1}",
                          { tapName(build, best->tap), change(*best) } };
}

} // namespace

bool TapChange::shows() const
{
    return distance >= seenDistance;
}

Result<WhatIf> whatIf(const Build &build, const std::vector<GaugedSize> &sizes,
                      const std::vector<Fault> &faults, const Turned &turned, double oil_c)
{
    WhatIf out;
    auto healthy = OperatingModel::make(build, sizes, oil_c);
    if (!healthy)
        return tl::unexpected(healthy.error());
    auto before = healthy->at(turned, OperatingModel::Detail::Films);
    if (!before)
        return tl::unexpected(before.error());
    auto changed = OperatingModel::make(build, sizes, oil_c, faultChange(build, faults));
    if (!changed)
        return tl::unexpected(changed.error());
    auto after = changed->at(turned, OperatingModel::Detail::Films);
    if (!after)
        return tl::unexpected(after.error());
    out.before = std::move(*before);
    out.after = std::move(*after);
    const auto add = [&](const std::string &tap) {
        const double a = pressureAt(build, out.before, tap), b = pressureAt(build, out.after, tap);
        out.taps.push_back({ tap, a, b, distanceOf(a, b) });
    };
    add(build.gaugeTap);
    for (const auto &[tap, node] : build.circuit.taps)
        if (tap != build.gaugeTap)
            add(tap);
    for (size_t i = 0; i < out.after.points.size() && i < out.before.points.size(); ++i)
        if (out.after.points[i].need_pa > 0 && out.after.points[i].ratio() < 1
            && out.before.points[i].ratio() >= 1)
            out.starved.push_back(i);
    std::stable_sort(out.starved.begin(), out.starved.end(), [&](size_t a, size_t b) {
        return out.after.points[a].ratio() < out.after.points[b].ratio();
    });
    say(build, out);
    return out;
}

} // namespace mildpath
