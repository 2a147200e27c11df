// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <optional>
#include <span>
#include <vector>

namespace mildpath {

/// A point of a section through pan and crankcase: x to the right (or to the rear), z up from the
/// lowest inside point.
struct SectionPoint
{
    double x_m, z_m;
    bool operator==(const SectionPoint &) const = default;
};
using Profile = std::vector<SectionPoint>;

/// A pan as a prism: one simple polygon, the crankcase's room above the rail included, as deep as
/// `width_m`. Order of the points, clockwise or not, does not matter.
struct PanPrism
{
    Profile profile;
    double width_m;
};

/// Area of a simple polygon (m²), whichever way round its points run. Shoelace formula, textbook.
double profileArea_m2(std::span<const SectionPoint> profile);

/// The plane oil lies under: n·p = offset with n = (−sin tilt, cos tilt).
struct OilSurface
{
    double tilt_rad = 0; ///< positive: oil stands higher toward +x
    double offset_m = 0;

    /// Height of the surface over x (m).
    double heightAt_m(double x_m) const;
    /// How far a point lies under it, along the surface's normal (m); negative above.
    double depthOf_m(SectionPoint p) const;
};

/// Tilt of the surface (rad): θ = atan(a) + incline; the angles add exactly.
/// @param accel_g      horizontal acceleration over g, positive pushes the oil toward +x
/// @param incline_rad  of the installation, positive: the +x end is lower
/// Errors: `incline_deg` at 89° and more.
Result<double> surfaceTilt_rad(double accel_g, double incline_rad);

/// Area of the profile under a surface (m²). Half-plane clip (Sutherland and Hodgman 1974) and
/// shoelace formula, textbook.
double areaBelow_m2(std::span<const SectionPoint> profile, const OilSurface &surface);
/// What lies under a surface, for drawing; edges along the surface may run double.
Profile clippedBelow(std::span<const SectionPoint> profile, const OilSurface &surface);

/// Surface with this tilt over so much oil, exact: the area is a quadratic of the offset between
/// two corners of the profile. One common level: pools of a stepped pan are joined. Steady state.
/// @param area_m2  volume over width, ≥ 0
/// Errors: `volume_l` when it does not fit below the highest point.
Result<OilSurface> surfaceOver(std::span<const SectionPoint> profile, double tilt_rad,
                               double area_m2);

/// Lowest point of the inside at x; absent outside the profile.
std::optional<double> floorAt_m(std::span<const SectionPoint> profile, double x_m);
bool contains(std::span<const SectionPoint> profile, SectionPoint p);

/// Whether points make a simple polygon with an inside.
/// Errors: place "2" (index of a point) or empty: too few points, not finite, two alike, an edge
/// that crosses another, no area.
Result<void> checkProfile(std::span<const SectionPoint> profile);

/// Measured litres against height in the bare pan.
struct FillStep
{
    double height_m, volume_m3;
};
/// A section that holds what was measured at every height measured: symmetric, its width from the
/// volume of each layer, straight between. The first step may be (0, 0) or is taken to begin there.
/// @param length_m  extent normal to the section
/// Errors: place "2": heights or litres that do not rise.
Result<Profile> sectionFromFill(std::span<const FillStep> steps, double length_m);

/// First slosh period of a level pan (s): ω² = g k tanh(k h), k = π/L. Linear wave theory,
/// textbook.
/// @param length_m  free length at the surface
/// @param depth_m   mean depth, > 0
double sloshPeriod_s(double length_m, double depth_m);

/// A rectangular pan in a turn.
struct TiltedBox
{
    double meanDepth_m, low_m, high_m; ///< of the two ends; low 0 where the floor is dry
    double dryLength_m;
    double atPickup_m; ///< depth over the floor at the pickup
    double submergence_m; ///< of the mouth, normal to the surface
    double overRail_m; ///< the high end over the wall, 0 within
    std::optional<double> slosh_s; ///< absent when empty
};
/// Closed form:
///   h0 ≥ L t/2: z = h0 + t (x − L/2);  else b = √(2 h0 L/t), z = max(0, t (x − (L − b)))
/// for t = tan|θ|, mirrored for θ < 0; S = (z − zp) cos θ. Walls are taken to go on upwards.
/// Source: geometry.
TiltedBox tiltedBox(double length_m, double width_m, double wall_m, double volume_m3,
                    SectionPoint mouth, double tilt_rad);

} // namespace mildpath
