// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace mildpath {

/// How high a pump lifts oil through its own air, from its slip with oil.
struct DryLift
{
    double slipGeometry_m3; ///< k of Q = k dp/μ
    double suction_pa; ///< at most one atmosphere
    double lift_m;
};
/// k = Q_slip μ/dp; dp = D n μ_gas/k; lift = dp/(ρ g). Own derivation: the same clearances let air
/// past as they let oil past; good to a factor of two or three.
/// @param swept_m3_s  displacement × speed
DryLift dryLift(double swept_m3_s, double slip_m3_s, double slip_pa, double slipViscosity_pa_s,
                double gasViscosity_pa_s, double density_kg_m3);

/// A dry engine to be filled by its own pump.
struct Priming
{
    double volume_m3; ///< to fill behind the pump
    double swept_m3_s;
    double efficiency = 0.85;
    double suction_m3 = 0; ///< air before the pump
    double lift_m = 0;
    std::optional<double> dryLift_m {};
    double uncertainty = 2, safety = 2; ///< factors, own choice
    double burst_s = 10; ///< of a starter
};
struct PrimeTime
{
    double fill_s;
    std::optional<double> suction_s; ///< absent: it never lifts the oil
    std::optional<double> time_s, low_s, high_s, stop_s;
    std::optional<int> bursts;
};
/// t_s = V_s/(D n) (z_max/z)(−ln(1 − z/z_max)), V_s/(D n) without a lift; t = t_s + V/(η D n).
PrimeTime primeTime(const Priming &p);

} // namespace mildpath
