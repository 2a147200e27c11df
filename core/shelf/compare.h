// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/progress.h"
#include "assess/rules.h"
#include "quantity/phrase.h"
#include "storage/shelf.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace mildpath {

struct Build;

/// Something that can be compared over builds.
struct ShelfQuantity
{
    std::string key; ///< stable: "size.main", "hot_idle", "wear.Cu", "cut.copper", "rk_um"
    std::string name;
    Shows as = Shows::Number;
    int decimals = 1;
    std::string group; ///< Sizes, Forecast, After run, Bore finish
    std::string note {}; ///< "in 100 h"; empty: nothing to add to the unit

    Quantity quantity(double value) const { return { value, as, 0, decimals }; }
};
std::vector<ShelfQuantity> shelfQuantities();

/// A quantity of one build; absent where it does not have it.
struct ShelfValue
{
    std::optional<double> value {}, low {}, high {}; ///< as a Quantity; low and high: see `of`
    Phrase of {}; ///< "mean of 5, least and most"; or why there is none
};
/// By the same functions as the benches. @param key  of shelfQuantities()
ShelfValue shelfValue(const Build &build, const std::string &key);

/// A row of a comparison.
struct ShelfRow
{
    std::filesystem::path path;
    std::string name, engine, last;
    ShelfValue value;
    Phrase trouble; ///< the file could not be opened; empty: it was
};
/// A file on the shelf, and its row where one was asked for: damaged is to be checked again.
Mark markOf(const ShelfEntry &entry, const ShelfRow *row);
/// Loads each build, no photo, and takes the quantity. Damaged files are rows with their trouble.
/// Ends early, with what it has, when cancelled.
std::vector<ShelfRow> compareOnShelf(std::span<const ShelfEntry> entries, const std::string &key,
                                     Progress *progress = nullptr);

/// CSV of a comparison: RFC 4180, the unit in the header.
std::string shelfToCsv(std::span<const ShelfRow> rows, const ShelfQuantity &quantity);

} // namespace mildpath
