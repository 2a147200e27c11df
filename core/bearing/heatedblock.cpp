// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/heatedblock.h"

#include <cmath>

namespace mildpath {
namespace {

/// Running less reading (m).
double difference_m(const HeatedBlock &t)
{
    return t.journalDiameter_m * t.housingExpansion_per_k.value_or(0)
        * (t.runningHousing.value - t.block.value)
        - overstatement_m(t);
}

} // namespace

double overstatement_m(const HeatedBlock &t)
{
    return t.journalDiameter_m * t.journalExpansion_per_k * (t.runningJournal.value - t.zero.value);
}

DiametralClearance runningFromReading(const HeatedBlock &test, DiametralClearance reading)
{
    return { reading.value_m + difference_m(test) };
}

DiametralClearance readingFromRunning(const HeatedBlock &test, DiametralClearance running)
{
    return { running.value_m - difference_m(test) };
}

DiametralClearance at20FromReading(const HeatedBlock &test, DiametralClearance reading)
{
    HeatedBlock cold = test;
    cold.runningHousing = cold.runningJournal = { 20 };
    return runningFromReading(cold, reading);
}

Result<ExpansionFit> fitExpansion(double bore_m, std::span<const double> temperature_c,
                                  std::span<const double> reading_m, double readingU_m,
                                  double temperatureU_k, GaugedJournal journal,
                                  double journalExpansion_per_k)
{
    const size_t n = temperature_c.size();
    if (n < 2)
        return fail("temps_c", "a growth needs two temperatures at least");
    if (reading_m.size() != n)
        return fail("readings_um", "must be as many as temps_c");
    const auto count = static_cast<double>(n);
    double x = 0, y = 0;
    for (size_t i = 0; i < n; ++i) {
        x += (temperature_c[i] - 20) / count;
        y += reading_m[i] / count;
    }
    double sxx = 0, sxy = 0;
    for (size_t i = 0; i < n; ++i) {
        const double dx = temperature_c[i] - 20 - x;
        sxx += dx * dx;
        sxy += dx * (reading_m[i] - y);
    }
    if (!(sxx > 1e-9))
        return fail("temps_c", "are all one temperature: a growth needs two that differ");
    ExpansionFit out {};
    out.slope_m_per_k = sxy / sxx;
    out.at20_m = y - out.slope_m_per_k * x;
    out.expansion_per_k = out.slope_m_per_k / bore_m
        + (journal == GaugedJournal::WithBlock ? journalExpansion_per_k : 0);
    if (!(out.expansion_per_k > 0))
        return fail("readings_um",
                    "fall as the block warms, and no housing shrinks with heat: check the order "
                    "of the readings, and whether the journal was warm");
    double squares = 0;
    for (size_t i = 0; i < n; ++i) {
        const double rest = reading_m[i] - out.at20_m - out.slope_m_per_k * (temperature_c[i] - 20);
        squares += rest * rest;
    }
    if (n > 2)
        out.residualSd_m = std::sqrt(squares / (count - 2));
    std::optional<double> s = out.residualSd_m;
    if (readingU_m > 0 || temperatureU_k > 0)
        s = std::hypot(readingU_m, out.slope_m_per_k * temperatureU_k);
    if (s) {
        out.expansionU_per_k = *s / std::sqrt(sxx) / bore_m;
        out.at20U_m = *s * std::sqrt(1 / count + x * x / sxx);
    }
    return out;
}

} // namespace mildpath
