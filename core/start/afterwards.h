// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/progress.h"
#include "assess/rules.h"
#include "assess/sizes.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

// Recorded against forecast, and what would explain the difference.

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

/// One uncertain input that may explain the readings.
struct Explanation
{
    std::string input; ///< as in Calibration
    std::string name; ///< "Main clearances", "the oil's viscosity"
    double amount = 0; ///< as in Calibration
    double z = 0; ///< in its standard uncertainties
    double before = 0, after = 0; ///< sum of squared residuals over their own errors
    bool explains = false; ///< moved by no more than two of them, and every reading then fits
    Phrase text {}; ///< "+4 µm, 1.1 of its uncertainty"

    /// One that leaves readings unexplained is to be checked again.
    Mark mark() const;
};
/// Each input moved alone until the readings fit best, the best first. A reading's own error: gauge
/// and eye, and 3 % of the model. The moves are to first order and then solved once more.
/// Errors: as Network::solve; `readings` without any; `cancelled`.
Result<std::vector<Explanation>> explanationsOf(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                Progress *progress = nullptr);
/// The calibration that writes it down.
Calibration calibrationOf(const Build &build, const Explanation &explanation);

/// Every reading against the forecast, and what would explain them all.
struct ReadAgainst
{
    std::vector<Residual> residuals;
    std::vector<Explanation> explanations; ///< none without readings
};
/// Errors: as residualsOf() and explanationsOf().
Result<ReadAgainst> readAgainstForecast(const Build &build, const std::vector<GaugedSize> &sizes,
                                        Progress *progress = nullptr);

} // namespace mildpath
