// SPDX-License-Identifier: GPL-3.0-or-later
#include "kinds/cautions.h"
#include "kinds/elementkind.h"
#include "kinds/origin.h"
#include "kinds/stopkind.h"

#include <array>
#include <string>

namespace mildpath {

template <> std::span<const std::string_view> enumWords<StopKind>()
{
    static constexpr auto words = std::to_array<std::string_view>({
        "tank",          "pickup",    "scavenge",    "pump",   "relief",  "line",
        "cooler",        "filter",    "gallery",     "main",   "big_end", "small_end",
        "balance_shaft", "idler",     "cam_bearing", "rocker", "lifter",  "jet",
        "chain",         "tensioner", "phaser",      "turbo",  "plug",
    });
    static_assert(words.size() == static_cast<size_t>(StopKind::Plug) + 1);
    return words;
}

template <> std::span<const std::string_view> enumWords<ElementKind>()
{
    static constexpr auto words = std::to_array<std::string_view>({
        "pipe",
        "drilling",
        "orifice",
        "annulus",
        "bearing",
        "film_bearing",
        "crank_drilling",
        "media",
        "check",
        "jet",
        "thermostat",
        "relief",
        "pump",
    });
    static_assert(words.size() == static_cast<size_t>(ElementKind::Pump) + 1);
    return words;
}

template <> std::span<const std::string_view> enumWords<Origin>()
{
    static constexpr auto words
        = std::to_array<std::string_view>({ "typical", "shop", "manufacturer", "measured" });
    static_assert(words.size() == static_cast<size_t>(Origin::Measured) + 1);
    return words;
}

std::string_view caution::start()
{
    static const std::string all = [] {
        std::string out;
        for (const std::string_view line : { exhaust, atTheStart, belts, deferring })
            out += (out.empty() ? "" : " ") + std::string(line);
        return out;
    }();
    return all;
}

} // namespace mildpath
