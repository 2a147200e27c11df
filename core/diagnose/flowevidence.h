// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/signatures.h"

namespace mildpath {

/// The pump of the circuit; null without one.
const Element *pumpOf(const Build &build);

/// What was seen of oil coming at lifters while the engine's own pump was turned, by drill, starter
/// or running; what a pot pushed through says nothing of the pump.
std::vector<const FlowSeen *> pumpedFlows(const Build &build);

/// ln of the chance to see what was seen, by guess, from the pressure each guess leaves at the
/// outlet against its need: from 0.9 of it oil comes, under half of it none does, each the softer
/// for the model's error; a look errs as often as any. Outlets of one engine go together, so their
/// sum counts half. Own choice, docs/theory/diagnosis.md.
/// Errors: as Signatures::make. @return 0 for a guess without a solution
Result<std::vector<double>> flowLogs(const Build &build, const std::vector<GaugedSize> &sizes,
                                     const std::vector<Guess> &guesses,
                                     const std::vector<const FlowSeen *> &flows,
                                     Progress *progress);

/// Chance to see `saw` where there is this share of the need.
double sightChance(std::string_view saw, double ofNeed);

} // namespace mildpath
