// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/operatingmodel.h"

#include "assess/operatinginside.h"

#include "assess/calibrated.h"
#include "assess/circuitof.h"
#include "assess/growth.h"
#include "assess/sizes.h"
#include "assess/uncertain.h"
#include "circuit/elementtypes.h"
#include "circuit/need.h"
#include "circuit/network.h"
#include "rules/rules.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double idlesUpTo = 1.1; ///< of the hot idle's speed

/// Circuit and oil with every input moved by its z, but for the oil's temperature.
void move(const std::vector<UncertainInput> &inputs, const std::vector<double> &z, Circuit &circuit,
          Oil &oil)
{
    if (z.empty())
        return;
    PossibleBuild moved = possibleBuild(circuit, oil, 0, inputs, z);
    circuit = std::move(moved.circuit);
    oil = moved.oil;
}

} // namespace

OperatingModel::OperatingModel(std::shared_ptr<const Inside> inside)
    : m_inside(std::move(inside))
{
}

size_t OperatingModel::inputs() const
{
    return m_inside->m_inputs.size();
}

const Oil &OperatingModel::oil() const
{
    return m_inside->m_oil;
}

RunningCircuit runningCircuit(const Build &build, const std::vector<GaugedSize> &sizes,
                              const PartTemperatures &parts)
{
    RunningCircuit out { circuitOf(build, sizes, parts), runningOil(build.oil) };
    calibrate(build, out.circuit);
    calibrate(build, out.oil);
    return out;
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
    return possible(build, sizes, parts, {}, change);
}

Result<OperatingModel> OperatingModel::possible(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                const PartTemperatures &parts,
                                                const std::vector<double> &z,
                                                const CircuitChange &change)
{
    const auto inside = std::make_shared<Inside>();
    Inside &out = *inside;
    RunningCircuit running = runningCircuit(build, sizes, parts);
    out.m_circuit = std::move(running.circuit);
    out.m_oil = running.oil;
    out.m_inputs = uncertainInputs(build, sizes, parts, out.m_circuit);
    out.m_narrowed = Narrowed(build, out.m_inputs);
    move(out.m_inputs, z.empty() ? out.m_narrowed.z() : z, out.m_circuit, out.m_oil);
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
    out.findValves();
    out.findWatched(build);
    out.findFilmed(build);
    return OperatingModel(inside);
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
        const StopNeed need = needOf(stop);
        const bool nothing = stop.has("need_idle_kpa") && need.idle_pa == 0 && need.most_pa == 0;
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
            Watched w {
                { stop.id, p.name, p.node, 0, 0, 0 }, need, m_network->nodeIndex(p.node), -1, {}
            };
            w.needsNothing = nothing;
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
    const auto loads = bearingLoads(build, fullLoadPeakOf_pa(build));
    for (const SizeItem &i : sizeItems(build))
        if (const int e = i.element.empty() ? -1 : m_network->elementIndex(i.element);
            e >= 0 && m_circuit.elements[static_cast<size_t>(e)].kind == ElementKind::FilmBearing) {
            Filmed f { {}, e };
            f.film.stop = i.stop->id;
            f.film.family = i.family->id;
            f.film.name = i.name;
            f.film.element = i.element;
            const auto load = std::ranges::find(loads, f.film.stop, &BearingLoad::stop);
            if (load != loads.end() && (f.film.family == "main" || f.film.family == "big_end")) {
                f.fullLoad_n = load->still_n;
                f.fullLoad_n_per_krpm2 = load->perKrpm2_n;
            }
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
                       .running(radPerSecond(point.crank_rpm()), point.sumpTemperature_c)
                       .load_n;
        b.eccentricityRatio = film->at.film.eccentricityRatio;
        b.smallest_m = film->smallestFilm_m;
        b.film_c = point.sumpTemperature_c + film->rise_k;
        b.outlet_c = point.sumpTemperature_c + film->outlet_rise_k;
        b.flow_m3_s = film->flow_m3_s;
        b.loss_w = film->at.loss_w;
        b.peak_pa = film->peak_pa;
        b.carried = film->at.film.carried;
        // An engine that idles is not loaded.
        if (const double krpm = point.crank_rpm() / 1000;
            f.fullLoad_n > 0 && point.crank_rpm() > idlesUpTo * m_hotIdle_rpm)
            if (const auto full
                = m_network->filmAt(f.element, solution, point,
                                    f.fullLoad_n + f.fullLoad_n_per_krpm2 * krpm * krpm))
                b.loaded
                    = { f.fullLoad_n + f.fullLoad_n_per_krpm2 * krpm * krpm, full->smallestFilm_m,
                        point.sumpTemperature_c + full->rise_k, full->at.film.carried };
        out.films.push_back(std::move(b));
    }
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
    // What it takes in of oil, less what it delivers.
    out.slip_m3_s = solution.lagged[pumpIndex] - out.pumpFlow_m3_s;
    add("slip", "pump slip", out.slip_m3_s);
    add("air", "air and unfilled", out.sweptFlow_m3_s - solution.lagged[pumpIndex]);
}

