// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/intake.h"

#include "sump/gas.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

std::string_view Submergence::state(double depth_m) const
{
    return depth_m < dip_m ? "high" : depth_m < required_m ? "watch" : "low";
}

Submergence submergence(double flow, double diameter, std::optional<double> nu, double dipFactor)
{
    Submergence out {};
    out.velocity_m_s = 4 * flow / (pi * diameter * diameter);
    out.froude = out.velocity_m_s / std::sqrt(gravity_m_s2 * diameter);
    out.vortexFree_m = diameter * (1 + 2.3 * out.froude);
    out.dip_m = 0.69 * std::pow(flow * flow / gravity_m_s2, 0.2);
    out.required_m = out.vortexFree_m;
    if (nu) {
        out.reynolds = flow / (*nu * out.vortexFree_m);
        out.viscous = *out.reynolds < viscosityUnimportant;
        if (out.viscous)
            out.required_m = std::min(out.vortexFree_m, dipFactor * out.dip_m);
    }
    return out;
}

SuctionPressure suctionPressure(const SuctionLine &s)
{
    SuctionPressure out {};
    out.velocity_m_s = 4 * s.flow_m3_s / (pi * s.bore_m * s.bore_m);
    out.reynolds = out.velocity_m_s * s.bore_m / s.nu_m2_s;
    out.velocityHead_pa = s.density_kg_m3 * out.velocity_m_s * out.velocity_m_s / 2;
    if (out.reynolds > 0) {
        constexpr double laminarTo = 2300, turbulentFrom = 4000;
        const auto blasius = [](double re) { return 0.3164 * std::pow(re, -0.25); };
        const double re = out.reynolds;
        const double f = re <= laminarTo ? 64 / re
            : re >= turbulentFrom        ? blasius(re)
                                         : 64 / laminarTo
                + (blasius(turbulentFrom) - 64 / laminarTo) * (re - laminarTo)
                    / (turbulentFrom - laminarTo);
        out.friction_pa = out.velocityHead_pa * f * s.length_m / s.bore_m;
        out.minor_pa = out.velocityHead_pa * (s.loss + s.lossCold / re);
    }
    out.static_pa = s.density_kg_m3 * gravity_m_s2 * s.lift_m;
    const double p = s.crankcase_pa - out.static_pa - out.velocityHead_pa - out.friction_pa
        - out.minor_pa - s.screen_pa;
    if (p > 0)
        out.inlet = AbsolutePressure { p };
    return out;
}

Result<AirLeak> airLeak(double area, AbsolutePressure inlet, AbsolutePressure crankcase,
                        double temperature_c, double discharge)
{
    if (inlet.value_pa > crankcase.value_pa)
        return fail("inlet_abs_kpa", "is above the crankcase's: nothing is drawn in");
    constexpr double g = airExponent;
    const double critical = std::pow(2 / (g + 1), g / (g - 1));
    const double ratio = inlet.value_pa / crankcase.value_pa, r = std::max(ratio, critical);
    const double rt = gasConstant_j_kgk * kelvin({ temperature_c }).value;
    AirLeak out {};
    out.choked = ratio < critical;
    out.mass_kg_s = discharge * area * crankcase.value_pa / std::sqrt(rt)
        * std::sqrt(std::max(0.0,
                             2 * g / (g - 1) * (std::pow(r, 2 / g) - std::pow(r, (g + 1) / g))));
    out.atInlet_m3_s = out.mass_kg_s * rt / inlet.value_pa;
    out.free_m3_s = out.mass_kg_s * rt / crankcase.value_pa;
    return out;
}

double slotLeak_kg_s(double height, double width, double length, AbsolutePressure inlet,
                     AbsolutePressure crankcase, double temperature_c)
{
    const double p0 = crankcase.value_pa, p1 = inlet.value_pa;
    return width * height * height * height * (p0 * p0 - p1 * p1)
        / (24 * airViscosity_pa_s * length * gasConstant_j_kgk * kelvin({ temperature_c }).value);
}

double hoseFolds_pa(double wall, double radius, double modulus, double poisson)
{
    return modulus * std::pow(wall / radius, 3) / (4 * (1 - poisson * poisson));
}

} // namespace mildpath
