// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <span>
#include <string>
#include <string_view>

namespace mildpath {

/// The kinds of quantity a field can hold. A temperature and a difference of temperatures are
/// different kinds: 18 °F is −7.8 °C as the one and 10 K as the other.
enum class Dimension {
    Number,
    Length,
    Area,
    Volume,
    VolumeFlow,
    Pressure,
    Temperature,
    TemperatureDifference,
    KinematicViscosity,
    DynamicViscosity,
    Density,
    Speed,
    SurfaceSpeed,
    Torque,
    SpringRate,
    Force,
    Time,
    Angle,
    Expansion,
};

/// One way to write a kind of quantity: SI value = (number + offset) × scale.
struct Unit
{
    std::string_view symbol;
    Dimension dimension;
    double scale;
    double offset = 0;
};

/// All units known, in no order a caller may rely on. The first spelling of a unit is the one
/// shown.
std::span<const Unit> unitTable();

/// Looks a unit up by spelling; `mu` written µ (U+00B5), μ (U+03BC) or u is the same.
/// @return null if this kind of quantity has no such unit.
const Unit *findUnit(std::string_view symbol, Dimension dimension);

/// What a text was understood as.
struct ParsedQuantity
{
    double si; ///< in SI (m, Pa, K, m3/s …; speed in rev/min, temperature in °C)
    const Unit *unit; ///< the unit written, or the default one
};

/// Reads "2.3 thou", "0.058 mm", "61 °F", "12 psi" or a bare number in `defaultUnit`.
///
/// The decimal sign is a point; a comma is refused here, because it may be a thousands mark: the
/// entry field, which knows the user's language, resolves it first.
/// Errors: place empty, message names the text and what was expected (no number, unknown unit,
/// unit of another kind, not finite).
Result<ParsedQuantity> parseQuantity(std::string_view text, Dimension dimension,
                                     std::string_view defaultUnit);

/// SI value → number in the unit. The unit must exist (a programming error otherwise).
double toUnit(double si, std::string_view unit, Dimension dimension);
/// Number in the unit → SI value. The unit must exist (a programming error otherwise).
double fromUnit(double number, std::string_view unit, Dimension dimension);

} // namespace mildpath
