// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"

#include <optional>
#include <string_view>

namespace mildpath {

/// A crank over oil.
struct CrankOverOil
{
    double radius_m; ///< of the swept circle
    double speed_rad_s;
    double gap_m; ///< running level to the circle; negative: it dips
    double density_kg_m3 = 850;
    double tension_n_m = 0.030;
    double gasDensity_kg_m3 = 1.0; ///< warm crankcase air
    double coupling = windCoupling;
    double trayOpen = 1; ///< open share of a windage tray
    double ripple_m = usualRipple_m;
};

struct Windage
{
    double tip_m_s;
    double wind_m_s; ///< on the oil
    double onset_m_s; ///< Kelvin–Helmholtz speed
    double windHead_m;
    double allowance_m; ///< what the surface may rise to
    std::optional<double> index; ///< allowance over gap; absent without a gap
    double immersedShare; ///< of the circle's arc
    std::string_view state; ///< low | watch | high
};
/// U = ω R; U_s = κ τ ω R²/(R + gap); U_KH² = 2 (ρl + ρg)/(ρl ρg) √(σ g (ρl − ρg));
/// h_w = ρg U_s²/(2 ρl g); allowance = ripple + h_w; index = allowance/gap.
/// A ranking: which of two builds is closer to trouble. It says nothing of how much air gets in.
/// Source: free vortex outside a turning body and inviscid Kelvin–Helmholtz onset, textbook;
/// coupling, tray, ripple and the states' limits (½, 1) own choice.
Windage windage(const CrankOverOil &c);

} // namespace mildpath
