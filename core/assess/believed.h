// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "assess/narrowed.h"
#include "assess/operatingmodel.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// Errors: as Network::solve; an unknown node.
Result<std::vector<ReadAt>> readAt(OperatingModel &model, const Turned &turned,
                                   std::span<const std::string> nodes);
/// The gauge as this build is primed. Absent once it has run, where other readings can be had, and
/// where priming has no solution or no pressure.
std::optional<ReadAt> whilePriming(const Build &build, const std::vector<GaugedSize> &sizes);

/// What the gauge readings that stand make of a build's forecast. Never taken silently: the
/// forecast stays what it is until somebody records calibration().
class Believed
{
public:
    /// Standard linear-Gaussian inversion about the forecast, then once more about what that gives
    /// (Gauss–Newton): every reading is solved at its own speed and oil temperature, with its own
    /// uncertainty, those of readAt() and what the model leaves out of each pressure. Readings of
    /// what was repaired or opened since do not count, nor does what readings made of it before.
    /// Source: as updateBand (evidence/band.h).
    /// Errors: `readings` where none counts; as Network::solve.
    static Result<Believed> by(const Build &build, const std::vector<GaugedSize> &sizes);

    /// Ids of the readings that count.
    const std::vector<std::string> &readings() const { return m_calibration.readings; }
    double chi2() const { return m_chi2; }
    double pValue() const { return m_pValue; }
    /// That something is at work which is not among the inputs.
    double offProbability() const { return m_calibration.off; }
    /// Readings taken with the relief valve open: they tell of it and of little else.
    size_t onRelief() const { return m_onRelief; }
    /// No input explains these readings.
    bool nothingExplains() const;
    /// Inputs that moved, the farthest first.
    std::vector<BelievedInput> moved() const;
    /// What to record so that the forecast goes by them.
    const Calibration &calibration() const { return m_calibration; }
    /// The build as if it were recorded.
    Build applied(const Build &build) const;

    /// Fills in what the readings make of forecast lines. Errors: as Network::solve.
    Result<void> update(const Build &build, const std::vector<GaugedSize> &sizes,
                        std::vector<ForecastLine> &lines) const;

private:
    void keep(const std::vector<double> &z, const std::vector<double> &jacobian,
              const std::vector<double> &precision);

    Calibration m_calibration;
    double m_chi2 = 0, m_pValue = 1;
    size_t m_onRelief = 0;
};

/// Hot idle alone and with the readings, for people.
struct BelievedIdle
{
    LikelyPressure alone, with;
    size_t readings = 0, onRelief = 0;
    double offProbability = 0;
    bool nothingExplains = false;
    std::vector<BelievedInput> moved; ///< the farthest first
    Calibration calibration; ///< to be recorded

    /// Readings that nothing explains are to be looked at again.
    Mark mark() const { return nothingExplains ? Mark::LookAgain : Mark::Proven; }
    /// The few that moved farthest, for people; none where nothing explains the readings.
    std::vector<BelievedInput> told() const;
};
/// "Big-end bearings, assumed: up, 0.8 of its uncertainty"
Phrase movedText(const BelievedInput &input);
/// Errors: as Believed::by.
Result<BelievedIdle> believedIdle(const Build &build, const std::vector<GaugedSize> &sizes);
/// "hot idle likely 1.1 to 2.2 bar, with 3 readings 1.5 to 2.1 bar; 1 % left for something that is
/// not on this list"
Phrase believedText(const BelievedIdle &idle);

} // namespace mildpath
