// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/believed.h"
#include "assess/operating.h"
#include "assess/rules.h"
#include "assess/sizes.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

// Recorded against forecast, and what the readings make of it.

/// One gauge reading beside what was expected of it.
struct Residual
{
    const GaugeReading *reading; ///< of the build
    LikelyPressure expected; ///< at its tap; the band of the gauge's own tap, scaled elsewhere
    double residual_pa = 0; ///< read less expected
    double distance = 0; ///< in standard deviations of gauge and forecast together
    Mark mark = Mark::Proven; ///< outside the band: look again; under the floor: hold
};
/// Every standing reading. Errors: as Network::solve.
Result<std::vector<Residual>> residualsOf(const Build &build, const std::vector<GaugedSize> &sizes);

/// Every reading against the forecast, and what they make of it.
struct ReadAgainst
{
    std::vector<Residual> residuals;
    std::optional<BelievedIdle> believed; ///< absent where no reading counts
};
/// Errors: as residualsOf().
Result<ReadAgainst> readAgainstForecast(const Build &build, const std::vector<GaugedSize> &sizes);

} // namespace mildpath
