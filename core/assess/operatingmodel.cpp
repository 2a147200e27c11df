// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/operatingmodel.h"

#include "assess/calibrated.h"
#include "assess/circuitof.h"
#include "assess/growth.h"
#include "assess/sizes.h"
#include "circuit/elementtypes.h"
#include "circuit/need.h"
#include "circuit/network.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>

namespace mildpath {

namespace {

LikelyPressure within(double value_pa, double half_pa)
{
    const double low = value_pa - half_pa;
    // What is under pressure is not sucked empty by doubt; a suction side is below it as it is.
    return { value_pa, value_pa > 0 ? std::max(0.0, low) : low, value_pa + half_pa };
}

} // namespace

class OperatingModel::Inside
{
public:
    struct Uncertain
    {
        int element;
        std::shared_ptr<const Law> raised; ///< with the value one step up
        const Element *base; ///< of m_circuit
        std::string key;
        double step_um;
        std::string name; ///< "Main 4"
        size_t own = 0; ///< which input is its own alone
        /// Shares of the step that are uncertain, by what moves together; −1: by itself.
        std::vector<std::pair<int, double>> shares;
    };
    struct Filmed
    {
        BearingFilm film;
        int element;
    };
    struct Watched
    {
        PointPressure point;
        StopNeed need; ///< none: 0 at either speed
        int node;
        int crankDrilling; ///< element that feeds it through the crank, −1
        std::vector<int> crankFed; ///< drillings it feeds
        std::vector<int> taken {}; ///< elements of the stop that lead on from here
        double outlets = 0; ///< how many of them the need of one is for
    };
    OperatingResult judge(const Solution &solution, const OperatingPoint &point,
                          Detail detail) const;
    /// Change of each uncertain element's flow by one step of its value.
    std::vector<double> flowSteps(const Solution &solution, const OperatingPoint &point) const;
    /// Variance (Pa²) of a node's pressure: the model's, of what moves together, of each by itself.
    std::vector<double> variances(const Solution &solution, const std::vector<double> &steps,
                                  int node, double value_pa) const;
    LikelyPressure likely(const Solution &solution, const std::vector<double> &steps, int node,
                          double value_pa) const;
    DoubtfulPressure doubtful(const Solution &solution, const std::vector<double> &steps,
                              int node) const;
    double flowTaken_m3_s(const Watched &w, const Solution &solution) const;
    void share(const Solution &solution, OperatingResult &out) const;
    void findUncertain(const std::vector<GaugedSize> &sizes, const PartTemperatures &parts);
    void findWatched(const Build &build);
    void findFilmed(const Build &build);
    void fillFilms(const Solution &solution, const OperatingPoint &point,
                   OperatingResult &out) const;

