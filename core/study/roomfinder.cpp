// SPDX-License-Identifier: GPL-3.0-or-later
// Room to choose: its edges, and what would open it.
#include "study/room.h"

#include "assess/circuitof.h"
#include "assess/operatingmodel.h"
#include "oil/grades.h"
#include "study/contacts.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <map>

namespace mildpath {
namespace {

constexpr double tightest_um = 1; ///< the narrowest mean clearance looked at
constexpr double sameEdge = 1e-3; ///< edges are found to this share
constexpr double further = 1.25; ///< each step outwards is so much longer

/// The widest mean at which what is spared is still 0 or more. It falls as bearings widen.
/// @param spare  a logarithm: of what there is over what is needed
/// @return absent where it is spared up to mostRoom_um; 0 where it never is
std::optional<double> widestWhere(const std::function<double(double um)> &spare, double from_um,
                                  double step)
{
    double low = std::clamp(from_um, tightest_um, mostRoom_um), high = low;
    double atLow = spare(low), atHigh = atLow;
    while (atHigh >= 0) {
        if (high >= mostRoom_um)
            return std::nullopt;
        low = high;
        atLow = atHigh;
        high = std::min(mostRoom_um, high * step);
        step *= further;
        atHigh = spare(high);
    }
    while (atLow < 0) {
        if (low <= tightest_um)
            return 0;
        high = low;
        atHigh = atLow;
        low = std::max(tightest_um, low / step);
        step *= further;
        atLow = spare(low);
    }
    std::uintmax_t most = 30;
    const auto [a, b] = boost::math::tools::toms748_solve(
        [&](double ln) { return spare(std::exp(ln)); }, std::log(low), std::log(high), atLow,
        atHigh, [](double x, double y) { return std::abs(x - y) < sameEdge; }, most);
    return std::exp((a + b) / 2);
}

/// A family moved as a whole, solved at each mean clearance once.
class MovedFamily
{
public:
    MovedFamily(const Build &build, const std::vector<GaugedSize> &sizes, std::string family,
                SolveState from)
        : m_build(build)
        , m_sizes(sizes)
        , m_family(std::move(family))
        , m_state(std::move(from))
    {
        const auto mean = meanOf(sizes, m_family, allAt(20));
        m_here_um = mean.value_or(0);
    }

    double here_um() const { return m_here_um; }
    const SolveState &state() const { return m_state; }
    const std::optional<Error> &failed() const { return m_failed; }

    /// Gauge and weakest stop at hot idle.
    const OperatingResult *idle(double mean_um)
    {
        if (const auto it = m_idle.find(mean_um); it != m_idle.end())
            return &it->second;
        OperatingModel *model = at(mean_um);
        const auto r = model
            ? noted(model->at(m_build.use.hotIdle_rpm, OperatingModel::Detail::Values))
            : std::nullopt;
        if (!r)
            return nullptr;
        m_state = model->state();
        return &m_idle.emplace(mean_um, *r).first->second;
    }
    /// Of gauge over what is asked of it, in logarithm.
    double gaugeSpare(double mean_um, double least_pa)
    {
        const OperatingResult *r = idle(mean_um);
        return r ? std::log(std::max(1.0, r->gauge.value_pa) / least_pa) : 0;
    }
    /// Of the weakest stop over what it needs, in logarithm.
    double needSpare(double mean_um)
    {
        const OperatingResult *r = idle(mean_um);
        return r && r->weakest >= 0
            ? std::log(std::max(1e-6, r->points[static_cast<size_t>(r->weakest)].ratio()))
            : 0;
    }
    /// Of the family's thinnest film at full load over the roughness, hot, at high and most speed.
    double filmSpare(double mean_um)
    {
        const ContactShapes shapes = shapesOf(m_build);
        double least = 1e3;
        for (const double rpm : { m_build.use.highSpeed_rpm, m_build.use.most_rpm }) {
            OperatingModel *model = at(mean_um);
            const auto r
                = model ? noted(model->at(rpm, OperatingModel::Detail::Films)) : std::nullopt;
            if (!r)
                return 0;
            for (const Contact &c : contactsOf(m_build, *r, shapes))
                if (c.fullLoad && c.id == (m_family == "main" ? "mains_full" : "big_ends_full"))
                    least = std::min(least, c.filmParameter);
        }
        return std::log(std::max(1e-6, least) / roomFilmParameter);
    }

private:
    OperatingModel *at(double mean_um)
    {
        if (!m_model || m_model->first != mean_um) {
            auto made = noted(OperatingModel::make(
                m_build, movedBy(m_sizes, m_family, mean_um - m_here_um), m_build.use.hotOil_c));
            if (!made)
                return nullptr;
            made->startFrom(m_state);
            m_model.emplace(mean_um, std::move(*made));
        }
        return &m_model->second;
    }
    template <class T> std::optional<T> noted(Result<T> r)
    {
        if (r)
            return std::move(*r);
        m_failed = r.error();
        return std::nullopt;
    }

    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    std::string m_family;
    double m_here_um;
    SolveState m_state;
    std::map<double, OperatingResult> m_idle;
    std::optional<std::pair<double, OperatingModel>> m_model;
    std::optional<Error> m_failed;
};

/// Edges of a build, one clearance family moved as a whole.
class RoomFinder
{
public:
    explicit RoomFinder(std::string family)
        : m_family(std::move(family))
    {
    }

