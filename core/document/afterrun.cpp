// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/afterrun.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array finish {
    NumberKey { "cutoff_mm", "cut-off of the filter", 0.8, 0.08, 8, false, "trace",
                "ISO 13565-1:1996, from memory" },
    NumberKey { "piston_clearance_um", "piston in the bore, diametral", std::nullopt, 1, 1000,
                false, "ring" },
    NumberKey { "top_ring_mm", "top ring, axial width", std::nullopt, 0.2, 10, false, "ring" },
    NumberKey { "second_ring_mm", "second ring, axial width", std::nullopt, 0.2, 10, false,
                "ring" },
    NumberKey { "oil_ring_mm", "oil ring, axial width", std::nullopt, 0.5, 15, false, "ring" },
    NumberKey { "gas_kpa", "mean gas pressure on the ring", 200, 10, 20000, false, "ring",
                ownChoice },
    NumberKey { "ring_rq_um", "Rq of the ring's face", 0.12, 0.01, 5, false, "ring", ownChoice },
    NumberKey { "bore_rpq_um", "Rpq of the bore the ring runs on", 0.2, 0.01, 5, false, "ring",
                ownChoice },
    NumberKey { "journal_rq_um", "Rq of crank journals", 0.15, 0.01, 5, false, "shell", ownChoice },
    NumberKey { "shell_rq_um", "Rq of shells", 0.3, 0.01, 5, false, "shell", ownChoice },
    NumberKey { "cam_rq_um", "Rq of the cam", 0.2, 0.01, 5, false, "cam", ownChoice },
    NumberKey { "follower_rq_um", "Rq of its follower", 0.15, 0.01, 5, false, "cam", ownChoice },
    NumberKey { "cam_base_mm", "base circle, radius", 16, 3, 60, false, "cam", ownChoice },
    NumberKey { "cam_lift_mm", "lift at the cam", 9, 0.5, 30, false, "cam", ownChoice },
    NumberKey { "nose_fall_mm", "fall of the lift curve over the nose, by the angle squared", 21, 1,
                100, false, "cam", ownChoice },
    NumberKey { "cam_width_mm", "width of the cam", 14, 2, 60, false, "cam", ownChoice },
    NumberKey { "roller_mm", "radius of a roller follower", 9, 2, 40, false, "cam", ownChoice },
    NumberKey { "spring_n", "valve spring at full lift, at the cam", 650, 20, 10000, false, "cam",
                ownChoice },
    NumberKey { "valley_um3_um2", "valley volume wanted with petrol", std::nullopt, 0.001, 10,
                false, "valley" },
    NumberKey { "methanol_factor", "times that with methanol, the one school", 2, 0.2, 5, false,
                "valley", commonPractice },
};

constexpr std::array after {
    NumberKey { "first_hours_h", "first hours, set apart", 20, 0, 1000, false, "filter",
                commonPractice },
    NumberKey { "speck_count", "more than this many later is a warning", 3, 0, 1000, false,
                "filter", commonPractice },
    NumberKey { "sump_kg", "oil in the engine; empty: from the sump's fill", std::nullopt, 0.1,
                1000, false, "oil" },
    NumberKey { "seal_scatter_percent", "a reading taken twice differs by", 5, 0.1, 50, false,
                "seal", ownChoice },
};

} // namespace

std::span<const NumberKey> finishKeys()
{
    return finish;
}

std::span<const NumberKey> afterKeys()
{
    return after;
}

std::span<const NumberKey> sectionKeys(std::string_view section)
{
    return section == "finish" ? finishKeys()
        : section == "after"   ? afterKeys()
                               : std::span<const NumberKey>();
}

} // namespace mildpath
