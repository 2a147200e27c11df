// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/calibrated.h"

#include <algorithm>

namespace mildpath {
namespace {

double sumOf(const Build &build, std::string_view input)
{
    double sum = 0;
    for (const Calibration *c : standing(build.calibrations))
        if (c->input == input)
            sum += c->amount;
    return sum;
}

} // namespace

void calibrate(const Build &build, Oil &oil)
{
    const double thicker = 1 + sumOf(build, "oil");
    oil.kv40_mm2_s *= thicker;
    oil.kv100_mm2_s *= thicker;
}

void calibrate(const Build &build, Circuit &circuit)
{
    if (build.calibrations.empty())
        return;
    for (const SizeItem &i : sizeItems(build)) {
        const double by_um = sumOf(build, i.family->id);
        const std::string key(i.family->elementKey);
        Element *e = by_um == 0 || key.empty() ? nullptr : circuit.find(i.element);
        if (e && e->values.contains(key))
            e->values[key] = std::max(1.0, e->values[key] + by_um);
    }
}

double gaugeOffset_pa(const Build &build)
{
    return sumOf(build, "gauge") * 1e3;
}

double modelFactor(const Build &build)
{
    return 1 + sumOf(build, "model");
}

LikelyPressure asGaugeShows(const Build &build, const LikelyPressure &forecast, bool ownTap)
{
    const double factor = modelFactor(build), offset = ownTap ? gaugeOffset_pa(build) : 0;
    LikelyPressure out = forecast;
    for (double *pa : { &out.value_pa, &out.low_pa, &out.high_pa })
        *pa = *pa * factor + offset;
    return out;
}

} // namespace mildpath
