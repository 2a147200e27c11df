// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/words.h"

namespace mildpath {

/// What an element of the circuit is; its law, keys and ranges are its row in
/// circuit/elementtypes.h.
enum class ElementKind : unsigned char {
    Pipe,
    Drilling,
    Orifice,
    Annulus,
    Bearing,
    FilmBearing,
    CrankDrilling,
    Media,
    Check,
    Jet,
    Thermostat,
    Relief,
    Pump,
};

template <> std::span<const std::string_view> enumWords<ElementKind>();

} // namespace mildpath
