// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/sealing.h"

namespace mildpath {

double blowByAtReference_l_min(double read_l_min, double gas_c, double gas_kpa)
{
    return read_l_min * (gas_kpa / 101.325) * (298.15 / (gas_c + 273.15));
}

double blowByFraction(double flow_l_min, double displacement_l, double rpm)
{
    return flow_l_min / (displacement_l * rpm / 2);
}

double vacuumGasShare(double vacuum_kpa, double ambient_kpa)
{
    return (ambient_kpa - vacuum_kpa) / ambient_kpa;
}

} // namespace mildpath
