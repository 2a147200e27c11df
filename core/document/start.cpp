// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/start.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array startKeyRows {
    NumberKey { "drill_rpm", "the drill turns the pump's shaft", 250, 30, 3000, false, "prime",
                commonPractice },
    NumberKey { "starter_rpm", "the starter turns the crank", 200, 30, 600, false, "prime",
                commonPractice },
    NumberKey { "burst_s", "one burst", 10, 2, 60, false, "prime", commonPractice },
    NumberKey { "rest_s", "rest of the starter between bursts", 60, 0, 600, false, "prime",
                commonPractice },
    NumberKey { "oil_temp_c", "oil and engine; empty: as the workshop", std::nullopt, -40, 120,
                false, "prime" },
    NumberKey { "filter_l", "filter and can hold", 0.4, 0, 20, false, "prime", assumption },
    NumberKey { "cooler_l", "cooler and its lines hold", 0, 0, 50, false, "prime", assumption },
    NumberKey { "other_l", "else to be filled; lifters, chambers", 0.15, 0, 50, false, "prime",
                assumption },
    NumberKey { "suction_l", "air before the pump: pickup and its tube", 0.1, 0, 20, false, "prime",
                assumption },
    NumberKey { "pressure_within_s", "pressure must show after the start", 5, 1, 60, false, "start",
                commonPractice },
    NumberKey { "fast_rpm", "the reading at speed", 2000, 1000, 6000, false, "start",
                commonPractice },
    NumberKey { "hot_after_min", "the hot idle is read after", 12, 5, 60, false, "start",
                commonPractice },
};

} // namespace

std::optional<double> Start::value(std::string_view key) const
{
    return valueOf(values, startKeyRows, key);
}

std::span<const NumberKey> startKeys()
{
    return startKeyRows;
}

} // namespace mildpath
