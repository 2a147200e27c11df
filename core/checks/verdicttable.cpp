// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/verdicttable.h"

#include "assess/believed.h"
#include "assess/figuremarks.h"
#include "assess/figures.h"
#include "assess/narrowed.h"
#include "circuit/elementtypes.h"
#include "document/logbook.h"
#include "pump/delivery.h"
#include "rules/rules.h"

#include <algorithm>

namespace mildpath {
namespace {

class Table
{
public:
    Table(const Build &build, const Figures &figures)
        : m_build(build)
        , m_figures(figures)
    {
        for (const OperatingState &s : figures.states)
            if (!s.kind->reliefShut)
                m_out.states.push_back(&s);
    }

    VerdictTable run()
    {
        add("gauge", "Pressure gauge", [&](const OperatingState &s) {
            const GaugeVerdict v = gaugeVerdict(m_build, s);
            VerdictCell out
                = of(v.value_pa, v.least_pa, v.mark, {}, tapName(m_build, m_build.gaugeTap));
            if (const auto tap = m_build.circuit.taps.find(m_build.gaugeTap);
                tap != m_build.circuit.taps.end())
                out.node = tap->second;
            return out;
        });
        for (const StopKind kind : everyKind<StopKind>())
            for (const Shows what : { Shows::Pressure, Shows::Flow })
                consumers(kind, what);
        add("crank", "Crank feed", [&](const OperatingState &s) {
            const double need = s.result.crankNeed_pa;
            if (!(need > 0))
                return VerdictCell {};
            return of(need * s.result.crankRatio, need, supplyMarkAt(*s.kind, s.result.crankRatio),
                      {}, "mains over what it takes");
        });
        double release_pa = PumpInlet {}.release.value_pa;
        std::string inlet;
        for (const Element &e : m_build.circuit.elements)
            if (e.kind == ElementKind::Pump) {
                release_pa = e.value("release_pressure_abs_kpa") * 1e3;
                inlet = e.from;
            }
        add("suction", "Suction",
            [&](const OperatingState &s) {
                VerdictCell out
                    = of(s.inletAbs_pa, release_pa,
                         supplyMarkAt(*s.kind, s.inletAbs_pa / release_pa), "sump_pickup", {});
                out.node = inlet;
                return out;
            })
            .absolute
            = true;
        upper("filter", "Filter inlet", &OperatingState::filterIn_pa, filterWarn_pa, filterHold_pa);
        upper("element", "Filter element", &OperatingState::element_pa, elementWarn_pa,
              elementHold_pa);
        upper("cooler", "Cooler", &OperatingState::coolerIn_pa, coolerWarn_pa, coolerHold_pa);
        add("film", "Smallest film", [&](const OperatingState &s) { return thinnest(s); });
        finish();
        return std::move(m_out);
    }

private:
    template <class Cell> VerdictRow &add(const char *id, const char *name, Cell cell)
    {
        VerdictRow row { id, name, false, false, {} };
        for (const OperatingState *s : m_out.states)
            row.cells.push_back(cell(*s));
        for (VerdictCell &c : row.cells)
            c.mark = onSizes(c.mark, m_figures.sizes);
        return m_out.rows.emplace_back(std::move(row));
    }
    static VerdictCell of(double value, double least, Mark mark, std::string stop, std::string at)
    {
        VerdictCell out;
        out.value = value;
        out.ratio = least > 0 ? value / least : 0;
        out.limit = least;
        out.stop = std::move(stop);
        out.at = std::move(at);
        out.mark = mark;
        return out;
    }

    /// The worst point of all stops of a kind, by its ratio: of pressure, or of oil flow.
    void consumers(StopKind kind, Shows what)
    {
        const auto worst = [&](const OperatingState &s) {
            VerdictCell out;
            for (const PointPressure &p : s.result.points) {
                const Stop *stop = m_build.engine.find(p.stop);
                if (!stop || stop->kind != kind)
                    continue;
                for (const Supply &supply : suppliesOf(*s.kind, p)) {
                    const bool worse = supply.shows == what
                        && (out.mark == Mark::NotAsked || supply.ratio() < out.ratio);
                    if (!worse)
                        continue;
                    out = of(supply.value, supply.need, supplyMarkAt(*s.kind, supply.ratio()),
                             p.stop, p.name);
                    out.shows = what;
                    if (what == Shows::Pressure)
                        out.node = p.node;
                }
            }
            return out;
        };
        const std::string word(wordOf(kind)), plural(aboutStopKind(kind).plural);
        if (what == Shows::Pressure)
            add(word.c_str(), plural.c_str(), worst);
        else
            add((word + "_flow").c_str(), (plural + ", flow").c_str(), worst);
    }

