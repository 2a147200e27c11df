// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/enginevalue.h"

#include <array>
#include <span>
#include <string>
#include <vector>

namespace mildpath {

// The engine as a builder describes it: families of like parts as rows, dimensions as columns, each
// number alike for a family unless a part differs. What fits no column stands in lists. Everything
// here is a view of the document's numbers (document/enginevalue.h).

/// A dimension families have.
struct EngineColumn
{
    std::string_view id, title, unit; ///< unit of the file
};
enum class EngineSize { Journal, Width, Wall, Groove, Feed, Hole, Least, Most, Target };
inline constexpr size_t sheetWidth = 9;
std::span<const EngineColumn, sheetWidth> sheetColumns();

/// One part of a family: a bearing, a lifter, a jet.
struct EngineMember
{
    std::string name; ///< "Main 3"
    std::string stop;
    std::array<std::string, sheetWidth> at; ///< its numbers; empty: it has none of that kind
};
struct EngineFamily
{
    std::string id; ///< of families(), or the kind of its stops
    std::string name; ///< "Main bearings"
    std::vector<EngineMember> members;
    std::array<std::string, sheetWidth> own; ///< numbers of the family as such: its limits
};
/// In oil order of their first parts; families of which the engine has none are left out.
std::vector<EngineFamily> sheetFamilies(const Build &build);

/// A number that several parts share.
struct EngineCell
{
    std::vector<std::string> at; ///< of all that have the shared value; empty: there is no such
    std::optional<double> value;
    Origin origin = Origin::Typical; ///< the least sure of them
    std::vector<size_t> differing; ///< members with another value
};
/// What a family shares under a column: the commonest value, of two as common the first's.
EngineCell sharedCell(const Build &build, const EngineFamily &family, size_t column);
/// Members that differ somewhere, in order.
std::vector<size_t> differingMembers(const Build &build, const EngineFamily &family);

/// What stands in no column: of one part, or alike for several.
struct EngineEntry
{
    std::string name; ///< "main feed, length"
    std::vector<std::string> at;
    bool principal; ///< a size that is measured or looked up, not a coefficient
};
struct EngineList
{
    std::string name; ///< "Pump"
    std::vector<EngineEntry> entries;
};
std::vector<EngineList> sheetLists(const Build &build);
EngineCell sharedCell(const Build &build, const EngineEntry &entry);

/// Sizes nobody said anything of, by name: "Main bearings, width". What is shared counts once.
std::vector<std::string> typicalSizes(const Build &build);
/// "7 sizes are typical values"; empty where there are none.
Phrase typicalText(size_t count);

/// Sets a number that is shared: all that have it alike. Parts that differ stay.
/// @return one edit to undo
Edit setShared(const EngineCell &cell, double value, Origin origin, const std::string &by = {},
               const std::string &when = {});
/// Makes all of a family alike again under a column, those that differ too.
Edit makeAlike(const Build &build, const EngineFamily &family, size_t column, double value,
               Origin origin, const std::string &by = {}, const std::string &when = {});

} // namespace mildpath
