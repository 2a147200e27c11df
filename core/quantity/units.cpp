// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/units.h"

#include "quantity/types.h"

#include <array>
#include <cassert>
#include <charconv>
#include <cmath>

namespace mildpath {
namespace {

constexpr double inch = 0.0254; // exact by definition
constexpr double poundForce = 4.4482216152605; // exact by definition
constexpr double psi = poundForce / (inch * inch);
constexpr double degree = 0.017453292519943295;

// Scales are exact by definition of the unit, or follow from those two constants. "quart" and
// "gallon" are kept apart as US and imperial: the two differ by a fifth, enough to overfill a pan.
constexpr auto table = std::to_array<Unit>({
    { "", Dimension::Number, 1 },
    { "%", Dimension::Number, 0.01 },
    { "µm", Dimension::Length, 1e-6 },
    { "um", Dimension::Length, 1e-6 },
    { "micron", Dimension::Length, 1e-6 },
    { "mm", Dimension::Length, 1e-3 },
    { "cm", Dimension::Length, 1e-2 },
    { "m", Dimension::Length, 1 },
    { "km", Dimension::Length, 1000 },
    { "thou", Dimension::Length, inch / 1000 },
    { "mil", Dimension::Length, inch / 1000 },
    { "tenth", Dimension::Length, inch / 10000 },
    { "in", Dimension::Length, inch },
    { "inch", Dimension::Length, inch },
    { "\"", Dimension::Length, inch },
    { "µin", Dimension::Length, inch * 1e-6 },
    { "ft", Dimension::Length, 12 * inch },
    { "mi", Dimension::Length, 63360 * inch },
    { "mile", Dimension::Length, 63360 * inch },
    { "miles", Dimension::Length, 63360 * inch },
    { "mm²", Dimension::Area, 1e-6 },
    { "mm2", Dimension::Area, 1e-6 },
    { "cm²", Dimension::Area, 1e-4 },
    { "cm2", Dimension::Area, 1e-4 },
    { "in2", Dimension::Area, inch *inch },
    { "in²", Dimension::Area, inch *inch },
    { "l", Dimension::Volume, 1e-3 },
    { "L", Dimension::Volume, 1e-3 },
    { "ml", Dimension::Volume, 1e-6 },
    { "cm³", Dimension::Volume, 1e-6 },
    { "cm3", Dimension::Volume, 1e-6 },
    { "cc", Dimension::Volume, 1e-6 },
    { "m3", Dimension::Volume, 1 },
    { "US qt", Dimension::Volume, 0.946352946e-3 },
    { "qt", Dimension::Volume, 0.946352946e-3 },
    { "imp qt", Dimension::Volume, 1.1365225e-3 },
    { "US gal", Dimension::Volume, 3.785411784e-3 },
    { "imp gal", Dimension::Volume, 4.54609e-3 },
    { "in³", Dimension::Volume, inch *inch *inch },
    { "in3", Dimension::Volume, inch *inch *inch },
    { "l/min", Dimension::VolumeFlow, 1e-3 / 60 },
    { "L/min", Dimension::VolumeFlow, 1e-3 / 60 },
    { "lpm", Dimension::VolumeFlow, 1e-3 / 60 },
    { "l/s", Dimension::VolumeFlow, 1e-3 },
    { "m3/s", Dimension::VolumeFlow, 1 },
    { "gpm", Dimension::VolumeFlow, 3.785411784e-3 / 60 },
    { "US gpm", Dimension::VolumeFlow, 3.785411784e-3 / 60 },
    { "cfm", Dimension::VolumeFlow, 1728 * inch *inch *inch / 60 },
    { "gal/min", Dimension::VolumeFlow, 3.785411784e-3 / 60 },
    { "bar", Dimension::Pressure, 1e5 },
    { "mbar", Dimension::Pressure, 1e2 },
    { "kPa", Dimension::Pressure, 1e3 },
    { "kpa", Dimension::Pressure, 1e3 },
    { "MPa", Dimension::Pressure, 1e6 },
    { "Pa", Dimension::Pressure, 1 },
    { "psi", Dimension::Pressure, psi },
    { "psig", Dimension::Pressure, psi },
    // Of mercury at 0 °C, conventional (NIST SP 811, appendix B, from memory).
    { "inHg", Dimension::Pressure, 3386.389 },
    { "kg/cm2", Dimension::Pressure, 98066.5 },
    { "°C", Dimension::Temperature, 1 },
    { "C", Dimension::Temperature, 1 },
    { "degC", Dimension::Temperature, 1 },
    { "°F", Dimension::Temperature, 5.0 / 9, -32 },
    { "F", Dimension::Temperature, 5.0 / 9, -32 },
    { "degF", Dimension::Temperature, 5.0 / 9, -32 },
    { "K", Dimension::Temperature, 1, -273.15 },
    { "K", Dimension::TemperatureDifference, 1 },
    { "°C", Dimension::TemperatureDifference, 1 },
    { "C", Dimension::TemperatureDifference, 1 },
    { "°F", Dimension::TemperatureDifference, 5.0 / 9 },
    { "F", Dimension::TemperatureDifference, 5.0 / 9 },
    { "mm²/s", Dimension::KinematicViscosity, 1e-6 },
    { "mm2/s", Dimension::KinematicViscosity, 1e-6 },
    { "cSt", Dimension::KinematicViscosity, 1e-6 },
    { "m2/s", Dimension::KinematicViscosity, 1 },
    { "mPa·s", Dimension::DynamicViscosity, 1e-3 },
    { "mPa.s", Dimension::DynamicViscosity, 1e-3 },
    { "mPas", Dimension::DynamicViscosity, 1e-3 },
    { "cP", Dimension::DynamicViscosity, 1e-3 },
    { "Pa·s", Dimension::DynamicViscosity, 1 },
    { "Pa.s", Dimension::DynamicViscosity, 1 },
    { "kg/m³", Dimension::Density, 1 },
    { "kg/m3", Dimension::Density, 1 },
    { "g/cm3", Dimension::Density, 1000 },
    { "rev/min", Dimension::Speed, 1 },
    { "rpm", Dimension::Speed, 1 },
    { "1/min", Dimension::Speed, 1 },
    { "m/s", Dimension::SurfaceSpeed, 1 },
    { "ft/s", Dimension::SurfaceSpeed, 12 * inch },
    { "N·m", Dimension::Torque, 1 },
    { "Nm", Dimension::Torque, 1 },
    { "N.m", Dimension::Torque, 1 },
    { "N m", Dimension::Torque, 1 },
    { "lb ft", Dimension::Torque, poundForce * 12 * inch },
    { "ft lb", Dimension::Torque, poundForce * 12 * inch },
    { "kg m", Dimension::Torque, gravity_m_s2 },
    { "kg·m", Dimension::Torque, gravity_m_s2 },
    { "m kg", Dimension::Torque, gravity_m_s2 },
    { "ft-lb", Dimension::Torque, poundForce * 12 * inch },
    { "lb-ft", Dimension::Torque, poundForce * 12 * inch },
    { "lb·ft", Dimension::Torque, poundForce * 12 * inch },
    { "in-lb", Dimension::Torque, poundForce *inch },
    { "N/mm", Dimension::SpringRate, 1000 },
    { "lb/in", Dimension::SpringRate, poundForce / inch },
    { "N", Dimension::Force, 1 },
    { "kN", Dimension::Force, 1000 },
    { "lbf", Dimension::Force, poundForce },
    { "s", Dimension::Time, 1 },
    { "min", Dimension::Time, 60 },
    { "h", Dimension::Time, 3600 },
    { "°", Dimension::Angle, degree },
    { "deg", Dimension::Angle, degree },
    { "rad", Dimension::Angle, 1 },
    { "1e-6/K", Dimension::Expansion, 1e-6 },
    { "×10⁻⁶/K", Dimension::Expansion, 1e-6 },
    { "×10⁻⁶/°F", Dimension::Expansion, 1.8e-6 },
    { "1/K", Dimension::Expansion, 1 },
});

std::string_view trimmed(std::string_view s)
{
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; };
    while (!s.empty() && blank(s.front()))
        s.remove_prefix(1);
    while (!s.empty() && blank(s.back()))
        s.remove_suffix(1);
    return s;
}

/// One spelling for what keyboards and copied text write in several ways.
std::string foldedSpelling(std::string_view s)
{
    std::string out;
    for (size_t i = 0; i < s.size(); ++i) {
        const auto rest = s.substr(i);
        if (rest.starts_with("\u03BC")) { // Greek mu instead of the micro sign
            out += "\u00B5";
            ++i;
        } else if (rest.starts_with("\u00A0")) { // no-break space
            out += ' ';
            ++i;
        } else if (rest.starts_with("\u202F") || rest.starts_with("\u2009")) { // thin spaces
            out += ' ';
            i += 2;
        } else if (rest.starts_with("\u2212")) { // minus sign
            out += '-';
            i += 2;
        } else if (rest.starts_with("\u2033")
                   || rest.starts_with("\u201D")) { // double prime, quote
            out += '"';
            i += 2;
        } else {
            out += s[i];
        }
    }
    return out;
}

std::string knownUnits(Dimension dimension)
{
    std::string list;
    for (const Unit &u : table)
        if (u.dimension == dimension && !u.symbol.empty())
            list += (list.empty() ? "" : ", ") + std::string(u.symbol);
    return list;
}

const Unit &requireUnit(std::string_view unit, Dimension dimension)
{
    const Unit *u = findUnit(unit, dimension);
    assert(u && "unit does not belong to this dimension");
    return *u;
}

} // namespace

