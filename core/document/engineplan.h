// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "document/recipes.h"

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
    int mains = 0; ///< 1 to 9, as many as the crank has; 0: as such engines usually have
    double bore_mm = 91, stroke_mm = 91;
    std::string block = "grey_iron";
    std::string mainCap; ///< material; empty: as the block
    std::string valveGear = "pushrods"; ///< pushrods, one_cam or two_cams a bank, overhead
    /// mains_first; lifters_first: lifter galleries and mains from one place; lifters_series: the
    /// mains hang on the first lifter gallery, the second bank's behind it across the front
    std::string order = "mains_first";
    double crossover_mm = 0; ///< bore across the front; 0: two thirds of the lifter gallery's
    std::string overhead = "camshaft"; ///< rockers fed through: camshaft, pushrods or head
    bool solidLifters = false;
    std::string pump = "gerotor"; ///< or gear, vane: by their displacement
    std::string reliefTo = "inlet"; ///< where the relief valve lets its oil go: inlet or sump
    bool drySump = false; ///< with tank and scavenge stages
    int tankReturns = 1; ///< 1 or 2 ports of the tank that take what was scavenged
    /// The block's own pump was taken out for the dry sump: its port stays and wants a cap.
    bool oldPumpPort = false;
    bool remoteFilter = false;
    bool cooler = false; ///< with a thermostat
    bool jets = false;
    bool squirtHoles = false; ///< one in every rod, fed by its big-end
    bool tensioner = true;
    double tensionerVent_mm = usualVent_mm; ///< 0: none
    bool chainJet = false; ///< an open jet at the chain or the drive
    bool bushGrooves = false; ///< round every cam bush; else one hole
    bool hollowCams = false; ///< overhead cams that carry the oil in their bore
    bool phasers = false; ///< one a camshaft; overhead cams only
    std::string phaserFeed = "cam"; ///< cam, or own: through a screen of its own
    bool turbo = false;
    std::string turboFeed = "gallery"; ///< or filter: the filter head's clean side
    bool balanceShafts = false;
    int idlers = 0; ///< shafts of a gear drive's idlers, 0 to 6
    double hotIdle_rpm = 800;
    double most_rpm = 6000;
    std::string oil = "15W-40";

    int banks() const { return layout == "vee" || layout == "flat" ? 2 : 1; }
    /// As the plan says, else as usual: one more than throws.
    int mainCount() const;
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
/// Most mains the crank of such an engine has room for; the least is one for a single, else two.
int mostMains(const EnginePlan &plan);
int leastMains(const EnginePlan &plan);

/// The members' names as keys, all optional; unknown ones are errors.
template <> const RecordType &recordType<EnginePlan>();

/// Errors: the plan's member that cannot be, with what could.
Result<void> checkPlan(const EnginePlan &plan);
/// Errors: as checkPlan().
Result<Build> planBuild(const EnginePlan &plan);

} // namespace mildpath
