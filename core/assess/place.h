// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string_view>

namespace mildpath {

/// A place of the work, in its order: where something is looked at and mended. The application has
/// a bench for each.
enum class Place {
    Work,
    Engine,
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
/// "Clearances", "Oil path": for people.
std::string_view placeName(Place place);
/// "clearances", "route": for files and programs; it stays whatever the place is called.
std::string_view placeId(Place place);
/// @return absent for an id there is not
std::optional<Place> placeOf(std::string_view id);

} // namespace mildpath
