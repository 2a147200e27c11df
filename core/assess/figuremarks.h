// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "assess/forecast.h"
#include "assess/operating.h"
#include "assess/sizes.h"

namespace mildpath {

/// Verdicts on single figures and entries, for whatever lists them.

/// What has only to be done: proven when it is, else not done.
Mark doneMark(bool done);
/// A supply over its need, or a pressure over its floor: below 1 it holds the start, within the
/// likely range of the model's own uncertainty of 1 it is to be checked again.
Mark supplyMark(double ratio);
/// The gauge at the higher speed against the least wanted there: a rule, so it never holds.
Mark highSpeedMark(const Build &build, const Operating &operating);
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
/// A shelled bearing at the coldest start: at the floor it holds; within its expanded uncertainty
/// (k = 2) of the floor, or not measured, it is to be checked again.
Mark coldestMark(const Build &build, const GaugedSize &size);
/// A pressure read on the engine: under the floor, or under half the low edge of what is likely, it
/// holds; otherwise outside what is likely it is to be checked again.
Mark markOfReading(double pressure_pa, const LikelyPressure &expected, double floor_pa);
/// What was proven of a stop, as it was written down.
Mark proofMark(const Proof &proof);
/// The mark a stop shows where there is room for one: the worst of its three; null: not done.
Mark worstMark(const StopMarks *marks);
/// A point to tick, with what stands of it (null: nothing): what was found; else a hold where the
/// start waits for it.
Mark tickMark(const TickKind &check, const Proof *standing);

} // namespace mildpath
