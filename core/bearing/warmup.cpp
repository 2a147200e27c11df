// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/warmup.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Rise (0…1) of something that follows a first-order rise with a first-order lag.
double laggedRise(double time_s, double tau_s, double lag_s)
{
    const double leader = std::exp(-time_s / tau_s);
    if (lag_s < 1e-9)
        return 1 - leader;
    if (std::abs(tau_s - lag_s) < 1e-6 * tau_s)
        return 1 - leader * (1 + time_s / tau_s);
    return 1 - (tau_s * leader - lag_s * std::exp(-time_s / lag_s)) / (tau_s - lag_s);
}

} // namespace

PartTemperatures settledAt(double oil_c, const SettledParts &parts)
{
    const double housing = oil_c - parts.housingBelowOil_k;
    return { oil_c, housing, oil_c - parts.capBelowOil_k, oil_c - parts.journalBelowOil_k,
             housing };
}

double timeConstant_s(double atIdle_s, double atSpeed_s, double idle_rpm, double rpm)
{
    // An engine that idles as fast as others run has only the one constant.
    const double span = std::max(1.0, warmUpSpeed_rpm - idle_rpm);
    const double along = std::max(0.0, (rpm - idle_rpm) / span);
    return 1 / (1 / atIdle_s + (1 / atSpeed_s - 1 / atIdle_s) * along);
}

PartTemperatures duringWarmUp(const WarmUp &w, const SettledParts &parts, double rpm, double time_s)
{
    const double oilTau = timeConstant_s(w.oilAtIdle_s, w.oilAtSpeed_s, w.idle_rpm, rpm);
    const double blockTau = timeConstant_s(w.blockAtIdle_s, w.blockAtSpeed_s, w.idle_rpm, rpm);
    const PartTemperatures end = settledAt(w.oilEnd_c, parts);
    const double coolant = std::min(w.blockEnd_c, end.block_c);
    const double oilRise = 1 - std::exp(-time_s / oilTau);
    const auto from
        = [&](double end_c, double rise) { return w.start_c + (end_c - w.start_c) * rise; };
    return { from(w.oilEnd_c, oilRise),
             from(coolant, 1 - std::exp(-time_s / blockTau)) + (end.block_c - coolant) * oilRise,
             from(end.cap_c, laggedRise(time_s, oilTau, w.capLag_s)),
             from(end.journal_c, laggedRise(time_s, oilTau, w.journalLag_s)),
             from(end.rod_c, laggedRise(time_s, oilTau, w.journalLag_s)) };
}

} // namespace mildpath
