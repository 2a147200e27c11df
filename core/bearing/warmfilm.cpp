// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/warmfilm.h"

#include "bearing/feed.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double leastRise_k = 0.12;
/// Below this share of the side flow the joining rule gives way to a straight line.
constexpr double lineBelow = 1e-3;
/// What is left of a gap that has closed: the equations stay regular, the judgement holds it.
constexpr double leastGap_m = 0.2e-6;

double degrees(double rad)
{
    return rad * 180 / pi;
}

/// An arc too short for the groove's formula is an axial groove.
bool isArc(const RunningBearing &b)
{
    const double arc_m = b.journalDiameter_m / 2 * b.feed.groove_deg * pi / 180;
    return arc_m >= 0.35 * (b.length_m - b.feed.grooveWidth_m) || b.feed.grooveWidth_m <= 0;
}

} // namespace

FilmBearing::FilmBearing(const RunningBearing &b)
    : m_bearing(b)
    , m_filmLength_m(b.feed.groove_deg >= 360 ? (b.length_m - b.feed.grooveWidth_m) / 2
                                              : b.length_m)
    , m_line(m_filmLength_m / b.journalDiameter_m)
{
}

FilmAt FilmBearing::at(const Running &r, double viscosity_pa_s) const
{
    const double radius = m_bearing.journalDiameter_m / 2;
    const double c = std::max(r.clearance.value_m, leastGap_m);
    const double lands = fullGroove() ? 2 : 1;
    const double turns = r.speed_rad_s / (2 * pi);
    // S = (r/c)² μ N D L/W of one land; without load as light as the table knows.
    const double load = std::max(r.load_n / lands, 1e-9);
    const double sommerfeld
        = std::pow(radius / c, 2) * viscosity_pa_s * turns * 2 * radius * m_filmLength_m / load;
    FilmAt out {};
    out.film = m_line.at(std::log(sommerfeld));
    out.loss_w = lands * out.film.frictionOverPetroff * 2 * pi * viscosity_pa_s * r.speed_rad_s
        * r.speed_rad_s * radius * radius * radius * m_filmLength_m / c;
    out.conductance_m3_s_pa = conductance_m3_s_pa({ c }, out.film, viscosity_pa_s);
    if (fullGroove())
        return out;
    const BearingFeed &f = m_bearing.feed;
    out.sideFlow_m3_s = out.film.sideFlow * radius * c * turns * m_filmLength_m;
    out.exponent = f.groove_deg == 0 ? holeExponent
        : isArc(m_bearing)           ? arcExponent
                                     : axialGrooveExponent(f.grooveWidth_m / m_bearing.length_m);
    return out;
}

double FilmBearing::conductance_m3_s_pa(RadialClearance c, const FilmPoint &film,
                                        double viscosity_pa_s) const
{
    const BearingFeed &f = m_bearing.feed;
    FedBearing fed { .journalDiameter_m = m_bearing.journalDiameter_m,
                     .length_m = m_bearing.length_m,
                     .clearance = diametral(c),
                     .viscosity_pa_s = viscosity_pa_s,
                     .pressure_pa = 1,
                     .eccentricityRatio = film.eccentricityRatio };
    // The widest film lies opposite the narrowest, that one the attitude past the load.
    const double fromWidest_deg = degrees(f.fromLoad_rad - film.attitude_rad - pi);
    // Geometry was checked when the element was: these have no other errors.
    if (f.groove_deg > 0 && isArc(m_bearing))
        return grooveFlow(fed, f.grooveWidth_m, f.groove_deg, fromWidest_deg)->pressure_m3_s;
    if (f.groove_deg > 0)
        return axialGrooveFlow(fed, f.grooveWidth_m,
                               m_bearing.journalDiameter_m / 2 * f.groove_deg * pi / 180,
                               fromWidest_deg)
            ->pressure_m3_s;
    if (f.inJournal) {
        // Mean of h³ over a turn: that of a centred film times 1 + 1.5 ε².
        const double seen = 1 + 1.5 * film.eccentricityRatio * film.eccentricityRatio;
        fed.eccentricityRatio = 0;
        return seen * holeFlow(fed, f.hole_m, 0)->pressure_m3_s;
    }
    return holeFlow(fed, f.hole_m, fromWidest_deg)->pressure_m3_s;
}

double fedFlow_m3_s(const FilmAt &film, double feed_pa)
{
    const double pressed = film.conductance_m3_s_pa * feed_pa;
    const double line = lineBelow * film.sideFlow_m3_s;
    if (pressed <= 0 || pressed >= line)
        return combinedFlow_m3_s(film.sideFlow_m3_s, pressed, film.exponent);
    return combinedFlow_m3_s(film.sideFlow_m3_s, line, film.exponent) * pressed / line;
}

double feedFor_pa(const FilmAt &film, double flow_m3_s)
{
    const double side = film.sideFlow_m3_s, line = lineBelow * side;
    double pressed = flow_m3_s;
    if (flow_m3_s < side) {
        const double atLine = combinedFlow_m3_s(side, line, film.exponent);
        pressed = flow_m3_s <= atLine ? line * flow_m3_s / atLine
                                      : side * std::pow(flow_m3_s / side, 1 / (1 - film.exponent));
    }
    return pressed / film.conductance_m3_s_pa;
}

FilmOil filmOil(double supply_c, const FilmOilAt &oilAt)
{
    FilmOil out;
    out.supply_c = supply_c;
    for (size_t i = 0; i < FilmOil::steps; ++i) {
        const double share = static_cast<double>(i) / (FilmOil::steps - 1);
        out.rise_k[i] = filmRiseMost_k * std::pow(leastRise_k / filmRiseMost_k, share);
        const FilmOilState state = oilAt(supply_c + out.rise_k[i]);
        out.viscosity_pa_s[i] = state.viscosity_pa_s;
        out.density_kg_m3[i] = state.density_kg_m3;
    }
    return out;
}

