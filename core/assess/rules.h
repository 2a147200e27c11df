// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "build/document.h"

#include <optional>
#include <span>
#include <string_view>

namespace mildpath {

// The numbers and rules of judgement, each once, each with where it comes from. All are own choices
// unless a row says otherwise; docs/theory/rules.md explains them.

/// What a stop is worth knowing for: proven, look again, holds the start, not done.
enum class Mark { Proven, LookAgain, Hold, NotDone };
std::string_view markId(Mark mark); ///< "proven" …, for files and scripts
std::string_view markWord(Mark mark); ///< "holds the start" …, for people

/// Limits of a clearance that belong together, and the element key they are about.
struct LimitFamily
{
    std::string_view id; ///< key in the document's `limits`
    std::string_view stopKind;
    std::string_view elementType;
    std::string_view elementKey; ///< in µm
};
std::span<const LimitFamily> limitFamilies();

/// Pressure a kind of stop needs (bar). Own choice.
struct StopNeed
{
    std::string_view stopKind;
    double need_pa;
    bool atLeastFloor; ///< the user's hot-idle floor, where that is more
    bool crankFeed; ///< and what the crank drilling behind it needs at this speed
};
/// @return null where a stop has no need (open outlets).
const StopNeed *stopNeed(std::string_view stopKind);

/// A group of outlets in "where the oil goes".
struct OilGroup
{
    std::string_view id;
    std::string_view name;
    std::span<const std::string_view> stopKinds;
};
std::span<const OilGroup> oilGroups();

/// Temperature of the housing below the oil's, settled and hot (K); the journal takes the oil's.
inline constexpr double housingBelowOil_k = 2;

/// Common factor between model and engine (standard uncertainty, relative).
inline constexpr double modelUncertainty = 0.06;
/// "Likely" ranges hold nine builds in ten: ± 1.645 standard uncertainties (normal distribution).
inline constexpr double likelyFactor = 1.645;

/// 10 psi per 1 000 rev/min at running heat, in Pa per rev/min. Common practice, no source.
inline constexpr double rulePressure_pa_per_rpm = 68947.6 / 1000;
/// A thousandth of an inch per inch of journal diameter. Common practice, no source.
inline constexpr double ruleClearancePerDiameter = 0.001;

/// Above this no pressure is shown: beyond what filter cans stand.
inline constexpr double beyondStrength_pa = 15e5;

/// Relief counts as open from this share of the pump's flow.
inline constexpr double reliefOpenShare = 0.01;

/// A reading this far outside the limits (in widths of the limits) is kept and marked unlikely.
inline constexpr double unlikelyWidths = 1.0;

/// The plan of readings of a bearing: angles from the parting line, stations from the front.
struct ReadingPosition
{
    int station;
    double angle_deg;
    std::string_view name; ///< of the angle: "A upright"
};
std::span<const ReadingPosition> readingPlan();

} // namespace mildpath
