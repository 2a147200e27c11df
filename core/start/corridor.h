// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/operatingmodel.h"
#include "assess/sizes.h"

#include <memory>

namespace mildpath {

/// What the gauge is expected to show at any speed and oil temperature, worked out where it is
/// asked for, so that a live trace can ask for every reading: solved on a grid of speeds 4 % and
/// temperatures 3 K apart, straight in between.
class PressureMap
{
public:
    PressureMap(std::shared_ptr<const Build> build, std::vector<GaugedSize> sizes);
    /// @return absent out of range (30 rev/min to a fifth over the highest speed, −40 °C to 50 K
    ///         over hot oil), and where there is no solution
    std::optional<LikelyPressure> at(double rpm, double oil_c);

private:
    const std::optional<LikelyPressure> &solved(int rpmStep, int oilStep);

    std::shared_ptr<const Build> m_build;
    std::vector<GaugedSize> m_sizes;
    std::map<int, std::optional<OperatingModel>> m_models; ///< by temperature
    std::map<std::pair<int, int>, std::optional<LikelyPressure>> m_solved;
};

} // namespace mildpath
