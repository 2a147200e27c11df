// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sump/section.h"

#include <span>

namespace mildpath {

/// A circle the crank sweeps, or the end of a row of them seen from the side (radius 0).
struct Sweep
{
    SectionPoint centre;
    double radius_m;
};
/// Circle to surface: n·C − c − R; negative: it dips.
double clearance_m(const OilSurface &surface, const Sweep &sweep);

/// A section with what hangs in it. The pan's own section, or a slice across it: a slice keeps in a
/// turn what it holds on the level, so the whole pan's level decides how much that is.
struct HungSection
{
    Profile profile;
    SectionPoint mouth {}; ///< of the pickup
    std::vector<Sweep> sweeps;
    bool slice = false;
};
/// Surface in a section tilted so far, with a volume in the pan. Errors: as surfaceOver().
Result<OilSurface> surfaceIn(const PanPrism &pan, const HungSection &section, double tilt_rad,
                             double volume_m3);

/// One use the fill must stand: a turn, a slope, idling.
struct FillCase
{
    const HungSection *section;
    double tilt_rad = 0;
    double held_m3 = 0; ///< on its way outside the sump
    double expansion = 1; ///< volume at the oil's temperature over that at the fill's
    double submergence_m = 0; ///< wanted of the mouth, normal to the surface
    double allowance_m = 0; ///< wanted clear of what is swept
};
/// What is out of the way in every case.
struct FillTaken
{
    double static_m3 = 0, displaced_m3 = 0;
};

/// Limits of one case, at the fill temperature.
struct CaseLimits
{
    double least_m3, most_m3;
};
/// Exact for a prism: the surface is the line at the submergence above the mouth, or at the
/// allowance below the circle; the profile is clipped there.
///   fill = (max(0, A W − V_displaced) + V_static + V_held)/expansion
/// A line above the profile takes the whole of it. For a slice A is what the pan holds at the level
/// the slice has with that area.
CaseLimits limitsOf(const PanPrism &pan, const FillTaken &taken, const FillCase &use);

struct FillWindow
{
    double least_m3, most_m3;
    size_t leastCase, mostCase; ///< which one limits; the first of equals
    bool feasible() const { return least_m3 <= most_m3; }
};
/// @param cases  at least one
FillWindow fillWindow(const PanPrism &pan, const FillTaken &taken, std::span<const FillCase> cases);

/// A part of the pan walled off round the pickup.
struct Compartment
{
    double area_m2;
    double start_m, limit_m; ///< level over its floor, and where the mouth uncovers
    double draw_m3_s; ///< of the pump, less what falls straight back into it
    double opening_m2 = 0; ///< of the baffle's door or holes; 0: shut
    double outside_m; ///< level outside, held
    double discharge = 0.6;
};
struct Uncovering
{
    std::optional<double> time_s; ///< absent: it never uncovers
    double equilibrium_m; ///< level it settles at, where it does not uncover
};
/// A dh/dt = −q + k √(H − h), k = Cd a √(2 g): equilibrium h = H − (q/k)²; else
/// t = 2 A [−(u₁ − u₀)/k − (q/k²) ln((q − k u₁)/(q − k u₀))], u = √(H − h); shut: A (h₀ − h)/q.
/// Source: orifice law and its integral; checked against a numerical one.
Uncovering pickupUncovers(const Compartment &c);

/// How long the compartment takes to come back to where it began (s), the draw going on: the same
/// law the other way; absent where the opening does not bring so much.
std::optional<double> refills_s(const Compartment &c);

/// Level it costs a baffle's opening to pass a flow: (Q/(Cd a))²/(2 g) (m).
double baffleCosts_m(double flow_m3_s, double opening_m2, double discharge);
/// Discharge coefficient of a sharp opening for thick oil: 0.2 √Re below about Re 10, at most 0.6.
/// Source: Merritt (1967), Hydraulic Control Systems, from memory; the straight join is own choice.
double openingDischarge(double reynolds);
/// Level it costs with a coefficient that answers to thick oil: the flow's own Reynolds number.
double baffleCostsThick_m(double flow_m3_s, double opening_m2, double nu_m2_s);

} // namespace mildpath
