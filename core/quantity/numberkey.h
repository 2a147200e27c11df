// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"

#include <optional>
#include <span>
#include <string_view>

namespace mildpath {

/// A number that may be entered: of an element of the circuit, of a stop, of a part of the job.
struct NumberKey
{
    std::string_view key; ///< as in a file; its suffix says the unit
    std::string_view meaning;
    /// Taken where nothing is entered; none: an element must have it, elsewhere it is not known.
    std::optional<double> usual {};
    double least = 0, most = 1e12;
    bool aboveLeast = false; ///< `least` itself is refused
    std::string_view group {}; ///< the kind of stop, the part of a page; empty: none
    std::string_view source {}; ///< of the usual value
    bool yesNo = false; ///< 1 or 0: there is one, or not
    bool typed = true; ///< offered among a stop's sizes: not what is measured or hardly ever known

    std::string_view unit() const; ///< of the file
    bool allows(double value) const;
    /// What it is and may be.
    Phrase about() const { return aboutNumber(meaning, least, most, unit()); }
    /// Why a value that is not allowed is refused: "journal diameter must be 5 to 500 mm, is 3 mm".
    Phrase refusal(double value) const;
};

constexpr NumberKey asYesNo(NumberKey key)
{
    key.yesNo = true;
    return key;
}

/// Unit of a key by its suffix (`_mm`, `_um`, `_kpa` …); empty for a bare number.
std::string_view unitOfKey(std::string_view key);

/// @return null for an unknown key
const NumberKey *findKey(std::span<const NumberKey> keys, std::string_view key);
/// Of a group. @return null for an unknown key
const NumberKey *findKey(std::span<const NumberKey> keys, std::string_view group,
                         std::string_view key);

} // namespace mildpath
