// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <span>
#include <vector>

namespace mildpath {

struct PlanePoint
{
    double x, y;
};

/// An internal rotor set (gerotor) as its generating curves make it.
///
/// The outer rotor's teeth are arcs of radius S at distance L from its centre; rolling without slip
/// the tooth centres draw the epitrochoid P(θ) = L e^{iθ} + e e^{i(n+1)θ} on the inner rotor, and
/// the inner profile is its parallel curve at S. Every tooth therefore touches the inner rotor in
/// every position: what is measured between them is wear or tolerance, not shape.
/// Source: rolling-circle (cycloidal) gearing, textbook geometry; derived here.
struct RotorSet
{
    int innerLobes; ///< n; the outer rotor has n + 1
    double eccentricity_m; ///< e
    double toothCentre_m; ///< L
    double toothRadius_m; ///< S
    double outerRadius_m; ///< of the outer rotor's rim

    double innerTip_m() const { return toothCentre_m + eccentricity_m - toothRadius_m; }
    double innerRoot_m() const { return toothCentre_m - eccentricity_m - toothRadius_m; }
};

/// What a rotor set moves in a turn (m³): V = π b (r_tip² − r_root²) of the inner rotor, whose root
/// lies two eccentricities below its tips: 2 π b e (d_tip − 2 e).
/// @param innerTip_m  over two opposite tips, or twice from the middle to one; up to 2 e nothing
///                    is moved
/// Source: rolling-circle (cycloidal) gearing, textbook geometry; derived here.
double rotorDisplacement_m3(double rotorLength_m, double eccentricity_m, double innerTip_m);

/// A set of usual proportions (L = 1.5 (n + 1) e, S = 0.35 L or what the tips' curvature lets the
/// teeth have) scaled to a displacement:
///   V ≈ π b (r_tip² − r_root²) of the inner rotor
/// @param innerLobes 3…12. Errors: `inner_lobes`, `displacement_m3`, `rotor_length_mm`.
/// The proportions are own choice: they are for drawing, no clearance is computed from them.
Result<RotorSet> rotorSetFor(int innerLobes, double displacement_m3, double rotorLength_m);

/// Where everything stands when the inner rotor has turned by `turn_rad`; centre of the outer rotor
/// at the origin, the inner rotor's below it by e.
struct RotorPicture
{
    std::vector<PlanePoint> inner; ///< closed outline
    std::vector<PlanePoint> outerHole; ///< closed outline of the opening in the outer rotor
    PlanePoint innerCentre;
    std::vector<PlanePoint> toothCentres; ///< n + 1
};
RotorPicture rotorPicture(const RotorSet &set, double turn_rad, int pointsPerLobe = 48);

/// Effective tip clearance of lobes that differ: each seals in its turn and the slot passes h³, so
/// the cube's mean counts. Own derivation. @param clearances one or more, same unit as the result.
double effectiveTipClearance(std::span<const double> clearances);

} // namespace mildpath
