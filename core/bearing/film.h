// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"

namespace mildpath {

/// A journal bearing's film without dimensions, at one eccentricity. Ratios as in Raimondi & Boyd.
struct FilmSolution
{
    double eccentricityRatio; ///< e/c
    double lengthRatio; ///< L/D
    double sommerfeld; ///< S = (r/c)² mu N/P
    double attitude_rad; ///< from the load to the smallest film
    double frictionVariable; ///< (r/c) f
    double inflowVariable; ///< Q/(r c N L)
    double sideFlowRatio; ///< Qs/Q
    double pressureRatio; ///< P/pmax
};

/// How finely the film is cut: around, and from the middle to the edge.
struct FilmGrid
{
    int around = 360, along = 24;
};

/// Solves the two-dimensional Reynolds equation of a plain bearing, half of it by symmetry:
///   d/dth(H³ dp/dth) + (D/L)² d/dz(H³ dp/dz) = dH/dth,  H = 1 + eps cos th
/// film full from the line of maximum film, ending with p = dp/dth = 0 (Reynolds, Swift–Stieber);
/// friction over the full 360°, as Raimondi and Boyd have it. Finite volumes, H³ at the faces; the
/// end of the film is found by an active set on a sparse direct solver.
/// @param eccentricityRatio  above 0 to 0.99
/// @param lengthRatio        L/D, 0.05…5
/// Not for misaligned or moving loads, elastic shells or oil whose viscosity changes on the way.
/// Source: A. A. Raimondi, J. Boyd, "A solution for the finite journal bearing and its application
/// to analysis and design", parts I–III, ASLE Trans. 1, 1958.
FilmSolution solveFilm(double eccentricityRatio, double lengthRatio, FilmGrid grid = {});

/// A bearing under a steady load.
struct LoadedBearing
{
    double journalDiameter_m;
    double length_m;
    DiametralClearance clearance; ///< running
    double viscosity_pa_s;
    double speed_rpm;
    double load_n;
};

/// Sommerfeld number of a bearing: (r/c)² mu N/(W/(D L)).
double sommerfeldNumber(const LoadedBearing &bearing);

/// The eccentricity that carries the load: ln S bracketed over 0.001…0.99; below, eps ∝ 1/S.
/// Errors: `load_n` when no film up to 0.99 carries it.
Result<FilmSolution> filmUnderLoad(const LoadedBearing &bearing, FilmGrid grid = {});

} // namespace mildpath
