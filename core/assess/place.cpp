// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/place.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// In the order of the enum.
constexpr std::array<std::string_view, 11> placeNames {
    "Route",    "Clearances", "Pump",       "Bore finish", "Heat",      "Passages",
    "Forecast", "Film & oil", "Sump & air", "First start", "After run",
};

} // namespace

std::string_view placeName(Place place)
{
    return placeNames[static_cast<size_t>(place)];
}

std::optional<Place> placeNamed(std::string_view name)
{
    const auto it = std::find(placeNames.begin(), placeNames.end(), name);
    if (it == placeNames.end())
        return std::nullopt;
    return static_cast<Place>(it - placeNames.begin());
}

} // namespace mildpath
