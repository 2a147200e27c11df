// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/warmup.h"
#include "quantity/fields.h"
#include "quantity/result.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Build;
struct Stop;

/// Part temperatures and how they are reached; what an infrared thermometer is set to.
struct Heat
{
    double housingBelowOil_k = SettledParts {}.housingBelowOil_k;
    double capBelowOil_k = SettledParts {}.capBelowOil_k;
    double journalBelowOil_k = SettledParts {}.journalBelowOil_k;
    double oilAtIdle_s = WarmUp {}.oilAtIdle_s, oilAtSpeed_s = WarmUp {}.oilAtSpeed_s;
    double blockAtIdle_s = WarmUp {}.blockAtIdle_s, blockAtSpeed_s = WarmUp {}.blockAtSpeed_s;
    double blockEnd_c = WarmUp {}.blockEnd_c;
    double journalLag_s = WarmUp {}.journalLag_s, capLag_s = WarmUp {}.capLag_s;
    double surroundings_c = 20;
    double instrumentEmissivity = 0.95;
    ExtraKeys extra {};

    /// Somebody said how warm the parts settle: the films' own warmth then says nothing.
    bool settledEntered() const { return settled() != SettledParts {}; }
    SettledParts settled() const { return { housingBelowOil_k, capBelowOil_k, journalBelowOil_k }; }
    bool operator==(const Heat &) const = default;
};

/// Key of the effective expansion of the main housings, block and caps together, as a heated-block
/// test gives it.
inline constexpr std::string_view mainHousing = "main_housing";

/// An expansion the builder trusts more than the handbook's.
struct OwnExpansion
{
    double per_k = 0;
    double u_per_k = 0; ///< standard
    std::string source; ///< "maker", "heated block, Main 3, 3 points"
    std::string by, at;
    ExtraKeys extra {};
    bool operator==(const OwnExpansion &) const = default;
};

/// An expansion as it is used.
struct Expansion
{
    double per_k;
    double u_per_k; ///< standard; the handbook's range counts as limits
    std::string source;
    bool own; ///< not the handbook's
};
/// Of a material, or of the main housings.
/// @return absent for an unknown material, and for the main housings while nothing is set for them
std::optional<Expansion> expansionOf(const Build &build, std::string_view material);

/// A point of the heated-block log. Corrected by a later one that replaces it; taken back by one
/// that says so. A point that was not gauged yet is filled in, not struck.
struct HeatPoint
{
    std::string id;
    std::string stop; ///< the main whose bore was gauged
    std::vector<double> spots_c; ///< as read, over the block
    std::string surface = "contact"; ///< what was aimed at; see bearing/infrared.h
    double instrumentEmissivity = 0.95, surroundings_c = 20; ///< when it was read
    std::optional<double> reading_um; ///< of the gauge, diametral; absent: not gauged yet
    double u_um = 1.3; ///< standard
    double zero_c = 20; ///< of the journal when the gauge was zeroed
    bool journalWithBlock = false; ///< the gauge was zeroed on a journal as warm as the block
    bool takenBack = false;
    std::string instrument, by, at, replaces;
    ExtraKeys extra {};
    bool operator==(const HeatPoint &) const = default;
};
/// Points of a stop that stand, in order of entry.
std::vector<const HeatPoint *> standingHeatPoints(const Build &build, std::string_view stop);
std::string nextHeatPointId(const Build &build);

/// Adds a point, striking or filling in the one named by `replaces`. Errors: `replaces`.
Result<void> addHeatPoint(Build &build, HeatPoint point);

template <> const RecordType &recordType<Heat>();
template <> const RecordType &recordType<HeatPoint>();
template <> const RecordType &recordType<OwnExpansion>();

/// What is wrong with settings, expansions and points, with places.
void checkHeat(const Build &build, std::vector<Error> &errors);

} // namespace mildpath
