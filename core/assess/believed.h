// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "assess/operatingmodel.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// What the gauge readings that stand make of a build's forecast. Never taken silently: the
/// forecast stays what it is, this stands beside it.
class Believed
{
public:
    /// Standard linear-Gaussian inversion about the forecast, then once more about what that gives
    /// (Gauss–Newton): every reading is solved at its own speed and oil temperature, with its own
    /// uncertainty, 2 K of its temperature, the larger of 20 rev/min and 1 % of its speed, and what
    /// the model leaves out of each pressure. Readings of what was repaired or opened since do not
    /// count. Source: as updateBand (evidence/band.h).
    /// Errors: `readings` where none counts; as Network::solve.
    static Result<Believed> by(const Build &build, const std::vector<GaugedSize> &sizes);

    /// Ids of the readings that count.
    const std::vector<std::string> &readings() const { return m_readings; }
    double chi2() const { return m_chi2; }
    double pValue() const { return m_pValue; }
    /// That something is at work which is not among the inputs.
    double offProbability() const { return m_off; }
    /// No input explains these readings.
    bool nothingExplains() const;

    /// The build as the readings have it, at an oil temperature.
    Result<OperatingModel> modelAt(double oil_c) const;
    /// The gauge there: in `value_pa` the middle. Beside the updated inputs the mass for "the model
    /// is off" widens it. @param model  of modelAt; @param plain  of the build itself, same point
    Result<LikelyPressure> gaugeAt(double rpm, OperatingModel &model, OperatingModel &plain) const;

    /// Fills in what the readings make of forecast lines. Errors: as Network::solve.
    Result<void> update(std::vector<ForecastLine> &lines) const;

private:
    Believed(const Build &build, const std::vector<GaugedSize> &sizes)
        : m_build(&build)
        , m_sizes(&sizes)
    {
    }
    const Build *m_build; ///< both outlive this
    const std::vector<GaugedSize> *m_sizes;
    std::vector<std::string> m_readings;
    std::vector<double> m_z, m_jacobian, m_precision; ///< readings × inputs; BandUpdate
    double m_chi2 = 0, m_pValue = 1, m_off = 0;
};

/// Hot idle alone and with the readings, for people.
struct BelievedIdle
{
    LikelyPressure alone, with;
    size_t readings = 0;
    double offProbability = 0;
    bool nothingExplains = false;
};
/// Errors: as Believed::by.
Result<BelievedIdle> believedIdle(const Build &build, const std::vector<GaugedSize> &sizes);
/// "hot idle likely 1.1 to 2.2 bar, with 3 readings 1.5 to 2.1 bar; 1 % left for something that is
/// not on this list"
Phrase believedText(const BelievedIdle &idle);

} // namespace mildpath
