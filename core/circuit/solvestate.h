// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <memory>
#include <vector>

namespace mildpath {

struct KnownCurves;

/// Where a solve may start from and where it ended. Belongs to one network; hand the same object to
/// the next solve of that network (or of one with the same elements) to start warm.
struct SolveState
{
    bool filled = false;
    double rpm = 0;
    std::vector<double> pressure_pa; ///< per unknown
    double formerRpm = 0; ///< of the solve before, for walking along speeds; 0: none
    std::vector<double> formerPressure_pa;
    std::vector<double> lagged; ///< per element
    std::vector<double> memory; ///< per element
    std::vector<double> filmRise_k; ///< per element; bearings only
    std::shared_ptr<const KnownCurves> curves {}; ///< taken where point and law are the same
};

} // namespace mildpath
