// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "assess/rules.h"
#include "document/document.h"
#include "evidence/usedoil.h"
#include "quantity/result.h"
#include "rules/rules.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct Figures;
struct OperatingResult;

/// One element of one sample.
struct JudgedElement
{
    std::string symbol;
    double mg_kg = 0;
    std::optional<double> baseline_mg_kg {}; ///< in the new oil
    /// Absent without a baseline where new oil may carry the element. Metal no oil carries is
    /// reckoned from 0 then, and `assumed` says so.
    std::optional<WearRate> wear {};
    bool assumed = false;
    std::optional<OwnPattern> pattern {}; ///< of this engine's earlier rates
    size_t earlier = 0; ///< how many there are
    bool alarm = false; ///< above its own pattern
    Mark mark = Mark::NotDone;
    Phrase verdict;
};

struct JudgedSample
{
    std::string id;
    double engine_h = 0;
    double stretch_h = 0; ///< hours the rates are over
    bool firstHours = false; ///< set apart: no part of the pattern
    bool usable = true; ///< false: its remarks say why it is left out of the trend
    std::vector<JudgedElement> elements; ///< in the order of knownOilElements(), then unknown ones
    std::optional<double> viscosityLoss {}; ///< share of the new oil's at 100 °C
    std::optional<double> fuelLoss {}; ///< what the fuel in it explains of that
    Phrase viscosity; ///< in words; empty: not measured
    Mark viscosityMark = Mark::NotDone; ///< further from new than alikeViscosity: check again
    std::vector<Phrase> remarks;
    Mark mark = Mark::NotDone;
    Phrase verdict; ///< "copper and lead: bearings"

    const JudgedElement *element(std::string_view symbol) const;
};

/// The used oil of this engine, sample by sample in the order of its hours.
struct OilReport
{
    std::vector<JudgedSample> samples;
    /// What the last sample that looked for it says of an element.
    Mark lastMark(std::string_view symbol) const;
    std::optional<double> sump_kg; ///< absent: neither entered nor known from the fill
    Phrase sumpFrom; ///< where it comes from, or what is missing
    std::vector<std::string> symbols; ///< that were measured, in order
    std::vector<Finding> findings;
};
OilReport reportOil(const Build &build);

/// The new oil's own analysis that a sample is compared with; null without one.
const OilSample *baselineOf(const Build &build, const OilSample &sample);

/// The sample as an oil for the forecast: its viscosities, or the new oil's with its fuel in it.
/// Errors: `kv100_mm2_s` when neither viscosity nor fuel was measured.
Result<Oil> oilOfSample(const Build &build, const OilSample &sample);
/// Hot idle with the sampled oil. Errors: as oilOfSample and Network::solve.
Result<OperatingResult> hotIdleWithSample(const Build &build, const Figures &figures,
                                          const OilSample &sample);

} // namespace mildpath
