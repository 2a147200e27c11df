// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "quantity/phrase.h"
#include "quantity/result.h"

#include <vector>

namespace mildpath {

struct GaugedSize;

/// A point of the dressing plan.
struct DressingPoint
{
    double end_um; ///< end clearance
    double gauge_pa; ///< hot idle
    double weakest_pa;
};
struct DressingPlan
{
    DressingPoint now;
    std::vector<DressingPoint> points; ///< from now down to where rotors bind
    DressingPoint stop; ///< dress to here: the limit, or where more buys nothing
    Phrase why;
    double score_um = 0; ///< deepest in the body face
    double scoreLeft_um = 0; ///< that stays when one stops there
    double take_um() const { return now.end_um - stop.end_um; }
};
/// Errors: as Network::solve; `pump` without one.
Result<DressingPlan> dressingPlan(const Build &build, const std::vector<GaugedSize> &sizes);

/// "As it is, dressed, new rotors, longer rotors, stiffer spring": hot idle at the gauge.
struct PumpOption
{
    Phrase name;
    double gauge_pa;
    double power_w; ///< at the higher speed, p × theoretical flow over pumpEfficiency
    Phrase remark;
};
/// @param plan  adds the dressed pump; null: without
std::vector<PumpOption> pumpOptions(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const DressingPlan *plan);

/// How far to dress the pump, and what else would do.
struct PumpStudy
{
    Result<DressingPlan> plan;
    std::vector<PumpOption> options;
};
PumpStudy studyPump(const Build &build, const std::vector<GaugedSize> &sizes);

} // namespace mildpath
