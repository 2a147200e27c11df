// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "document/document.h"

namespace mildpath {

/// Moves clearances and oil of a running circuit as the standing calibrations say. What was
/// measured stays as it was measured: only the forecast moves.
void calibrate(const Build &build, Circuit &circuit);
void calibrate(const Build &build, Oil &oil);

/// What the gauge shows more than there is, by the standing calibrations (Pa).
double gaugeOffset_pa(const Build &build);
/// Factor between engine and model, by the standing calibrations.
double modelFactor(const Build &build);

/// What the gauge shows of a forecast, by the standing calibrations of gauge and model.
/// @param ownTap  at the document's gauge; another one has no offset
LikelyPressure asGaugeShows(const Build &build, const LikelyPressure &forecast, bool ownTap = true);

} // namespace mildpath