    /// Of the films that are worked out here: the thinnest, or one that bears no load.
    static VerdictCell thinnest(const OperatingState &s)
    {
        VerdictCell out;
        for (const BearingFilm &f : s.result.films) {
            const Mark mark = f.carried ? Mark::Proven : Mark::Hold;
            const bool worst = out.mark == Mark::NotAsked
                || (mark != out.mark ? mark == Mark::Hold : f.smallest_m < out.value);
            if (!worst)
                continue;
            out = of(f.smallest_m, 0, mark, f.stop, f.name);
            out.shows = Shows::Clearance;
        }
        return out;
    }

    void upper(const char *id, const char *name, double OperatingState::*value, double warn_pa,
               double hold_pa)
    {
        add(id, name,
            [&](const OperatingState &s) {
                const double pa = s.*value;
                if (!(pa > 0))
                    return VerdictCell {};
                VerdictCell out;
                out.value = pa;
                out.ratio = hold_pa / pa;
                out.limit = hold_pa;
                out.mark = standsMark(pa, warn_pa, hold_pa);
                return out;
            })
            .upper
            = true;
    }

    /// Rows of what the engine has not vanish; the worst stand first, alike ones as they are made.
    void finish()
    {
        std::erase_if(m_out.rows, [](const VerdictRow &r) {
            return std::all_of(r.cells.begin(), r.cells.end(),
                               [](const VerdictCell &c) { return c.mark == Mark::NotAsked; });
        });
        std::stable_sort(
            m_out.rows.begin(), m_out.rows.end(), [](const VerdictRow &a, const VerdictRow &b) {
                return a.worst() != b.worst() && worse(a.worst(), b.worst()) == a.worst();
            });
        for (const VerdictRow &r : m_out.rows)
            for (const VerdictCell &c : r.cells) {
                m_out.inside += c.isInside();
                m_out.doubtful += c.mark == Mark::LookAgain;
                m_out.beyond += c.mark == Mark::Hold;
            }
    }

