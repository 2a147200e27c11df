// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <span>
#include <string_view>

namespace mildpath {

/// State of one way air gets into the oil. Never summed into a number.
enum class AirState { Low, Watch, High, Unknown };
std::string_view airStateWord(AirState state); ///< low | watch | high | unknown

/// Limits of the states. All own choice, no source.
struct AirLimits
{
    double clearanceWatch = 2, clearanceHigh = 1; ///< crank clearance over allowance
    double leakWatch = 0.01, leakHigh = 0.05; ///< share of gas at the inlet
    double releaseWatch = 0.02, releaseHigh = 0.10;
    double bubbleWatch_m = 600e-6, bubbleHigh_m = 1200e-6;
    double heldWatch = 0.20, heldHigh = 0.35; ///< of the fill
};
inline constexpr AirLimits airLimits {};

AirState windageState(double clearance_m, double allowance_m);
AirState uncoveringState(double submergence_m, double dip_m, double required_m);
AirState leakState(double share);
AirState releaseState(double share);
AirState bubbleState(double diameter_m);
AirState heldState(double held_m3, double fill_m3);
/// none | suspected | confirmed; anything else is unknown.
AirState foreignState(std::string_view word);

/// The worst that is known; with nothing to watch but something unknown: unknown, never low.
AirState overallState(std::span<const AirState> states);

} // namespace mildpath
