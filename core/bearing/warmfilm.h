// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/feed.h"
#include "bearing/filmtable.h"
#include "oil/shear.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

namespace mildpath {

/// How a running bearing is fed. Its feed sits in the shell, or in the journal and turns with it.
struct BearingFeed
{
    double groove_deg = 0; ///< arc of a groove in the shell, up to 300 or 360; 0: a single hole
    double grooveWidth_m = 0;
    double hole_m = 5e-3;
    bool inJournal = false; ///< the hole turns with the journal and sees all film thicknesses
    double fromLoad_rad = pi; ///< middle of hole or groove, from the load
    double formFactor = 1; ///< of the real shell, on the feed's flow alone (bearing/shellform.h)
};

/// A bearing as its film sees it.
struct RunningBearing
{
    double journalDiameter_m;
    double length_m; ///< whole
    BearingFeed feed;
};

/// What moves it.
struct Running
{
    RadialClearance clearance; ///< running, the parts as warm as the oil comes in
    double load_n; ///< steady; 0: none
    double speed_rad_s; ///< of the journal, > 0
    /// Change of that clearance by each kelvin the film is warmer than its oil: journal and housing
    /// take a share of it (bearing/journalheat.h).
    double perFilmRise_m_per_k = 0;
};

/// Oil in a film.
struct FilmViscosity
{
    double still_pa_s; ///< without shear
    const ShearThinning *shear = nullptr; ///< null: it does not thin
    double begin = 0; ///< share left under shear of a film much like it; 0: not known
    double at(double rate_per_s) const
    {
        return shear ? shear->viscosity_pa_s(still_pa_s, rate_per_s) : still_pa_s;
    }
};

/// At which oil is sheared in a film: U/min(c, 1.193 c (1 − ε)^¾), own fit to a two-dimensional
/// solution with μ(U/h) everywhere. @param clearance_m  radial
inline double filmShearRate_per_s(double speed_m_s, double clearance_m, double eccentricity)
{
    const double root = std::sqrt(1 - eccentricity);
    return speed_m_s / (clearance_m * std::min(1.0, 1.193 * root * std::sqrt(root)));
}

/// A bearing's film and its feed at one viscosity.
struct FilmAt
{
    FilmPoint film;
    double clearance_m; ///< radial, at this warmth
    double viscosity_pa_s; ///< of the film, at its shear
    double shearRate_per_s;
    double loss_w;
    double conductance_m3_s_pa; ///< of the feed alone
    double sideFlow_m3_s; ///< hydrodynamic; 0 where a full groove already nets it
    double exponent; ///< of the rule that joins the two
};

/// Film from the table, loss from its friction, feed by the formulas of bearing/feed.h. A full
/// groove makes two bearings of one land each, half the load on each.
///
/// Oil that thins: in the film at filmShearRate_per_s, ε found with it, S(ε) = (r/c)² μ(γ(ε)) N/P,
/// one root, within 1.2 % of a solution with local viscosity; in what the feed presses through at
/// γ = U/c.
class FilmBearing
{
public:
    explicit FilmBearing(const RunningBearing &bearing);
    /// @param rise_k  of the film above the oil that comes in
    FilmAt at(const Running &running, const FilmViscosity &oil, double rise_k) const;
    const RunningBearing &bearing() const { return m_bearing; }
    double filmLength_m() const { return m_filmLength_m; } ///< of one land with a full groove
    bool fullGroove() const { return m_bearing.feed.groove_deg >= 360; }

private:
    void findFilm(FilmAt &out, double sommerfeldPerViscosity, double speed_m_s,
                  const FilmViscosity &oil) const;
    RunningBearing m_bearing;
    double m_filmLength_m;
    FilmLine m_line;
    FeedShape m_feed;
};

/// Oil that leaves a bearing at a feed pressure:
///   Q = max(Qs^s Qp^(1−s), Qp),  Qp = conductance × pressure
/// Below Qp = 0.001 Qs a straight line to nothing, where the rule's slope has no end. Suction draws
/// by the feed alone. Source: as bearing/feed.h; ± 30 %.
double fedFlow_m3_s(const FilmAt &film, double feed_pa);
/// The pressure that makes this flow: the inverse of fedFlow_m3_s(), flow ≥ 0.
double feedFor_pa(const FilmAt &film, double flow_m3_s);

/// What a film needs to know of its oil.
struct FilmOilState
{
    double density_kg_m3;
    double viscosity_pa_s;
};
using FilmOilAt = std::function<FilmOilState(double temperature_c)>;

/// An oil at a ladder of temperatures above that of the oil supplied: what the warmth of all
/// bearings of a circuit is found on.
struct FilmOil
{
    static constexpr int steps = 10;
    double supply_c = 0;
    std::array<double, steps> rise_k {}; ///< from filmRiseMost_k down to 0.12 K
    std::array<double, steps> viscosity_pa_s {}, density_kg_m3 {};
    std::optional<ShearThinning> shear {};
    const ShearThinning *thinning() const { return shear ? &*shear : nullptr; }
};
FilmOil filmOil(double supply_c, const FilmOilAt &oilAt, const std::optional<ShearThinning> &shear);

/// Flow of a bearing against feed pressure with its own warmth found: more pressure brings more and
/// cooler oil. For every step of the ladder the flow that keeps it there and the pressure that
/// brings that flow are explicit; between them a monotone cubic in ln Q over ln p, with a node of
/// its own where the rule has its corner. Within 1 % of warmFilm() (docs/theory/film.md).
class WarmCurve
{
public:
    WarmCurve() = default;
    WarmCurve(const FilmBearing &bearing, const Running &running, const FilmOil &oil);

    ValueSlope flow_m3_s(double feed_pa) const; ///< and its slope, m³/s per Pa
    double rise_k(double feed_pa) const; ///< of the film above the supply

private:
    struct Node
    {
        double logP, logQ, rise_k;
        double in = 0,
               out = 0; ///< slopes of ln Q over ln p before and behind; unlike at the corner
    };
    void add(const FilmAt &at, double rise_k, double flow_m3_s);
    void addCorner(const FilmBearing &bearing, const Running &running, const FilmOil &oil,
                   size_t step);
    void keepCoolest();
    void findSlopes();
    const Node *before(double logP) const;

    static constexpr size_t most = FilmOil::steps + 1;
    std::array<Node, most> m_nodes {};
    size_t m_count = 0;
    size_t m_corner = most; ///< where the joining rule gives way to pressure alone
    FilmAt m_hottest {}, m_coolest {};
};

/// By how much the flow of a bearing changes when another stands in its place at the same pressure:
/// both balances followed a few steps from a warmth near theirs, on the same ladder.
double flowChange_m3_s(const FilmBearing &bearing, const Running &now, const Running &other,
                       double feed_pa, double near_k, const FilmOil &oil);

/// A bearing's film at work, for people.
struct WarmFilm
{
    double flow_m3_s;
    double rise_k; ///< effective, of the film
    double outlet_rise_k; ///< of the oil that leaves
    FilmAt at;
    double smallestFilm_m;
    double peak_pa; ///< 0 without load
    bool capped; ///< the balance would pass filmRiseMost_k
};
/// The same balance solved to the end for one feed pressure.
/// @param feed_pa  above 0
WarmFilm warmFilm(const FilmBearing &bearing, const Running &running, double feed_pa,
                  double supply_c, const FilmOilAt &oilAt, const ShearThinning *shear = nullptr);

} // namespace mildpath
