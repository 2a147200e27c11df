// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/figuremarks.h"

#include "rules/rules.h"

namespace mildpath {

Mark doneMark(bool done)
{
    return done ? Mark::Proven : Mark::NotDone;
}

Mark supplyMark(double ratio)
{
    if (ratio < 1)
        return Mark::Hold;
    return ratio < 1 + likelyFactor * modelUncertainty ? Mark::LookAgain : Mark::Proven;
}

Mark highSpeedMark(const Build &build, const Operating &operating)
{
    const double rule_pa = leastWanted_pa(build.use, build.use.highSpeed_rpm);
    return operating.highSpeed.gauge.value_pa < rule_pa ? Mark::LookAgain : Mark::Proven;
}

Mark reliefMark(const ForecastLine &hot)
{
    return hot.reliefOpens_rpm ? Mark::Proven : Mark::LookAgain;
}

const ForecastLine *starvesCrankFirst(const Forecast &forecast)
{
    const ForecastLine *first = nullptr;
    for (const ForecastLine &line : forecast.lines)
        if (line.crankStarves_rpm && (!first || *line.crankStarves_rpm < *first->crankStarves_rpm))
            first = &line;
    return first;
}

Mark crankFeedMark(const Forecast &forecast)
{
    return starvesCrankFirst(forecast) ? Mark::Hold : Mark::Proven;
}

Mark outOfRoundMark(double spread_um)
{
    return spread_um > 1 ? Mark::LookAgain : Mark::Proven;
}

Mark coldestMark(const Build &build, const GaugedSize &size)
{
    const double floor = build.use.coldestClearanceFloor_um;
    if (size.coldestStart_um < floor)
        return Mark::Hold;
    return size.coldestStart_um - 2 * size.cold_um.standardUncertainty < floor || !size.measured
        ? Mark::LookAgain
        : Mark::Proven;
}

Mark markOfReading(double pressure_pa, const LikelyPressure &expected, double floor_pa)
{
    if (pressure_pa < floor_pa || pressure_pa < expected.low_pa / 2)
        return Mark::Hold;
    const bool within = pressure_pa >= expected.low_pa && pressure_pa <= expected.high_pa;
    return within ? Mark::Proven : Mark::LookAgain;
}

Mark proofMark(const Proof &proof)
{
    if (proof.verdict == "hold")
        return Mark::Hold;
    return proof.verdict == "look_again" ? Mark::LookAgain : Mark::Proven;
}

Mark worstMark(const StopMarks *marks)
{
    return marks ? worse(worse(marks->size, marks->clean), marks->flow) : Mark::NotDone;
}

Mark tickMark(const TickKind &check, const Proof *standing)
{
    if (standing)
        return proofMark(*standing);
    return check.holds ? Mark::Hold : Mark::NotDone;
}

} // namespace mildpath
