// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/air.h"

#include "assess/figuremarks.h"
#include "rules/rules.h"

#include <algorithm>

namespace mildpath {
std::optional<FillAdvice> fillAdvice(std::optional<double> fill_l, const AirReport &air)
{
    if (!fill_l || !air.window)
        return std::nullopt;
    const double m3 = *fill_l * 1e-3;
    const FillWindow &w = *air.window;
    const auto litres = [](double v) { return asVolume(v * 1e3); };
    if (!w.feasible())
        return FillAdvice { Mark::LookAgain,
                            { "fill.none",
                              "No fill level works: {0} requires {1}, {2} allows {3}. Another pan, "
                              "pickup or use",
                              { air.leastName, litres(w.least_m3), air.mostName,
                                litres(w.most_m3) } } };
    if (m3 < w.least_m3)
        return FillAdvice { Mark::LookAgain,
                            { "fill.more",
                              "{0} more: {1} requires {2}",
                              { litres(w.least_m3 - m3), air.leastName, litres(w.least_m3) } } };
    if (m3 > w.most_m3)
        return FillAdvice { Mark::LookAgain,
                            { "fill.less",
                              "{0} less: {1} allows {2}",
                              { litres(m3 - w.most_m3), air.mostName, litres(w.most_m3) } } };
    return FillAdvice { Mark::Proven,
                        { "fill.fine",
                          "Fill is fine: {0} above minimum, {1} below maximum",
                          { litres(m3 - w.least_m3), litres(w.most_m3 - m3) } } };
}

Mark markOf(const AirReport &air)
{
    if (const AirRow *leads = air.leading())
        return markOf(air, *leads);
    return doneMark(std::none_of(air.rows.begin(), air.rows.end(),
                                 [](const AirRow &row) { return row.state == AirState::Unknown; }));
}

Mark markOf(const AirCase &c, bool gapKnown)
{
    if (!gapKnown)
        return Mark::NotDone;
    switch (uncoveringState(c.submergence_m, c.wanted.dip_m, c.wanted.required_m)) {
    case AirState::Low:
        return c.clearance_m < c.wind.allowance_m ? Mark::LookAgain : Mark::Proven;
    case AirState::Watch:
        return Mark::LookAgain;
    default:
        // On the level it holds the start; in a turn it wants another look.
        return c.accel_g == 0 ? Mark::Hold : Mark::LookAgain;
    }
}

Mark markOf(const AirReport &air, const AirRow &row)
{
    switch (row.state) {
    case AirState::Low:
        return Mark::Proven;
    case AirState::Watch:
        return Mark::LookAgain;
    case AirState::Unknown:
        return Mark::NotDone;
    case AirState::High:
        break;
    }
    const auto under = [&](const char *id) {
        const AirCase *c = air.find(id);
        return c && c->clearance_m < 0;
    };
    const bool dips = row.id == "windage" && (under("running") || under("idle"));
    const bool bare = row.id == "vortex"; // on the level
    return dips || bare || row.contribution == "coolant" || row.id == "gasket" ? Mark::Hold
                                                                               : Mark::LookAgain;
}

} // namespace mildpath
