// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/numberkey.h"

#include <algorithm>
#include <array>

namespace mildpath {

std::string_view unitOfKey(std::string_view key)
{
    struct Suffix
    {
        std::string_view suffix, unit;
    };
    // Longer ones before what they end with.
    static constexpr std::array suffixes {
        Suffix { "_um3_um2", "µm³/µm²" },
        Suffix { "_um_per_k", "µm/K" },
        Suffix { "_n_per_mm", "N/mm" },
        Suffix { "_l_min", "l/min" },
        Suffix { "_percent", "%" },
        Suffix { "_rpm", "rev/min" },
        Suffix { "_mpa", "MPa" },
        Suffix { "_kpa", "kPa" },
        Suffix { "_deg", "°" },
        Suffix { "_min", "min" },
        Suffix { "_mm2", "mm²" },
        Suffix { "_mm", "mm" },
        Suffix { "_um", "µm" },
        Suffix { "_kg", "kg" },
        Suffix { "_m3", "m³" },
        Suffix { "_m2", "m²" },
        Suffix { "_c", "°C" },
        Suffix { "_k", "K" },
        Suffix { "_l", "l" },
        Suffix { "_m", "m" },
        Suffix { "_s", "s" },
        Suffix { "_h", "h" },
        Suffix { "_n", "N" },
    };
    for (const Suffix &s : suffixes)
        if (key.ends_with(s.suffix))
            return s.unit;
    return "";
}

std::string_view NumberKey::unit() const
{
    return unitOfKey(key);
}

bool NumberKey::allows(double value) const
{
    return (aboveLeast ? value > least : value >= least) && value <= most;
}

Phrase NumberKey::refusal(double value) const
{
    return { "",
             aboveLeast ? "{0} above the least: {1}" : "{0} {1}",
             { meaning, mustBe(least, most, value, unit()) } };
}

const NumberKey *findKey(std::span<const NumberKey> keys, std::string_view key)
{
    const auto it
        = std::find_if(keys.begin(), keys.end(), [&](const NumberKey &k) { return k.key == key; });
    return it == keys.end() ? nullptr : &*it;
}

const NumberKey *findKey(std::span<const NumberKey> keys, std::string_view group,
                         std::string_view key)
{
    const auto it = std::find_if(keys.begin(), keys.end(), [&](const NumberKey &k) {
        return k.group == group && k.key == key;
    });
    return it == keys.end() ? nullptr : &*it;
}

} // namespace mildpath
