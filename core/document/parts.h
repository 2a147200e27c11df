// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"
#include "quantity/result.h"

#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// A size class of shells: a colour or a mark, the wall of one half, and how many there are.
struct ShellStockRow
{
    std::string name;
    double wall_mm = 0;
    std::optional<int> halves; ///< in stock; absent: as many as wanted
    bool operator==(const ShellStockRow &) const = default;
};

/// A class stamped on a block or crank: what the letter means.
struct SizeClass
{
    std::string name;
    double least_mm = 0, most_mm = 0;
    double middle_mm() const { return (least_mm + most_mm) / 2; }
    bool operator==(const SizeClass &) const = default;
};

/// What is fitted to or stamped for one bearing.
struct FittedShells
{
    std::string upper, lower; ///< class names; empty: not known
    std::string housingClass, journalClass; ///< as stamped; empty: not known
    bool operator==(const FittedShells &) const = default;
};

/// Shells of one family: classes, stock, what sits where.
struct ShellStock
{
    std::vector<ShellStockRow> shells;
    std::vector<SizeClass> housings, journals;
    std::vector<double> undersizes_mm; ///< regrind steps that can be had
    std::map<std::string, FittedShells> fitted; ///< by stop
    std::string source;
    ExtraKeys extra {};

    const ShellStockRow *find(const std::string &name) const;
    bool operator==(const ShellStock &) const = default;
};
template <> const RecordType &recordType<ShellStock>();

/// A part, or parts weighed together, that should match its fellows cylinder by cylinder.
struct WeighedPart
{
    std::optional<double> tolerance_g; ///< allowed spread; absent: nobody said
    std::string source; ///< of the tolerance: maker, shop, the template …
    std::vector<std::string> pieces; ///< an assembly's; empty: a single part
    ExtraKeys extra {};
    bool operator==(const WeighedPart &) const = default;
};
template <> const RecordType &recordType<WeighedPart>();

/// Parts that are commonly weighed against their fellows.
struct WeightPart
{
    std::string_view id, name;
    std::span<const std::string_view> pieces; ///< of an assembly
};
std::span<const WeightPart> weightParts();
/// For people: the name of a common one, else one's own words.
std::string weighedPartName(const std::string &part);

/// Weight of a part that should match its fellows. Append-only; the last of an item stands.
struct Weighing
{
    std::string id;
    std::string part; ///< of weightParts(), or in one's own words
    int item = 1;
    double grams = 0;
    std::string by, at;
    ExtraKeys extra {};
    bool operator==(const Weighing &) const = default;
};
template <> const RecordType &recordType<Weighing>();

/// A question practitioners answer differently, and how this builder answered. The last stands.
struct Choice
{
    std::string question; ///< "strip_counts"
    std::string answer;
    std::string reason, by, at;
    ExtraKeys extra {};
    bool operator==(const Choice &) const = default;
};
template <> const RecordType &recordType<Choice>();

} // namespace mildpath
