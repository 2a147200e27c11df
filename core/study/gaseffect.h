// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "assess/operating.h"
#include "circuit/change.h"

#include <vector>

namespace mildpath {

struct GaugedSize;

/// What gas at the pump's inlet does to pressure. An estimate: the share of gas is bounded, not
/// known.
struct GasEffect
{
    double share; ///< at the inlet's pressure, 0…1
    LikelyPressure idleBefore, idleAfter, fastBefore, fastAfter;
    double flowBefore_m3_s, flowAfter_m3_s; ///< the pump's delivery at the higher speed
    double stiffness; ///< of the oil at the inlet's pressure, to that of oil alone
    double stiffnessAtGauge; ///< at the gauge's pressure at the higher speed
};
/// @param share  at the inlet, 0…mostGasShare
/// Errors: as Network::solve; `share` out of range.
Result<GasEffect> gasEffect(const Build &build, const std::vector<GaugedSize> &sizes,
                            const Operating &operating, double share);
/// The pump takes in so much gas.
CircuitChange withGas(double share);

/// The same with its line over speed, hot.
struct GasStudy
{
    GasEffect effect;
    ForecastLine line;
};
/// Errors: as gasEffect(); `forecast` where there is none.
Result<GasStudy> studyGas(const Build &build, const std::vector<GaugedSize> &sizes,
                          const Operating &operating, const Forecast &forecast, double share);

} // namespace mildpath
