// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/drivetable.h"

#include "storage/cells.h"
#include "storage/readingtable.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <string>

namespace mildpath {
namespace {

constexpr double most_g = 5;

} // namespace

bool isDriveTable(std::string_view text)
{
    const std::string_view header = text.substr(0, text.find('\n'));
    const auto has = [&](std::string_view name) { return header.find(name) != header.npos; };
    return has("time_s") && (has("lateral_g") || has("longitudinal_g"));
}

DriveImport driveFromTable(std::string_view text)
{
    DriveImport out;
    const auto rows = cellsOf(text, separatorOf(text));
    if (!rows) {
        out.errors.push_back(rows.error());
        return out;
    }
    const std::string names[] = { "time_s", "lateral_g", "longitudinal_g" };
    std::optional<size_t> column[3];
    if (!rows->empty())
        for (size_t i = 0; i < rows->front().size(); ++i)
            for (size_t n = 0; n < 3; ++n)
                if (trimmedCell(rows->front()[i]) == names[n])
                    column[n] = i;
    if (!column[0] || (!column[1] && !column[2])) {
        out.errors.push_back({ "line 1", "needs a column time_s and lateral_g or longitudinal_g" });
        return out;
    }
    for (size_t r = 1; r < rows->size(); ++r) {
        const auto &cells = (*rows)[r];
        if (cells.empty() || (cells.size() == 1 && trimmedCell(cells[0]).empty()))
            continue;
        const std::string line = "line " + std::to_string(r + 1);
        double value[3] {};
        bool good = true;
        for (size_t n = 0; n < 3; ++n) {
            if (!column[n])
                continue;
            const std::string cell
                = *column[n] < cells.size() ? trimmedCell(cells[*column[n]]) : "";
            const auto v = numberOfCell(cell);
            if (!v || (n > 0 && std::abs(*v) > most_g)) {
                out.errors.push_back({ line + ", " + names[n],
                                       v ? cell + " g is more than " + std::to_string(int(most_g))
                                         : "\"" + cell + "\" is not a number" });
                good = false;
                continue;
            }
            value[n] = *v;
        }
        if (!good)
            continue;
        if (!out.moments.empty() && !(value[0] > out.moments.back().time_s)) {
            out.errors.push_back({ line + ", time_s", "the time must rise" });
            continue;
        }
        out.moments.push_back({ value[0], value[1], value[2] });
    }
    if (out.errors.empty() && out.moments.size() < 2)
        out.errors.push_back({ "line 2", "needs at least two moments" });
    return out;
}

} // namespace mildpath
