// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/assessment.h"
#include "assess/progress.h"

namespace mildpath {

/// What the gauge is expected to show over speed and oil temperature, worked out once so that a
/// live trace can ask it for every reading. Between its grid points linear in speed and in
/// temperature.
class PressureMap
{
public:
    /// From the slowest cranking to the highest speed, from the coldest start or the workshop,
    /// whichever is colder, to 30 K above hot oil.
    /// Errors: as Network::solve; `cancelled`.
    static Result<PressureMap> make(const Build &build, const Assessment &assessment,
                                    Progress *progress = nullptr);
    /// @return absent outside the grid
    std::optional<LikelyPressure> at(double rpm, double oil_c) const;
    double leastRpm() const { return m_rpm.front(); }

private:
    std::vector<double> m_rpm, m_oil_c; ///< ascending
    std::vector<LikelyPressure> m_pressure; ///< row by row of one temperature
};

} // namespace mildpath
