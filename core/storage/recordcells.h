// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/record.h"
#include "quantity/rounding.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

// Rows of tables that list entries of the logbook.

using Row = std::vector<std::string>;

inline std::string plainCell(const std::optional<double> &value, int decimals)
{
    return value ? formatPlain(*value, decimals) : "";
}

/// What every entry ends with.
inline void addRecordCells(Row &row, const Record &r)
{
    for (const std::string *s : { &r.note, &r.by, &r.at, &r.replaces })
        row.push_back(*s);
    row.push_back(r.takenBack ? "yes" : "");
}

/// The header of such a table.
inline Row recordHeader(Row own)
{
    for (const char *name : { "note", "by", "at", "replaces", "taken_back" })
        own.emplace_back(name);
    return own;
}

} // namespace mildpath
