// SPDX-License-Identifier: GPL-3.0-or-later
#include "pump/delivery.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Two slots in parallel, each w wide, h high, L long.
double twoSlots_m3_s_pa(double width_m, double height_m, double length_m, double viscosity_pa_s)
{
    return 2 * width_m * height_m * height_m * height_m / (12 * viscosity_pa_s * length_m);
}

} // namespace

PumpLeaks pumpLeaks(const PumpGeometry &p, double viscosity_pa_s)
{
    return pumpLeaks(p, { viscosity_pa_s, viscosity_pa_s, viscosity_pa_s });
}

PumpLeaks pumpLeaks(const PumpGeometry &p, const SlotViscosities &oil)
{
    return {
        twoSlots_m3_s_pa(p.rotorLength_m, p.tipClearance_m, p.tipLand_m, oil.tip_pa_s),
        twoSlots_m3_s_pa(p.endPathWidth_m, p.endClearance_m / 2, p.endPathLength_m, oil.end_pa_s),
        twoSlots_m3_s_pa(p.rotorLength_m, p.bodyClearance_m / 2, p.bodyPathLength_m, oil.body_pa_s)
    };
}

ValueSlope pumpFill_m3_s(double swept_m3_s, const PumpInlet &inlet, AbsolutePressure atInlet,
                         double density_kg_m3, double b)
{
    if (!(inlet.portArea_m2 > 0) || swept_m3_s <= 0)
        return { std::max(0.0, swept_m3_s), 0 };
    const double head = atInlet.value_pa - inlet.release.value_pa;
    if (head <= 0)
        return { 0, 0 };
    const double sharp = inlet.portDischarge * inlet.portArea_m2;
    const double a = density_kg_m3 / (2 * sharp * sharp);
    const double limit = 2 * head / (b + std::sqrt(b * b + 4 * a * head));
    const double x = swept_m3_s / limit;
    const double x2 = x * x, x4 = x2 * x2, x8 = x4 * x4;
    const double fill = swept_m3_s / std::sqrt(std::sqrt(std::sqrt(1 + x8)));
    // d(limit)/d(head) = 1/(2 a Q + b)
    return { fill, fill * x8 / (1 + x8) / (limit * (2 * a * limit + b)) };
}

double suctionAir_m3_s(double holeDiameter_m, AbsolutePressure atInlet, AbsolutePressure outside)
{
    constexpr double discharge = 0.6, airDensity_kg_m3 = 1.2;
    const double inlet_pa = std::max(atInlet.value_pa, leastInlet_pa);
    const double vacuum = std::max(0.0, outside.value_pa - inlet_pa);
    return discharge * pi / 4 * holeDiameter_m * holeDiameter_m
        * std::sqrt(2 * vacuum / airDensity_kg_m3) * outside.value_pa / inlet_pa;
}

ValueSlope suctionAirShare(double holeDiameter_m, AbsolutePressure atInlet, double swept_m3_s)
{
    constexpr double most = 0.95;
    const double vacuum = atmosphere_pa - atInlet.value_pa;
    if (holeDiameter_m <= 0 || vacuum <= 0 || swept_m3_s <= 0)
        return { 0, 0 };
    const double share = suctionAir_m3_s(holeDiameter_m, atInlet) / swept_m3_s;
    if (share >= most || atInlet.value_pa <= leastInlet_pa)
        return { std::min(share, most), 0 };
    return { share, -share * (1 / (2 * vacuum) + 1 / atInlet.value_pa) };
}

} // namespace mildpath
