// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "evidence/orders.h"
#include "quantity/phrase.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Build;
struct Figures;

// What a build may have to buy, alike things summed: from what is described, gauged and chosen.
// Common practice, no source.

/// A thing to buy.
struct BuyRow
{
    std::string id; ///< of the row, the same as long as the thing is: see Order::row
    std::string what; ///< "Main bearing half shells, green"
    Phrase size; ///< wall, thread or bore, grade; empty: not known
    double count = 0; ///< pieces, or litres where `litres`
    bool litres = false;
    std::string_view check; ///< kind of check it is wanted for
    std::vector<std::string> places; ///< of those checks
    std::string_view restsOn {}; ///< kind of check that settles its size; empty: none
    /// How many of them each place takes; empty: the count does not follow from the places.
    std::vector<int> each {};
};

/// Everything that may be to buy, whether it is asked or not, in the order of the catalogue of
/// checks.
std::vector<BuyRow> buyRowsOf(const Build &build, const Figures &figures);

/// Of these, what a bearing failure wants new and nobody has replaced yet.
std::vector<BuyRow> boughtAfterFailure(const Build &build, const Figures &figures);
/// "10", "4.5 l".
Phrase buyAmount(const BuyRow &row);
/// "10 × Main bearing half shells, green, wall 1.994 mm".
Phrase buyLine(const BuyRow &row);

/// An order that no longer is what is wanted: "4 wanted now, 3 ordered"; empty: it is.
/// @param rows  of the build
Phrase orderDiffers(const Order &order, const std::vector<BuyRow> &rows);

/// When what is under way should be here.
struct Underway
{
    std::string since, due; ///< ISO 8601; `due` a day
    bool promised = false; ///< somebody named the day; else it is usual
    std::string from; ///< supplier or shop
};
/// @param usualDays  where nobody promised
/// @return nothing where it was not ordered or sent
std::optional<Underway> underway(const Order *order, int usualDays);

} // namespace mildpath
