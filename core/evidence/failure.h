// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// After a bearing has failed everything its oil touched carries bearing metal.

/// Where a bearing failed.
struct BearingFailure : Record
{
    std::string stop;
    bool operator==(const BearingFailure &) const = default;
};

/// What was done with a part the metal touched.
struct Repair : Record
{
    std::string failure; ///< id of the failure
    std::string item; ///< stop, or a part: see SpreadItem in assess/spread.h
    std::string done; ///< cleaned, flushed or replaced
    bool operator==(const Repair &) const = default;
};

/// What is to be done with a kind of part, and why. Common practice, no source.
struct SpreadRule
{
    std::string_view kind; ///< of stop, or of part
    std::string_view rule; ///< in words
    std::string_view reason;
    bool clean, flush, replace; ///< which of these settles it
    std::string_view buy; ///< for the shopping list; empty: nothing to buy where it is cleaned
};
std::span<const SpreadRule> spreadRules();
/// @return the rule of a kind; that of an ordinary passage for an unknown one
const SpreadRule &spreadRule(std::string_view kind);
/// Whether this settles it.
bool settles(const SpreadRule &rule, std::string_view done);

/// Said wherever somebody might think a magnet proves something here.
std::string_view magnetCaution();

template <> const RecordType &recordType<BearingFailure>();
template <> const RecordType &recordType<Repair>();

/// Work asked of a machine shop.
struct ShopJob : Record
{
    std::string job; ///< see machiningJobs(); empty: `note` says it
    std::string prove; ///< what is to be shown on return; empty: the usual
    std::string event; ///< of the cleaning logbook, written when it came back; empty: to be done
    bool operator==(const ShopJob &) const = default;
};
template <> const RecordType &recordType<ShopJob>();

} // namespace mildpath
