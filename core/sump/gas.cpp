// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/gas.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double dragNumber(Bubble surface)
{
    return surface == Bubble::Rigid ? 18 : 12;
}

} // namespace

GasAtPressure gasAtPressure(AbsolutePressure p, AbsolutePressure saturated, double temperature_c,
                            double bunsen, double releasedShare, double entrained)
{
    const double low = p.value_pa, full = saturated.value_pa;
    return { releasedShare * bunsen * std::max(0.0, full - low) / low
                 * kelvin({ temperature_c }).value / kelvin({ 0 }).value,
             entrained / (1 - entrained) * full / low };
}

double riseSpeed_m_s(double d, double nu, double rho, double gas, Bubble surface)
{
    return (rho - gas) * gravity_m_s2 * d * d / (dragNumber(surface) * nu * rho);
}

double escapingBubble_m(double depth, double stay, double nu, double rho, double gas,
                        Bubble surface)
{
    return std::sqrt(dragNumber(surface) * nu * rho * depth / ((rho - gas) * gravity_m_s2 * stay));
}

double shareAt(double share, AbsolutePressure from, AbsolutePressure to, double n)
{
    const double r = share / (1 - share) * std::pow(from.value_pa / to.value_pa, 1 / n);
    return r / (1 + r);
}

double mixedDensity_kg_m3(double share, AbsolutePressure p, double rho, double temperature_c)
{
    return (1 - share) * rho
        + share * p.value_pa / (gasConstant_j_kgk * kelvin({ temperature_c }).value);
}

AeratedOil aeratedOil(double share, AbsolutePressure p, double n, double liquid, double rho,
                      double temperature_c)
{
    AeratedOil out {};
    out.modulus_pa = 1 / ((1 - share) / liquid + share / (n * p.value_pa));
    out.density_kg_m3 = mixedDensity_kg_m3(share, p, rho, temperature_c);
    out.soundSpeed_m_s = std::sqrt(out.modulus_pa / out.density_kg_m3);
    return out;
}

} // namespace mildpath
