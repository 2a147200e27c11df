// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/risk.h"

#include <algorithm>

namespace mildpath {
namespace {

AirState above(double value, double watch, double high)
{
    return value >= high ? AirState::High : value >= watch ? AirState::Watch : AirState::Low;
}

} // namespace

std::string_view airStateWord(AirState state)
{
    switch (state) {
    case AirState::Low:
        return "low";
    case AirState::Watch:
        return "watch";
    case AirState::High:
        return "high";
    case AirState::Unknown:
        break;
    }
    return "unknown";
}

AirState windageState(double clearance, double allowance)
{
    return clearance < airLimits.clearanceHigh * allowance ? AirState::High
        : clearance < airLimits.clearanceWatch * allowance ? AirState::Watch
                                                           : AirState::Low;
}

AirState uncoveringState(double depth, double dip, double required)
{
    return depth < dip ? AirState::High : depth < required ? AirState::Watch : AirState::Low;
}

AirState leakState(double share)
{
    return above(share, airLimits.leakWatch, airLimits.leakHigh);
}

AirState releaseState(double share)
{
    return above(share, airLimits.releaseWatch, airLimits.releaseHigh);
}

AirState bubbleState(double d)
{
    return above(d, airLimits.bubbleWatch_m, airLimits.bubbleHigh_m);
}

AirState heldState(double held, double fill)
{
    return above(held / fill, airLimits.heldWatch, airLimits.heldHigh);
}

AirState foreignState(std::string_view word)
{
    return word == "confirmed" ? AirState::High
        : word == "suspected"  ? AirState::Watch
        : word == "none"       ? AirState::Low
                               : AirState::Unknown;
}

AirState overallState(std::span<const AirState> states)
{
    const auto any
        = [&](AirState s) { return std::find(states.begin(), states.end(), s) != states.end(); };
    for (const AirState s : { AirState::High, AirState::Watch, AirState::Unknown })
        if (any(s))
            return s;
    return AirState::Low;
}

} // namespace mildpath