    const Build &m_build;
    const Figures &m_figures;
    VerdictTable m_out;
};

} // namespace

Mark supplyMarkAt(const StateKind &state, double ratio)
{
    if (!state.id.starts_with("hot_plus"))
        return supplyMark(ratio);
    return ratio < 1 ? Mark::LookAgain : Mark::Proven;
}

std::vector<Supply> suppliesOf(const StateKind &state, const PointPressure &point)
{
    std::vector<Supply> out;
    if (point.need_pa > 0 && (state.warmedUp || !point.needByFlow))
        out.push_back({ point.pressure_pa, point.need_pa, Shows::Pressure });
    if (state.warmedUp && point.needFlow_m3_s > 0)
        out.push_back({ point.flow_m3_s, point.needFlow_m3_s, Shows::Flow });
    return out;
}

GaugeVerdict gaugeVerdict(const Build &build, const OperatingState &state)
{
    const LikelyPressure &gauge = state.result.gauge;
    GaugeVerdict out { gauge.value_pa, 0, Mark::Proven };
    const bool warns = state.kind->id.starts_with("hot_plus");
    if (state.kind->id.find("idle") != std::string_view::npos) {
        out.least_pa = build.use.hotIdleFloor_kpa * 1e3;
        out.mark = markAgainst(gauge, out.least_pa);
    } else {
        out.least_pa = leastWanted_pa(build.use, state.result.rpm);
        const double ratio = out.least_pa > 0 ? gauge.value_pa / out.least_pa : 1;
        if (ratio < 1)
            out.mark = ratio < gaugeHolds ? Mark::Hold : Mark::LookAgain;
    }
    if (warns && out.mark == Mark::Hold)
        out.mark = Mark::LookAgain;
    return out;
}

LeadingVerdicts leadingVerdicts(const Build &build, const Figures &figures)
{
    LeadingVerdicts out;
    const auto gauge = [&](std::string_view id) {
        const OperatingState *s = stateOf(figures.states, id);
        GaugeVerdict v = s ? gaugeVerdict(build, *s) : GaugeVerdict { 0, 0, unsolvedMark() };
        v.mark = onSizes(v.mark, figures.sizes);
        return v;
    };
    out.idle = gauge("hot_idle");
    out.fast = gauge("high");
    const OperatingResult &idle = figures.operating.hotIdle;
    if (idle.weakest >= 0)
        out.weakest = onSizes(markAgainst(idle.weakestPressure,
                                          idle.points[static_cast<size_t>(idle.weakest)].need_pa),
                              figures.sizes);
    return out;
}

Mark standsMark(double pa, double warn_pa, double hold_pa)
{
    if (pa > hold_pa)
        return Mark::Hold;
    return pa > warn_pa ? Mark::LookAgain : Mark::Proven;
}

Mark VerdictRow::worst() const
{
    Mark out = Mark::NotAsked;
    for (const VerdictCell &c : cells)
        out = worse(out, c.mark);
    return out;
}

VerdictRanges verdictRanges(const Build &build, const Figures &figures, Progress *progress)
{
    const VerdictTable table = verdictTable(build, figures);
    std::map<double, std::optional<OperatingModel>> models; // by oil
    VerdictRanges out { {}, whilePriming(build, figures.sizes) };
    for (size_t at = 0; at < table.states.size(); ++at) {
        if (progress && progress->cancel)
            break;
        const OperatingState &state = *table.states[at];
        auto [model, fresh] = models.try_emplace(state.result.oil_c);
        if (fresh)
            if (auto made = OperatingModel::make(build, figures.sizes, state.result.oil_c))
                model->second = std::move(*made);
        std::vector<const VerdictRow *> rows;
        std::vector<std::string> nodes;
        for (const VerdictRow &row : table.rows)
            if (!row.cells[at].node.empty()) {
                rows.push_back(&row);
                nodes.push_back(row.cells[at].node);
            }
        auto likely = model->second ? model->second->likelyAt(state.result.rpm, nodes)
                                    : Result<std::vector<DoubtfulPressure>>();
        for (size_t i = 0; likely && i < likely->size(); ++i) {
            DoubtfulPressure &p = (*likely)[i];
            // A cell may count from elsewhere: without the crank's oil column, absolute.
            const double from = rows[i]->cells[at].value - p.pressure.value_pa;
            out.cells.emplace(
                std::pair(rows[i]->id, state.kind->id),
                VerdictRange { p.pressure.low_pa + from, p.pressure.high_pa + from, std::move(p) });
        }
    }
    return out;
}

const VerdictRange *VerdictRanges::find(const std::string &row, std::string_view state) const
{
    const auto at = cells.find({ row, state });
    return at == cells.end() ? nullptr : &at->second;
}

bool reachesPast(const VerdictRow &row, const VerdictCell &cell, const VerdictRange &range)
{
    return row.upper ? range.high_pa > cell.limit && cell.value <= cell.limit
                     : range.low_pa < cell.limit && cell.value >= cell.limit;
}

std::vector<WideCause> wideCauses(const VerdictTable &table, const VerdictRanges &ranges)
{
    std::vector<WideCause> out;
    for (const VerdictRow &row : table.rows)
        for (size_t at = 0; at < table.states.size(); ++at) {
            const VerdictCell &cell = row.cells[at];
            const VerdictRange *range = ranges.find(row.id, table.states[at]->kind->id);
            if (!range || !(cell.limit > 0))
                continue;
            const DoubtfulPressure &doubtful = range->doubtful;
            const bool past = reachesPast(row, cell, *range);
            if (!past && !isWide(doubtful.pressure))
                continue;
            const double from = cell.value - doubtful.pressure.value_pa;
            const Narrowing by
                = narrowest(doubtful, row.upper ? 0 : cell.limit - from, ranges.priming());
            auto cause = std::ranges::find(out, by.by, &WideCause::by);
            if (cause == out.end())
                cause = out.insert(out.end(), WideCause { by.by, by.action });
            ++cause->figures;
            if (!past)
                continue;
            ++cause->past;
            const VerdictRange then { by.to.low_pa + from, by.to.high_pa + from, {} };
            cause->settled += !reachesPast(row, cell, then);
        }
    std::ranges::stable_sort(out, [](const WideCause &a, const WideCause &b) {
        return std::pair(a.settled, a.figures) > std::pair(b.settled, b.figures);
    });
    return out;
}

VerdictTable verdictTable(const Build &build, const Figures &figures)
{
    return Table(build, figures).run();
}

} // namespace mildpath
