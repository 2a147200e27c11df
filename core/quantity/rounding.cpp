// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cassert>
#include <charconv>
#include <cmath>
#include <utility>

namespace mildpath {

int decimalsFor(double standardUncertainty, int most)
{
    if (!(standardUncertainty > 0) || !std::isfinite(standardUncertainty))
        return most;
    const double expanded = 2 * standardUncertainty;
    const double exponent = std::floor(std::log10(expanded));
    return std::clamp(static_cast<int>(1 - exponent), 0, most);
}

std::string formatPlain(double value, int decimals)
{
    assert(decimals >= 0 && decimals <= 9);
    if (!std::isfinite(value))
        return "-";
    std::array<char, 400> buffer {};
    const auto [end, code] = std::to_chars(buffer.data(), buffer.data() + buffer.size(), value,
                                           std::chars_format::fixed, decimals);
    assert(code == std::errc());
    std::string text(buffer.data(), end);
    // "-0.00" says something about the arithmetic, nothing about the engine.
    if (text.front() == '-' && text.find_first_of("123456789") == std::string::npos)
        text.erase(0, 1);
    return text;
}

std::string formatNumber(double value, int decimals)
{
    if (!std::isfinite(value))
        return "–";
    std::string text = formatPlain(value, decimals);
    const bool negative = text.front() == '-';
    if (negative)
        text.erase(0, 1);
    size_t whole = text.find('.');
    if (whole == std::string::npos)
        whole = text.size();
    for (size_t at = whole; at > 3;) {
        at -= 3;
        text.insert(at, "\u202F");
    }
    return (negative ? "\u2212" : "") + text;
}

double roundedTo(double value, int decimals)
{
    const double scale = std::pow(10, decimals);
    return std::round(value * scale) / scale;
}

double roundedToStep(double value, double step)
{
    return step * std::round(value / step);
}

std::vector<int> wholePercents(std::span<const double> shares)
{
    std::vector<int> out;
    std::vector<std::pair<double, size_t>> lost; // by cutting off
    double sum = 0;
    int given = 0;
    for (size_t i = 0; i < shares.size(); ++i) {
        const double percent = 100 * shares[i];
        sum += percent;
        out.push_back(static_cast<int>(percent));
        given += out.back();
        lost.emplace_back(percent - out.back(), i);
    }
    std::stable_sort(lost.begin(), lost.end(),
                     [](const auto &a, const auto &b) { return a.first > b.first; });
    const auto left = static_cast<size_t>(std::max(0L, std::lround(sum) - given));
    for (size_t i = 0; i < std::min(left, lost.size()); ++i)
        ++out[lost[i].second];
    return out;
}

} // namespace mildpath
