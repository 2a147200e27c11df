// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

namespace mildpath {

/// A relief valve's spring and plunger as measured.
struct ReliefSpring
{
    double plunger_m; ///< diameter
    double rate_n_per_m;
    double free_m; ///< length
    double fitted_m; ///< length, valve shut, no shim
    double shim_m = 0; ///< added
    double uncover_m = 0; ///< travel before the port opens
    double lift_m; ///< further travel to fully open
    double solid_m = 0; ///< length coil on coil; 0: not measured
};

struct ReliefSetting
{
    double preload_n; ///< on the seat
    double crack_pa; ///< port begins to open
    double full_pa; ///< fully open
    double perShim_pa_per_m; ///< pressure a shim adds
    double coilClearance_m; ///< left between the coils when fully open
};

/// preload = k x0, x0 = free − fitted + shim; crack = k (x0 + uncover)/A; full = k (x0 + uncover +
/// lift)/A. Source: force balance, textbook.
/// Errors: `fitted_length_mm` when the spring is not compressed; `solid_length_mm` (or
/// `full_lift_mm` without one) when the coils would touch before full lift.
Result<ReliefSetting> reliefSetting(const ReliefSpring &spring);

} // namespace mildpath
