// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/need.h"

#include "quantity/types.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

const std::array<StopNeed, 11> needs { {
    { StopKind::Main, 0, 0, true },
    { StopKind::BigEnd, 0, 0, true },
    { StopKind::CamBearing, needCamIdle_pa, needCamMost_pa },
    { StopKind::Rocker, needRockerIdle_pa, needRockerMost_pa, false, needRockerIdleFlow_l_min,
      needRockerMostFlow_l_min },
    { StopKind::Lifter, needLifterIdle_pa, needLifterMost_pa },
    { StopKind::Tensioner, needTensionerIdle_pa, needTensionerMost_pa },
    { StopKind::Phaser, needPhaserIdle_pa, needPhaserMost_pa },
    { StopKind::Chain, 0, 0, false, needChainIdleFlow_l_min, needChainMostFlow_l_min },
    { StopKind::Turbo, needTurboIdle_pa, needTurboMost_pa, false, needTurboIdleFlow_l_min,
      needTurboMostFlow_l_min },
    { StopKind::BalanceShaft, needBalanceIdle_pa, needBalanceMost_pa },
    { StopKind::Idler, needIdlerIdle_pa, needIdlerMost_pa, false, needIdlerFlow_l_min,
      needIdlerFlow_l_min },
} };
const StopNeed ballBearingTurbo {
    StopKind::Turbo, needTurboBallIdle_pa,        needTurboBallMost_pa,
    false,           needTurboBallIdleFlow_l_min, needTurboBallMostFlow_l_min
};

} // namespace

const StopNeed *stopNeed(StopKind stopKind)
{
    const auto at = std::find_if(needs.begin(), needs.end(),
                                 [&](const StopNeed &n) { return n.stopKind == stopKind; });
    return at == needs.end() ? nullptr : &*at;
}

const StopNeed &ballBearingTurboNeed()
{
    return ballBearingTurbo;
}

double betweenSpeeds(double idle, double most, double rpm, double hotIdle_rpm, double most_rpm)
{
    const double span = most_rpm - hotIdle_rpm;
    const double share = span > 0 ? std::clamp((rpm - hotIdle_rpm) / span, 0.0, 1.0) : 0;
    return std::lerp(idle, most, share);
}

double needFlowAt_m3_s(const StopNeed &need, double rpm, double hotIdle_rpm, double most_rpm)
{
    return betweenSpeeds(need.idle_l_min, need.most_l_min, rpm, hotIdle_rpm, most_rpm)
        / litresPerMinute;
}

double needAt_pa(const StopNeed &need, double rpm, double hotIdle_rpm, double most_rpm,
                 double floor_pa)
{
    const double own = betweenSpeeds(need.idle_pa, need.most_pa, rpm, hotIdle_rpm, most_rpm);
    return need.atLeastFloor ? std::max(own, floor_pa) : own;
}

double gaugeNeedAt_pa(double base_pa, double rise_pa_per_rpm, double rpm)
{
    return std::min(base_pa + rise_pa_per_rpm * rpm, needGaugeMost_pa);
}

} // namespace mildpath
