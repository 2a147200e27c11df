// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/start.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array startKeyRows {
    ValueKey { "drill_rpm", "prime", "the drill turns the pump's shaft", "rev/min", 30, 3000, 250,
               commonPractice },
    ValueKey { "starter_rpm", "prime", "the starter turns the crank", "rev/min", 30, 600, 200,
               commonPractice },
    ValueKey { "burst_s", "prime", "one burst", "s", 2, 60, 10, commonPractice },
    ValueKey { "rest_s", "prime", "rest of the starter between bursts", "s", 0, 600, 60,
               commonPractice },
    ValueKey { "oil_temp_c", "prime", "oil and engine; empty: as the workshop", "°C", -40, 120 },
    ValueKey { "filter_l", "prime", "filter and can hold", "l", 0, 20, 0.4, assumption },
    ValueKey { "cooler_l", "prime", "cooler and its lines hold", "l", 0, 50, 0, assumption },
    ValueKey { "other_l", "prime", "else to be filled; lifters, chambers", "l", 0, 50, 0.15,
               assumption },
    ValueKey { "suction_l", "prime", "air before the pump: pickup and its tube", "l", 0, 20, 0.1,
               assumption },
    ValueKey { "pressure_within_s", "start", "pressure must show after the start", "s", 1, 60, 5,
               commonPractice },
    ValueKey { "fast_rpm", "start", "the reading at speed", "rev/min", 1000, 6000, 2000,
               commonPractice },
    ValueKey { "hot_after_min", "start", "the hot idle is read after", "min", 5, 60, 12,
               commonPractice },
};

} // namespace

std::optional<double> Start::value(std::string_view key) const
{
    return valueOf(values, startKeyRows, key);
}

std::span<const ValueKey> startKeys()
{
    return startKeyRows;
}

} // namespace mildpath