std::span<const Unit> unitTable()
{
    return table;
}

const Unit *findUnit(std::string_view symbol, Dimension dimension)
{
    const std::string wanted = foldedSpelling(trimmed(symbol));
    for (const Unit &u : table)
        if (u.dimension == dimension && u.symbol == wanted)
            return &u;
    return nullptr;
}

Result<ParsedQuantity> parseQuantity(std::string_view text, Dimension dimension,
                                     std::string_view defaultUnit)
{
    const std::string folded = foldedSpelling(text);
    std::string_view rest = trimmed(folded);
    if (rest.empty())
        return fail("", "nothing entered");
    if (rest.front() == '+')
        rest.remove_prefix(1);
    double number = 0;
    const auto [end, code] = std::from_chars(rest.data(), rest.data() + rest.size(), number);
    if (code == std::errc::result_out_of_range || (code == std::errc() && !std::isfinite(number)))
        return fail("", "\"" + std::string(trimmed(text)) + "\" is not a finite number");
    if (code != std::errc())
        return fail("", "\"" + std::string(trimmed(text)) + "\" is not a number");
    rest = trimmed(rest.substr(static_cast<size_t>(end - rest.data())));
    if (!rest.empty() && rest.front() == ',')
        return fail("", "a comma may be a decimal or a thousands mark; write a point");
    if (rest.empty()) {
        const Unit &u = requireUnit(defaultUnit, dimension);
        return ParsedQuantity { (number + u.offset) * u.scale, &u };
    }
    const Unit *u = findUnit(rest, dimension);
    if (!u)
        return fail("",
                    "\"" + std::string(rest)
                        + "\" is not a unit here; known: " + knownUnits(dimension));
    return ParsedQuantity { (number + u->offset) * u->scale, u };
}

double toUnit(double si, std::string_view unit, Dimension dimension)
{
    const Unit &u = requireUnit(unit, dimension);
    return si / u.scale - u.offset;
}

double fromUnit(double number, std::string_view unit, Dimension dimension)
{
    const Unit &u = requireUnit(unit, dimension);
    return (number + u.offset) * u.scale;
}

} // namespace mildpath
