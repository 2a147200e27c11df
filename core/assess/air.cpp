// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/air.h"

#include "assess/airjudge.h"
#include "quantity/rounding.h"
#include "sump/level.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double degree = pi / 180;

} // namespace

Profile profileOf(const std::vector<PanPoint> &points)
{
    Profile out;
    out.reserve(points.size());
    for (const PanPoint &p : points)
        out.push_back({ p.x_mm * 1e-3, p.z_mm * 1e-3 });
    return out;
}

namespace {

/// The way the pan's own section looks.
std::optional<PanWay> ownWay(const Sump &sump)
{
    if (!sump.along.empty() && sump.own("pan_width_mm"))
        return PanWay::Along;
    if (!sump.across.empty() && sump.own("pan_length_mm"))
        return PanWay::Across;
    return std::nullopt;
}

void addSweeps(const Sump &s, PanWay way, HungSection &out)
{
    const auto z = s.metres("crank_z_mm"), r = s.metres("sweep_radius_mm");
    if (z && r) {
        const auto from = s.metres("crank_from_mm"), to = s.metres("crank_to_mm");
        if (way == PanWay::Across)
            out.sweeps.push_back({ { s.metres("crank_across_mm").value_or(0), *z }, *r });
        else if (from && to)
            // Seen from the side the row of circles is a band; its two lower corners matter.
            out.sweeps.insert(out.sweeps.end(),
                              { { { *from, *z - *r }, 0 }, { { *to, *z - *r }, 0 } });
    }
    const auto shaftZ = s.metres("shaft_z_mm"), shaftR = s.metres("shaft_radius_mm");
    if (shaftZ && shaftR && way == PanWay::Across)
        out.sweeps.push_back({ { s.metres("shaft_across_mm").value_or(0), *shaftZ }, *shaftR });
}

} // namespace

std::optional<PanPrism> panOf(const Sump &sump)
{
    const auto way = ownWay(sump);
    if (!way)
        return std::nullopt;
    return PanPrism { profileOf(sump.section(*way)),
                      *sump.metres(*way == PanWay::Along ? "pan_width_mm" : "pan_length_mm") };
}

std::optional<double> pickupGap_m(const Build &build)
{
    const Stop *pickup = build.engine.ofKind(StopKind::Pickup);
    const double gap = pickup ? pickup->value("pickup_gap_mm") : 0;
    return gap > 0 ? std::optional(gap * 1e-3) : std::nullopt;
}

std::optional<HungSection> sectionOf(const Build &build, PanWay way)
{
    const Sump &s = build.sump;
    if (s.section(way).empty())
        return std::nullopt;
    HungSection out;
    out.profile = profileOf(s.section(way));
    out.slice = ownWay(s) != way;
    const auto x = s.metres(way == PanWay::Along ? "pickup_along_mm" : "pickup_across_mm");
    const auto floor = x ? floorAt_m(out.profile, *x) : std::nullopt;
    if (!floor)
        return std::nullopt;
    out.mouth = { *x, *floor + pickupGap_m(build).value_or(0) };
    addSweeps(s, way, out);
    return out;
}

Result<TurnedOil> turnOil(const PanPrism &pan, const HungSection &section, const TurnWay &turn,
                          double volume_m3)
{
    const auto tilt = surfaceTilt_rad(turn.accel_g, turn.incline_rad);
    if (!tilt)
        return tl::unexpected(tilt.error());
    const auto surface = surfaceIn(pan, section, *tilt, volume_m3);
    if (!surface)
        return tl::unexpected(surface.error());
    TurnedOil out { *surface, surface->depthOf_m(section.mouth), 1e9 };
    for (const Sweep &w : section.sweeps)
        out.clearance_m = std::min(out.clearance_m, clearance_m(*surface, w));
    return out;
}

const AirRow *AirReport::row(std::string_view id) const
{
    const auto it
        = std::find_if(rows.begin(), rows.end(), [&](const AirRow &r) { return r.id == id; });
    return it == rows.end() ? nullptr : &*it;
}

