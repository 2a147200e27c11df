// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/gaugeline.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace mildpath {
namespace {

struct GaugeUnit
{
    std::string_view symbol;
    double metres;
};
constexpr std::array<GaugeUnit, 9> units { {
    { "mm", 1e-3 },
    { "um", 1e-6 },
    { "µm", 1e-6 },
    { "μm", 1e-6 }, // the Greek letter, as some firmware sends it
    { "in", 0.0254 },
    { "inch", 0.0254 },
    { "\"", 0.0254 },
    { "thou", 25.4e-6 },
    { "mil", 25.4e-6 },
} };

/// Beyond this no bench gauge has a travel.
constexpr double longest_m = 1.0;

std::string_view trimmed(std::string_view s)
{
    while (!s.empty() && (s.front() == ' ' || s.front() == '\t'))
        s.remove_prefix(1);
    while (!s.empty() && (s.back() == ' ' || s.back() == '\t' || s.back() == '\r'))
        s.remove_suffix(1);
    return s;
}

bool isDigit(char c)
{
    return c >= '0' && c <= '9';
}

} // namespace

Result<double> parseGaugeLine(std::string_view line, std::string_view bareUnit)
{
    const std::string shown = printableLine(line);
    const auto refuse
        = [&](const std::string &why) { return fail("", "\"" + shown + "\" " + why); };
    std::string_view rest = trimmed(line);
    if (rest.empty())
        return refuse("is empty");
    double sign = 1;
    if (rest.front() == '+' || rest.front() == '-') {
        sign = rest.front() == '-' ? -1 : 1;
        rest.remove_prefix(1);
        rest = trimmed(rest);
    }
    std::string number;
    while (!rest.empty() && (isDigit(rest.front()) || rest.front() == '.' || rest.front() == ',')) {
        number += rest.front() == ',' ? '.' : rest.front();
        rest.remove_prefix(1);
    }
    const auto mark = number.find('.');
    if (number.empty() || number.size() > 12 || mark == 0 || mark == number.size() - 1
        || std::count(number.begin(), number.end(), '.') > 1)
        return refuse("is not a reading");
    double value = 0;
    const auto parsed = std::from_chars(number.data(), number.data() + number.size(), value);
    if (parsed.ec != std::errc() || parsed.ptr != number.data() + number.size())
        return refuse("is not a reading");
    rest = trimmed(rest);
    if (rest.empty())
        rest = bareUnit;
    const auto unit = std::find_if(units.begin(), units.end(),
                                   [&](const GaugeUnit &u) { return u.symbol == rest; });
    if (unit == units.end())
        return refuse("has a unit that is no length");
    const double metres = sign * value * unit->metres;
    if (!(std::abs(metres) <= longest_m))
        return refuse("is beyond any gauge");
    return metres;
}

GaugeStream::Taken GaugeStream::take(std::string_view bytes)
{
    Taken out;
    for (const auto &line : m_lines.take(bytes)) {
        const auto reading = line
            ? parseGaugeLine(*line, m_bareUnit)
            : Result<double>(fail("", "a line of more than 64 characters is no reading"));
        if (reading) {
            out.readings_m.push_back(*reading);
        } else {
            ++out.refused;
            out.reason = reading.error().message;
        }
    }
    return out;
}

bool Settler::holds(double value_m) const
{
    return std::max(m_most, value_m) - std::min(m_least, value_m) <= m_options.band_m;
}

bool Settler::take(double value_m, double at_s)
{
    constexpr size_t reallyAway = 3;
    m_progress = 0;
    if (m_waiting) {
        m_away = std::abs(value_m - m_settled.mean_m) < m_options.leave_m ? 0 : m_away + 1;
        if (m_away < reallyAway)
            return false;
        m_waiting = false;
    }
    if (m_held.empty()) {
        m_least = m_most = value_m;
        m_held.push_back({ value_m, at_s });
    } else if (holds(value_m)) {
        m_least = std::min(m_least, value_m);
        m_most = std::max(m_most, value_m);
        m_held.push_back({ value_m, at_s });
        m_aside.reset();
    } else if (!m_aside) {
        m_aside = Sample { value_m, at_s };
        return false;
    } else {
        // Twice out of the band: the needle moves. What fits with where it is now may begin a hold.
        m_held.push_back(*m_aside);
        m_held.push_back({ value_m, at_s });
        m_aside.reset();
        size_t keep = m_held.size() - 1;
        m_least = m_most = value_m;
        while (keep > 0 && holds(m_held[keep - 1].value_m)) {
            --keep;
            m_least = std::min(m_least, m_held[keep].value_m);
            m_most = std::max(m_most, m_held[keep].value_m);
        }
        m_held.erase(m_held.begin(), m_held.begin() + static_cast<std::ptrdiff_t>(keep));
    }
    const double held_s = at_s - m_held.front().at_s;
    m_progress = std::min(1.0, held_s / m_options.hold_s);
    if (held_s < m_options.hold_s || m_held.size() < m_options.least)
        return false;
    double sum = 0;
    for (const Sample &s : m_held)
        sum += s.value_m;
    const double mean = sum / static_cast<double>(m_held.size());
    m_settled = { mean, m_most - m_least, m_held.size() };
    m_waiting = true;
    m_away = 0;
    m_aside.reset();
    m_held.clear();
    return true;
}

void Settler::restart()
{
    m_held.clear();
    m_aside.reset();
    m_progress = 0;
}

} // namespace mildpath
