// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "assess/rules.h"
#include "assess/spread.h"

namespace mildpath {

/// A passage's state as a mark.
Mark markOf(const PassageState &state);
/// A step of a plan by the lengths it covers: the worst of their passages.
Mark markOf(const CleaningStep &step, const CleaningBook &book);
/// A plug's state as a mark: a plug nobody has seen in its place holds the start.
Mark markOf(const PlugState &state);
/// A link of a passage's chain: what the passage was after it, or, on the way to the proof, whether
/// the event by itself was well done.
Mark markOf(const ChainLink &link, const CleanEvent &event);
/// What the chain still misses.
Mark missingMark(const PassageState &state);
/// A find: settled or harmless is proven, one nobody can tell yet is not done; copper is a bearing
/// through its running layer and holds, other metal that warns is to be checked again.
Mark markOf(const DebrisFind &find);
/// "in, sealed with thread paste, seen by J. Moor".
std::string plugVerdict(const PlugState &state);

/// What to do with a passage next.
std::string nextFor(const PassageState &passage);
/// Whether a stop is more than its passages: what was washed besides has to be said as well.
bool hasBodyToClean(StopKind stopKind);

/// The plan for a build: its plugs left in stay, its oil order steers where brushes go in, and the
/// choice "plugs_drawn" = "all" draws every plug that may come out. Refers to the build's passages,
/// so the build must outlive it.
struct BuildPlan
{
    PassageNetwork network;
    CleaningPlan plan;
};
BuildPlan cleaningPlanOf(const Build &build);
Json cleaningPlanToJson(const BuildPlan &plan);
/// How many passes cover how much.
Phrase cleaningPlanSummary(const BuildPlan &plan);
std::string cleaningPlanText(const BuildPlan &plan, const UnitStyle &style);

} // namespace mildpath