/// What the drilling passes over what the films would take with the whole column behind them, and
/// the pressure at the pin that would bring them no more than the least share of it.
void OperatingModel::Inside::fillFed(const Watched &w, const Solution &solution,
                                     PointPressure &p) const
{
    const auto e = static_cast<size_t>(w.crankDrilling);
    const auto &law = static_cast<const CrankLaw &>(m_network->law(w.crankDrilling));
    const double main_pa
        = solution.pressure_pa[static_cast<size_t>(m_network->fromNode(w.crankDrilling))];
    p.column_pa = law.columnAt_pa(solution.lagged[e], main_pa, p.pressure_pa, solution.prepared[e]);
    const double pin_pa = p.pressure_pa, full_pa = main_pa + law.column_pa(solution.prepared[e]);
    p.pressure_pa -= p.column_pa;
    const auto takes = [&](double pa) {
        double out = 0;
        for (const int taken : w.taken)
            out += m_network->flowAt(taken, pa, solution);
        return out;
    };
    const double wanted = full_pa > 0 ? takes(full_pa) : 0;
    if (!(wanted > 0))
        return;
    p.fedShare = solution.flow_m3_s[e] / wanted;
    const double least = crankFedLeast * wanted;
    const auto over = [&](double ln) { return takes(full_pa * std::exp(ln)) - least; };
    std::uintmax_t most = 30;
    double ln = std::log(1e-4);
    if (over(ln) < 0) {
        const auto root = boost::math::tools::toms748_solve(
            over, ln, 0.0, boost::math::tools::eps_tolerance<double>(30), most);
        ln = (root.first + root.second) / 2;
    }
    const double need_pa = full_pa * std::exp(ln);
    // The column has its part in both.
    p.need_pa = pin_pa > 0 ? need_pa * p.pressure_pa / pin_pa : need_pa;
}

OperatingResult OperatingModel::Inside::judge(const Solution &solution, const OperatingPoint &point,
                                              Detail detail, const Steps *steps) const
{
    OperatingResult out;
    out.rpm = point.turned.rpm;
    out.pumpAlone = point.turned.pumpAlone;
    out.oil_c = point.sumpTemperature_c;
    out.warnings = solution.warnings;
    const double gauge = solution.pressure_pa[static_cast<size_t>(m_gaugeNode)];
    out.gauge = { gauge, gauge, gauge };
    int weakestNode = -1;
    for (const Watched &w : m_watched) {
        PointPressure p = w.point;
        p.pressure_pa = solution.pressure_pa[static_cast<size_t>(w.node)];
        const auto drilling = [&](int e) -> const CrankLaw & {
            return static_cast<const CrankLaw &>(m_network->law(e));
        };
        const bool turned = w.crankDrilling >= 0 && drilling(w.crankDrilling).byWindows();
        if (w.crankDrilling >= 0)
            fillFed(w, solution, p);
        // What turning brings a rod is judged by what its film gets, not by the user's minimum.
        p.need_pa = std::max(turned ? p.need_pa : 0.0,
                             needAt_pa(w.need, point.turned.rpm, m_hotIdle_rpm, m_most_rpm,
                                       turned ? 0 : m_floor_pa));
        p.needByFlow = turned;
        if (w.needsNothing)
            p.need_pa = 0;
        p.flow_m3_s = flowTaken_m3_s(w, solution);
        p.needFlow_m3_s
            = w.outlets * needFlowAt_m3_s(w.need, point.turned.rpm, m_hotIdle_rpm, m_most_rpm);
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
        out.weakestPressure = { value, value, value };
    }
    if (steps) {
        const std::array<int, 2> nodes { m_gaugeNode, std::max(weakestNode, 0) };
        const auto changes = changesBy(*steps, solution, nodes);
        out.gauge = m_narrowed.range(gauge, changes[0]);
        if (out.weakest >= 0)
            out.weakestPressure = m_narrowed.range(out.weakestPressure.value_pa, changes[1]);
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
    if (detail == Detail::Nodes || detail == Detail::Films || detail >= Detail::Pressures)
        for (size_t n = 0; n < m_network->nodes().size(); ++n)
            out.nodePressure_pa[m_network->nodes()[n]] = solution.pressure_pa[n];
    if (detail == Detail::Films || detail == Detail::Everything) {
        fillFilms(solution, point, out);
        for (size_t e = 0; e < m_network->elementCount(); ++e)
            out.elementFlow_m3_s[m_network->elementId(static_cast<int>(e))] = solution.flow_m3_s[e];
    }
    return out;
}

Result<OperatingResult> OperatingModel::at(const Turned &turned, Detail detail)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { in.m_oil, turned, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    if (detail < Detail::Ranges) {
        OperatingResult out = in.judge(*solution, point, detail, nullptr);
        in.asRead(out);
        return out;
    }
    const auto steps = in.flowSteps(*solution, point);
    OperatingResult out = in.judge(*solution, point, detail, &steps);
    solveEdges(*solution, point, steps, out.gauge);
    in.asRead(out);
    return out;
}

Result<OperatingResult> OperatingModel::at(const Turned &turned, const Oil &oil, Detail detail)
{
    const Inside &in = *m_inside;
    const OperatingPoint point { oil, turned, in.m_oil_c };
    const auto solution = in.m_network->solve(point, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    OperatingResult out = in.judge(*solution, point, detail, nullptr);
    in.asRead(out);
    return out;
}

Result<std::vector<double>> OperatingModel::pressures(const Turned &turned, const Oil &oil,
                                                      std::span<const std::string> nodes)
{
    const Inside &in = *m_inside;
    const auto solution = in.m_network->solve({ oil, turned, in.m_oil_c }, &m_state);
    if (!solution)
        return tl::unexpected(solution.error());
    std::vector<double> out;
    for (const std::string &node : nodes) {
        const int n = in.m_network->nodeIndex(node);
        out.push_back(
            n < 0 ? 0 : solution->pressure_pa[static_cast<size_t>(n)] * in.m_narrowed.factor());
    }
    return out;
}

} // namespace mildpath
