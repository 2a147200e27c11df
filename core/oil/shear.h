// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "oil/viscosity.h"
#include "quantity/result.h"
#include "rules/rules.h"

#include <optional>
#include <string_view>

namespace mildpath {

/// How an oil thins under shear, pinned at its high-shear viscosity (150 °C, 1e6 1/s).
///   Cross: μ = μ0 [r + (1 − r)/(1 + (γ/γc)^m)],  γc = τc/μ0(T)
/// The critical stress τc is taken as the same at all temperatures (time–temperature shift, a
/// common assumption); m = 1 and r = 0.5 are assumptions, common practice, no source.
struct ShearThinning
{
    double ratio; ///< high-shear viscosity over low-shear at 150 °C
    bool newtonian;
    double exponent = 1, second = 0.5;
    double criticalStress_pa = 0;

    double criticalRate_per_s(double lowShear_pa_s) const;
    /// @param lowShear_pa_s  at the temperature asked
    double viscosity_pa_s(double lowShear_pa_s, double shearRate_per_s) const;
};

/// Errors: `hths_pa_s` above 1.03 of the low-shear viscosity at 150 °C, or not above r of it.
/// Source: Cross model, standard form; the pinning is own choice.
Result<ShearThinning> shearThinning(double lowShearAt150_pa_s, double hths_pa_s,
                                    double exponent = 1, double second = 0.5);

/// Of an oil by its ratio of the two; does not thin where the ratio is out of the law's range.
/// @param lowShearAt150_pa_s  > 0
ShearThinning shearThinningBy(double ratio, double lowShearAt150_pa_s);
/// The ratio that is usual where no high-shear viscosity is known: 0.88 with a winter grade, 0.98
/// without. Own choice.
double usualHighShearRatio(bool winterGrade);
/// The oil with its ratio set: by its high-shear viscosity where that is known and possible, else
/// as usual for its grade ("10W-40" has a winter grade, "SAE 30" none).
Oil thinning(Oil oil, std::string_view grade, std::optional<double> hths_mpa_s);

} // namespace mildpath
