// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/figuremarks.h"

#include "circuit/elementtypes.h"
#include "document/families.h"
#include "rules/rules.h"

#include <algorithm>

namespace mildpath {

Mark doneMark(bool done)
{
    return done ? Mark::Proven : Mark::NotDone;
}

Mark displacementMark(const Element &pump)
{
    const double entered = pump.value("displacement_m3"), given = rotorsDisplacement_m3(pump);
    if (!(entered > 0 && given > 0))
        return Mark::NotAsked;
    const bool apart = entered < given / displacementApart || entered > given * displacementApart;
    return apart ? Mark::LookAgain : Mark::Proven;
}

Mark supplyMark(double ratio)
{
    if (ratio < 1)
        return Mark::Hold;
    return ratio < 1 + likelyFactor * bandModel_ln ? Mark::LookAgain : Mark::Proven;
}

Mark filmHeatMark(double film_c)
{
    return film_c > filmHot_c ? Mark::Hold : film_c > filmWarm_c ? Mark::LookAgain : Mark::Proven;
}

Mark crankFedMark(double share)
{
    if (share < crankFedLeast)
        return Mark::Hold;
    return share < crankFedFine ? Mark::LookAgain : Mark::Proven;
}

Mark unsolvedMark()
{
    return Mark::Hold;
}

bool assumesSizes(const std::vector<GaugedSize> &sizes)
{
    return std::any_of(sizes.begin(), sizes.end(),
                       [](const GaugedSize &s) { return s.known && !s.measured; });
}

Mark onSizes(Mark mark, const std::vector<GaugedSize> &sizes)
{
    return mark == Mark::Proven && assumesSizes(sizes) ? Mark::Assumed : mark;
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

double clearanceFloor_um(const Build &build, const GaugedSize &size)
{
    const double floor = build.use.coldestClearanceFloor_um;
    return findFamily(size.family)->shells || !size.limits
        ? floor
        : std::min(floor, size.limits->min_um / 2);
}

LimitedFigure coldestFigure(const Build &build, const GaugedSize &size)
{
    return { size.coldestStart_um, size.measured ? size.cold_um.expanded() : 0,
             clearanceFloor_um(build, size), std::nullopt };
}

Mark coldestMark(const Build &build, const GaugedSize &size)
{
    switch (evidentOf(coldestFigure(build, size))) {
    case Evident::Yes:
        return size.measured ? Mark::Proven : Mark::Assumed;
    case Evident::Unsure:
        return Mark::LookAgain;
    case Evident::None:
    case Evident::No:
        break;
    }
    return Mark::Hold;
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

Mark markOf(const Instrument &instrument)
{
    return doneMark(instrument.u && !instrument.checked.empty());
}

Mark capMark(const Build &build, std::string_view stop)
{
    return doneMark(capTorqued(build, stop) == true);
}

Mark tickMark(const Proof *standing)
{
    return standing ? proofMark(*standing) : Mark::NotDone;
}

} // namespace mildpath
