// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "diagnose/faults.h"
#include "rules/rules.h"

namespace mildpath {

/// What relief flow does to the oil. In words only: no figure is known.
enum class Churn { None, Some, Much };

/// One engine at hot idle and at the higher speed.
struct RemedyFigures
{
    double gauge_pa = 0, gaugeFast_pa = 0;
    double bearing_pa = 0; ///< at the main or big-end worst off for its need, hot idle
    double bearingRatio = 0; ///< that pressure over its need
    std::string bearing; ///< its name
    double bearingOil_m3_s = 0; ///< mains and big-ends together, hot idle
    double weakest_pa = 0; ///< of all stops, hot idle
    double weakestRatio = 0;
    std::string weakest;
    double power_w = 0; ///< of the pump at the higher speed, p × swept flow / 0.85
    double relief_m3_s = 0; ///< at the higher speed
    Churn churn = Churn::None;
};

/// A remedy, tried on the same engine as all the others.
struct Remedy
{
    std::string id, name;
    Phrase what; ///< exactly what was changed
    RemedyFigures figures;
    Phrase verdict; ///< "needle up, bearing not" …
    bool needleOnly = false; ///< the gauge rises and the weakest bearing hardly
    bool solved = true; ///< false: `verdict` says why there are no figures
};
struct RemedyTable
{
    RemedyFigures now; ///< as it stands, with the faults
    std::vector<Remedy> remedies;
    std::vector<std::string> notHere; ///< remedies this engine has no place for, with the reason
};

/// All remedies on the build, alone, with some faults present (worn lifter bores, say).
/// Errors: as Network::solve for the engine as it stands.
Result<RemedyTable> compareRemedies(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const std::vector<Fault> &faults = {});
std::string_view churnWord(Churn churn);
Json remediesToJson(const RemedyTable &table);

} // namespace mildpath
