// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/priming.h"

#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

DryLift dryLift(double swept, double slip, double slip_pa, double mu, double gasMu, double rho)
{
    DryLift out {};
    out.slipGeometry_m3 = slip * mu / slip_pa;
    out.suction_pa = out.slipGeometry_m3 > 0
        ? std::min(atmosphere_pa, swept * gasMu / out.slipGeometry_m3)
        : atmosphere_pa;
    out.lift_m = out.suction_pa / (rho * gravity_m_s2);
    return out;
}

PrimeTime primeTime(const Priming &p)
{
    PrimeTime out {};
    out.fill_s = p.volume_m3 / (p.efficiency * p.swept_m3_s);
    const double straight = p.suction_m3 / p.swept_m3_s;
    if (!(p.lift_m > 0) || !p.dryLift_m) {
        out.suction_s = straight;
    } else if (p.lift_m < *p.dryLift_m) {
        const double x = p.lift_m / *p.dryLift_m;
        out.suction_s = straight / x * -std::log1p(-x);
    } else {
        return out;
    }
    out.time_s = *out.suction_s + out.fill_s;
    out.low_s = *out.time_s / p.uncertainty;
    out.high_s = *out.time_s * p.uncertainty;
    out.stop_s = *out.time_s * p.safety;
    out.bursts = static_cast<int>(std::ceil(*out.stop_s / p.burst_s));
    return out;
}

} // namespace mildpath
