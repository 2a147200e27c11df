// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cmath> // first: the macros of the library stand there, and moc reads <numbers> with them
#include <numbers>

namespace mildpath {

inline constexpr double pi = std::numbers::pi;

/// Absolute pressure of the surroundings and of the crankcase (Pa); gauge pressures count from it.
inline constexpr double atmosphere_pa = 101325.0;

/// Standard gravity.
inline constexpr double gravity_m_s2 = 9.80665;

/// Bore inside the shells less journal diameter (m). May be negative: interference.
struct DiametralClearance
{
    double value_m;
    bool operator==(const DiametralClearance &) const = default;
};

/// Half of the diametral clearance (m): the gap all round a centred journal.
struct RadialClearance
{
    double value_m;
    bool operator==(const RadialClearance &) const = default;
};

inline constexpr RadialClearance radial(DiametralClearance c)
{
    return { c.value_m / 2 };
}

/// Pressure above the crankcase (Pa).
struct GaugePressure
{
    double value_pa;
};

/// Pressure above vacuum (Pa).
struct AbsolutePressure
{
    double value_pa;
};

inline constexpr AbsolutePressure absolute(GaugePressure p)
{
    return { p.value_pa + atmosphere_pa };
}

/// Litres a minute per m³/s.
inline constexpr double litresPerMinute = 60000;

/// A value and its slope by the one variable it was asked at.
struct ValueSlope
{
    double value, slope;
};

struct Celsius
{
    double value;
};

struct Kelvin
{
    double value;
};

inline constexpr Kelvin kelvin(Celsius t)
{
    return { t.value + 273.15 };
}

} // namespace mildpath
