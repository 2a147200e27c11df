// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/verdicttable.h"
#include "quantity/json.h"

namespace mildpath {

/// Stable JSON, documented in docs/format: every cell with its range, and what would narrow most.
Json verdictsToJson(const VerdictTable &table, const VerdictRanges &ranges);
/// What is not inside or may not be, row by row, then what would narrow most.
std::string verdictsText(const VerdictTable &table, const VerdictRanges &ranges,
                         const UnitStyle &style);
/// "Gauge all Big-end bearings: 14 ranges too wide, 3 past a limit, of which it settles 2"
Phrase wideText(const WideCause &cause);

} // namespace mildpath