    struct Found
    {
        double here_um = 0, gauge_pa = 0;
        std::vector<RoomEdge> edges;
        std::optional<double> pressureLow_um;

        const RoomEdge *nearest(bool tight) const
        {
            const RoomEdge *out = nullptr;
            for (const RoomEdge &e : edges)
                if (e.um && e.tight() == tight
                    && (!out || (tight ? *e.um > *out->um : *e.um < *out->um)))
                    out = &e;
            return out;
        }
        double least_um() const
        {
            const RoomEdge *e = nearest(true);
            return e ? *e->um : 0;
        }
        double most_um() const
        {
            const RoomEdge *e = nearest(false);
            return e ? std::min(*e->um, mostRoom_um) : mostRoom_um;
        }
    };

    /// @param lowOverValue  the likely gauge's low end over its value, at hot idle
    Result<Found> find(const Build &build, const std::vector<GaugedSize> &sizes,
                       double lowOverValue)
    {
        MovedFamily moved(build, sizes, m_family, m_state);
        Found out;
        out.here_um = moved.here_um();
        out.edges = tightEdges(build, sizes, m_family);
        if (out.edges.empty())
            return fail("family", "of no bearing of this kind a clearance is known");
        const OperatingResult *here = moved.idle(out.here_um);
        if (!here)
            return tl::unexpected(*moved.failed());
        out.gauge_pa = here->gauge.value_pa;
        const double floor_pa = build.use.hotIdleFloor_kpa * 1e3;
        const bool needs = here->weakest >= 0;
        const auto gauge = [&](double um) { return moved.gaugeSpare(um, floor_pa); };
        const auto low = [&](double um) { return moved.gaugeSpare(um, floor_pa / lowOverValue); };
        const auto need = [&](double um) { return moved.needSpare(um); };
        const double from_um = out.here_um;
        add(out, RoomBound::Pressure,
            floor_pa > 0 ? widestWhere(gauge, from_um, usualStep) : std::nullopt);
        add(out, RoomBound::Need, needs ? widestWhere(need, from_um, usualStep) : std::nullopt);
        if (lowOverValue > 0 && floor_pa > 0)
            out.pressureLow_um = widestWhere(low, out.here_um, usualStep);
        add(out, RoomBound::Maker, limit(sizes));
        add(out, RoomBound::Film, filmEdge(build, moved));
        add(out, RoomBound::Noise, noise(sizes));
        if (moved.failed())
            return tl::unexpected(*moved.failed());
        m_state = moved.state();
        return out;
    }

    /// Only what bounds the room of a changed build: limits and noise stay where they are, and what
    /// is spared there need not be found further out.
    Result<Found> bounds(const Build &build, const std::vector<GaugedSize> &sizes, bool film)
    {
        MovedFamily moved(build, sizes, m_family, m_state);
        Found out;
        out.here_um = moved.here_um();
        out.edges = tightEdges(build, sizes, m_family);
        const OperatingResult *here = moved.idle(out.here_um);
        if (!here)
            return tl::unexpected(*moved.failed());
        out.gauge_pa = here->gauge.value_pa;
        const double floor_pa = build.use.hotIdleFloor_kpa * 1e3;
        const auto spare = [&](double um) {
            const double gauge = floor_pa > 0 ? moved.gaugeSpare(um, floor_pa) : 1;
            return std::min(gauge, moved.needSpare(um));
        };
        add(out, RoomBound::Maker, limit(sizes));
        add(out, RoomBound::Noise, noise(sizes));
        if (film)
            add(out, RoomBound::Film, filmEdge(build, moved));
        if (floor_pa > 0 || here->weakest >= 0)
            if (const double end_um = out.most_um(); spare(end_um) < 0)
                add(out, RoomBound::Pressure, widestWhere(spare, end_um, nearStep));
        if (moved.failed())
            return tl::unexpected(*moved.failed());
        return out;
    }

private:
    static constexpr double usualStep = 1.5, nearStep = 1.12;

