// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/room.h"

#include "assess/circuitof.h"
#include "assess/operating.h"
#include "assess/operatingmodel.h"
#include "bearing/load.h"
#include "oil/grades.h"
#include "quantity/parallel.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <mutex>

namespace mildpath {
namespace {

std::vector<const ShelfOil *> engineOils()
{
    std::vector<const ShelfOil *> out;
    for (const ShelfOil &o : oilShelf())
        if (!o.gearOil)
            out.push_back(&o);
    std::stable_sort(out.begin(), out.end(), [](const ShelfOil *a, const ShelfOil *b) {
        return a->oil.kv100_mm2_s < b->oil.kv100_mm2_s;
    });
    return out;
}

class MapMaker
{
public:
    MapMaker(const Build &build, const std::vector<GaugedSize> &sizes, RoomMap &map,
             Progress &progress)
        : m_build(build)
        , m_sizes(sizes)
        , m_map(map)
        , m_progress(progress)
    {
    }

    /// Columns first, first + step, …; each writes only its own cells.
    Result<void> columns(size_t first, size_t step)
    {
        std::optional<OperatingModel> former;
        for (size_t c = first; c < m_map.cold_um.size(); c += step) {
            auto model = OperatingModel::make(
                m_build, movedBy(m_sizes, m_map.family, m_map.cold_um[c] - m_map.here_um),
                m_build.use.hotOil_c);
            if (!model)
                return tl::unexpected(model.error());
            if (former)
                model->startFrom(*former);
            // There and back again: each oil starts from its neighbour.
            for (size_t k = 0; k < m_map.rows.size(); ++k) {
                const size_t row = c / step % 2 == 0 ? k : m_map.rows.size() - 1 - k;
                if (m_progress.cancel)
                    return fail("cancelled", "the map was given up");
                const auto r = model->at(m_build.use.hotIdle_rpm, m_map.rows[row].oil);
                if (!r)
                    return tl::unexpected(r.error());
                m_map.rows[row].gauge_pa[c] = r->gauge.value_pa;
                m_map.rows[row].ratio[c]
                    = r->weakest < 0 ? 10 : r->points[static_cast<size_t>(r->weakest)].ratio();
                ++m_progress.done;
            }
            former = std::move(*model);
        }
        return {};
    }

private:
    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    RoomMap &m_map;
    Progress &m_progress;
};

/// Rows for the shelf's engine oils and the fitted one, if it is none of them.
void makeRows(const Build &build, size_t columns, RoomMap &map)
{
    const std::vector<double> empty(columns, 0.0);
    std::vector<std::pair<double, RoomRow>> rows;
    bool listed = false;
    for (const ShelfOil *o : engineOils()) {
        const bool fitted = o->oil == build.oil.oil && o->grade == build.oil.grade;
        listed = listed || fitted;
        rows.push_back({ o->oil.kv100_mm2_s,
                         { std::string(o->grade), runningOil(*o), fitted, empty, empty } });
    }
    if (!listed)
        rows.push_back({ build.oil.oil.kv100_mm2_s,
                         { build.oil.grade.empty() ? "as entered" : build.oil.grade,
                           runningOil(build.oil), true, empty, empty } });
    std::stable_sort(rows.begin(), rows.end(),
                     [](const auto &a, const auto &b) { return a.first < b.first; });
    for (auto &[kv, row] : rows) {
        if (row.fitted)
            map.hereRow = static_cast<int>(map.rows.size());
        map.rows.push_back(std::move(row));
    }
}

/// Mean, uncertainty and range of columns.
Result<void> placeFamily(const Build &build, const std::vector<GaugedSize> &sizes, int columns,
                         RoomMap &map)
{
    int count = 0;
    double sum = 0, least = 1e9, most = 0;
    map.hereMeasured = true;
    for (const GaugedSize &s : sizes) {
        if (s.family != map.family || !s.known)
            continue;
        ++count;
        sum += s.circuit_um;
        map.hereMeasured = map.hereMeasured && s.measured;
        map.hereU_um = std::max(map.hereU_um,
                                s.measured     ? s.cold_um.expanded()
                                    : s.limits ? (s.limits->max_um - s.limits->min_um) / 2
                                               : 0);
        least = std::min(least, s.limits ? s.limits->min_um : s.circuit_um);
        most = std::max(most, s.limits ? s.limits->max_um : s.circuit_um);
    }
    if (count == 0)
        return fail("family", "of no bearing of this kind a clearance is known");
    map.here_um = sum / count;
    const double from = std::max(5.0, std::min(least, map.here_um) - 20);
    const double to = std::max(most, map.here_um) + 30;
    for (int i = 0; i < columns; ++i)
        map.cold_um.push_back(from + (to - from) * i / (columns - 1));
    for (const RoomEdge &e : tightEdges(build, sizes, map.family))
        map.least_um = std::max(map.least_um, e.um.value_or(0));
    return {};
}

} // namespace

Build underConditions(const Build &build, const RoomConditions &c)
{
    Build out = c.pumpSection == 1 ? build : withLongerRotors(build, c.pumpSection);
    out.use.hotOil_c = c.hotOil_c;
    out.use.hotIdle_rpm = c.idle_rpm;
    out.use.coldestStart_c = c.coldestStart_c;
    return out;
}

RoomConditions conditionsOf(const Build &build)
{
    return { build.use.coldestStart_c, build.use.hotOil_c, build.use.hotIdle_rpm, 1 };
}

std::vector<double> RoomMap::crossings_um(const RoomRow &row, double gauge_pa) const
{
    std::vector<double> out;
    for (size_t i = 1; i < cold_um.size(); ++i) {
        const double a = row.gauge_pa[i - 1] - gauge_pa, b = row.gauge_pa[i] - gauge_pa;
        if ((a >= 0) != (b >= 0))
            out.push_back(cold_um[i - 1] + (cold_um[i] - cold_um[i - 1]) * a / (a - b));
    }
    return out;
}

std::optional<double> RoomMap::most_um(const RoomRow &row) const
{
    const auto spare = [&](size_t i) {
        const double gauge = floor_pa > 0 ? row.gauge_pa[i] / floor_pa : 10;
        return std::min(gauge, row.ratio[i]) - 1;
    };
    if (spare(0) < 0)
        return std::nullopt;
    for (size_t i = 1; i < cold_um.size(); ++i)
        if (const double a = spare(i - 1), b = spare(i); b < 0)
            return cold_um[i - 1] + (cold_um[i] - cold_um[i - 1]) * a / (a - b);
    return cold_um.back();
}

Result<RoomMap> roomMap(const Build &build, const std::vector<GaugedSize> &sizes,
                        const std::string &family, const RoomConditions &conditions, int columns,
                        Progress *progress)
{
    Progress own;
    Progress &p = progress ? *progress : own;
    const Build asked = underConditions(build, conditions);
    RoomMap map;
    map.family = family;
    map.conditions = conditions;
    map.floor_pa = build.use.hotIdleFloor_kpa * 1e3;
    if (auto ok = placeFamily(asked, sizes, columns, map); !ok)
        return tl::unexpected(ok.error());
    makeRows(asked, map.cold_um.size(), map);
    p.done = 0;
    p.whole = static_cast<int>(map.cold_um.size() * map.rows.size());
    MapMaker maker(asked, sizes, map, p);
    std::mutex once;
    Result<void> outcome;
    onAllCores([&](unsigned first, unsigned step) {
        const auto ended = maker.columns(first, step);
        const std::lock_guard lock(once);
        if (outcome && !ended)
            outcome = ended;
    });
    if (!outcome)
        return tl::unexpected(outcome.error());
    return map;
}

std::optional<double> meanOf(const std::vector<GaugedSize> &sizes, std::string_view family,
                             const PartTemperatures &parts)
{
    double sum = 0;
    int count = 0;
    for (const GaugedSize &s : sizes)
        if (s.family == family && s.known) {
            sum += s.at(parts);
            ++count;
        }
    return count == 0 ? std::nullopt : std::optional(sum / count);
}

Result<HotFilm> hotFilm(const Build &build, const std::vector<GaugedSize> &sizes,
                        const RoomConditions &conditions, double moved_um)
{
    const Build asked = underConditions(build, conditions);
    if (bearingLoads(asked, idlePeak_pa(asked)).empty())
        return fail("engine", "has no mains and big-ends, or no cylinders and displacement");
    // Films with the mains as they are, and with all of them moved.
    const auto smallest = [&](double by_um) -> Result<HotFilm> {
        auto model = OperatingModel::make(asked, movedBy(sizes, "main", by_um), asked.use.hotOil_c);
        if (!model)
            return tl::unexpected(model.error());
        const auto r = model->at(asked.use.hotIdle_rpm, OperatingModel::Detail::Films);
        if (!r)
            return tl::unexpected(r.error());
        HotFilm out { 1e9, 1e9, 1e9 };
        for (const BearingFilm &f : r->films) {
            double &least = f.family == "main" ? out.mains_um : out.bigEnds_um;
            if (f.family == "main" || f.family == "big_end")
                least = std::min(least, f.smallest_m * 1e6);
        }
        return out;
    };
    auto out = smallest(0);
    if (!out)
        return out;
    const auto moved = smallest(moved_um);
    if (!moved)
        return moved;
    out->mainsAtCeiling_um = moved->mains_um;
    return out;
}

Result<WarmUpRun> warmUpRun(const Build &build, const std::vector<GaugedSize> &sizes, double rpm,
                            std::span<const double> times_s)
{
    const WarmUp warmUp = warmUpOf(build);
    WarmUpRun out { rpm, {} };
    std::optional<OperatingModel> former;
    for (const double t : times_s) {
        const PartTemperatures parts = duringWarmUp(warmUp, build.heat.settled(), rpm, t);
        auto model = OperatingModel::make(build, sizes, parts);
        if (!model)
            return tl::unexpected(model.error());
        if (former)
            model->startFrom(*former);
        const auto r = model->at(rpm, OperatingModel::Detail::Values);
        if (!r)
            return tl::unexpected(r.error());
        WarmUpPoint p { t,
                        parts,
                        meanOf(sizes, "main", parts).value_or(0),
                        meanOf(sizes, "big_end", parts).value_or(0),
                        r->gauge.value_pa,
                        r->weakestPressure.value_pa,
                        0,
                        "",
                        r->reliefOpen() };
        if (r->weakest >= 0) {
            const PointPressure &w = r->points[static_cast<size_t>(r->weakest)];
            p.weakestRatio = w.ratio();
            p.weakestName = w.name;
        }
        out.points.push_back(std::move(p));
        former = std::move(*model);
    }
    return out;
}

Result<std::vector<CrankOil>> crankOilOver(const Build &build, const std::vector<GaugedSize> &sizes,
                                           double rpm, std::span<const double> oil_c)
{
    std::vector<CrankOil> out;
    for (const double t : oil_c) {
        auto model = OperatingModel::make(build, sizes, t);
        if (!model)
            return tl::unexpected(model.error());
        const auto r = model->at(rpm, OperatingModel::Detail::Values);
        if (!r)
            return tl::unexpected(r.error());
        const PartTemperatures parts = settledTemperatures(build, t);
        out.push_back({ t, meanOf(sizes, "main", parts).value_or(0),
                        meanOf(sizes, "big_end", parts).value_or(0), r->bigEndsOfCrank(),
                        r->gauge.value_pa });
    }
    return out;
}

Mark Room::mark() const
{
    if (width_um() < 0)
        return Mark::Hold;
    return inside() ? Mark::Proven : Mark::LookAgain;
}

Mark Room::coldMark() const
{
    if (preheat_c)
        return Mark::Hold;
    return turnsDownTo_c || here_um >= least_um ? Mark::Proven : Mark::Hold;
}

const WarmUpPoint &WarmUpRun::weakest() const
{
    return *std::min_element(
        points.begin(), points.end(),
        [](const WarmUpPoint &a, const WarmUpPoint &b) { return a.weakestRatio < b.weakestRatio; });
}

Mark crankOilMark(const CrankOil &cold, const CrankOil &hot)
{
    return hot.bigEndsShare < crankShareKept * cold.bigEndsShare ? Mark::LookAgain : Mark::Proven;
}

RoomStudy studyRoom(const Build &build, const std::vector<GaugedSize> &sizes,
                    const std::string &family, const RoomConditions &conditions)
{
    RoomStudy out { roomOf(build, sizes, family, conditions), {}, {} };
    const std::array oil { 20.0, conditions.hotOil_c };
    if (auto crank = crankOilOver(build, sizes, conditions.idle_rpm, oil))
        out.crankOil = std::move(*crank);
    const double moved_um
        = out.room && family == "main" ? out.room->most_um - out.room->here_um : 0;
    if (const auto film = hotFilm(build, sizes, conditions, moved_um))
        out.film = *film;
    return out;
}

WarmUps warmUps(const Build &build, const std::vector<GaugedSize> &sizes, double rpm, int points)
{
    std::vector<double> times;
    for (int i = 0; i < points; ++i)
        times.push_back(warmUpLasts_s * std::pow(double(i) / (points - 1), 2));
    return { warmUpRun(build, sizes, build.use.hotIdle_rpm, times),
             warmUpRun(build, sizes, rpm, times) };
}

} // namespace mildpath
