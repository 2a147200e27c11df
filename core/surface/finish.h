// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"
#include "surface/filter.h"

#include <optional>

namespace mildpath {

// Parameters of a bore's finish. Heights in µm. A plateau-honed wall is two processes: a fine
// plateau and deep valleys.

/// Amplitudes over the whole profile, its mean taken out.
struct Amplitudes
{
    double ra_um = 0, rq_um = 0;
    double rz_um = 0; ///< mean of highest less lowest over the sampling lengths
    int sections = 0; ///< sampling lengths; 5 are standard
};
/// Source: ISO 4287:1997, from memory. @param sectionLength_um  0: the whole profile is one section
Amplitudes amplitudesOf(std::span<const double> r_um, double spacing_um, double sectionLength_um);
inline constexpr int standardSections = 5;

/// Heights from the highest down; the i-th lies at the material ratio (i − 0.5)/N.
class MaterialRatioCurve
{
public:
    explicit MaterialRatioCurve(std::vector<double> heights_um);
    const std::vector<double> &heights_um() const { return m_z; }
    /// Height at a material ratio of 0…1, between the points linear.
    double at(double ratio) const;
    /// Share of points at or above a height.
    double ratioAt(double height_um) const;
    /// The same with every height above `cut_um` taken down to it.
    MaterialRatioCurve cutAt(double cut_um) const;

private:
    struct Sorted
    {
    };
    MaterialRatioCurve(std::vector<double> sorted, Sorted);
    std::vector<double> m_z;
};

/// Rk and what goes with it. ISO 13565-2:1996, from memory: line by least squares in the 40 %
/// window of least slope.
struct CoreRoughness
{
    double rk_um = 0, rpk_um = 0, rvk_um = 0;
    double mr1 = 0, mr2 = 1; ///< 0…1
    double c1_um = 0, c2_um = 0; ///< the line at Mr = 0 and Mr = 1
    double windowFrom = 0, windowTo = 0; ///< material ratio of the window
    double vo_um3_um2 = 0; ///< oil-retention volume; 1 µm³/µm² = 0.1 mm³/cm²
    double vo_mm3_cm2() const { return vo_um3_um2 / 10; }
    /// More than 40 % of the points lie at one height: the plateau is cut flat or too coarsely
    /// digitised, and nothing here means anything.
    bool flat() const { return !(rk_um > 0); }
};
/// @param curve  at least 3 points
CoreRoughness coreRoughness(const MaterialRatioCurve &curve);

/// Two straight lines in the probability plot. After ISO 13565-3, not it: the standard fits a conic
/// and normalises; this is a fit of two lines (docs/theory/finish.md).
struct PlateauFit
{
    bool twoProcess = false;
    double rpq_um = 0; ///< of the one line where there are not two
    std::optional<double> rvq_um, rmq_percent;
    struct Line
    {
        double at0 = 0, slope = 0; ///< height over the normal quantile
        double at(double s) const { return at0 + slope * s; }
    };
    Line plateau, valley; ///< one and the same where there are not two processes
    std::vector<double> s, z_um; ///< the resampled curve the lines are fitted to
};
/// @param curve  at least leastPoints
PlateauFit plateauFit(const MaterialRatioCurve &curve);

/// More finishing strokes: everything above a height goes.
struct Cut
{
    double height_um = 0; ///< of the profile
    double ratio = 0; ///< share of points at or above it before
    double valleyLeft_um3_um2 = 0; ///< below the core's foot of the uncut wall
};
/// The valley volume that is left is counted on the uncut wall: the cut wall's own Vo rises with a
/// hard cut though nothing was added.
/// @param depth_um  from the height at 1 % of the uncut curve, ≥ 0
/// Errors: `truncate_depth_um` when more than 95 % goes.
Result<Cut> cutOf(const MaterialRatioCurve &uncut, const CoreRoughness &core, double depth_um);

/// A trace, filtered once: what a finish is read from.
struct FinishedTrace
{
    RoughnessProfile profile; ///< by the chosen filter
    RoughnessProfile single; ///< by the single Gaussian filter: Ra, Rq, Rz
    double spacing_um = 0, sectionLength_um = 0;
    MaterialRatioCurve curve;
    CoreRoughness core;
    Amplitudes amplitudes;
};
/// Errors: as filterTrace(); `z_um` when the plateau is flat.
Result<FinishedTrace> finishTrace(std::span<const double> z_um, double spacing_um, double cutoff_um,
                                  ProfileFilter filter);
/// The same after strokes: amplitudes are cut from the single filter's own 1 % height; the rest of
/// the curve is not filtered again. Errors: as cutOf.
struct StrokedTrace
{
    Cut cut;
    CoreRoughness core; ///< as it comes: Rpk goes, and Vo is not the oil volume
    Amplitudes amplitudes;
};
Result<StrokedTrace> strokeTrace(const FinishedTrace &trace, double depth_um);

/// Standard normal: ratio → quantile.
double normalQuantile(double ratio);
double normalShare(double s);

} // namespace mildpath
