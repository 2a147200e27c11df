// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"
#include "kinds/origin.h"

#include <optional>
#include <string>
#include <string_view>

namespace mildpath {

// The numbers of the engine, each by where it stands: "circuit/main_1/d_mm",
// "stops/main_1/shell_wall_mm", "engine/bore_mm", "use/hot_idle_rpm", "limits/main/max_um", of one
// bearing alone "limits/main@main_3/max_um"; surfaces and cams "finish/cam_lift_mm"; where the
// relief valve's oil goes, 1 or 0, "circuit/relief/to_sump".

/// What a number of the engine is and may be.
struct AboutValue
{
    std::string meaning; ///< "journal diameter"
    std::string_view unit; ///< of the file
    double least, most;
    bool aboveLeast; ///< `least` itself is refused
    bool yesNo = false; ///< 1 or 0: there is one, or not

    bool allows(double value) const
    {
        return (aboveLeast ? value > least : value >= least) && value <= most;
    }
    Phrase about() const { return aboutNumber(meaning, least, most, unit); }
};
/// Absent: there is no such number.
std::optional<AboutValue> aboutValue(const Build &build, std::string_view at);
/// In the unit of the file; absent where it is not entered and nothing is usual.
std::optional<double> engineValue(const Build &build, std::string_view at);
/// Where it comes from now.
Origin originOf(const Build &build, const std::string &at);
/// What other sources say of it: the value each had when another took its place.
std::vector<std::pair<Origin, double>> otherValues(const Build &build, const std::string &at);

/// A number of the engine and where it comes from.
struct SetEngineValue
{
    std::string at;
    std::optional<double> value; ///< in the unit of the file; absent takes it away
    Origin origin = Origin::Shop;
    std::string by {}, when {};
    bool operator==(const SetEngineValue &) const = default;
};

/// Limits that hold for a bearing: its own, else those of its family. @return null without any
const Limits *limitsFor(const Build &build, const std::string &family, const std::string &stop);

/// Notes where a number that was just set comes from; what it was before is kept beside it.
void noteOrigin(Build &build, const std::string &at, std::optional<double> before, Origin origin,
                const std::string &by = {}, const std::string &when = {});
/// Forgets what is noted of numbers that are there no more.
void dropLooseOrigins(Build &build);

} // namespace mildpath
