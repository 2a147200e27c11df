// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/afterrun.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array finish {
    ValueKey { "cutoff_mm", "trace", "cut-off of the filter", "mm", 0.08, 8, 0.8,
               "ISO 13565-1:1996, from memory" },
    ValueKey { "piston_clearance_um", "ring", "piston in the bore, diametral", "µm", 1, 1000 },
    ValueKey { "top_ring_mm", "ring", "top ring, axial width", "mm", 0.2, 10 },
    ValueKey { "second_ring_mm", "ring", "second ring, axial width", "mm", 0.2, 10 },
    ValueKey { "oil_ring_mm", "ring", "oil ring, axial width", "mm", 0.5, 15 },
    ValueKey { "gas_kpa", "ring", "mean gas pressure on the ring", "kPa", 10, 20000, 200,
               ownChoice },
    ValueKey { "ring_rq_um", "ring", "Rq of the ring's face", "µm", 0.01, 5, 0.12, ownChoice },
    ValueKey { "bore_rpq_um", "ring", "Rpq of the bore the ring runs on", "µm", 0.01, 5, 0.2,
               ownChoice },
    ValueKey { "valley_um3_um2", "valley", "valley volume wanted with petrol", "µm³/µm²", 0.001,
               10 },
    ValueKey { "methanol_factor", "valley", "times that with methanol, the one school", "", 0.2, 5,
               2, commonPractice },
};

constexpr std::array after {
    ValueKey { "first_hours_h", "filter", "first hours, set apart", "h", 0, 1000, 20,
               commonPractice },
    ValueKey { "speck_count", "filter", "more than this many later is a warning", "", 0, 1000, 3,
               commonPractice },
    ValueKey { "sump_kg", "oil", "oil in the engine; empty: from the sump's fill", "kg", 0.1,
               1000 },
    ValueKey { "seal_scatter_percent", "seal", "a reading taken twice differs by", "%", 0.1, 50, 5,
               ownChoice },
};

} // namespace

std::span<const ValueKey> finishKeys()
{
    return finish;
}

std::span<const ValueKey> afterKeys()
{
    return after;
}

std::span<const ValueKey> sectionKeys(std::string_view section)
{
    return section == "finish" ? finishKeys()
        : section == "after"   ? afterKeys()
                               : std::span<const ValueKey>();
}

} // namespace mildpath