    static std::optional<double> filmEdge(const Build &build, MovedFamily &moved)
    {
        if (bearingLoads(build, fullLoadPeakOf_pa(build)).empty())
            return std::nullopt;
        return widestWhere([&](double um) { return moved.filmSpare(um); }, moved.here_um(),
                           usualStep);
    }

    static void add(Found &out, RoomBound bound, std::optional<double> um)
    {
        out.edges.push_back({ bound, um });
    }

    std::optional<double> limit(const std::vector<GaugedSize> &sizes) const
    {
        std::optional<double> out;
        for (const GaugedSize &s : sizes)
            if (s.family == m_family && s.limits)
                out = std::min(s.limits->max_um, out.value_or(s.limits->max_um));
        return out;
    }

    std::optional<double> noise(const std::vector<GaugedSize> &sizes) const
    {
        std::optional<double> out;
        const double per_mm = (m_family == "main" ? noiseMains : noiseBigEnds) * 1e3;
        for (const GaugedSize &s : sizes)
            if (s.family == m_family && s.journal_mm > 0)
                out = std::min(per_mm * s.journal_mm, out.value_or(1e9));
        return out;
    }

    std::string m_family;
    SolveState m_state {};
};

std::string otherFamily(const std::string &family)
{
    return family == "main" ? "big_end" : "main";
}

class LeverFinder
{
public:
    LeverFinder(const Build &build, const std::vector<GaugedSize> &sizes, RoomFinder &finder,
                Room &room)
        : m_build(build)
        , m_sizes(sizes)
        , m_finder(finder)
        , m_room(room)
    {
    }

    void run()
    {
        add("pump +20 % wide", withLongerRotors(m_build, 1.2), m_sizes);
        if (const ShelfOil *thicker = nextThickerOil(m_build.oil.oil)) {
            Build changed = m_build;
            changed.oil = { std::string(thicker->grade), thicker->oil, thicker->hths_mpa_s };
            add("thicker: " + changed.oil.grade, changed, m_sizes, "primes slower cold");
        }
        preheat();
        const std::string other = otherFamily(m_room.family);
        add(moved(other, -10), m_build, movedBy(m_sizes, other, -10));
        closer();
        grooves();
        spring();
    }

private:
    void add(const Phrase &name, const Build &build, const std::vector<GaugedSize> &sizes,
             const Phrase &remark = {})
    {
        const auto found = m_finder.bounds(build, sizes, m_room.mostBy == RoomBound::Film);
        if (!found)
            return;
        const double least_um = found->least_um(), most_um = found->most_um();
        m_room.levers.push_back({ name, least_um, most_um, most_um - least_um - m_room.width_um(),
                                  found->gauge_pa / m_room.gauge_pa - 1, remark });
    }

    void preheat()
    {
        Build changed = m_build;
        double to_c = std::max(10.0, m_build.use.coldestStart_c + 10);
        if (m_room.preheat_c)
            to_c = std::max(to_c, std::ceil(*m_room.preheat_c));
        if (to_c > 60)
            return;
        changed.use.coldestStart_c = to_c;
        // Hot, it is the same engine.
        double least_um = 0;
        for (const RoomEdge &e : tightEdges(changed, m_sizes, m_room.family))
            least_um = std::max(least_um, e.um.value_or(0));
        m_room.levers.push_back({ { "room.preheat", "preheat to {0}", { asTemperature(to_c) } },
                                  least_um,
                                  m_room.most_um,
                                  m_room.least_um - least_um,
                                  0,
                                  {} });
    }

    static Phrase moved(const std::string &family, double um)
    {
        return { "room.moved",
                 family == "main" ? "mains {0}" : "big-ends {0}",
                 { asChange(asWholeClearance(um)) } };
    }

    /// The family's own clearance moves within the room; it does not widen it.
    void closer()
    {
        MovedFamily closer(m_build, m_sizes, m_room.family, {});
        if (const OperatingResult *found = closer.idle(closer.here_um() - 8))
            m_room.levers.push_back({ moved(m_room.family, -8), m_room.least_um, m_room.most_um, 0,
                                      found->gauge.value_pa / m_room.gauge_pa - 1,
                                      m_room.here_um - 8 < m_room.least_um
                                          ? "too tight at the coldest start"
                                          : "moves within the room" });
    }

