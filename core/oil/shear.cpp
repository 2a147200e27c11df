// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/shear.h"

#include "quantity/rounding.h"

#include <cmath>

namespace mildpath {

double ShearThinning::criticalRate_per_s(double lowShear_pa_s) const
{
    return criticalStress_pa / lowShear_pa_s;
}

double ShearThinning::viscosity_pa_s(double lowShear_pa_s, double shearRate_per_s) const
{
    if (newtonian)
        return lowShear_pa_s;
    const double rate = shearRate_per_s / criticalRate_per_s(lowShear_pa_s);
    const double x = exponent == 1 ? rate : std::pow(rate, exponent);
    return lowShear_pa_s * (second + (1 - second) / (1 + x));
}

Result<ShearThinning> shearThinning(double mu150, double hths, double m, double r)
{
    // Scatter of measurement; a monograde comes out a little above or below 1.
    constexpr double scatter = 1.03, newtonianFrom = 0.999;
    const double q = hths / mu150;
    const auto say = [&](const char *why) {
        return fail("hths_pa_s",
                    { "oil.hths",
                      "{0} is {1}: low-shear viscosity at {2} is {3}",
                      { Quantity { hths, Shows::DynamicViscosity, 0, 2 }, why, asTemperature(150),
                        Quantity { mu150, Shows::DynamicViscosity, 0, 2 } } });
    };
    if (q > scatter)
        return say("above what the oil has without shear");
    if (q >= newtonianFrom)
        return ShearThinning { q, true, m, r, 0 };
    if (q <= r)
        return say("not above the second Newtonian ratio");
    const double rate150 = 1e6 / std::pow((1 - r) / (q - r) - 1, 1 / m);
    return ShearThinning { q, false, m, r, mu150 * rate150 };
}

ShearThinning shearThinningBy(double ratio, double mu150)
{
    const auto law = shearThinning(mu150, ratio * mu150);
    return law ? *law : ShearThinning { 1, true };
}

double usualHighShearRatio(bool winterGrade)
{
    return winterGrade ? 0.88 : 0.98;
}

Oil thinning(Oil oil, std::string_view grade, std::optional<double> hths_mpa_s)
{
    oil.highShearRatio = usualHighShearRatio(grade.find("W-") != grade.npos);
    const auto line = waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s);
    if (!hths_mpa_s || !line)
        return oil;
    const double still = oilState(*line, oil.rho15_kg_m3, { 150 }).dynamicViscosity_pa_s;
    if (const auto law = shearThinning(still, *hths_mpa_s * 1e-3))
        oil.highShearRatio = law->newtonian ? 1 : law->ratio;
    return oil;
}

} // namespace mildpath
