// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/blending.h"

#include <cmath>

namespace mildpath {

double blendingIndex(double kv_mm2_s)
{
    return 14.534 * std::log(std::log(kv_mm2_s + 0.8)) + 10.975;
}

FuelBlend fuelBlend(double oil_mm2_s, double fuel_mm2_s, double x)
{
    FuelBlend out {};
    out.oilIndex = blendingIndex(oil_mm2_s);
    out.fuelIndex = blendingIndex(fuel_mm2_s);
    out.blendIndex = x * out.fuelIndex + (1 - x) * out.oilIndex;
    out.kv_mm2_s = std::exp(std::exp((out.blendIndex - 10.975) / 14.534)) - 0.8;
    out.loss = 1 - out.kv_mm2_s / oil_mm2_s;
    return out;
}

double fuelMassRatio(double airFuel1, double lambda1, double airFuel2, double lambda2)
{
    return airFuel1 * lambda1 / (airFuel2 * lambda2);
}

} // namespace mildpath