    Circuit m_circuit {};
    std::optional<Network> m_network {};
    Oil m_oil {};
    double m_oil_c = 0;
    double m_floor_pa = 0, m_hotIdle_rpm = 0, m_most_rpm = 0;
    int m_gaugeNode = -1;
    std::vector<Uncertain> m_uncertain {};
    size_t m_groups = 0; ///< of inputs that move together
    std::vector<Doubt> m_groupDoubts {}; ///< what each of these is
    size_t m_ownInputs = 0; ///< that move by themselves
    std::vector<Watched> m_watched {};
    std::vector<Filmed> m_filmed {};
    std::vector<int> m_crankDrillings {};
    std::vector<int> m_groupOf {}; ///< element → index into oilGroups(), −1
};

OperatingModel::OperatingModel(std::shared_ptr<const Inside> inside)
    : m_inside(std::move(inside))
{
}

size_t OperatingModel::inputs() const
{
    return m_inside->m_groups + m_inside->m_ownInputs;
}

const Oil &OperatingModel::oil() const
{
    return m_inside->m_oil;
}

Result<OperatingModel> OperatingModel::make(const Build &build,
                                            const std::vector<GaugedSize> &sizes, double oil_c,
                                            const CircuitChange &change)
{
    return make(build, sizes, settledTemperatures(build, oil_c), change);
}

Result<OperatingModel> OperatingModel::make(const Build &build,
                                            const std::vector<GaugedSize> &sizes,
                                            const PartTemperatures &parts,
                                            const CircuitChange &change)
{
    const auto inside = std::make_shared<Inside>();
    Inside &out = *inside;
    out.m_circuit = circuitOf(build, sizes, parts);
    out.m_oil = build.oil.oil;
    calibrate(build, out.m_circuit);
    calibrate(build, out.m_oil);
    if (change)
        if (auto ok = change(out.m_circuit, out.m_oil); !ok)
            return tl::unexpected(ok.error());
    out.m_oil_c = parts.oil_c;
    out.m_hotIdle_rpm = build.use.hotIdle_rpm;
    out.m_most_rpm = build.use.most_rpm;
    out.m_floor_pa = build.use.hotIdleFloor_kpa * 1e3;
    auto network = Network::compile(out.m_circuit);
    if (!network)
        return tl::unexpected(network.error());
    out.m_network = std::move(*network);
    const auto tap = build.circuit.taps.find(build.gaugeTap);
    out.m_gaugeNode = tap == build.circuit.taps.end() ? -1 : out.m_network->nodeIndex(tap->second);
    if (out.m_gaugeNode < 0)
        return fail("/circuit/gauge_tap", "the gauge sits on no tap of the circuit");
    out.findUncertain(sizes, parts);
    out.findWatched(build);
    out.findFilmed(build);
    return OperatingModel(inside);
}

void OperatingModel::Inside::findUncertain(const std::vector<GaugedSize> &sizes,
                                           const PartTemperatures &parts)
{
    std::map<std::string, int> groups;
    const auto groupOf = [&](const Doubt &what) {
        const auto [at, fresh] = groups.try_emplace(what.cause, static_cast<int>(groups.size()));
        if (fresh)
            m_groupDoubts.push_back(what);
        return at->second;
    };
    for (const GaugedSize &s : sizes) {
        const std::string key(findFamily(s.family)->elementKey);
        const Element *e = key.empty() || !s.known ? nullptr : m_circuit.find(s.element);
        if (!e)
            continue;
        std::vector<std::pair<int, double>> own;
        const auto add = [&](const Doubt &what, double u_um) {
            if (std::abs(u_um) > 1e-9)
                own.emplace_back(what.cause.empty() ? -1 : groupOf(what), u_um);
        };
        // What nobody gauged comes out of one box: it moves together. So do parts of one metal.
        const std::string plural(findFamily(s.family)->plural);
        add(s.measured ? Doubt {} : Doubt { plural + ", assumed", s.family },
            s.cold_um.standardUncertainty);
        const Growth &g = s.growth;
        add({ g.part == HousingPart::Rod ? "how the rods grow"
                  : g.effective          ? "how the main housings grow"
                                         : "how the block grows",
              {} },
            g.housingU_um_per_k * (g.housing_c(parts) - 20));
        add({ findFamily(s.family)->shells ? "how the crank grows" : "how the camshaft grows", {} },
            -g.journalU_um_per_k * (parts.journal_c - 20));
        // The mean of a hybrid bore is good to half its spread either way (engineering estimate).
        add({ "bores of two metals", {} }, g.spread_um(parts) / 2 / std::sqrt(3.0));
        double step = 0;
        for (const auto &[group, u] : own)
            step = std::hypot(step, u);
        if (!(step > 0))
            continue;
        Element raised = *e;
        raised.values[key] += step;
        for (auto &[group, u] : own)
            u /= step;
        const bool alone = std::any_of(own.begin(), own.end(),
                                       [](const auto &share) { return share.first < 0; });
        m_uncertain.push_back({ m_network->elementIndex(s.element), makeLaw(raised), e, key, step,
                                s.name, alone ? m_ownInputs++ : 0, std::move(own) });
    }
    m_groups = groups.size();
}

StopNeed needOf(const Stop &stop)
{
    const StopNeed *usual = stopNeed(stop.kind);
    StopNeed out = usual ? *usual : StopNeed { stop.kind, 0, 0 };
    if (stop.kind == StopKind::Turbo && stop.value("ball_bearings") > 0)
        out = ballBearingTurboNeed();
    if (stop.has("need_idle_kpa"))
        out.idle_pa = stop.value("need_idle_kpa") * 1e3;
    if (stop.has("need_most_kpa"))
        out.most_pa = stop.value("need_most_kpa") * 1e3;
    // A need of nothing is one's own choice; the user's minimum does not bring it back.
    if (stop.has("need_idle_kpa") && out.idle_pa == 0 && out.most_pa == 0)
        out.atLeastFloor = false;
    return out;
}

void OperatingModel::Inside::findWatched(const Build &build)
{
    m_groupOf.assign(m_network->elementCount(), -1);
    for (const Stop &stop : build.engine.stops) {
        const auto groups = oilGroups();
        for (size_t g = 0; g < groups.size(); ++g)
            if (std::find(groups[g].stopKinds.begin(), groups[g].stopKinds.end(), stop.kind)
                != groups[g].stopKinds.end())
                for (const std::string &id : stop.elements)
                    if (const int e = m_network->elementIndex(id); e >= 0)
                        m_groupOf[static_cast<size_t>(e)] = static_cast<int>(g);
        if (const int e = m_network->elementIndex("oil_bevel@" + stop.id); e >= 0)
            m_groupOf[static_cast<size_t>(e)] = 0; // mains
        for (const StopPoint &p : stop.points) {
            Watched w { { stop.id, p.name, p.node, 0, 0, 0 },
                        needOf(stop),
                        m_network->nodeIndex(p.node),
                        -1,
                        {} };
            for (const std::string &id : stop.elements)
                if (const Element *e = m_circuit.find(id); e && e->from == p.node) {
                    w.taken.push_back(m_network->elementIndex(id));
                    w.outlets += e->value("count");
                }
            for (const Element &e : m_circuit.elements) {
                if (e.kind != ElementKind::CrankDrilling)
                    continue;
                if (e.to == p.node)
                    w.crankDrilling = m_network->elementIndex(e.id);
                if (e.from == p.node)
                    w.crankFed.push_back(m_network->elementIndex(e.id));
            }
            if (w.node >= 0)
                m_watched.push_back(std::move(w));
        }
    }
}

void OperatingModel::Inside::findFilmed(const Build &build)
{
    for (size_t e = 0; e < m_circuit.elements.size(); ++e)
        if (m_circuit.elements[e].kind == ElementKind::CrankDrilling)
            m_crankDrillings.push_back(static_cast<int>(e));
    for (const SizeItem &i : sizeItems(build))
        if (const int e = i.element.empty() ? -1 : m_network->elementIndex(i.element);
            e >= 0 && m_circuit.elements[static_cast<size_t>(e)].kind == ElementKind::FilmBearing) {
            Filmed f { {}, e };
            f.film.stop = i.stop->id;
            f.film.family = i.family->id;
            f.film.name = i.name;
            f.film.element = i.element;
            m_filmed.push_back(std::move(f));
        }
}

void OperatingModel::Inside::fillFilms(const Solution &solution, const OperatingPoint &point,
                                       OperatingResult &out) const
{
    for (const Filmed &f : m_filmed) {
        const auto film = m_network->filmAt(f.element, solution, point);
        if (!film)
            continue;
        BearingFilm b = f.film;
        b.load_n = static_cast<const FilmBearingLaw &>(m_network->law(f.element))
                       .running(radPerSecond(point.rpm), point.sumpTemperature_c)
                       .load_n;
        b.eccentricityRatio = film->at.film.eccentricityRatio;
        b.smallest_m = film->smallestFilm_m;
        b.film_c = point.sumpTemperature_c + film->rise_k;
        b.outlet_c = point.sumpTemperature_c + film->outlet_rise_k;
        b.flow_m3_s = film->flow_m3_s;
        b.loss_w = film->at.loss_w;
        b.peak_pa = film->peak_pa;
        b.carried = film->at.film.carried;
        out.films.push_back(std::move(b));
    }
}

std::vector<double> OperatingModel::Inside::flowSteps(const Solution &solution,
                                                      const OperatingPoint &point) const
{
    std::vector<double> out;
    for (const Uncertain &u : m_uncertain)
        out.push_back(m_network->flowChange(u.element, *u.raised, solution, point));
    return out;
}

std::vector<double> OperatingModel::Inside::variances(const Solution &solution,
                                                      const std::vector<double> &steps, int node,
                                                      double value_pa) const
{
    const std::vector<double> answer = m_network->adjoint(solution, node);
    std::vector<double> sums(m_groups, 0.0);
    std::vector<double> out(1 + m_groups + m_uncertain.size(), 0.0);
    out[0] = std::pow(modelUncertainty * value_pa, 2);
    for (size_t i = 0; i < m_uncertain.size(); ++i) {
        const Uncertain &u = m_uncertain[i];
        const double change = answer[static_cast<size_t>(u.element)] * steps[i];
        for (const auto &[group, share] : u.shares) {
            if (group < 0)
                out[1 + m_groups + i] += share * change * share * change;
            else
                sums[static_cast<size_t>(group)] += share * change;
        }
    }
    for (size_t g = 0; g < m_groups; ++g)
        out[1 + g] = sums[g] * sums[g];
    return out;
}

LikelyPressure OperatingModel::Inside::likely(const Solution &solution,
                                              const std::vector<double> &steps, int node,
                                              double value_pa) const
{
    const auto all = variances(solution, steps, node, value_pa);
    return within(value_pa, likelyFactor * std::sqrt(std::reduce(all.begin(), all.end())));
}

DoubtfulPressure OperatingModel::Inside::doubtful(const Solution &solution,
                                                  const std::vector<double> &steps, int node) const
{
    const double value = solution.pressure_pa[static_cast<size_t>(node)];
    const auto all = variances(solution, steps, node, value);
    const double whole = std::reduce(all.begin(), all.end());
    DoubtfulPressure out { within(value, likelyFactor * std::sqrt(whole)), {} };
    if (!(whole > 0))
        return out;
    out.from.push_back({ "the model itself", {}, all[0] / whole });
    for (size_t g = 0; g < m_groups; ++g)
        out.from.push_back({ m_groupDoubts[g].cause, m_groupDoubts[g].family, all[1 + g] / whole });
    for (size_t i = 0; i < m_uncertain.size(); ++i)
        out.from.push_back(
            { m_uncertain[i].name + ", as gauged", {}, all[1 + m_groups + i] / whole });
    std::ranges::stable_sort(out.from, std::greater {}, &Doubt::share);
    return out;
}

double OperatingModel::Inside::flowTaken_m3_s(const Watched &w, const Solution &solution) const
{
    double out = 0;
    for (const int e : w.taken)
        out += solution.flow_m3_s[static_cast<size_t>(e)];
    return out;
}

void OperatingModel::Inside::share(const Solution &solution, OperatingResult &out) const
{
    const auto groups = oilGroups();
    std::vector<double> flow(groups.size(), 0.0);
    double other = 0;
    const int sump = m_network->nodeIndex(sumpNode);
    const int relief = m_network->reliefElement();
    for (size_t e = 0; e < m_network->elementCount(); ++e) {
        const int element = static_cast<int>(e);
        const bool leaves = m_network->toNode(element) == sump;
        const bool enters = m_network->fromNode(element) == sump;
        if (!leaves || enters || element == relief)
            continue;
        (m_groupOf[e] >= 0 ? flow[static_cast<size_t>(m_groupOf[e])] : other)
            += solution.flow_m3_s[e];
    }
    const auto &pump = static_cast<const PumpLaw &>(m_network->law(m_network->pumpElement()));
    const auto pumpIndex = static_cast<size_t>(m_network->pumpElement());
    out.pumpFlow_m3_s = solution.flow_m3_s[pumpIndex];
    out.sweptFlow_m3_s = pump.swept_m3_s(solution.prepared[pumpIndex]);
    out.reliefFlow_m3_s = relief >= 0 ? solution.flow_m3_s[static_cast<size_t>(relief)] : 0;
    const auto add = [&](std::string id, std::string name, double q) {
        out.shares.push_back({ std::move(id), std::move(name), q,
                               out.sweptFlow_m3_s > 0 ? q / out.sweptFlow_m3_s : 0 });
    };
    for (size_t g = 0; g < groups.size(); ++g)
        add(std::string(groups[g].id), std::string(groups[g].name), flow[g]);
    add("other", "elsewhere", other);
    add("relief", "back through the relief", out.reliefFlow_m3_s);
    add("slip", "pump slip", out.sweptFlow_m3_s - out.pumpFlow_m3_s);
}

OperatingResult OperatingModel::Inside::judge(const Solution &solution, const OperatingPoint &point,
                                              Detail detail) const
{
    const bool ranges = detail >= Detail::Ranges;
    OperatingResult out;
    out.rpm = point.rpm;
    out.oil_c = point.sumpTemperature_c;
    out.warnings = solution.warnings;
    const double gauge = solution.pressure_pa[static_cast<size_t>(m_gaugeNode)];
    const std::vector<double> steps = ranges ? flowSteps(solution, point) : std::vector<double> {};
    out.gauge = ranges ? likely(solution, steps, m_gaugeNode, gauge)
                       : LikelyPressure { gauge, gauge, gauge };
    int weakestNode = -1;
    for (const Watched &w : m_watched) {
        PointPressure p = w.point;
        p.pressure_pa = solution.pressure_pa[static_cast<size_t>(w.node)];
        const auto drilling = [&](int e) -> const CrankLaw & {
            return static_cast<const CrankLaw &>(m_network->law(e));
        };
        if (w.crankDrilling >= 0) {
            const auto e = static_cast<size_t>(w.crankDrilling);
            const double main_pa
                = solution.pressure_pa[static_cast<size_t>(m_network->fromNode(w.crankDrilling))];
            p.column_pa = drilling(w.crankDrilling)
                              .columnAt_pa(solution.lagged[e], main_pa, p.pressure_pa,
                                           solution.prepared[e]);
            p.pressure_pa -= p.column_pa;
        }
        p.need_pa = needAt_pa(w.need, point.rpm, m_hotIdle_rpm, m_most_rpm, m_floor_pa);
        p.flow_m3_s = flowTaken_m3_s(w, solution);
        p.needFlow_m3_s = w.outlets * needFlowAt_m3_s(w.need, point.rpm, m_hotIdle_rpm, m_most_rpm);
        if (p.need_pa > 0)
            for (const int e : w.crankFed)
                p.need_pa = std::max(
                    p.need_pa,
                    drilling(e).supplyNeeded_pa(solution.prepared[static_cast<size_t>(e)]));
        out.points.push_back(p);
        if (p.need_pa > 0
            && (out.weakest < 0
                || p.ratio() < out.points[static_cast<size_t>(out.weakest)].ratio())) {
            out.weakest = static_cast<int>(out.points.size()) - 1;
            weakestNode = w.node;
        }
    }
    if (out.weakest >= 0) {
        const double value = out.points[static_cast<size_t>(out.weakest)].pressure_pa;
        out.weakestPressure = ranges ? likely(solution, steps, weakestNode, value)
                                     : LikelyPressure { value, value, value };
    }
    for (const int e : m_crankDrillings) {
        const auto &drilling = static_cast<const CrankLaw &>(m_network->law(e));
        const double need = drilling.supplyNeeded_pa(solution.prepared[static_cast<size_t>(e)]);
        const double supply = solution.pressure_pa[static_cast<size_t>(m_network->fromNode(e))];
        const double ratio = need > 0 ? supply / need : 1e9;
        out.crankNeed_pa = std::max(out.crankNeed_pa, need);
        out.crankRatio = out.crankRatio == 0 ? ratio : std::min(out.crankRatio, ratio);
    }
    share(solution, out);
    if (detail == Detail::Nodes || detail >= Detail::Pressures)
        for (size_t n = 0; n < m_network->nodes().size(); ++n)
            out.nodePressure_pa[m_network->nodes()[n]] = solution.pressure_pa[n];
    if (detail == Detail::Everything) {
        fillFilms(solution, point, out);
        for (size_t e = 0; e < m_network->elementCount(); ++e)
            out.elementFlow_m3_s[m_network->elementId(static_cast<int>(e))] = solution.flow_m3_s[e];
    }
    return out;
}

Result<std::vector<double>> OperatingModel::drawn(std::span<const double> z,
                                                  std::span<const double> rpm,
                                                  std::span<const SolveState> from) const
{
    const Inside &in = *m_inside;
    std::map<int, Element> moved; // a pump has several uncertain gaps
    for (const Inside::Uncertain &u : in.m_uncertain) {
        double by = 0;
        for (const auto &[group, share] : u.shares)
            by += share * z[group < 0 ? in.m_groups + u.own : static_cast<size_t>(group)];
        double &value = moved.try_emplace(u.element, *u.base).first->second.values[u.key];
        // No gap at all has no law; a draw that far out is a bearing that would not turn.
        value = std::max(1.0, value + by * u.step_um);
    }
    std::vector<std::pair<int, std::shared_ptr<const Law>>> laws;
    for (const auto &[index, e] : moved)
        laws.emplace_back(index, makeLaw(e));
    const Network network = in.m_network->withLaws(laws);
    std::vector<double> out;
    for (size_t i = 0; i < rpm.size(); ++i) {
        const OperatingPoint point { in.m_oil, rpm[i], in.m_oil_c };
        SolveState state = i < from.size() ? from[i] : m_state;
        const auto solution = network.solve(point, &state);
        if (!solution)
            return tl::unexpected(solution.error());
        out.push_back(solution->pressure_pa[static_cast<size_t>(in.m_gaugeNode)]);
    }
    return out;
}

Result<OperatingResult> OperatingModel::at(double rpm, Detail detail)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { in.m_oil, rpm, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    return in.judge(*solution, point, detail);
}

Result<OperatingResult> OperatingModel::at(double rpm, const Oil &oil)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { oil, rpm, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    return in.judge(*solution, point, Detail::Values);
}

Result<std::vector<double>> OperatingModel::pressures(double rpm, const Oil &oil,
                                                      std::span<const std::string> nodes)
{
    const Inside &in = *m_inside;
    const auto solution = in.m_network->solve({ oil, rpm, in.m_oil_c }, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    std::vector<double> out;
    for (const std::string &node : nodes) {
        const int n = in.m_network->nodeIndex(node);
        out.push_back(n < 0 ? 0 : solution->pressure_pa[static_cast<size_t>(n)]);
    }
    return out;
}

Result<std::vector<DoubtfulPressure>> OperatingModel::likelyAt(double rpm,
                                                               std::span<const std::string> nodes)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { in.m_oil, rpm, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    const auto steps = in.flowSteps(*solution, point);
    std::vector<DoubtfulPressure> out;
    for (const std::string &node : nodes) {
        const int n = in.m_network->nodeIndex(node);
        out.push_back(n < 0 ? DoubtfulPressure {} : in.doubtful(*solution, steps, n));
    }
    return out;
}

LikelyPressure DoubtfulPressure::without(const Doubt &doubt) const
{
    return within(pressure.value_pa,
                  (pressure.high_pa - pressure.value_pa) * std::sqrt(1 - doubt.share));
}

} // namespace mildpath
