// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/modified.h"

#include "document/edit.h"
#include "start/afterwards.h"

#include <cmath>

namespace mildpath {
namespace {

void judge(Modified &m)
{
    const double was = m.idleBefore.gauge.value_pa, is = m.idleAfter.gauge.value_pa;
    m.verdict = { "modified.idle",
                  "Hot idle at the pressure gauge {0} → {1}",
                  { asPressure(was), asPressure(is) } };
    if (m.idleBefore.weakest >= 0 && m.idleAfter.weakest >= 0)
        append(m.verdict,
               { "modified.weakest",
                 "weakest feed {0} → {1}",
                 { asPressure(m.idleBefore.weakestPressure.value_pa),
                   asPressure(m.idleAfter.weakestPressure.value_pa) } },
               "{*|, }");
    if (m.readings.empty()) {
        append(m.verdict, "No reading could tell the two apart.", "{*|. }");
        return;
    }
    // Twice the log-likelihood ratio; 4 is two standard deviations for one thing changed.
    constexpr double tells = 4;
    const double better = m.misfitBefore - m.misfitAfter;
    append(m.verdict,
           std::abs(better) < tells ? "The readings fit both: they cannot tell."
               : better > 0         ? "The readings fit it better made so."
                                    : "The readings fit it better as it was.",
           "{*|. }");
}

} // namespace

Result<Build> withChanges(const Build &build, const std::vector<ElementChange> &changes)
{
    Build out = build;
    for (const ElementChange &c : changes) {
        auto changed = applyEdit(out, SetElementValue { c.element, c.key, c.value });
        if (!changed)
            return tl::unexpected(changed.error());
        out = std::move(*changed);
    }
    return out;
}

Result<Modified> compareModified(const Build &build, const std::vector<GaugedSize> &sizes,
                                 const std::vector<ElementChange> &changes)
{
    auto made = withChanges(build, changes);
    if (!made)
        return tl::unexpected(made.error());
    Modified out { .build = std::move(*made),
                   .before = {},
                   .after = {},
                   .idleBefore = {},
                   .idleAfter = {},
                   .readings = {},
                   .verdict = {} };
    const std::vector<double> oil { build.use.hotOil_c };
    const std::vector<double> rpm = forecastSpeeds(build);
    const auto before = forecastLines(build, sizes, oil, rpm);
    const auto after
        = before.and_then([&](const auto &) { return forecastLines(out.build, sizes, oil, rpm); });
    if (!after)
        return tl::unexpected(after.error());
    out.before = *before;
    out.after = *after;
    const auto idle = [&](const Build &b) {
        return assessAt(b, sizes, build.use.hotIdle_rpm, build.use.hotOil_c);
    };
    const auto was = idle(build), is = idle(out.build);
    if (!was || !is)
        return tl::unexpected(was ? is.error() : was.error());
    out.idleBefore = *was;
    out.idleAfter = *is;
    const auto asIs = residualsOf(build, sizes);
    const auto modified
        = asIs.and_then([&](const auto &) { return residualsOf(out.build, sizes); });
    if (!modified)
        return tl::unexpected(modified.error());
    for (size_t i = 0; i < asIs->size(); ++i) {
        const Residual &a = (*asIs)[i], &m = (*modified)[i];
        out.readings.push_back({ a.reading->id, a.reading->tap, a.reading->rpm, a.reading->oil_c,
                                 a.reading->pressure_kpa * 1e3, a.reading->byDrill,
                                 a.expected.value_pa, m.expected.value_pa });
        out.misfitBefore += a.distance * a.distance;
        out.misfitAfter += m.distance * m.distance;
    }
    judge(out);
    return out;
}

} // namespace mildpath
