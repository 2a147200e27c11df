// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/engineplan.h"

namespace mildpath {

// What a planned engine starts with beside its circuit: journals in proportion, limits, torques.
// All common practice, no source.

/// Journals of a crank of that bore, mm.
double usualMainJournal_mm(const EnginePlan &plan);
double usualRodJournal_mm(const EnginePlan &plan);
/// Limits of every family such an engine has.
void putUsualLimits(Build &build, const EnginePlan &plan);
/// Cards of main and rod caps, from the middle outward.
void putUsualCards(Build &build, const EnginePlan &plan);

} // namespace mildpath