const AirLevel *AirReport::level(std::string_view id) const
{
    const auto it
        = std::find_if(levels.begin(), levels.end(), [&](const AirLevel &l) { return l.id == id; });
    return it == levels.end() ? nullptr : &*it;
}

const AirCase *AirReport::find(std::string_view id) const
{
    const auto it
        = std::find_if(cases.begin(), cases.end(), [&](const AirCase &c) { return c.id == id; });
    return it == cases.end() ? nullptr : &*it;
}

const AirRow *AirReport::leading() const
{
    for (const AirState s : { AirState::High, AirState::Watch })
        for (const AirRow &r : rows)
            if (r.state == s)
                return &r;
    return nullptr;
}

AirJudge::AirJudge(const Build &build, const Operating &operating)
    : m_build(build)
    , m_sump(build.sump)
    , m_operating(operating)
    , m_solved(!operating.unsolved)
    , m_dry(build.engine.ofKind(StopKind::Tank) != nullptr)
    , m_along(sectionOf(build, PanWay::Along))
    , m_across(sectionOf(build, PanWay::Across))
    , m_pan(panOf(build.sump))
{
    const auto line = waltherLine(build.oil.oil.kv40_mm2_s, build.oil.oil.kv100_mm2_s);
    if (line)
        m_oil = *line;
}

AirReport AirJudge::run()
{
    m_out.problem = whatIsMissing();
    holdUps();
    if (m_dry) {
        tank();
    } else if (m_pan && !m_out.problem) {
        levels();
        turns();
        if (!m_out.problem && pickupGap_m(m_build)) {
            window();
            baffle();
        }
    }
    rows();
    std::vector<AirState> states;
    for (const AirRow &r : m_out.rows)
        states.push_back(r.state);
    m_out.overall = overallState(states);
    m_out.foreign = foreignState(m_sump.coolant) == AirState::High;
    return std::move(m_out);
}

std::optional<Error> AirJudge::whatIsMissing() const
{
    const auto missing = [](const char *key, const char *what) {
        return Error { std::string("/sump/values/") + key, what };
    };
    if (!m_sump.own("fill_l"))
        return missing("fill_l", "how much oil is poured in is not said");
    if (m_dry) {
        for (const char *key : { "tank_diameter_mm", "tank_height_mm" })
            if (!m_sump.own(key))
                return missing(key, "the tank is not measured");
        return std::nullopt;
    }
    if (!m_pan)
        return Error { "/sump/along_mm", "the pan's section and its width are not known" };
    if (!m_along && !m_across)
        return missing("pickup_along_mm", "where the pickup stands is not said");
    return std::nullopt;
}

OilState AirJudge::oilAt(double oil_c) const
{
    return oilState(m_oil, m_build.oil.oil.rho15_kg_m3, { oil_c });
}

double AirJudge::nuAt(double oil_c) const
{
    return kinematicViscosity_mm2_s(m_oil, { oil_c }) * 1e-6;
}

double AirJudge::expansion(double oil_c) const
{
    return volumeAt_m3(1, *m_sump.value("fill_c"), oil_c);
}

double AirJudge::throughput(const OperatingResult &at) const
{
    // The relief lets oil back to the pump's inlet: what is drawn from the sump passes the pickup.
    if (const Stop *pickup = m_build.engine.ofKind(StopKind::Pickup))
        for (auto e = pickup->elements.rbegin(); e != pickup->elements.rend(); ++e)
            if (const auto it = at.elementFlow_m3_s.find(*e); it != at.elementFlow_m3_s.end())
                return it->second;
    return at.pumpFlow_m3_s - at.reliefFlow_m3_s;
}

