// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/enginepaste.h"

#include "quantity/rounding.h"
#include "storage/cells.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <optional>

namespace mildpath {
namespace {

using Row = std::vector<std::string>;

std::vector<Row> rowsOf(std::string_view text)
{
    const char separator = separatorOf(text);
    std::vector<Row> out;
    for (size_t from = 0; from < text.size();) {
        const size_t end = std::min(text.find('\n', from), text.size());
        Row row;
        std::string_view line = text.substr(from, end - from);
        for (size_t at = 0; at <= line.size();) {
            const size_t stop = std::min(line.find(separator, at), line.size());
            row.push_back(trimmedCell(std::string(line.substr(at, stop - at))));
            at = stop + 1;
        }
        if (std::ranges::any_of(row, [](const std::string &c) { return !c.empty(); }))
            out.push_back(std::move(row));
        from = end + 1;
    }
    return out;
}

std::string plainWord(std::string_view text)
{
    std::string out;
    for (const char c : text)
        if (std::isalnum(static_cast<unsigned char>(c)))
            out.push_back(static_cast<char>(std::tolower(static_cast<unsigned char>(c))));
    return out;
}

std::optional<double> read(const std::string &cell, size_t column, std::string_view lengthUnit,
                           std::string_view clearanceUnit)
{
    std::string pointed = cell;
    if (pointed.find('.') == std::string::npos && std::ranges::count(pointed, ',') == 1)
        std::ranges::replace(pointed, ',', '.');
    const std::string_view unit = sheetColumns()[column].unit;
    const bool clearance = unit == "µm";
    const auto parsed
        = parseQuantity(pointed, Dimension::Length, clearance ? clearanceUnit : lengthUnit);
    if (!parsed)
        return std::nullopt;
    return std::round(toUnit(parsed->si, unit, Dimension::Length) * 1e6) / 1e6;
}

bool isNumber(const std::string &cell)
{
    return read(cell, 0, "mm", "µm").has_value();
}

/// A column by its title, whatever stands behind it ("journal, mm").
std::optional<size_t> columnOf(const std::string &title)
{
    const std::string wanted = plainWord(title);
    std::optional<size_t> out;
    for (size_t c = 0; c < sheetWidth; ++c)
        if (const std::string known = plainWord(sheetColumns()[c].title);
            !wanted.empty() && wanted.starts_with(known))
            out = c;
    return out;
}

} // namespace

EnginePaste readEnginePaste(const EngineFamily &family, size_t column, std::string_view text,
                            std::string_view lengthUnit, std::string_view clearanceUnit)
{
    EnginePaste out;
    std::vector<Row> rows = rowsOf(text);
    if (rows.empty())
        return out;
    const bool header = std::ranges::none_of(rows.front(), isNumber);
    const size_t firstData = header ? 1 : 0;
    if (firstData >= rows.size())
        return out;
    const bool named
        = std::any_of(rows.begin() + static_cast<long>(firstData), rows.end(),
                      [](const Row &r) { return !r.front().empty() && !isNumber(r.front()); });
    std::vector<std::optional<size_t>> columns;
    for (size_t c = named ? 1 : 0; c < rows[firstData].size(); ++c) {
        if (header && c < rows.front().size())
            columns.push_back(columnOf(rows.front()[c]));
        else
            columns.push_back(column + columns.size() < sheetWidth
                                  ? std::optional(column + columns.size())
                                  : std::nullopt);
    }
    for (size_t r = firstData; r < rows.size(); ++r) {
        size_t member = r - firstData;
        if (named) {
            const std::string name = plainWord(rows[r].front());
            const auto it = std::ranges::find_if(
                family.members, [&](const EngineMember &m) { return plainWord(m.name) == name; });
            member = static_cast<size_t>(it - family.members.begin());
        }
        if (member >= family.members.size()) {
            out.without.push_back(rows[r].front());
            continue;
        }
        ++out.rows;
        for (size_t i = 0; i < columns.size(); ++i) {
            const size_t c = i + (named ? 1 : 0);
            if (!columns[i] || c >= rows[r].size() || rows[r][c].empty())
                continue;
            const auto value = read(rows[r][c], *columns[i], lengthUnit, clearanceUnit);
            if (!value || family.members[member].at[*columns[i]].empty())
                out.unread.push_back(rows[r][c]);
            else
                out.cells.push_back({ member, *columns[i], *value });
        }
    }
    return out;
}

Edit takePaste(const EngineFamily &family, const EnginePaste &paste, Origin origin,
               const std::string &by, const std::string &when)
{
    EditAll all { family.name + " pasted", {} };
    for (const EnginePaste::Cell &c : paste.cells)
        all.edits.emplace_back(
            SetEngineValue { family.members[c.member].at[c.column], c.value, origin, by, when });
    return all;
}

std::string engineTable(const Build &build, const EngineFamily &family, std::string_view lengthUnit,
                        std::string_view clearanceUnit)
{
    std::vector<size_t> used;
    for (size_t c = 0; c < sheetWidth; ++c)
        if (std::ranges::any_of(family.members,
                                [&](const EngineMember &m) { return !m.at[c].empty(); }))
            used.push_back(c);
    std::string out = family.name;
    const auto unitOf
        = [&](size_t c) { return sheetColumns()[c].unit == "µm" ? clearanceUnit : lengthUnit; };
    for (const size_t c : used)
        out += "\t" + std::string(sheetColumns()[c].title) + ", " + std::string(unitOf(c));
    out += "\n";
    for (const EngineMember &m : family.members) {
        out += m.name;
        for (const size_t c : used) {
            out += "\t";
            if (const auto v = m.at[c].empty() ? std::nullopt : engineValue(build, m.at[c])) {
                const double si = fromUnit(*v, sheetColumns()[c].unit, Dimension::Length);
                out += formatPlain(toUnit(si, unitOf(c), Dimension::Length), 5);
            }
        }
        out += "\n";
    }
    return out;
}

} // namespace mildpath
