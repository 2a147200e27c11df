// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/rules.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array<LimitFamily, 6> families { {
    { "main", "main", "bearing", "clearance_um" },
    { "big_end", "big_end", "bearing", "clearance_um" },
    { "cam_bearing", "cam_bearing", "bearing", "clearance_um" },
    { "lifter", "lifter", "annulus", "clearance_um" },
    { "pump_tip", "pump", "pump", "tip_clearance_um" },
    { "pump_end", "pump", "pump", "end_clearance_um" },
} };

constexpr std::array<StopNeed, 5> needs { {
    { "main", 0, true, true },
    { "big_end", 0, true, false },
    { "cam_bearing", 0.2e5, false, false },
    { "lifter", 0.3e5, false, false },
    { "tensioner", 0.5e5, false, false },
} };

constexpr std::array<std::string_view, 1> mainKinds { "main" };
constexpr std::array<std::string_view, 1> bigEndKinds { "big_end" };
constexpr std::array<std::string_view, 2> camKinds { "cam_bearing", "rocker" };
constexpr std::array<std::string_view, 1> lifterKinds { "lifter" };
constexpr std::array<std::string_view, 1> jetKinds { "jet" };
constexpr std::array<std::string_view, 2> chainKinds { "chain", "tensioner" };

constexpr std::array<OilGroup, 6> groups { {
    { "mains", "mains", mainKinds },
    { "big_ends", "big-ends", bigEndKinds },
    { "cams", "cams and rockers", camKinds },
    { "lifters", "lifters", lifterKinds },
    { "jets", "cooling jets", jetKinds },
    { "chain", "chain oiling", chainKinds },
} };

// Upright first, at both ends, because those make the clearance; then the two flanks.
constexpr std::array<ReadingPosition, 6> plan { {
    { 1, 90, "A upright" },
    { 1, 60, "B +30°" },
    { 1, 120, "C −30°" },
    { 2, 90, "A upright" },
    { 2, 60, "B +30°" },
    { 2, 120, "C −30°" },
} };

} // namespace

std::string_view markId(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return "proven";
    case Mark::LookAgain:
        return "look_again";
    case Mark::Hold:
        return "hold";
    case Mark::NotDone:
        return "not_done";
    }
    return "";
}

std::string_view markWord(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return "proven";
    case Mark::LookAgain:
        return "look again";
    case Mark::Hold:
        return "holds the start";
    case Mark::NotDone:
        return "not done";
    }
    return "";
}

std::span<const LimitFamily> limitFamilies()
{
    return families;
}

const StopNeed *stopNeed(std::string_view stopKind)
{
    for (const StopNeed &n : needs)
        if (n.stopKind == stopKind)
            return &n;
    return nullptr;
}

std::span<const OilGroup> oilGroups()
{
    return groups;
}
std::span<const ReadingPosition> readingPlan()
{
    return plan;
}

} // namespace mildpath