double AirJudge::headFlow(const OperatingResult &at) const
{
    if (const auto own = m_sump.own("head_flow_l_min"))
        return *own / litresPerMinute;
    double out = 0;
    bool pushrods = false;
    for (const Stop &s : m_build.engine.stops)
        for (const std::string &id : s.elements)
            if (const Element *e = m_build.circuit.find(id); e && e->to == sumpNode) {
                const bool rod = s.kind == StopKind::Lifter && e->kind == ElementKind::Pipe;
                pushrods = pushrods || rod;
                if (rod || s.kind == StopKind::Rocker || s.kind == StopKind::Phaser)
                    if (const auto it = at.elementFlow_m3_s.find(id);
                        it != at.elementFlow_m3_s.end())
                        out += it->second;
            }
    if (pushrods)
        return out;
    // Overhead camshafts: their bearings drain through the head too.
    for (const Stop &s : m_build.engine.stops)
        if (s.kind == StopKind::CamBearing || s.kind == StopKind::Lifter)
            for (const std::string &id : s.elements)
                if (const Element *e = m_build.circuit.find(id); e && e->to == sumpNode)
                    if (const auto it = at.elementFlow_m3_s.find(id);
                        it != at.elementFlow_m3_s.end())
                        out += it->second;
    return out;
}

std::optional<DrainBack> AirJudge::drain(double oil_c, bool withCrankcase) const
{
    const auto hole = m_sump.own("drain_hole_mm"), count = m_sump.own("drain_holes"),
               area = m_sump.own("pool_area_mm2");
    if (!hole || !count || !area)
        return std::nullopt;
    const OilState oil = oilAt(oil_c);
    return DrainBack { .hole_m = *hole * 1e-3,
                       .count = *count,
                       .length_m = *m_sump.value("drain_length_mm") * 1e-3,
                       .drop_m = *m_sump.value("drain_drop_mm") * 1e-3,
                       .pool_m2 = *area * 1e-6,
                       .nu_m2_s = nuAt(oil_c),
                       .density_kg_m3 = oil.density_kg_m3,
                       .back_pa
                       = withCrankcase ? m_sump.value("crankcase_kpa").value_or(0) * 1e3 : 0 };
}

double AirJudge::heldAt(const OperatingResult &at, double oil_c) const
{
    double out = *m_sump.value("in_flight_l") * 1e-3;
    if (const auto d = drain(oil_c))
        out += d->steadyDepth_m(headFlow(at)) * d->pool_m2;
    if (const auto wall = m_sump.own("wall_area_m2"))
        out += wallFilm_m3(throughput(at), nuAt(oil_c), *m_sump.value("wall_width_m"), *wall);
    return out;
}

void AirJudge::holdUps()
{
    const auto add = [&](const char *id, const char *name, std::optional<double> m3, Phrase why,
                         bool still = false) {
        m_out.held.push_back({ id, name, m3, std::move(why), still });
    };
    const auto still = m_sump.own("static_holdup_l");
    add("still", "filter, cooler, locked passages",
        still ? std::optional(*still * 1e-3) : std::nullopt,
        still ? "never comes back at rest" : "measure: fill to the mark, run, stop, fill again",
        true);
    if (!m_solved) {
        m_out.heldKnown = false;
        return;
    }
    const OperatingResult &most = m_operating.mostSpeed;
    const double hot = m_build.use.hotOil_c;
    const auto d = drain(hot);
    const double supply = headFlow(most);
    if (d) {
        const double depth = d->steadyDepth_m(supply);
        add("heads", "pool in the heads", depth * d->pool_m2,
            { "air.pool",
              "{0} deep under {1} at {2}",
              { asLength(depth * 1e3, 0), asFlow(supply, 1), asSpeed(most.rpm) } });
    } else {
        add("heads", "pool in the heads", std::nullopt,
            "drain holes and the heads' floor are not measured");
    }
    const auto wall = m_sump.own("wall_area_m2");
    add("walls", "film on the walls",
        wall ? std::optional(
            wallFilm_m3(throughput(most), nuAt(hot), *m_sump.value("wall_width_m"), *wall))
             : std::nullopt,
        wall ? "running down, hot" : "the wetted walls are not measured");
    add("flight", "in the air as spray", *m_sump.value("in_flight_l") * 1e-3,
        "no model: what you say");
    m_out.heldRunning_m3 = heldAt(most, hot);
    m_out.heldKnown = d.has_value() && wall.has_value();
}

