// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/crankinflow.h"

#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace mildpath {
namespace {

constexpr double entryLoss = 0.5;
constexpr int joining = 8; ///< power of the rule that joins both limits

/// ln cosh x / x and its slope; x > 0.
ValueSlope filling(double x)
{
    if (x < 1e-4)
        return { x / 2, 0.5 };
    const double logCosh = x + std::log1p(std::exp(-2 * x)) - std::log(2.0);
    const double value = logCosh / x;
    return { value, (std::tanh(x) - value) / x };
}

double power(double x, int n)
{
    double out = 1;
    for (int i = 0; i < n; ++i)
        out *= x;
    return out;
}

} // namespace

double CrankInflow::openShare() const
{
    return std::min(1.0, mouths * windowShare);
}

SlotShape slotShape(double width_m, double depth_m, double length_m)
{
    if (!(length_m > 0) || !(width_m > 0) || !(depth_m > 0))
        return { 0, 0 };
    const double area = width_m * depth_m, hydraulic = 2 * area / (width_m + depth_m);
    const double a = std::min(width_m, depth_m) / std::max(width_m, depth_m);
    const double shape
        = 96 * (1 + a * (-1.3553 + a * (1.9467 + a * (-1.7012 + a * (0.9564 - 0.2537 * a)))));
    return { shape * length_m / (2 * hydraulic * hydraulic * area), 1.5 / (2 * area * area) };
}

InflowConditions inflowConditions(const CrankInflow &d, const OilState &oil, double speed_rad_s)
{
    const double rho = oil.density_kg_m3;
    return { oil,
             std::max(0.0, -crankColumn_pa(rho, speed_rad_s, d.rIn_m, d.closest_m)) + d.keep_pa,
             crankColumn_pa(rho, speed_rad_s, d.rIn_m, d.rOut_m),
             d.openShare() < 1 ? d.windowShare * 2 * pi / speed_rad_s
                               : std::numeric_limits<double>::infinity() };
}

CrankFlow crankFlow(const CrankInflow &d, const InflowConditions &at, double main_pa, double pin_pa)
{
    CrankFlow out;
    const double drive = main_pa - at.need_pa;
    if (!(drive > 0))
        return out;
    const double rho = at.oil.density_kg_m3;
    const double bore = d.passage.diameter_m, area = pi / 4 * bore * bore;
    const SlotShape shape = slotShape(d.slotWidth_m, d.slotDepth_m, d.slotLength_m);
    const SlotResistance slot { shape.perViscosity * at.oil.dynamicViscosity_pa_s,
                                shape.perDensity * rho };

    // In: the inner leg, from rest in every window.
    const double reach = std::sqrt(std::max(0.0, d.rIn_m * d.rIn_m - d.closest_m * d.closest_m));
    Conduit inner = d.passage;
    inner.length_m = std::min(d.passage.length_m, std::max(bore, reach));
    inner.lossCoefficient = entryLoss
        + (1 / (d.openMean * d.openMean) - 1) / (coveredHoleDischarge * coveredHoleDischarge);
    const FlowSlope steady = passageFlow(inner, drive, at.oil, 0, slot);
    const double share = d.openShare();
    double in = share * steady.flow_m3_s, inSlope = share * steady.slope_m3_s_pa;
    if (std::isfinite(at.window_s)) {
        const double x = at.window_s * drive * area / (rho * inner.length_m * steady.flow_m3_s);
        const ValueSlope eta = filling(x);
        const double xSlope = x * (1 / drive - steady.slope_m3_s_pa / steady.flow_m3_s);
        inSlope
            = share * (steady.slope_m3_s_pa * eta.value + steady.flow_m3_s * eta.slope * xSlope);
        in *= eta.value;
    }
    out.inflowLimit_m3_s = in;

    // On: a full column sees the main's pressure while open, N while shut.
    const FlowSlope on = passageFlow(d.passage, at.need_pa + share * drive - pin_pa + at.column_pa,
                                     at.oil, 0, slot);
    if (!(on.flow_m3_s > 0) || !(in > 0))
        return out;
    const double smaller = std::min(in, on.flow_m3_s), larger = std::max(in, on.flow_m3_s);
    out.flow_m3_s = smaller * std::pow(1 + power(smaller / larger, joining), -1.0 / joining);
    const double byIn = power(out.flow_m3_s / in, joining + 1),
                 byOn = power(out.flow_m3_s / on.flow_m3_s, joining + 1) * on.slope_m3_s_pa;
    out.byMain = byIn * inSlope + byOn * share;
    out.byPin = -byOn;
    return out;
}

} // namespace mildpath
