// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/diagnosis.h"

#include <random>

namespace mildpath {

/// Invented faults, read with invented gauges, to see how often the diagnosis finds them.
struct TrialPlan
{
    std::vector<std::pair<std::string, Condition>> readings; ///< tap and condition
    std::vector<double> severities { 0.3, 0.6, 0.9 };
    int trials = 20; ///< of each fault at each severity
    unsigned seed = 1;
    /// The truth is not the forecast's own model: all that the forecast does not know is drawn, and
    /// every gauge has an error of its own.
    bool offModel = false;
};
/// Every tap, under the usual conditions.
TrialPlan usualTrials(const Build &build);
/// Six readings: the gauge and the filter's head, cold idle, hot idle, hot and fast.
TrialPlan sixReadings(const Build &build);

/// One fault's trials at one severity.
struct TrialRow
{
    Fault fault;
    std::string name;
    double distance = 0; ///< Mahalanobis from the healthy engine, without noise
    double plainDistance
        = 0; ///< the same by gauge and model errors alone, the engine known exactly
    bool seen = false; ///< `distance` at least 2
    int trials = 0, first = 0, firstThree = 0;
    /// Where it is not seen: trials in which the program said that these readings do not tell it,
    /// and what would.
    int saidSo = 0;
    int blamed = 0; ///< trials in which something wrong was settled on (0.8)
    std::map<std::string, int> ledBy; ///< kind that came first → trials
};
struct TrialReport
{
    std::vector<TrialRow> rows;
    int readings = 0, suspects = 0, groups = 0;
    struct Seen
    {
        int trials = 0, first = 0, firstThree = 0;
    };
    Seen seen; ///< trials the readings can see
    Seen plainly; ///< by the plain distance: more trials, the harder ones too
    int unseen = 0, unseenSaidSo = 0, unseenBlamed = 0;
    int healthy = 0, healthyFirst = 0; ///< trials of a healthy engine
};
/// Noise: gauge 0.05 bar, 3 % a reading, 6 % common. Off the model as well:
/// clearances by their u, the oil's viscosity 5 %, 0.6 of a gauge's uncertainty alike in all its
/// readings (own choice).
/// Errors: as Signatures::make; `cancelled`.
Result<TrialReport> runTrials(const Build &build, const std::vector<GaugedSize> &sizes,
                              const TrialPlan &plan, Progress *progress = nullptr);
Json trialsToJson(const TrialReport &report);
/// Table for docs: a line a fault and severity, then which kinds lead instead.
std::string trialsText(const TrialReport &report);

} // namespace mildpath
