// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "quantity/phrase.h"

#include <optional>
#include <string_view>
#include <vector>

namespace mildpath {

/// How long an engine ran between two moments, as far as anybody noted it.
struct RanSince
{
    std::optional<double> hours_h, km; ///< absent: nobody said
    std::optional<int> trackDays, passes;
};
/// Noted runs are added up; hours of the engine written with a filter, an oil sample or an opening
/// count where they say more.
/// @param since  ISO 8601 moment, itself left out
RanSince ranSince(const Build &build, std::string_view since);

/// A look to come, and how near it is.
struct LookToCome
{
    const NextLook *look; ///< the last that was said of its item
    RanSince ran; ///< since then
    std::optional<int> days; ///< since then; absent: no day is known
    double share = 0; ///< of the interval that is nearest its end; 1 and over: due
    Phrase every; ///< "20 h or 180 days"
    Phrase says; ///< "due: 21 h of 20 h", "in 12 days"

    bool isDue() const { return share >= 1; }
    Mark mark() const { return isDue() ? Mark::LookAgain : Mark::NotDone; }
};
/// What is to be looked at again, the nearest first.
/// @param today  ISO 8601 day; empty: days do not count
std::vector<LookToCome> looksToCome(const Build &build, std::string_view today);

} // namespace mildpath
