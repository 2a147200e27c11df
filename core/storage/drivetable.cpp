// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/drivetable.h"

#include "storage/readingtable.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>

namespace mildpath {
namespace {

constexpr double most_g = 5;

std::optional<double> numberOf(const std::string &text)
{
    double value = 0;
    const char *begin = text.data(), *end = begin + text.size();
    if (begin != end && *begin == '+')
        ++begin;
    const auto r = std::from_chars(begin, end, value);
    return r.ec == std::errc() && r.ptr == end && std::isfinite(value) ? std::optional(value)
                                                                       : std::nullopt;
}

std::string trimmed(std::string s)
{
    const auto from = s.find_first_not_of(" \t\r\xEF\xBB\xBF");
    if (from == s.npos)
        return {};
    return s.substr(from, s.find_last_not_of(" \t\r") - from + 1);
}

} // namespace

DriveImport driveFromTable(std::string_view text)
{
    DriveImport out;
    const char separator = text.substr(0, text.find('\n')).find('\t') != text.npos ? '\t' : ',';
    const auto rows = cellsOf(text, separator);
    if (!rows) {
        out.errors.push_back(rows.error());
        return out;
    }
    const std::string names[] = { "time_s", "lateral_g", "longitudinal_g" };
    std::optional<size_t> column[3];
    if (!rows->empty())
        for (size_t i = 0; i < rows->front().size(); ++i)
            for (size_t n = 0; n < 3; ++n)
                if (trimmed(rows->front()[i]) == names[n])
                    column[n] = i;
    if (!column[0] || (!column[1] && !column[2])) {
        out.errors.push_back({ "line 1", "needs a column time_s and lateral_g or longitudinal_g" });
        return out;
    }
    for (size_t r = 1; r < rows->size(); ++r) {
        const auto &cells = (*rows)[r];
        if (cells.empty() || (cells.size() == 1 && trimmed(cells[0]).empty()))
            continue;
        const std::string line = "line " + std::to_string(r + 1);
        double value[3] {};
        bool good = true;
        for (size_t n = 0; n < 3; ++n) {
            if (!column[n])
                continue;
            const std::string cell = *column[n] < cells.size() ? trimmed(cells[*column[n]]) : "";
            const auto v = numberOf(cell);
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
