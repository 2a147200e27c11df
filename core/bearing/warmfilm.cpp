// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/filmchange.h"
#include "rules/rules.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>

namespace mildpath {
namespace {

/// Steps of the ladder: close together where engine bearings run.
const std::array<double, FilmOil::steps> ladder_k { filmRiseMost_k, 54, 37, 26,  18,
                                                    12.5,           8,  4,  1.2, 0.12 };

FeedShape shapeOf(const RunningBearing &b)
{
    const BearingFeed &f = b.feed;
    const double radius = b.journalDiameter_m / 2, extent = f.groove_deg * pi / 180;
    if (f.groove_deg <= 0)
        return FeedShape::hole(b.length_m, f.hole_m, f.inJournal);
    // An arc too short for the groove's formula is an axial groove.
    const bool isArc = radius * extent >= 0.35 * (b.length_m - f.grooveWidth_m);
    return isArc || f.grooveWidth_m <= 0
        ? FeedShape::groove(radius, b.length_m, f.grooveWidth_m, extent)
        : FeedShape::axialGroove(b.length_m, f.grooveWidth_m, radius * extent);
}

/// Viscosity between the steps of the ladder: a parabola of ln μ over the rise through three of
/// them.
double viscosityAt(const FilmOil &oil, double rise_k)
{
    size_t i = 1;
    while (i + 2 < FilmOil::steps && oil.rise_k[i] > rise_k)
        ++i;
    const double a = oil.rise_k[i - 1], b = oil.rise_k[i], c = oil.rise_k[i + 1], x = rise_k;
    return std::exp((x - b) * (x - c) / ((a - b) * (a - c)) * std::log(oil.viscosity_pa_s[i - 1])
                    + (x - a) * (x - c) / ((b - a) * (b - c)) * std::log(oil.viscosity_pa_s[i])
                    + (x - a) * (x - b) / ((c - a) * (c - b))
                        * std::log(oil.viscosity_pa_s[i + 1]));
}

/// As near to the corner a step of the ladder is left out.
constexpr double nearCorner = 0.03;

/// The flow that carries a film's loss off at this rise of the film.
double balancedFlow(const FilmAt &at, double density_kg_m3, double rise_k)
{
    return filmWarmth * at.loss_w / (density_kg_m3 * oilHeat_j_kg_k * rise_k);
}

} // namespace

FilmBearing::FilmBearing(const RunningBearing &b)
    : m_bearing(b)
    , m_filmLength_m(b.feed.groove_deg >= 360 ? (b.length_m - b.feed.grooveWidth_m) / 2
                                              : b.length_m)
    , m_line(m_filmLength_m / b.journalDiameter_m)
    , m_feed(shapeOf(b))
{
}

/// The eccentricity and the viscosity that belong to each other.
void FilmBearing::findFilm(FilmAt &out, double sommerfeldPerViscosity, double speed_m_s,
                           const FilmViscosity &oil) const
{
    // Begun as said, else from a gap such films often have.
    constexpr double usualGap = 0.4;
    out.viscosity_pa_s = oil.begin > 0 ? oil.begin * oil.still_pa_s
                                       : oil.at(speed_m_s / (usualGap * out.clearance_m));
    // Thinner oil lets the journal sink, which thins it further, by an eighth of it at most: each
    // round leaves an eighth of the one before, and the rest of the row is added at once.
    double before = 0; // ln μ
    for (int rounds = 0; rounds < 12 && oil.shear; ++rounds) {
        const double eccentricity
            = m_line.eccentricityAt(std::log(sommerfeldPerViscosity * out.viscosity_pa_s));
        const double asked = oil.at(filmShearRate_per_s(speed_m_s, out.clearance_m, eccentricity));
        const double change = std::log(asked / out.viscosity_pa_s);
        if (std::abs(change) < 1e-5)
            break;
        const double ratio = before != 0 ? change / before : 0;
        const bool row = ratio > 0 && ratio < 0.5;
        out.viscosity_pa_s *= std::exp(row ? change / (1 - ratio) : change);
        before = row ? 0 : change;
    }
    out.film = m_line.at(std::log(sommerfeldPerViscosity * out.viscosity_pa_s));
    out.shearRate_per_s
        = filmShearRate_per_s(speed_m_s, out.clearance_m, out.film.eccentricityRatio);
}

FilmAt FilmBearing::at(const Running &r, const FilmViscosity &oil, double rise_k) const
{
    const double radius = m_bearing.journalDiameter_m / 2;
    const double c = std::max(r.clearance.value_m + r.perFilmRise_m_per_k * rise_k, leastGap_m);
    const double lands = fullGroove() ? 2 : 1;
    const double turns = r.speed_rad_s / (2 * pi);
    // S = (r/c)² μ N D L/W of one land; without load as light as the table knows.
    const double load = std::max(r.load_n / lands, 1e-9);
    const double perViscosity
        = (radius / c) * (radius / c) * turns * 2 * radius * m_filmLength_m / load;
    const double speed = r.speed_rad_s * radius;
    FilmAt out {};
    out.clearance_m = c;
    findFilm(out, perViscosity, speed, oil);
    out.loss_w = lands * out.film.frictionOverPetroff * 2 * pi * out.viscosity_pa_s * r.speed_rad_s
        * r.speed_rad_s * radius * radius * radius * m_filmLength_m / c;
    // The widest film lies opposite the narrowest, that one the attitude past the load.
    const double fromWidest = m_bearing.feed.fromLoad_rad - out.film.attitude_rad - pi;
    out.conductance_m3_s_pa
        = m_feed.at({ c }, out.film.eccentricityRatio, fromWidest, oil.at(speed / c)).total()
        * m_bearing.feed.formFactor;
    out.exponent = m_feed.exponent();
    if (out.exponent > 0)
        out.sideFlow_m3_s = out.film.sideFlow * radius * c * turns * m_filmLength_m;
    return out;
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

FilmOil filmOil(double supply_c, const FilmOilAt &oilAt, const std::optional<ShearThinning> &shear)
{
    FilmOil out;
    out.supply_c = supply_c;
    if (shear && !shear->newtonian)
        out.shear = shear;
    for (size_t i = 0; i < FilmOil::steps; ++i) {
        out.rise_k[i] = ladder_k[i];
        const FilmOilState state = oilAt(supply_c + out.rise_k[i]);
        out.viscosity_pa_s[i] = state.viscosity_pa_s;
        out.density_kg_m3[i] = state.density_kg_m3;
    }
    return out;
}

WarmCurve::WarmCurve(const FilmBearing &bearing, const Running &running, const FilmOil &oil)
{
    const auto pressedAlone
        = [](const FilmAt &at, double flow) { return flow >= at.sideFlow_m3_s; };
    bool alone = false;
    double left = 0; // of the viscosity under shear
    for (size_t i = 0; i < FilmOil::steps; ++i) {
        const FilmAt at
            = bearing.at(running, { oil.viscosity_pa_s[i], oil.thinning(), left }, oil.rise_k[i]);
        left = at.viscosity_pa_s / oil.viscosity_pa_s[i];
        const double flow = balancedFlow(at, oil.density_kg_m3[i], oil.rise_k[i]);
        const bool now = pressedAlone(at, flow);
        if (i > 0 && now && !alone && m_corner == most && at.sideFlow_m3_s > 0)
            addCorner(bearing, running, oil, i);
        alone = now;
        // A step at the corner itself adds nothing but a slope that means nothing.
        if (m_corner == most || oil.rise_k[i] < m_nodes[m_corner].rise_k * (1 - nearCorner))
            add(at, oil.rise_k[i], flow);
        if (i == 0)
            m_hottest = at;
        if (i + 1 == FilmOil::steps)
            m_coolest = at;
    }
    keepCoolest();
    findSlopes();
}

/// Between this step of the ladder and the last lies the corner.
void WarmCurve::addCorner(const FilmBearing &bearing, const Running &running, const FilmOil &oil,
                          size_t step)
{
    const double rho = oil.density_kg_m3[step];
    FilmAt there {};
    double flow = 0, left = 0;
    const auto beyond = [&](double logRise) {
        const double rise = std::exp(logRise), still = viscosityAt(oil, rise);
        there = bearing.at(running, { still, oil.thinning(), left }, rise);
        left = there.viscosity_pa_s / still;
        flow = balancedFlow(there, rho, rise);
        return flow / there.sideFlow_m3_s - 1;
    };
    double cool = std::log(oil.rise_k[step]), warm = std::log(oil.rise_k[step - 1]);
    const double atCool = beyond(cool), atWarm = beyond(warm);
    if (atCool > 0 && atWarm < 0) {
        std::uintmax_t tries = 40;
        const auto root = boost::math::tools::toms748_solve(
            beyond, cool, warm, atCool, atWarm, boost::math::tools::eps_tolerance<double>(14),
            tries);
        cool = root.first;
    }
    beyond(cool);
    const double rise = std::exp(cool);
    if (m_count > 1 && m_nodes[m_count - 1].rise_k < rise * (1 + nearCorner))
        --m_count;
    m_corner = m_count;
    add(there, rise, flow);
}

void WarmCurve::add(const FilmAt &at, double rise_k, double flow)
{
    m_nodes[m_count++] = { std::log(feedFor_pa(at, flow)), std::log(flow), rise_k };
}

/// Less warmth wants more oil, and more oil more pressure, but for rounding: until a journal that
/// grows shuts its own gap. Beyond, the same pressure has a cooler balance, which is the one an
/// engine comes to as it warms; below the least pressure that has one the film runs away, as hot
/// as is told.
void WarmCurve::keepCoolest()
{
    constexpr double rounding = 1e-4, apart = 1e-6, gap = 1e-3;
    size_t coolest = m_count - 1;
    for (; coolest > 0; --coolest) {
        Node &hotter = m_nodes[coolest - 1];
        const Node &here = m_nodes[coolest];
        if (hotter.logP > here.logP + rounding)
            break;
        hotter.logP = std::min(hotter.logP, here.logP - apart);
        hotter.logQ = std::min(hotter.logQ, here.logQ - apart);
    }
    if (coolest == 0)
        return;
    const double logP = m_nodes[coolest].logP - gap;
    m_nodes[0] = { logP,
                   std::min(std::log(fedFlow_m3_s(m_hottest, std::exp(logP))),
                            m_nodes[coolest].logQ - apart),
                   m_nodes[0].rise_k };
    std::move(m_nodes.begin() + static_cast<std::ptrdiff_t>(coolest),
              m_nodes.begin() + static_cast<std::ptrdiff_t>(m_count), m_nodes.begin() + 1);
    m_count -= coolest - 1;
    m_corner = m_corner == most || m_corner < coolest ? most : m_corner - (coolest - 1);
}

void WarmCurve::findSlopes()
{
    const auto step = [&](size_t i) { return m_nodes[i + 1].logP - m_nodes[i].logP; };
    const auto rate = [&](size_t i) { return (m_nodes[i + 1].logQ - m_nodes[i].logQ) / step(i); };
    for (size_t i = 0; i < m_count; ++i) {
        Node &node = m_nodes[i];
        const bool first = i == 0, last = i + 1 == m_count;
        if (first || last || i == m_corner) {
            node.in = first ? rate(0) : rate(i - 1);
            node.out = last ? rate(i - 1) : rate(i);
            continue;
        }
        // Harmonic means keep the cubic monotone (Fritsch, Butland 1984).
        const double w1 = 2 * step(i) + step(i - 1), w2 = step(i) + 2 * step(i - 1);
        node.in = node.out = (w1 + w2) / (w1 / rate(i - 1) + w2 / rate(i));
    }
}

/// The node before a pressure; null outside the ladder.
const WarmCurve::Node *WarmCurve::before(double logP) const
{
    const Node *end = m_nodes.data() + m_count;
    if (!(logP >= m_nodes[0].logP) || logP >= (end - 1)->logP)
        return nullptr;
    return std::upper_bound(m_nodes.data(), end, logP,
                            [](double p, const Node &n) { return p < n.logP; })
        - 1;
}

ValueSlope WarmCurve::flow_m3_s(double feed_pa) const
{
    if (feed_pa <= 0)
        return { m_hottest.conductance_m3_s_pa * feed_pa, m_hottest.conductance_m3_s_pa };
    const double x = std::log(feed_pa);
    const Node *node = before(x);
    if (!node) {
        // Past the ladder the warmth stays.
        const FilmAt &at = x < m_nodes[0].logP ? m_hottest : m_coolest;
        const double q = fedFlow_m3_s(at, feed_pa), pressed = at.conductance_m3_s_pa * feed_pa;
        const bool joined = pressed < at.sideFlow_m3_s && pressed >= lineBelow * at.sideFlow_m3_s;
        return { q, (joined ? 1 - at.exponent : 1) * q / feed_pa };
    }
    const Node &next = node[1];
    const double h = next.logP - node->logP, t = (x - node->logP) / h;
    const double rise = next.logQ - node->logQ, a = node->out * h, b = next.in * h;
    // Hermite's cubic about the left end.
    const double c2 = 3 * rise - 2 * a - b, c3 = a + b - 2 * rise;
    const double logQ = node->logQ + t * (a + t * (c2 + t * c3));
    const double slope = (a + t * (2 * c2 + 3 * t * c3)) / h;
    const double q = std::exp(logQ);
    return { q, slope * q / feed_pa };
}

double WarmCurve::rise_k(double feed_pa) const
{
    const double x = feed_pa > 0 ? std::log(feed_pa) : m_nodes[0].logP;
    const Node *node = before(x);
    if (!node)
        return m_nodes[x <= m_nodes[0].logP ? 0 : m_count - 1].rise_k;
    const double t = (x - node->logP) / (node[1].logP - node->logP);
    return node->rise_k * std::pow(node[1].rise_k / node->rise_k, t);
}

namespace {

/// Flow with its warmth balanced, a few steps from a warmth near it.
double flowNear_m3_s(const FilmBearing &bearing, const Running &running, double feed_pa,
                     double near_k, const FilmOil &oil)
{
    double flow = 0, left = 0;
    const auto miss = [&](double rise_k) {
        const double still = viscosityAt(oil, rise_k);
        const FilmAt at = bearing.at(running, { still, oil.thinning(), left }, rise_k);
        left = at.viscosity_pa_s / still;
        flow = fedFlow_m3_s(at, feed_pa);
        // The density hardly counts here, and for both bearings alike.
        const double target
            = filmWarmth * at.loss_w / (oil.density_kg_m3.front() * oilHeat_j_kg_k * flow);
        return std::min(target, filmRiseMost_k) - rise_k;
    };
    const double first = miss(near_k);
    // The balance falls about twice as fast as the rise grows; a secant does the rest.
    const double next_k = std::clamp(near_k + first / 2, 0.01, filmRiseMost_k);
    if (next_k == near_k)
        return flow;
    const double second = miss(next_k);
    if (second != first)
        miss(std::clamp(next_k - second * (next_k - near_k) / (second - first), 0.01,
                        filmRiseMost_k));
    return flow;
}

} // namespace

double flowChange_m3_s(const FilmBearing &bearing, const Running &now, const Running &other,
                       double feed_pa, double near_k, const FilmOil &oil)
{
    return flowNear_m3_s(bearing, other, feed_pa, near_k, oil)
        - flowNear_m3_s(bearing, now, feed_pa, near_k, oil);
}

double flowChangeByOil_m3_s(const FilmBearing &bearing, const Running &running, double feed_pa,
                            double near_k, const FilmOil &now, const FilmOil &other)
{
    return flowNear_m3_s(bearing, running, feed_pa, near_k, other)
        - flowNear_m3_s(bearing, running, feed_pa, near_k, now);
}

WarmFilm warmFilm(const FilmBearing &bearing, const Running &running, double feed_pa,
                  double supply_c, const FilmOilAt &oilAt, const ShearThinning *shear)
{
    WarmFilm out {};
    double left = 0;
    const auto miss = [&](double rise_k) {
        const FilmOilState oil = oilAt(supply_c + rise_k);
        out.at = bearing.at(running, { oil.viscosity_pa_s, shear, left }, rise_k);
        left = out.at.viscosity_pa_s / oil.viscosity_pa_s;
        out.flow_m3_s = fedFlow_m3_s(out.at, feed_pa);
        out.outlet_rise_k = out.at.loss_w / (oil.density_kg_m3 * oilHeat_j_kg_k * out.flow_m3_s);
        return filmWarmth * out.outlet_rise_k - rise_k;
    };
    // The coolest balance: the one an engine comes to as it warms.
    double cool = 0, tooMuch = 0, tooLittle = 0;
    out.rise_k = filmRiseMost_k;
    out.capped = true;
    for (size_t i = ladder_k.size(); i-- > 0 && out.capped;) {
        const double at = miss(ladder_k[i]);
        out.capped = at > 0;
        (out.capped ? cool : out.rise_k) = ladder_k[i];
        (out.capped ? tooMuch : tooLittle) = at;
    }
    if (!out.capped) {
        if (cool == 0)
            tooMuch = miss(cool);
        std::uintmax_t most = 60;
        const auto root = boost::math::tools::toms748_solve(
            miss, cool, out.rise_k, tooMuch, tooLittle,
            boost::math::tools::eps_tolerance<double>(30), most);
        out.rise_k = (root.first + root.second) / 2;
        miss(out.rise_k);
    }
    const FilmPoint &f = out.at.film;
    out.smallestFilm_m = out.at.clearance_m * (1 - f.eccentricityRatio);
    const double lands = bearing.fullGroove() ? 2 : 1;
    out.peak_pa = running.load_n / lands
        / (bearing.bearing().journalDiameter_m * bearing.filmLength_m()) / f.pressureRatio;
    return out;
}

} // namespace mildpath
