// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "diagnose/faults.h"
#include "rules/rules.h"

#include <map>
#include <optional>

namespace mildpath {

/// What relief flow does to the oil. In words only: no figure is known.
enum class Churn { None, Some, Much };

/// What mains and rods have of it at one speed: a groove feeds the rod and costs the main.
struct CrankFigures
{
    double gauge_pa = 0;
    double fedShare = 1; ///< of the rod least well fed, see PointPressure
    double mainFilm_m = 0; ///< smallest of the mains; at full load above idle. 0: none
    double filmParameter = 0; ///< λ of that
};

/// One engine at hot idle and at the higher speed.
struct RemedyFigures
{
    CrankFigures idle, most; ///< hot idle, highest speed
    double gauge_pa = 0, gaugeFast_pa = 0;
    double bearing_pa = 0; ///< at the main or big-end worst off for its need, hot idle
    double bearingRatio = 0; ///< that pressure over its need
    std::string bearing; ///< its name
    double bearingOil_m3_s = 0; ///< mains and big-ends together, hot idle
    double bearingMost_pa = 0; ///< at the main or big-end worst off at the highest speed
    double bearingMostRatio = 0;
    std::string bearingMost;
    double weakest_pa = 0; ///< of all stops, hot idle
    double weakestRatio = 0;
    std::string weakest;
    double power_w = 0; ///< of the pump at the higher speed, p × swept flow / 0.85
    double relief_m3_s = 0; ///< at the higher speed
    Churn churn = Churn::None;
};

/// How much of a remedy: what can be chosen of it.
struct RemedySize
{
    std::string meaning; ///< "restrictor"
    std::string_view unit; ///< of `value`: mm, µm, kPa; empty: a share
    double value, least, most;
};
/// What is wished of the remedies: other sizes than usual, and some of them together.
struct RemedyWishes
{
    std::map<std::string, double> sizes; ///< by remedy
    std::vector<std::string> together; ///< ids; two or three
    bool operator==(const RemedyWishes &) const = default;
};

/// A remedy, tried on the same engine as all the others.
struct Remedy
{
    std::string id, name;
    std::optional<RemedySize> size; ///< absent: there is nothing to choose
    Phrase what; ///< exactly what was changed
    RemedyFigures figures;
    Phrase verdict; ///< "needle up, bearing not" …
    bool needleOnly = false; ///< the gauge rises and the weakest bearing hardly
    bool helps = false; ///< the weakest bearing gets more
    bool solved = true; ///< false: `verdict` says why there are no figures
};
struct RemedyTable
{
    RemedyFigures now; ///< as it stands, with the faults
    std::vector<Remedy> remedies;
    std::vector<std::string> notHere; ///< remedies this engine has no place for, with the reason
};

/// All remedies this engine has a place for, each alone, with some faults present (worn lifter
/// bores, say); last those wished together. A size out of its range is taken at the range's end.
/// Errors: as Network::solve for the engine as it stands.
Result<RemedyTable> compareRemedies(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const std::vector<Fault> &faults = {},
                                    const RemedyWishes &wishes = {});
std::string_view churnWord(Churn churn);
Json remediesToJson(const RemedyTable &table);

} // namespace mildpath
