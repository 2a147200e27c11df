// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/place.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

struct Row
{
    std::string_view id, name;
};

/// In the order of the enum.
constexpr std::array<Row, 13> places { {
    { "work", "Work" },
    { "engine", "Engine" },
    { "route", "Oil path" },
    { "clearances", "Clearances" },
    { "pump", "Pump" },
    { "bore_finish", "Bore finish" },
    { "heat", "Heat" },
    { "passages", "Passages" },
    { "forecast", "Forecast" },
    { "film", "Oil & film" },
    { "sump", "Sump & air" },
    { "start", "First start" },
    { "after", "After run" },
} };

} // namespace

std::string_view placeName(Place place)
{
    return places[static_cast<size_t>(place)].name;
}

std::string_view placeId(Place place)
{
    return places[static_cast<size_t>(place)].id;
}

std::optional<Place> placeOf(std::string_view id)
{
    const auto it
        = std::find_if(places.begin(), places.end(), [&](const Row &row) { return row.id == id; });
    if (it == places.end())
        return std::nullopt;
    return static_cast<Place>(it - places.begin());
}

} // namespace mildpath
