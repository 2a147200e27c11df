// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinds/stopkind.h"

#include <array>

namespace mildpath {

template <> std::span<const std::string_view> enumWords<StopKind>()
{
    static constexpr auto words = std::to_array<std::string_view>({
        "tank",          "pickup",      "scavenge", "pump",   "relief",  "line",
        "cooler",        "filter",      "gallery",  "main",   "big_end", "small_end",
        "balance_shaft", "cam_bearing", "rocker",   "lifter", "jet",     "chain",
        "tensioner",     "phaser",      "turbo",    "plug",
    });
    static_assert(words.size() == static_cast<size_t>(StopKind::Plug) + 1);
    return words;
}

} // namespace mildpath
