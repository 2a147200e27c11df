// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/parts.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 2> reciprocating { "piston", "rod" };
// What is weighed against its fellows: common practice, no source.
constexpr auto weighedRows = std::to_array<WeightPart>({
    { "piston", "Pistons", {} },
    { "piston_set", "Pistons with pin and rings", {} },
    { "rod", "Rods", {} },
    { "rod_big_end", "Rods, big end", {} },
    { "rod_small_end", "Rods, small end", {} },
    { "assembly", "Piston and rod together", reciprocating },
    { "assembly_shells", "Piston, rod and shells together", {} },
});

} // namespace

std::span<const WeightPart> weightParts()
{
    return weighedRows;
}

std::string weighedPartName(const std::string &part)
{
    const auto at = std::ranges::find(weighedRows, part, &WeightPart::id);
    return at == weighedRows.end() ? part : std::string(at->name);
}

const ShellStockRow *ShellStock::find(const std::string &name) const
{
    const auto it = std::find_if(shells.begin(), shells.end(),
                                 [&](const ShellStockRow &s) { return s.name == name; });
    return it == shells.end() ? nullptr : &*it;
}

} // namespace mildpath
