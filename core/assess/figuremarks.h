// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "assess/forecast.h"
#include "assess/limits.h"
#include "assess/operating.h"
#include "assess/sizes.h"

namespace mildpath {

/// Verdicts on single figures and entries, for whatever lists them.

/// What has only to be done: proven when it is, else not done.
Mark doneMark(bool done);
/// A pump's displacement as entered against what its rotors' sizes give; not asked where one of
/// them is not known.
Mark displacementMark(const Element &pump);
/// A supply over its need, or a pressure over its floor: below 1 it holds the start, within the
/// likely range of the model's own uncertainty of 1 it is to be checked again.
Mark supplyMark(double ratio);
/// A film at full load: warmer than filmWarm_c look again, than filmHot_c it holds.
Mark filmHeatMark(double film_c);
/// What a crank's drilling passes of what the rod's film takes.
Mark crankFedMark(double share);
/// What stands where there is no forecast: it holds until the circuit can be solved.
Mark unsolvedMark();
/// Whether the figures rest on sizes that are taken to be so and were not measured.
bool assumesSizes(const std::vector<GaugedSize> &sizes);
/// A verdict on a figure of these sizes: what is good is only proven where all were measured.
Mark onSizes(Mark mark, const std::vector<GaugedSize> &sizes);
/// Whether the relief valve limits hot pressure up to the highest speed; shut all the way is to be
/// checked again.
Mark reliefMark(const ForecastLine &hot);
/// The line that starves the crank at the least speed; null where none does.
const ForecastLine *starvesCrankFirst(const Forecast &forecast);
/// Oil that does not enter the crank up to the highest speed holds the start.
Mark crankFeedMark(const Forecast &forecast);
/// How far parts that grow apart take a bore out of round, hot: more than 1 µm (own choice: what a
/// bore gauge shows) is to be checked again.
Mark outOfRoundMark(double spread_um);
/// The least a clearance may come to, in µm: the user's floor for shells; a round bush is made
/// closer, half of its own minimum is left it.
double clearanceFloor_um(const Build &build, const GaugedSize &size);
/// A bearing's clearance at the coldest start against that floor, as measured (k = 2).
LimitedFigure coldestFigure(const Build &build, const GaugedSize &size);
/// Below the floor by more than its uncertainty it holds, nearer on either side it is to be checked
/// again; what is good and was not measured is assumed.
Mark coldestMark(const Build &build, const GaugedSize &size);
/// A pressure read on the engine: under the floor, or under half the low edge of what is likely, it
/// holds; otherwise outside what is likely it is to be checked again.
Mark markOfReading(double pressure_pa, const LikelyPressure &expected, double floor_pa);
/// What was proven of a stop, as it was written down.
Mark proofMark(const Proof &proof);
/// The mark a stop shows where there is room for one: the worst of its three; null: not done.
Mark worstMark(const StopMarks *marks);
/// An instrument: to be trusted once its uncertainty is known and the day it was last held against
/// a standard.
Mark markOf(const Instrument &instrument);
/// A cap by the card that holds it: done once every bolt of it stands at the last stage.
Mark capMark(const Build &build, std::string_view stop);
/// A point to tick, with what stands of it; null: nothing, and it is not done.
Mark tickMark(const Proof *standing);

} // namespace mildpath
