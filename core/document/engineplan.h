// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <span>

namespace mildpath {

/// An engine in the words a builder describes it with. From it a whole build is made, its sizes in
/// proportion to a middling inline-four: a beginning to be corrected, never a statement about a
/// particular engine.
struct EnginePlan
{
    std::string name;
    std::string layout = "inline"; ///< single, inline, flat or vee
    int cylinders = 4;
    double bore_mm = 91, stroke_mm = 91;
    std::string block = "grey_iron";
    std::string mainCap; ///< material; empty: as the block
    std::string valveGear = "pushrods"; ///< pushrods, one_cam or two_cams a bank, overhead
    std::string order = "mains_first"; ///< or lifters_first: the lifter gallery before the mains
    std::string overhead = "camshaft"; ///< rockers fed through: camshaft, pushrods or head
    bool solidLifters = false;
    bool drySump = false; ///< with tank and scavenge stages
    bool remoteFilter = false;
    bool cooler = false; ///< with a thermostat
    bool jets = false;
    bool tensioner = true;
    bool phasers = false; ///< one a camshaft; overhead cams only
    bool turbo = false;
    bool balanceShafts = false;
    double hotIdle_rpm = 800;
    double most_rpm = 6000;
    std::string oil = "15W-40";

    int banks() const { return layout == "vee" || layout == "flat" ? 2 : 1; }
    int mains() const;
    bool operator==(const EnginePlan &) const = default;
};

/// The layouts there are: "inline-4" and so on, with the cylinders each may have.
struct LayoutChoice
{
    std::string_view layout;
    std::string_view name;
    std::span<const int> cylinders;
};
std::span<const LayoutChoice> layoutChoices();

/// The members' names as keys, all optional; unknown ones are errors.
template <> const RecordType &recordType<EnginePlan>();

/// Errors: the plan's member that cannot be, with what could.
Result<Build> planBuild(const EnginePlan &plan);

} // namespace mildpath
