// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/enginesheet.h"
#include "quantity/units.h"

#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// What a table from elsewhere says of a family, before anything of it is taken.
struct EnginePaste
{
    struct Cell
    {
        size_t member, column;
        double value; ///< in the unit of the file
    };
    std::vector<Cell> cells;
    std::vector<std::string> without; ///< rows that are none of the family's parts, as they begin
    std::vector<std::string> unread; ///< cells that are no numbers, as they stand
    size_t rows = 0; ///< that fit
    bool empty() const { return cells.empty(); }
};

/// A table of rows and columns: tabs, semicolons or commas between the cells. A first row of words
/// names the columns; else they begin at `column`. A first column of words names the parts; else
/// they come in order. Bare numbers are in `unit` of length for sizes, or in that of clearances.
/// @param lengthUnit, clearanceUnit  as shown now: "mm" and "µm", or "in" and "thou"
EnginePaste readEnginePaste(const EngineFamily &family, size_t column, std::string_view text,
                            std::string_view lengthUnit, std::string_view clearanceUnit);

/// All of it as one step to undo.
Edit takePaste(const EngineFamily &family, const EnginePaste &paste, Origin origin,
               const std::string &by = {}, const std::string &when = {});

/// A family as a table with its header, tabs between: what a spreadsheet takes. In the same units.
std::string engineTable(const Build &build, const EngineFamily &family, std::string_view lengthUnit,
                        std::string_view clearanceUnit);

} // namespace mildpath
