// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "assess/operating.h"
#include "assess/sizes.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// A gauge reading against the engine as it is and as it would be made.
struct ModifiedReading
{
    std::string reading; ///< id
    std::string tap;
    double rpm = 0, oil_c = 0, read_pa = 0;
    bool byDrill = false;
    double asIs_pa = 0, modified_pa = 0; ///< expected
};

/// What passages made otherwise would do: the forecast with and without, and how each agrees with
/// what the gauge read.
struct Modified
{
    Build build; ///< as it would be
    std::vector<ForecastLine> before, after; ///< at hot oil
    OperatingResult idleBefore, idleAfter;
    std::vector<ModifiedReading> readings;
    /// Sum of squared distances of the readings, before and after; 0 without readings.
    double misfitBefore = 0, misfitAfter = 0;
    Phrase verdict;
};
/// The build with the changes made: nothing of it is kept in the document.
/// Errors: as an edit of that dimension.
Result<Build> withChanges(const Build &build, const std::vector<ElementChange> &changes);
/// Errors: those of withChanges(), and as Network::solve.
Result<Modified> compareModified(const Build &build, const std::vector<GaugedSize> &sizes,
                                 const std::vector<ElementChange> &changes);

} // namespace mildpath
