// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace mildpath {

/// Holes or tubes that let a pool run back to the sump.
struct DrainBack
{
    double hole_m;
    double count = 1;
    double length_m = 0;
    double drop_m = 0; ///< further fall of a passage that surely runs full
    double pool_m2; ///< area of the pool
    double nu_m2_s, density_kg_m3 = 850;
    double loss = 1.5; ///< entry and exit, ≥ 1
    double back_pa = 0; ///< of the crankcase, against it

    /// Speed under a pool's depth (m/s); absent where the crankcase holds it up.
    std::optional<double> speed_m_s(double depth_m) const;
    /// All holes together (m³/s); 0 where it is held up.
    double flow_m3_s(double depth_m) const;
    /// Time from one depth to a lower one (s); absent: it never drains so far.
    std::optional<double> time_s(double from_m, double to_m) const;
    /// Pool that passes a steady supply (m), ≥ 0.
    double steadyDepth_m(double supply_m3_s) const;
    /// Holes that keep a pool below a depth; absent where it is held up.
    std::optional<int> holesFor(double supply_m3_s, double depth_m) const;
    /// What runs down while gas comes up the same holes: Fr 0.31 (m³/s). Simpson (1969), from
    /// memory.
    double selfVenting_m3_s() const;
};
// a v² + b v = g H, H = h + drop − p_b/(ρ g), a = K/2, b = 32 ν L/d²: textbook, laminar in the
// tube; t = A/(n A_h g) [2 a (v₀ − v₁) + b ln(v₀/v₁)].

} // namespace mildpath