    void grooves()
    {
        Build changed = m_build;
        bool any = false;
        for (Stop &stop : changed.engine.stops) {
            if (stop.kind != StopKind::Main || stop.value("journal_groove") > 0)
                continue;
            if (shellGroove_deg(m_build, stop) < 360)
                continue;
            stop.values["groove_deg"] = 180;
            any = true;
        }
        if (any)
            add("mains grooved in one half only", changed, m_sizes, "rods are fed half the turn");
    }

    void spring()
    {
        const bool relief = std::any_of(
            m_build.engine.stops.begin(), m_build.engine.stops.end(),
            [](const Stop &s) { return s.kind == StopKind::Relief && !s.elements.empty(); });
        if (!relief)
            return;
        add({ "room.spring", "relief spring {0}", { asChange(asPressure(1e5, 1)) } },
            withStifferSpring(m_build, 100), m_sizes);
        RoomLever &l = m_room.levers.back();
        l.idle = std::abs(l.opens_um) < 0.2 && std::abs(l.idleChange) < 0.0005;
        if (l.idle)
            l.remark = "nothing: the relief valve is shut at hot idle";
    }

    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    RoomFinder &m_finder;
    Room &m_room;
};

} // namespace

const char *roomBoundId(RoomBound bound)
{
    constexpr std::array ids { "floor", "maker_least", "pressure", "need",
                               "maker", "film",        "noise",    "search" };
    return ids[static_cast<size_t>(bound)];
}

Phrase roomBoundName(RoomBound bound)
{
    constexpr std::array<std::string_view, 8> names {
        "least clearance, cold or hot",
        "least of the limits",
        "pressure gauge at hot idle",
        "need of the weakest stop",
        "most of the limits",
        "film at full load",
        "noise",
        "widest looked at",
    };
    return std::string(names[static_cast<size_t>(bound)]);
}

std::vector<RoomEdge> tightEdges(const Build &build, const std::vector<GaugedSize> &sizes,
                                 const std::string &family)
{
    const PartTemperatures hot = settledTemperatures(build, build.use.hotOil_c);
    const auto mean = meanOf(sizes, family, allAt(20));
    if (!mean)
        return {};
    // Housings that grow less than their journals close when hot. What is measured may be less.
    double tightest = 1e9;
    std::optional<double> limit;
    for (const GaugedSize &s : sizes)
        if (s.family == family && s.known) {
            const double u_um = s.measured ? s.cold_um.expanded() : 0;
            tightest = std::min(
                { tightest, s.at(allAt(build.use.coldestStart_c)) - u_um, s.at(hot) - u_um });
            if (s.limits)
                limit = std::max(s.limits->min_um, limit.value_or(0));
        }
    return { { RoomBound::Floor, *mean + build.use.coldestClearanceFloor_um - tightest },
             { RoomBound::MakerLeast, limit } };
}

Result<Room> roomOf(const Build &build, const std::vector<GaugedSize> &sizes,
                    const std::string &family, const RoomConditions &conditions)
{
    const Build asked = underConditions(build, conditions);
    RoomFinder finder(family);
    double low = 0;
    if (auto model = OperatingModel::make(asked, sizes, asked.use.hotOil_c))
        if (const auto r = model->at(asked.use.hotIdle_rpm, OperatingModel::Detail::Ranges))
            low = r->gauge.value_pa > 0 ? r->gauge.low_pa / r->gauge.value_pa : 0;
    const auto now = finder.find(asked, sizes, low);
    if (!now)
        return tl::unexpected(now.error());
    Room out;
    out.family = family;
    out.here_um = now->here_um;
    out.edges = now->edges;
    out.pressureLow_um = now->pressureLow_um;
    out.least_um = now->least_um();
    out.most_um = now->most_um();
    if (const RoomEdge *e = now->nearest(true))
        out.leastBy = e->bound;
    if (const RoomEdge *e = now->nearest(false); e && *e->um <= mostRoom_um)
        out.mostBy = e->bound;
    out.gauge_pa = now->gauge_pa;
    const PartTemperatures hot = settledTemperatures(asked, asked.use.hotOil_c);
    out.hot_um = meanOf(sizes, family, hot).value_or(0);
    out.hotCeiling_um = out.hot_um + out.most_um - out.here_um;
    for (const GaugedSize &s : sizes)
        if (const auto t = s.closesAt_c(asked.use.coldestClearanceFloor_um);
            t && s.family == family)
            out.turnsDownTo_c = std::max(*t, out.turnsDownTo_c.value_or(*t));
    if (out.turnsDownTo_c && *out.turnsDownTo_c > asked.use.coldestStart_c)
        out.preheat_c = out.turnsDownTo_c;
    LeverFinder(asked, sizes, finder, out).run();
    return out;
}

} // namespace mildpath