double AirJudge::volumeIn(double oil_c, double held_m3) const
{
    const double fill = *m_sump.own("fill_l") * 1e-3;
    return std::max(0.0,
                    fill * expansion(oil_c) - m_sump.own("static_holdup_l").value_or(0) * 1e-3
                        - held_m3 + *m_sump.value("displaced_l") * 1e-3);
}

/// Where the fill is while it runs: the parts make the whole.
Phrase AirJudge::balanceOf(double fill_m3, double oil_c) const
{
    Phrase out { "air.fill", "fill {0}", { asVolume(fill_m3 * 1e3) } };
    const auto part = [&](double m3, Phrase text) {
        if (std::abs(m3) >= 0.005e-3)
            append(out, text, "{*| · }");
    };
    const double grown = fill_m3 * (expansion(oil_c) - 1);
    const double still = m_sump.own("static_holdup_l").value_or(0) * 1e-3;
    const double displaced = *m_sump.value("displaced_l") * 1e-3;
    part(grown, { "air.fill_grown", "{0} grown by heat", { asVolume(grown * 1e3) } });
    part(displaced,
         { "air.fill_displaced", "{0} pushed aside by parts", { asVolume(displaced * 1e3) } });
    part(still,
         { "air.fill_still", "{0} stays in filter and passages", { asVolume(still * 1e3) } });
    part(m_out.heldRunning_m3,
         { "air.fill_held", "{0} held up running", { asVolume(m_out.heldRunning_m3 * 1e3) } });
    const double left = volumeIn(oil_c, m_out.heldRunning_m3);
    append(out,
           { "air.fill_left",
             m_out.heldKnown ? "{0} left here" : "at most {0} left here",
             { asVolume(left * 1e3) } },
           "{*| · }");
    return out;
}

void AirJudge::levels()
{
    const double fill = *m_sump.own("fill_l") * 1e-3;
    const double fill_c = *m_sump.value("fill_c"), hot = m_build.use.hotOil_c;
    const double displaced = *m_sump.value("displaced_l") * 1e-3;
    const auto add = [&](const char *id, const char *name, double volume, Phrase note = {}) {
        const auto surface = surfaceOver(m_pan->profile, 0, volume / m_pan->width_m);
        if (surface)
            m_out.levels.push_back({ id, name, volume, surface->offset_m, std::move(note) });
        else if (!m_out.problem)
            m_out.problem = Error { "/sump/values/fill_l",
                                    { "air.overfull",
                                      "{0}: {1} is more than the section holds",
                                      { name, asVolume(volume * 1e3) } } };
    };
    add("rest_cold", "at rest, as filled", volumeIn(fill_c, 0));
    add("rest_hot", "at rest, hot", volumeIn(hot, 0));
    if (m_solved) {
        add("idle", "hot idle", volumeIn(hot, heldAt(m_operating.hotIdle, hot)));
        add("running", "running, highest speed", volumeIn(hot, m_out.heldRunning_m3),
            m_out.heldKnown ? "" : "at most: some oil in circulation is not known");
    }
    if (m_solved)
        m_out.balance = balanceOf(fill, hot);
    add("bench", "bare pan with the fill", fill,
        "no parts in it (reads low), nothing held up (reads high)");
    const auto below = [&](const char *id, const char *name, const char *key) {
        const auto z = m_sump.own(key);
        if (!z)
            return;
        const double volume = areaBelow_m2(m_pan->profile, { 0, *z * 1e-3 }) * m_pan->width_m;
        const double free = std::max(0.0, volume - (key[0] == 'd' ? 0 : displaced));
        m_out.levels.push_back({ id, name, free, *z * 1e-3, "" });
    };
    below("stick_low", "low mark of the stick", "stick_low_mm");
    below("stick_high", "high mark of the stick", "stick_high_mm");
    below("drained", "left after draining", "drain_lip_mm");
}

