// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <span>
#include <string>
#include <string_view>

namespace mildpath {

/// A thread of senders, taps and plugs. All from memory: ISO 7-1, ISO 228-1, ASME B1.20.1, ISO 261.
struct Thread
{
    std::string_view name;
    double major_mm; ///< nominal where it is tapered
    double pitch_mm;
    double flank_deg;
    bool tapered;
    std::string_view family; ///< NPT, R, G, M
    std::string_view size; ///< what R and G of one size share
};
std::span<const Thread> threads();
/// @return null for an unknown name.
const Thread *findThread(std::string_view name);

/// How a male thread goes into a female one.
struct ThreadMatch
{
    std::string_view match; ///< match | engages_different_seal | mismatch
    bool deceptive; ///< it begins to screw in all the same
    double major_mm, pitch_mm, flank_deg; ///< male minus female
};
/// Deceptive within 0.6 mm of major diameter: own choice.
ThreadMatch matchThreads(const Thread &male, const Thread &female);

} // namespace mildpath
