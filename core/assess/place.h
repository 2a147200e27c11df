// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string_view>

namespace mildpath {

/// A place of the work, in its order: where something is looked at and mended. The application has
/// a bench for each.
enum class Place {
    Route,
    Clearances,
    Pump,
    BoreFinish,
    Heat,
    Passages,
    Forecast,
    Film,
    Sump,
    Start,
    After,
};
/// "Clearances", "First start": for people.
std::string_view placeName(Place place);
/// @return absent for a name there is not
std::optional<Place> placeNamed(std::string_view name);

} // namespace mildpath
