// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/clearance.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {

double diameterAt20_m(double diameter_m, double expansion_per_k, Celsius t)
{
    return diameter_m / (1 + expansion_per_k * (t.value - 20));
}

double standardUncertainty(double stated, UncertaintyKind kind)
{
    switch (kind) {
    case UncertaintyKind::Standard:
        return stated;
    case UncertaintyKind::Expanded:
        return stated / 2;
    case UncertaintyKind::Limits:
        return stated / std::sqrt(3.0);
    case UncertaintyKind::Resolution:
        return stated / (2 * std::sqrt(3.0));
    }
    return stated;
}

namespace {

double combined(double uA_m, double uB_m, double bore_m, double journal_m,
                const PartsWhileGauging &parts)
{
    const double thermalBore = bore_m * parts.boreExpansion_per_k * parts.temperatureUncertainty_k;
    const double thermalJournal
        = journal_m * parts.journalExpansion_per_k * parts.temperatureUncertainty_k;
    return std::sqrt(uA_m * uA_m + uB_m * uB_m + thermalBore * thermalBore
                     + thermalJournal * thermalJournal);
}

} // namespace

ClearanceAt20 clearanceFromTwoInstruments(double bore_m, double journal_m, double uBore_m,
                                          double uJournal_m, const PartsWhileGauging &parts)
{
    const double bore20 = diameterAt20_m(bore_m, parts.boreExpansion_per_k, parts.bore);
    const double journal20 = diameterAt20_m(journal_m, parts.journalExpansion_per_k, parts.journal);
    return { { bore20 - journal20 },
             combined(uBore_m, uJournal_m, bore_m, journal_m, parts),
             bore20,
             journal20 };
}

ClearanceAt20 clearanceFromZeroedGauge(double reading_m, double journal_m, double uGauge_m,
                                       double uZero_m, const PartsWhileGauging &parts)
{
    return clearanceFromTwoInstruments(journal_m + reading_m, journal_m, uGauge_m, uZero_m, parts);
}

double angleFromJoint_deg(double angle_deg)
{
    double a = std::fmod(angle_deg, 180.0);
    if (a < 0)
        a += 180;
    return a > 90 ? 180 - a : a;
}

ReadingUse readingUse(double angle_deg)
{
    const double a = angleFromJoint_deg(angle_deg);
    if (a >= 75)
        return ReadingUse::Clearance;
    if (a >= 60)
        return ReadingUse::Form;
    return a >= neverWithin_deg ? ReadingUse::Shape : ReadingUse::Never;
}

Result<BoreForm> boreForm(std::span<const PositionReading> readings, double minAngle_deg)
{
    struct Range
    {
        double least, most;
        void take(double v)
        {
            least = std::min(least, v);
            most = std::max(most, v);
        }
    };
    BoreForm out {};
    Range all { 1e300, -1e300 };
    std::map<int, Range> byStation;
    std::map<double, Range> byAngle;
    double sum = 0, sumAtRightAngle = 0;
    int atRightAngle = 0;
    for (const PositionReading &r : readings) {
        if (angleFromJoint_deg(r.angle_deg) < minAngle_deg)
            continue;
        ++out.counted;
        sum += r.value_m;
        if (readingUse(r.angle_deg) == ReadingUse::Clearance) {
            sumAtRightAngle += r.value_m;
            ++atRightAngle;
        }
        all.take(r.value_m);
        double angle = std::fmod(r.angle_deg, 180.0);
        angle = angle < 0 ? angle + 180 : angle;
        byStation.try_emplace(r.station, Range { r.value_m, r.value_m })
            .first->second.take(r.value_m);
        byAngle.try_emplace(angle, Range { r.value_m, r.value_m }).first->second.take(r.value_m);
    }
    if (out.counted == 0)
        return fail("readings", "no reading lies far enough from the parting line to count");
    out.countedMean_m = sum / out.counted;
    out.mean_m = atRightAngle > 0 ? sumAtRightAngle / atRightAngle : out.countedMean_m;
    out.smallest_m = all.least;
    out.largest_m = all.most;
    for (const auto &[station, range] : byStation)
        out.outOfRound_m = std::max(out.outOfRound_m, range.most - range.least);
    for (const auto &[angle, range] : byAngle)
        out.taper_m = std::max(out.taper_m, range.most - range.least);
    return out;
}

Result<StripClearance> stripClearance(std::span<const StripReading> readings, double step_m)
{
    if (!(step_m > 0) || !std::isfinite(step_m))
        return fail("step_um", "must be above 0");
    StripClearance out {};
    double least = 1e300, most = -1e300;
    for (const StripReading &r : readings) {
        if (r.overOilHole)
            continue;
        ++out.used;
        least = std::min(least, r.clearance.value_m);
        most = std::max(most, r.clearance.value_m);
    }
    if (out.used == 0)
        return fail("readings",
                    "no usable reading: every strip lay over an oil hole, or none given");
    out.clearance = { least };
    out.low_m = least - step_m / 2;
    out.high_m = least + step_m / 2;
    out.standardUncertainty_m = standardUncertainty(step_m, UncertaintyKind::Resolution);
    out.taper_m = most - least;
    return out;
}

} // namespace mildpath
