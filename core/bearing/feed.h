// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"
#include "rules/rules.h"

namespace mildpath {

/// Two round holes that do not line up: the hole in the shell over the drilling in the block.
struct HoleOverlap
{
    double area_m2; ///< open to oil
    double ofSmaller; ///< 0…1, of the smaller hole's area
    double equivalentDiameter_m; ///< of a round hole of that area
};

/// Area two circles share (lens).
/// @param offset_m  between their centres, ≥ 0; apart: 0; one inside the other: the smaller circle
/// Source: circle-circle intersection, textbook geometry.
HoleOverlap holeOverlap(double hole1Diameter_m, double hole2Diameter_m, double offset_m);

/// Overlap of a drilling with a hole that passes over its middle, on the drilling's area, mean over
/// the time they meet at all.
double meanHoleOverlap(double drilling_m, double hole_m);

/// The way oil has to go along a groove to a mouth that meets it anywhere (m): a quarter of an
/// arc, a sixth of the way round a whole groove. Own choice.
double arcSlot_m(double journalRadius_m, double arc_deg);
double wholeSlot_m(double journalRadius_m);

/// The offset at which two holes leave this share of the smaller one open (m).
/// @param openShare 0…1; 1 gives the largest offset that still covers nothing
double offsetFor(double hole1Diameter_m, double hole2Diameter_m, double openShare);

/// Q = Cd A √(2 Δp/ρ), sharp edge, turbulent (m³/s). @param pressureDrop_pa ≥ 0
double sharpOrificeFlow_m3_s(double area_m2, double pressureDrop_pa, double discharge,
                             double density_kg_m3);

/// A plain bearing as its feed sees it.
struct FedBearing
{
    double journalDiameter_m;
    double length_m; ///< whole
    DiametralClearance clearance;
    double viscosity_pa_s;
    double pressure_pa; ///< at the feed, gauge
    double eccentricityRatio = 0; ///< 0…0.99
    double sideFlow_m3_s = 0; ///< hydrodynamic side leakage at the same eccentricity
};

/// Where oil comes into a bearing, everything worked out that does not depend on the film.
class FeedShape
{
public:
    /// A hole in the shell sees the film over it; one in the journal the mean of h³ over a turn.
    static FeedShape hole(double length_m, double hole_m, bool inJournal = false);
    static FeedShape axialGroove(double length_m, double width_m, double arc_m);
    /// @param extent_rad  up to 300°, or 2 π for a full groove
    static FeedShape groove(double radius_m, double length_m, double width_m, double extent_rad);

    /// Flow by pressure alone, per Pa; `ends` is the part over the ends of a groove.
    struct Conductance
    {
        double sides, ends;
        double total() const { return sides + ends; }
    };
    /// @param angle_rad  middle of the feed from the maximum film, with the rotation
    Conductance at(RadialClearance c, double eccentricityRatio, double angle_rad,
                   double viscosity_pa_s) const;
    double exponent() const
    {
        return m_exponent;
    } ///< of combinedFlow_m3_s(); 0: no rotation's part

private:
    enum class Kind { Hole, JournalHole, Axial, Arc, Full };
    Kind m_kind = Kind::Hole;
    double m_sides = 0, m_ends = 0; ///< factors of h³/μ or c³/μ
    double m_half_rad = 0;
    double m_exponent = 0;
};

struct FeedFlow
{
    double pressure_m3_s; ///< by supply pressure
    double ends_m3_s; ///< of that, over the ends of the groove
    double total_m3_s; ///< with the rotation's part
};

/// Pressure and rotation together: Qs^s Qp^(1−s), never below the pressure flow alone.
double combinedFlow_m3_s(double side_m3_s, double pressure_m3_s, double exponent);
/// k of a groove's ends: (2s ln(s + 1) − (s − 1) ln(s² − 1))/π, s = 1/(1 − w/L). Potential flow
/// round the end of a slit between two open edges, own derivation.
double grooveEndFactor(double widthRatio);
/// 0.7 (w/L)^0.7 + 0.4.
double axialGrooveExponent(double widthRatio);

/// Groove round the circumference.
///   360°: Q = π r c³ p (1 + 1.5 ε²)/(3 μ l), exact for the net supply: nothing is added for
///   rotation less: Q = p/(12 μ) [2 r c³ I/l + 2 k (h1³ + h2³)], combined with the side flow by
///   exponent 0.7
/// @param extent_deg  above 0 to 300, or 360
/// @param centreFromMaxFilm_deg  middle of the groove, from the maximum film, in rotation
/// Valid where the arc r·θ ≥ 0.35 (L − w). Errors: `extent_deg`, `groove_axial_mm`.
/// Source: textbook; end fringing k after S. B. Cohn, strip line, 1954, from memory; the exponent
/// is fitted to a mass-conserving solution (ratio 0.74 to 1.22).
Result<FeedFlow> grooveFlow(const FedBearing &bearing, double grooveAxial_m, double extent_deg,
                            double centreFromMaxFilm_deg);

/// Axial groove at the maximum film's height h_g there.
///   Qp = (p h³/μ) [(1.25 − 0.25 w/L)/(3 (L/w − 1)^⅓) + (b/L)/(3 (1 − w/L))]
/// Source: F. A. Martin's formula as in Stachowiak and Batchelor, Engineering Tribology, ch. 4,
/// from memory. Errors: `groove_axial_mm` when not below the length.
Result<FeedFlow> axialGrooveFlow(const FedBearing &bearing, double grooveAxial_m,
                                 double grooveArc_m, double angleFromMaxFilm_deg);

struct HoleFlow
{
    double filmAtHole_m;
    double pressure_m3_s;
    double total_m3_s;
};

/// Single feed hole.
///   Qp = 0.675 (p h³/μ)(d/L + 0.4)^1.75
/// Source: as axialGrooveFlow. Within ± 30 % of a mass-conserving solution; a hole 90° downstream
/// of the maximum film starves (up to 3 times too high). Errors: `hole_diameter_mm` above 0.8 L.
Result<HoleFlow> holeFlow(const FedBearing &bearing, double hole_m, double angleFromMaxFilm_deg);

/// How a main hands oil to the drilling in its journal.
enum class FeedGroove { None, Partial, Full, Journal };

/// Share of a turn during which the drilling sees oil.
///   none (d_h + d_f)/360; groove of arc G (G + d_h)/360; full groove or groove in the journal 1;
///   two opposite entries joined inside: twice that, at most 1
/// with d = 2 asin(diameter/(2 R)). Standard geometry.
double feedFraction(FeedGroove groove, double groove_deg, double mainRadius_m, double drilling_m,
                    double feedHole_m, int entries);

} // namespace mildpath