double AirJudge::allowanceAt(double rpm, double gap_m) const
{
    return windAt(rpm, gap_m).allowance_m;
}

Windage AirJudge::windAt(double rpm, double gap_m) const
{
    return windage({ .radius_m = m_sump.own("sweep_radius_mm").value_or(0) * 1e-3,
                     .speed_rad_s = rpm * pi / 30,
                     .gap_m = gap_m,
                     .density_kg_m3 = oilAt(m_build.use.hotOil_c).density_kg_m3,
                     .coupling = *m_sump.value("coupling"),
                     .trayOpen = *m_sump.value("tray_open_share"),
                     .ripple_m = *m_sump.value("ripple_mm") * 1e-3 });
}

Submergence AirJudge::wantedAt(const OperatingResult &at, double oil_c) const
{
    const Stop *pickup = m_build.engine.ofKind(StopKind::Pickup);
    const double bore = pickup ? pickup->value("pickup_bore_mm", 16) : 16;
    const double mouth = pickup ? pickup->value("pickup_mouth_mm", bore) : bore;
    return submergence(throughput(at), mouth * 1e-3, nuAt(oil_c));
}

void AirJudge::turns()
{
    if (!m_solved || m_out.problem)
        return;
    const Use &use = m_build.use;
    const double hot = use.hotOil_c, fill_c = *m_sump.value("fill_c");
    const double along = use.incline_deg * degree, heel = use.heel_deg * degree;
    const double idleHeld = heldAt(m_operating.hotIdle, hot), held = m_out.heldRunning_m3;
    const PanWay level = m_along ? PanWay::Along : PanWay::Across;
    const double stand = level == PanWay::Along ? along : 0;
    const auto add = [&](const char *id, std::string name, PanWay way, double g, double incline,
                         double oil_c, double heldNow, const OperatingResult &at) {
        const auto &section = way == PanWay::Along ? m_along : m_across;
        if (!section)
            return;
        AirCase c { id, std::move(name), way, g, incline, oil_c, heldNow };
        c.volume_m3 = volumeIn(oil_c, heldNow);
        const auto oil = turnOil(*m_pan, *section, { way, g, incline }, c.volume_m3);
        if (!oil) {
            if (!m_out.problem)
                m_out.problem = Error { oil.error().place == "incline_deg" ? "/use/incline_deg"
                                                                           : "/sump/values/fill_l",
                                        named(c.name, oil.error().message) };
            return;
        }
        c.surface = oil->surface;
        c.submergence_m = oil->submergence_m;
        c.clearance_m = oil->clearance_m;
        c.wanted = wantedAt(at, oil_c);
        c.wind = windAt(at.rpm, c.clearance_m);
        if (g != 0 && pickupGap_m(m_build)) {
            c.wanted_g = limitG(*section, c, c.wanted.required_m);
            c.uncovers_g = limitG(*section, c, c.wanted.dip_m);
        }
        m_out.cases.push_back(std::move(c));
    };
    const OperatingResult &idle = m_operating.hotIdle, &most = m_operating.mostSpeed;
    add("start", "before anything is held up", level, 0, stand, fill_c, 0, idle);
    add("idle", "hot idle", level, 0, stand, hot, idleHeld, idle);
    add("running", "highest speed", level, 0, stand, hot, held, most);
    const auto g = [](double v) { return formatPlain(v, 2) + " g"; };
    if (use.turn_g > 0) {
        add("turn_left", "left turn, " + g(use.turn_g), PanWay::Across, use.turn_g, 0, hot, held,
            most);
        add("turn_right", "right turn, " + g(use.turn_g), PanWay::Across, -use.turn_g, 0, hot, held,
            most);
    }
    if (use.braking_g > 0)
        add("braking", "braking, " + g(use.braking_g), PanWay::Along, -use.braking_g, along, hot,
            held, most);
    if (use.accelerating_g > 0)
        add("accelerating", "accelerating, " + g(use.accelerating_g), PanWay::Along,
            use.accelerating_g, along, hot, held, most);
    if (heel > 0) {
        const std::string by = ", " + formatPlain(use.heel_deg, 0) + "°";
        add("heel_left", "leaning left" + by, PanWay::Across, 0, -heel, hot, held, most);
        add("heel_right", "leaning right" + by, PanWay::Across, 0, heel, hot, held, most);
    }
    slosh();
}

