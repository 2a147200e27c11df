// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace mildpath {

/// Blow-by brought to 101.325 kPa and 25 °C (ideal gas). @param gas_kpa  absolute
double blowByAtReference_l_min(double read_l_min, double gas_c, double gas_kpa);

/// Blow-by over what a four-stroke engine breathes, displacement × speed / 2. Common practice.
double blowByFraction(double flow_l_min, double displacement_l, double rpm);

/// Gas an ideal crankcase pump handles, at ambient, over its displacement × speed:
/// p_case/p_ambient. It is blow-by and leaks together: deeper vacuum means less of both, and cannot
/// tell which.
double vacuumGasShare(double vacuum_kpa, double ambient_kpa = 101.325);

} // namespace mildpath
