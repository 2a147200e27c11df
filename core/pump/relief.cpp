// SPDX-License-Identifier: GPL-3.0-or-later
#include "pump/relief.h"
#include "quantity/types.h"

namespace mildpath {

Result<ReliefSetting> reliefSetting(const ReliefSpring &s)
{
    const double compressed = s.free_m - s.fitted_m + s.shim_m;
    if (!(compressed > 0))
        return fail(
            "fitted_length_mm",
            "the spring would be loose: fitted length less shim must be below the free length");
    const double left = s.fitted_m - s.shim_m - s.uncover_m - s.lift_m - s.solid_m;
    if (!(left > 0))
        return fail(s.solid_m > 0 ? "solid_length_mm" : "full_lift_mm",
                    "the coils would touch before the valve is fully open");
    const double area = pi / 4 * s.plunger_m * s.plunger_m;
    const double k = s.rate_n_per_m;
    return ReliefSetting { k * compressed, k * (compressed + s.uncover_m) / area,
                           k * (compressed + s.uncover_m + s.lift_m) / area, k / area, left };
}

} // namespace mildpath
