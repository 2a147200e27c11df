// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/film.h"

#include <vector>

namespace mildpath {

/// Where oil comes into a bearing. Angles run with the rotation, from the line of maximum film.
struct FilmFeed
{
    enum class Kind {
        Hole,
        AxialGroove, ///< narrow around, long along
        ArcGroove, ///< narrow along, an arc around: the upper shell's half groove
        FullGroove, ///< 360°: two bearings side by side, each one land long
    };
    Kind kind = Kind::Hole;
    double center_rad = 0; ///< of hole or groove
    double arc_rad = 0; ///< grooves; a hole is as wide as it is long
    double widthRatio = 0.2; ///< w/L: axial width of the groove, or the hole's diameter, over L
};

/// A bearing with oil fed in under pressure.
struct FedJournal
{
    double eccentricityRatio; ///< 0…0.99
    double lengthRatio; ///< L/D of the whole bearing, grooves included
    /// 6 μ ω (r/c)² over the feed's pressure; 0: the journal stands still.
    double bearingNumber;
    FilmFeed feed;
};

/// Its film. Pressures over that of the feed; flows over p c³/μ of the whole bearing.
struct FedFilm
{
    double load; ///< over p D L
    double attitude_rad; ///< from the load to the smallest film
    double feedFlow; ///< Q μ/(p c³), what comes in; net where some is pressed back
    double sideFlow; ///< what leaves at the edges
    double peakPressure;
    double peakAngle_rad; ///< from maximum film
    /// Friction torque over that of a concentric full film (Petroff); cavitated parts count by what
    /// oil is left in them.
    double frictionOverPetroff;
    double fullShare; ///< of the surface where the film is full
    bool settled; ///< the edge of the film came to rest
    FilmGrid grid;
    std::vector<double> pressure; ///< per cell, around × along, from the middle to the edge
    std::vector<double> content; ///< share of the gap that is oil, same order
};

/// Reynolds' equation with conservation of mass through cavitation (Jakobsson–Floberg–Olsson
/// conditions): in a full cell the pressure is unknown, in a broken film, at pressure 0, the share
/// of oil, carried along by the journal. Finite volumes, upwind content, H³ at the faces; which
/// cells are full is found by switching those that contradict themselves, first on a coarse grid.
///   d/dth(H³ dp/dth) + (r/l)² d/dz(H³ dp/dz) = Λ d(Θ H)/dth,  p ≥ 0, Θ ≤ 1, p (1 − Θ) = 0
/// Feeds are cells held at their pressure.
/// Valid as solveFilm(); a hole wants d/L of at least 0.05 on the usual grid.
/// Source: B. Jakobsson, L. Floberg, Trans. Chalmers Univ. 190, 1957; K.-O. Olsson, 1965 (from
/// memory).
FedFilm solveFedFilm(const FedJournal &bearing, FilmGrid grid = {});

/// A bearing under load, fed with oil, in a shell whose feed sits at a place of its own.
struct FedLoadedBearing
{
    LoadedBearing bearing;
    double feed_pa; ///< gauge, > 0
    FilmFeed::Kind kind;
    double feedFromLoad_rad; ///< centre of the feed, from the load's direction with the rotation
    double arc_rad;
    double widthRatio; ///< as FilmFeed
};
struct FedLoadedFilm
{
    double eccentricityRatio;
    double smallestFilm_m;
    double feedFlow_m3_s;
    double peak_pa;
    double loss_w;
    FedFilm film;
};
/// Eccentricity and attitude at which the film carries the load with the feed where it is.
/// Errors: `load_n` when no film up to 0.99 carries it.
Result<FedLoadedFilm> fedFilmUnderLoad(const FedLoadedBearing &bearing,
                                       FilmGrid grid = { 120, 10 });

} // namespace mildpath
