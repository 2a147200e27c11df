// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What is to be looked at again once the engine is handed over, and when.

/// One look to come. Of an item the last entry counts: it was looked at, or set, then; intervals
/// run from there, whichever is over first.
struct NextLook : Record
{
    std::string item; ///< what is looked at
    std::optional<double> every_h, every_km;
    std::optional<int> everyDays, everyTrackDays, everyPasses;
    bool operator==(const NextLook &) const = default;

    bool isSet() const { return every_h || every_km || everyDays || everyTrackDays || everyPasses; }
};
/// What is commonly looked at again. Common practice, no source.
std::span<const std::string_view> lookItems();

template <> const RecordType &recordType<NextLook>();

} // namespace mildpath
