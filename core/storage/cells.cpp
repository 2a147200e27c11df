// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/cells.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace mildpath {

char separatorOf(std::string_view text)
{
    const std::string_view first = text.substr(0, text.find('\n'));
    for (const char c : { '\t', ';' })
        if (first.find(c) != first.npos)
            return c;
    return ',';
}

std::string trimmedCell(const std::string &cell)
{
    const auto from = cell.find_first_not_of(" \t\r\xEF\xBB\xBF");
    if (from == cell.npos)
        return {};
    return cell.substr(from, cell.find_last_not_of(" \t\r") - from + 1);
}

std::optional<double> numberOfCell(std::string cell, bool decimalComma)
{
    if (decimalComma)
        std::replace(cell.begin(), cell.end(), ',', '.');
    double value = 0;
    const char *begin = cell.data(), *end = begin + cell.size();
    if (begin != end && *begin == '+')
        ++begin;
    const auto r = std::from_chars(begin, end, value);
    return r.ec == std::errc() && r.ptr == end && std::isfinite(value) ? std::optional(value)
                                                                       : std::nullopt;
}

} // namespace mildpath
