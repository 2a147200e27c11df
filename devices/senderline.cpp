// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/senderline.h"

#include "devices/linestream.h"

#include <array>
#include <charconv>
#include <cmath>
#include <cstdio>
#include <span>

namespace mildpath {
namespace {

struct Unit
{
    std::string_view symbol;
    double scale, offset; ///< SI = value × scale + offset
};
constexpr std::array<Unit, 4> pressureUnits { {
    { "", 1e3, 0 },
    { "kPa", 1e3, 0 },
    { "bar", 1e5, 0 },
    { "psi", 6894.757293168, 0 },
} };
constexpr std::array<Unit, 1> plainUnit { { { "", 1, 0 } } };
constexpr std::array<Unit, 3> degrees { {
    { "", 1, 0 },
    { "C", 1, 0 },
    { "F", 5.0 / 9, -32 * 5.0 / 9 },
} };
constexpr std::array<Unit, 1> milliseconds { { { "", 1e-3, 0 } } };

struct Key
{
    std::string_view key;
    std::span<const Unit> units;
    double least, most; ///< SI
    std::optional<double> SenderReading::*member;
};
const std::array<Key, 4> keys { {
    { "p", pressureUnits, -1e5, 100e5, &SenderReading::pressure_pa },
    { "n", plainUnit, 0, 30000, &SenderReading::rpm },
    { "t", degrees, -60, 300, &SenderReading::oil_c },
    { "ms", milliseconds, 0, 1e9, &SenderReading::clock_s },
} };

unsigned checkOf(std::string_view text)
{
    unsigned out = 0;
    for (const char c : text)
        out ^= static_cast<unsigned char>(c);
    return out;
}

std::optional<double> read(std::string_view text, const Key &key)
{
    double value = 0;
    if (!text.empty() && text.front() == '+')
        text.remove_prefix(1);
    const auto [end, error]
        = std::from_chars(text.data(), text.data() + text.size(), value, std::chars_format::fixed);
    if (error != std::errc() || !std::isfinite(value))
        return std::nullopt;
    const std::string_view unit(end, static_cast<size_t>(text.data() + text.size() - end));
    for (const Unit &u : key.units)
        if (u.symbol == unit) {
            const double si = value * u.scale + u.offset;
            return si >= key.least && si <= key.most ? std::optional(si) : std::nullopt;
        }
    return std::nullopt;
}

} // namespace

Result<SenderReading> parseSenderLine(std::string_view line)
{
    const auto refuse = [&](const std::string &why) {
        return fail("", "\"" + printableLine(line) + "\" " + why);
    };
    std::string_view rest = line;
    if (const auto star = rest.rfind('*'); star != std::string_view::npos) {
        unsigned check = 0;
        const std::string_view hex = rest.substr(star + 1);
        const auto [end, error] = std::from_chars(hex.data(), hex.data() + hex.size(), check, 16);
        if (hex.size() != 2 || error != std::errc() || end != hex.data() + 2
            || check != checkOf(rest.substr(0, star)))
            return refuse("fails its check");
        rest = rest.substr(0, star);
    }
    SenderReading out;
    while (!rest.empty()) {
        const auto blank = rest.find_first_of(" \t");
        const std::string_view pair = rest.substr(0, blank);
        rest = blank == std::string_view::npos ? "" : rest.substr(blank + 1);
        if (pair.empty())
            continue;
        const auto equals = pair.find('=');
        if (equals == std::string_view::npos)
            return refuse("is no pairs of key=value");
        for (const Key &k : keys) {
            if (k.key != pair.substr(0, equals))
                continue;
            const auto value = read(pair.substr(equals + 1), k);
            if (!value)
                return refuse("has a " + std::string(k.key) + " that cannot be");
            out.*k.member = value;
        }
    }
    if (!out.pressure_pa)
        return refuse("has no pressure");
    return out;
}

std::string senderLine(const SenderReading &r)
{
    std::string out;
    const auto add = [&](const char *format, double value) {
        char text[40];
        std::snprintf(text, sizeof text, format, value);
        out += (out.empty() ? "" : " ") + std::string(text);
    };
    if (r.pressure_pa)
        add("p=%.1fkPa", *r.pressure_pa / 1e3);
    if (r.rpm)
        add("n=%.0f", *r.rpm);
    if (r.oil_c)
        add("t=%.1fC", *r.oil_c);
    if (r.clock_s)
        add("ms=%.0f", *r.clock_s * 1e3);
    char check[4];
    std::snprintf(check, sizeof check, "*%02X", checkOf(out));
    return out + check;
}

} // namespace mildpath