WarmCurve::WarmCurve(const FilmBearing &bearing, const Running &running, const FilmOil &oil)
{
    for (size_t i = 0; i < n; ++i) {
        const FilmAt at = bearing.at(running, oil.viscosity_pa_s[i]);
        const double flow
            = filmWarmth * at.loss_w / (oil.density_kg_m3[i] * oilHeat_j_kg_k * oil.rise_k[i]);
        m_logQ[i] = std::log(flow);
        m_logP[i] = std::log(feedFor_pa(at, flow));
        m_logRise[i] = std::log(oil.rise_k[i]);
        // Less warmth always wants more oil, and more oil more pressure, but for rounding.
        if (i > 0)
            m_logP[i] = std::max(m_logP[i], m_logP[i - 1] + 1e-6);
        if (i == 0)
            m_hottest = at;
        if (i + 1 == n)
            m_coolest = at;
    }
    const auto rate
        = [&](size_t i) { return (m_logQ[i + 1] - m_logQ[i]) / (m_logP[i + 1] - m_logP[i]); };
    // Harmonic means keep the cubic monotone (Fritsch, Butland 1984).
    m_slope[0] = rate(0);
    m_slope[n - 1] = rate(n - 2);
    for (size_t i = 1; i + 1 < n; ++i) {
        const double before = m_logP[i] - m_logP[i - 1], behind = m_logP[i + 1] - m_logP[i];
        const double w1 = 2 * behind + before, w2 = behind + 2 * before;
        m_slope[i] = (w1 + w2) / (w1 / rate(i - 1) + w2 / rate(i));
    }
}

ValueSlope WarmCurve::flow_m3_s(double feed_pa) const
{
    if (feed_pa <= 0)
        return { m_hottest.conductance_m3_s_pa * feed_pa, m_hottest.conductance_m3_s_pa };
    const double x = std::log(feed_pa);
    if (x < m_logP.front() || x >= m_logP.back()) {
        // Past the ladder the warmth stays.
        const FilmAt &at = x < m_logP.front() ? m_hottest : m_coolest;
        const double q = fedFlow_m3_s(at, feed_pa), pressed = at.conductance_m3_s_pa * feed_pa;
        const bool joined = pressed < at.sideFlow_m3_s && pressed >= lineBelow * at.sideFlow_m3_s;
        return { q, (joined ? 1 - at.exponent : 1) * q / feed_pa };
    }
    const auto it = std::upper_bound(m_logP.begin(), m_logP.end(), x);
    const auto i = static_cast<size_t>(it - m_logP.begin()) - 1;
    const double h = m_logP[i + 1] - m_logP[i], t = (x - m_logP[i]) / h;
    const double rise = m_logQ[i + 1] - m_logQ[i], a = m_slope[i] * h, b = m_slope[i + 1] * h;
    // Hermite's cubic about the left end.
    const double c2 = 3 * rise - 2 * a - b, c3 = a + b - 2 * rise;
    const double logQ = m_logQ[i] + t * (a + t * (c2 + t * c3));
    const double slope = (a + t * (2 * c2 + 3 * t * c3)) / h;
    const double q = std::exp(logQ);
    return { q, slope * q / feed_pa };
}

double WarmCurve::rise_k(double feed_pa) const
{
    const double x = feed_pa > 0 ? std::log(feed_pa) : m_logP.front();
    if (x <= m_logP.front())
        return std::exp(m_logRise.front());
    if (x >= m_logP.back())
        return std::exp(m_logRise.back());
    const auto it = std::upper_bound(m_logP.begin(), m_logP.end(), x);
    const auto i = static_cast<size_t>(it - m_logP.begin()) - 1;
    const double t = (x - m_logP[i]) / (m_logP[i + 1] - m_logP[i]);
    return std::exp(m_logRise[i] + t * (m_logRise[i + 1] - m_logRise[i]));
}

WarmFilm warmFilm(const FilmBearing &bearing, const Running &running, double feed_pa,
                  double supply_c, const FilmOilAt &oilAt)
{
    WarmFilm out {};
    const auto miss = [&](double rise_k) {
        const FilmOilState oil = oilAt(supply_c + rise_k);
        out.at = bearing.at(running, oil.viscosity_pa_s);
        out.flow_m3_s = fedFlow_m3_s(out.at, feed_pa);
        out.outlet_rise_k = out.at.loss_w / (oil.density_kg_m3 * oilHeat_j_kg_k * out.flow_m3_s);
        return filmWarmth * out.outlet_rise_k - rise_k;
    };
    out.rise_k = filmRiseMost_k;
    out.capped = miss(filmRiseMost_k) > 0;
    if (!out.capped) {
        std::uintmax_t most = 60;
        const auto root = boost::math::tools::toms748_solve(
            miss, 0.0, filmRiseMost_k, boost::math::tools::eps_tolerance<double>(30), most);
        out.rise_k = (root.first + root.second) / 2;
        miss(out.rise_k);
    }
    const FilmPoint &f = out.at.film;
    out.smallestFilm_m = running.clearance.value_m * (1 - f.eccentricityRatio);
    const double lands = bearing.fullGroove() ? 2 : 1;
    out.peak_pa = running.load_n / lands
        / (bearing.bearing().journalDiameter_m * bearing.filmLength_m()) / f.pressureRatio;
    return out;
}

} // namespace mildpath
