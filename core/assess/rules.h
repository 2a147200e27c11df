// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

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

/// Pressure a kind of stop needs (bar). Own choice.
struct StopNeed
{
    std::string_view stopKind;
    double need_pa;
    bool atLeastFloor; ///< the user's hot-idle floor, where that is more
    bool crankFeed; ///< and what the crank drilling behind it needs at this speed
    double atSpeed_pa = 0; ///< above idle instead; 0: the same
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

/// Common factor between model and engine (standard uncertainty, relative).
inline constexpr double modelUncertainty = 0.06;
/// "Likely" ranges hold nine builds in ten: ± 1.645 standard uncertainties (normal distribution).
inline constexpr double likelyFactor = 1.645;

/// Least pressure wanted at a speed, by the rule the document states (Pa).
double leastWanted_pa(const Use &use, double rpm);
/// A thousandth of an inch per inch of journal diameter. Common practice, no source.
inline constexpr double ruleClearancePerDiameter = 0.001;

/// Above this no pressure is shown: beyond what filter cans stand.
inline constexpr double beyondStrength_pa = 15e5;

/// Idle ends here for needs that differ: times the hot-idle speed. Own choice.
inline constexpr double idleEnds = 1.5;

/// Relief counts as open from this share of the pump's flow.
inline constexpr double reliefOpenShare = 0.01;

/// A reading this far outside the limits (in widths of the limits) is kept and marked unlikely.
inline constexpr double unlikelyWidths = 1.0;

/// Open share of a feed hole: from `fine` on nothing is said, below `least` it holds. Own choice.
inline constexpr double feedShareFine = 0.7;
inline constexpr double feedShareLeast = 0.6;
/// Loss of a partly covered hole, on the drilling's velocity head: 1/(Cd f)², f its open share of
/// the drilling. Cd of a covered edge. Own choice.
inline constexpr double coveredHoleDischarge = 0.65;
/// A hole quite shut still seeps behind the shell: this share of the drilling. Own choice; the loss
/// it makes stays within what a pipe of the circuit may have.
inline constexpr double shutHoleSeeps = 2e-3;
/// Discharge coefficient of an oil bevel toward the thrust face. Own choice.
inline constexpr double bevelDischarge = 0.6;

/// End clearance below which rotors may bind when the pump warms (µm). Common practice, no source.
inline constexpr double rotorsBind_um = 40;
/// Dressing is worth its trouble while 10 µm still buy this share of hot idle. Own choice.
inline constexpr double dressingWorth = 0.004;
/// Workshop limits of a rotor pump (µm): 0.005 in tip, 0.006 in end. Common practice, no source.
inline constexpr double commonTipLimit_um = 127, commonEndLimit_um = 152;

/// Pump power = outlet pressure × swept flow over this. Own choice.
inline constexpr double pumpEfficiency = 0.85;

/// Something that is looked at and ticked, with the reason why.
struct Check
{
    std::string_view id;
    std::string_view stopKind;
    std::string_view aspect; ///< size | clean | flow
    std::string_view text; ///< what is true when it is ticked
    std::string_view reason;
    bool holds; ///< not ticked, it holds the start; otherwise it is only open
};
std::span<const Check> checks();
/// @return null for an unknown id.
const Check *findCheck(std::string_view id);

} // namespace mildpath
