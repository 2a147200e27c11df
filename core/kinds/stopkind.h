// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/words.h"

namespace mildpath {

/// What stands at a stop on the oil's way. In the order of the oil.
enum class StopKind : unsigned char {
    Tank,
    Pickup,
    Scavenge,
    Pump,
    Relief,
    Line,
    Cooler,
    Filter,
    Gallery,
    Main,
    BigEnd,
    SmallEnd,
    BalanceShaft,
    Idler,
    CamBearing,
    Rocker,
    Lifter,
    Jet,
    Chain,
    Tensioner,
    Phaser,
    Turbo,
    Plug,
};

template <> std::span<const std::string_view> enumWords<StopKind>();

} // namespace mildpath