void AirJudge::slosh()
{
    if (const AirLevel *running = m_out.level("running")) {
        const auto &wide = m_across ? m_across : m_along;
        double low = 1e9, high = -1e9;
        for (const SectionPoint p : wide->profile) {
            low = std::min(low, p.x_m);
            high = std::max(high, p.x_m);
        }
        if (running->level_m > 0)
            m_out.slosh_s = sloshPeriod_s(high - low, running->level_m);
    }
}

std::optional<double> AirJudge::limitG(const HungSection &section, const AirCase &c,
                                       double depth_m) const
{
    constexpr double most_g = 3;
    const double sign = c.accel_g < 0 ? -1 : 1;
    const auto covered = [&](double g) {
        const auto oil = turnOil(*m_pan, section, { c.way, sign * g, c.incline_rad }, c.volume_m3);
        return oil && oil->submergence_m >= depth_m;
    };
    if (covered(most_g))
        return std::nullopt;
    double low = 0, high = most_g;
    for (int i = 0; i < 12; ++i) {
        const double middle = (low + high) / 2;
        (covered(middle) ? low : high) = middle;
    }
    return low;
}

void AirJudge::window()
{
    if (m_out.cases.empty())
        return;
    const FillTaken taken { m_sump.own("static_holdup_l").value_or(0) * 1e-3,
                            *m_sump.value("displaced_l") * 1e-3 };
    std::vector<FillCase> wanted, edge;
    for (const AirCase &c : m_out.cases) {
        const HungSection &s = c.way == PanWay::Along ? *m_along : *m_across;
        // What the wind may pile up depends on the gap it is given: where they agree.
        const double rpm
            = c.id == "start" || c.id == "idle" ? m_build.use.hotIdle_rpm : m_build.use.most_rpm;
        double gap = allowanceAt(rpm, 0);
        for (int i = 0; i < 8; ++i)
            gap = allowanceAt(rpm, gap);
        FillCase one { &s, c.surface.tilt_rad, c.held_m3, expansion(c.oil_c), c.wanted.required_m,
                       gap };
        wanted.push_back(one);
        one.submergence_m = c.wanted.dip_m;
        one.allowance_m = 0;
        edge.push_back(one);
    }
    for (size_t i = 0; i < wanted.size(); ++i)
        m_out.cases[i].limits = limitsOf(*m_pan, taken, wanted[i]);
    m_out.window = fillWindow(*m_pan, taken, wanted);
    m_out.edge = fillWindow(*m_pan, taken, edge);
    m_out.leastName = m_out.cases[m_out.window->leastCase].name;
    m_out.mostName = m_out.cases[m_out.window->mostCase].name;
}

double AirJudge::inletGauge_pa(const OperatingResult &at) const
{
    for (const Element &e : m_build.circuit.elements)
        if (e.kind == ElementKind::Pump)
            if (const auto it = at.nodePressure_pa.find(e.from); it != at.nodePressure_pa.end())
                return it->second;
    return 0;
}

AirReport judgeAir(const Build &build, const Operating &operating)
{
    return AirJudge(build, operating).run();
}

} // namespace mildpath
