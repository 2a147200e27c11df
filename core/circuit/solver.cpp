// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/network.h"

#include "bearing/filmchange.h"
#include "circuit/solverwork.h"
#include "quantity/rounding.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int mostRounds = 80;

std::optional<ShearThinning> thinningOf(const OperatingPoint &point, const WaltherLine &line)
{
    if (!(point.oil.highShearRatio < 1))
        return std::nullopt;
    const ShearThinning out
        = shearThinningBy(point.oil.highShearRatio,
                          oilState(line, point.oil.rho15_kg_m3, { 150 }).dynamicViscosity_pa_s);
    return out.newtonian ? std::nullopt : std::optional(out);
}

} // namespace

OilState Network::oilAt(const Part &part, size_t index, const OperatingPoint &point,
                        Work &work) const
{
    double t = point.sumpTemperature_c + part.dt_k;
    if (part.isBearing)
        t += work.filmRise_k[index];
    work.temperature_c[index] = t;
    for (const Work::CachedOil &known : work.oils)
        if (known.temperature_c == t)
            return work.oil[index] = known.oil;
    const OilState oil = oilState(work.line, point.oil.rho15_kg_m3, { t });
    work.oils.push_back({ t, oil });
    return work.oil[index] = oil;
}

/// The ladder of temperatures above what a film bearing is supplied with; null for other elements.
const FilmOil *Network::filmOilAt(const Part &part, const OperatingPoint &point, Work &work) const
{
    if (!part.film)
        return nullptr;
    const double supply_c = point.sumpTemperature_c + part.dt_k;
    for (const auto &known : work.filmOils)
        if (known->supply_c == supply_c)
            return known.get();
    work.filmOils.push_back(std::make_shared<const FilmOil>(filmOil(
        supply_c,
        [&](double t) {
            const OilState s = oilState(work.line, point.oil.rho15_kg_m3, { t });
            return FilmOilState { s.density_kg_m3, s.dynamicViscosity_pa_s };
        },
        work.shear)));
    return work.filmOils.back().get();
}

double Network::shaftSpeed_rad_s(size_t element, const OperatingPoint &point) const
{
    return radPerSecond(static_cast<int>(element) == m_pump ? point.turned.rpm : point.crank_rpm());
}

void Network::prepareAll(const OperatingPoint &point, const KnownCurves *known, Work &work) const
{
    const bool same = known && known->point == point && known->curves.size() == m_elements.size();
    for (size_t i = 0; i < m_elements.size(); ++i) {
        const OilState oil = oilAt(m_elements[i], i, point, work);
        const FilmOil *filmOil = filmOilAt(m_elements[i], point, work);
        if (same && filmOil && known->curves[i].first == m_elements[i].law.get())
            work.prepared[i] = { {}, known->curves[i].second };
        else
            work.prepared[i] = m_elements[i].law->prepare({ oil, shaftSpeed_rad_s(i, point),
                                                            point.sumpTemperature_c, filmOil,
                                                            work.shear ? &*work.shear : nullptr });
    }
}

void Network::start(const OperatingPoint &point, const SolveState *state, Work &work) const
{
    const size_t elements = m_elements.size(), unknowns = m_nodeOf.size();
    work.prepared.resize(elements);
    work.temperature_c.resize(elements);
    work.oil.resize(elements);
    work.flow.resize(elements);
    work.residual.resize(unknowns);
    work.lag.resize(elements);
    work.film.resize(elements);
    work.matrix = m_elimination.zero();
    const bool warm = state && state->filled && state->pressure_pa.size() == unknowns
        && state->lagged.size() == elements;
    const double rise = m_rise.base_k + m_rise.perKrpm_k * point.crank_rpm() / 1000;
    work.memory = warm ? state->memory : std::vector<double>(elements, 0.0);
    work.filmRise_k = warm && point.bearingTemperature == BearingTemperature::Energy
        ? state->filmRise_k
        : std::vector<double>(elements, rise);
    prepareAll(point, state ? state->curves.get() : nullptr, work);
    // From rest: of the starts tried (0 to 4 bar everywhere) it takes the fewest steps.
    work.p = warm ? state->pressure_pa : std::vector<double>(unknowns, 0.0);
    // Walking along speeds, the step before tells where the next one leads.
    if (warm && state->formerRpm > 0 && state->rpm != state->formerRpm
        && state->formerPressure_pa.size() == unknowns) {
        const double share = (point.turned.rpm - state->rpm) / (state->rpm - state->formerRpm);
        if (share > 0 && share <= 1.5)
            for (size_t i = 0; i < unknowns; ++i)
                work.p[i] += share * (work.p[i] - state->formerPressure_pa[i]);
    }
    constexpr double sweepPer_pa = 200;
    const auto pump = static_cast<size_t>(m_pump);
    work.swept_m3_s
        = static_cast<const PumpLaw &>(*m_elements[pump].law).swept_m3_s(work.prepared[pump]);
    work.voidPer_m3_s_pa = work.swept_m3_s / sweepPer_pa;
    for (const size_t i : m_lagging)
        work.lag[i].value = m_elements[i].law->laggedStart(work.prepared[i]);
    if (!warm)
        return;
    // A warm start keeps its pressures; the lagged values follow from them at the new point.
    unsettled(work);
    for (const size_t i : m_lagging)
        work.lag[i].value = work.lag[i].target.value;
}

/// One pass over all elements at work.p: flows, residual, Jacobian. Returns the largest imbalance.
double Network::evaluate(Work &work) const
{
    std::fill(work.residual.begin(), work.residual.end(), 0.0);
    std::fill(work.matrix.diagonal.begin(), work.matrix.diagonal.end(), 0.0);
    std::fill(work.matrix.offDiagonal.begin(), work.matrix.offDiagonal.end(), 0.0);
    for (size_t i = 0; i < m_elements.size(); ++i) {
        const Part &e = m_elements[i];
        const double from = e.freeFrom < 0 ? m_fixed_pa[static_cast<size_t>(e.from)]
                                           : work.p[static_cast<size_t>(e.freeFrom)];
        const double to = e.freeTo < 0 ? m_fixed_pa[static_cast<size_t>(e.to)]
                                       : work.p[static_cast<size_t>(e.freeTo)];
        if (e.law->lagged() == Lagged::Supply) {
            // Never behind: it is part of every step.
            work.lag[i].value = from;
            work.lag[i].target = { from, 1 };
        }
        const LawFlow q
            = e.law->flow(from - to, work.prepared[i], work.lag[i].value, work.memory[i]);
        const double flow = q.flow_m3_s * e.multiplier;
        const double slope = q.slope_m3_s_pa * e.multiplier;
        work.flow[i] = flow;
        work.lag[i].flowPer = q.perLagged * e.multiplier;
        if (e.freeFrom >= 0) {
            work.residual[static_cast<size_t>(e.freeFrom)] += flow;
            work.matrix.diagonal[static_cast<size_t>(e.freeFrom)] += slope;
        }
        if (e.freeTo >= 0) {
            work.residual[static_cast<size_t>(e.freeTo)] -= flow;
            work.matrix.diagonal[static_cast<size_t>(e.freeTo)] += slope;
        }
        if (e.slot >= 0)
            work.matrix.offDiagonal[static_cast<size_t>(e.slot)] -= slope;
    }
    runOut(work);
    work.error = 0;
    for (size_t i = 0; i < work.residual.size(); ++i)
        if (!(std::abs(work.residual[i]) <= work.error)) {
            work.error = std::abs(work.residual[i]);
            work.worst = static_cast<int>(i);
        }
    return work.error;
}

/// Where the pressure would fall below what oil can bear, it tears: a void flows in that carries no
/// oil, in proportion to what is missing, its corner rounded. Convex, so the solution stays the
/// only one.
void Network::runOut(Work &work) const
{
    constexpr double rounded_pa = 100;
    work.void_m3_s = 0;
    double most = 0;
    for (size_t i = 0; i < work.p.size(); ++i) {
        const double below = oilTearsAt_pa - work.p[i];
        if (below <= -rounded_pa || static_cast<int>(i) == m_inletUnknown)
            continue;
        const double t = (below + rounded_pa) / (2 * rounded_pa);
        const double depth = t >= 1 ? below : rounded_pa * t * t;
        const double flow = work.voidPer_m3_s_pa * depth;
        work.residual[i] -= flow;
        work.matrix.diagonal[i] += work.voidPer_m3_s_pa * std::min(t, 1.0);
        work.void_m3_s += flow;
        if (flow > most) {
            most = flow;
            work.emptiest = static_cast<int>(i);
        }
    }
}

double Network::pumpFlow(const Work &work) const
{
    const auto pump = static_cast<size_t>(m_pump);
    return std::max(std::abs(work.flow[pump]), 1e-5 * work.swept_m3_s);
}

/// Film rise of every bearing from its own loss and flow. True when settled.
bool Network::balanceHeat(const OperatingPoint &point, Work &work) const
{
    bool settled = true;
    const double speed = radPerSecond(point.crank_rpm()); // pumps are no bearings
    for (size_t i = 0; i < m_elements.size(); ++i) {
        const Part &e = m_elements[i];
        if (!e.isBearing || e.multiplier == 0)
            continue;
        const LawConditions conditions { oilAt(e, i, point, work), speed, point.sumpTemperature_c };
        const double loss = static_cast<const BearingLaw &>(*e.law).loss_w(conditions);
        const double flow = std::abs(work.flow[i]) / e.multiplier;
        const double carried = conditions.oil.density_kg_m3 * oilHeat_j_kg_k * flow;
        const double target
            = carried > 0 ? std::min(filmRiseMost_k, filmWarmth * loss / carried) : filmRiseMost_k;
        const double miss = target - work.filmRise_k[i];
        if (std::abs(miss) < filmTolerance_k)
            continue;
        settled = false;
        work.filmRise_k[i] += work.film[i].share(work.filmRise_k[i], target, 0.5) * miss;
        work.prepared[i]
            = e.law->prepare({ oilAt(e, i, point, work), speed, point.sumpTemperature_c });
    }
    return settled;
}

Result<Solution> Network::solve(const OperatingPoint &point, SolveState *state) const
{
    if (!(point.turned.rpm > 0) || !(point.turned.rpm <= 30000))
        return fail("rpm",
                    "must be above 0 and at most 30000, is " + formatPlain(point.turned.rpm, 1));
    if (!(point.sumpTemperature_c >= -60) || !(point.sumpTemperature_c <= 300))
        return fail("oil_temp_c",
                    "must be -60 to 300, is " + formatPlain(point.sumpTemperature_c, 1));
    if (!(point.oil.rho15_kg_m3 >= 600) || !(point.oil.rho15_kg_m3 <= 1200))
        return fail("rho15_kg_m3",
                    "must be 600 to 1200, is " + formatPlain(point.oil.rho15_kg_m3, 1));
    const auto line = waltherLine(point.oil.kv40_mm2_s, point.oil.kv100_mm2_s);
    if (!line)
        return tl::unexpected(line.error());

    Work work;
    work.line = *line;
    work.shear = thinningOf(point, *line);
    start(point, state, work);
    bool settled = false;
    while (!settled && work.rounds < mostRounds) {
        ++work.rounds;
        // A choked suction answers to the last millionth of its flow: balance it quite.
        const int steps = newton(work, work.rounds > stubbornFrom ? massTolerance : roughTolerance);
        if (steps < 0)
            break;
        work.steps += steps;
        work.mostInOneRound = std::max(work.mostInOneRound, steps);
        settled = coupledNewton(work);
        if (!settled)
            substituteLagged(work);
        else if (point.bearingTemperature == BearingTemperature::Energy)
            settled = balanceHeat(point, work);
    }
    if (!settled) {
        const std::string &node
            = m_nodes[static_cast<size_t>(m_nodeOf[static_cast<size_t>(work.worst)])];
        return fail(
            node,
            { "solver.none",
              "no solution found at {0}, {1}; worst balance at node \"{2}\"",
              { asSpeed(point.turned.rpm), asTemperature(point.sumpTemperature_c), node } });
    }
    if (state) {
        state->formerRpm = state->filled ? state->rpm : 0;
        state->formerPressure_pa = std::move(state->pressure_pa);
        state->filled = true;
        state->rpm = point.turned.rpm;
        state->pressure_pa = work.p;
        state->memory = work.memory;
        state->filmRise_k = work.filmRise_k;
        state->lagged.resize(m_elements.size());
        for (size_t i = 0; i < m_elements.size(); ++i)
            state->lagged[i] = work.lag[i].value;
    }
    return finish(point, work);
}

std::vector<double> Network::flowsAt(const OperatingPoint &point, const Solution &at) const
{
    const auto line = waltherLine(point.oil.kv40_mm2_s, point.oil.kv100_mm2_s);
    if (!line)
        return at.flow_m3_s;
    Work work;
    work.line = *line;
    work.shear = thinningOf(point, *line);
    work.temperature_c.resize(m_elements.size());
    work.oil.resize(m_elements.size());
    std::vector<double> out;
    for (size_t i = 0; i < m_elements.size(); ++i) {
        const Part &e = m_elements[i];
        const double from = at.pressure_pa[static_cast<size_t>(e.from)];
        const double dp = from - at.pressure_pa[static_cast<size_t>(e.to)];
        if (e.film) {
            // Its warmth near what it was, on the ladder of either oil.
            const double supply_c = at.oilTemperature_c[i];
            const FilmOil *other = filmOilAt(e, point, work), *now = nullptr;
            for (const auto &known : at.filmOil)
                if (!now
                    || std::abs(known->supply_c - supply_c) < std::abs(now->supply_c - supply_c))
                    now = known.get();
            out.push_back(
                at.flow_m3_s[i]
                + (dp > 0 && now
                       ? e.multiplier
                           * flowChangeByOil_m3_s(
                               e.film->film(),
                               e.film->running(shaftSpeed_rad_s(i, point), point.sumpTemperature_c),
                               dp, std::max(0.01, at.oilTemperature_c[i] - now->supply_c), *now,
                               *other)
                       : 0));
            continue;
        }
        const Prepared prepared = e.law->prepare(
            { oilAt(e, i, point, work), shaftSpeed_rad_s(i, point), point.sumpTemperature_c,
              nullptr, work.shear ? &*work.shear : nullptr });
        const double lagged = e.law->lagged() == Lagged::Fill
            ? e.law->laggedTarget(from, prepared).value
            : at.lagged[i];
        double memory = std::abs(at.flow_m3_s[i]);
        out.push_back(e.multiplier * e.law->flow(dp, prepared, lagged, memory).flow_m3_s);
    }
    return out;
}

Solution Network::finish(const OperatingPoint &point, Work &work) const
{
    Solution out;
    out.pressure_pa = m_fixed_pa;
    for (size_t i = 0; i < m_nodeOf.size(); ++i)
        out.pressure_pa[static_cast<size_t>(m_nodeOf[i])] = work.p[i];
    out.lagged.resize(m_elements.size());
    for (size_t i = 0; i < m_elements.size(); ++i)
        out.lagged[i] = work.lag[i].value;
    out.lagAnswer.resize(m_elements.size());
    for (const size_t i : m_lagging)
        out.lagAnswer[i] = { work.lag[i].flowPer, work.lag[i].target.slope };
    out.shear = work.shear;
    out.void_m3_s = work.void_m3_s;
    if (work.void_m3_s > 0 && work.emptiest >= 0)
        out.emptyNode = m_nodeOf[static_cast<size_t>(work.emptiest)];
    out.factor = work.matrix;
    m_elimination.factorize(out.factor);
    out.flow_m3_s = std::move(work.flow);
    out.oilTemperature_c = std::move(work.temperature_c);
    out.oil = std::move(work.oil);
    out.newtonSteps = work.steps;
    out.mostStepsInOneRound = work.mostInOneRound;
    out.rounds = work.rounds;
    const double reference = std::abs(out.flow_m3_s[static_cast<size_t>(m_pump)]);
    out.massErrorRelative = reference > 0 ? work.error / reference : work.error;
    out.prepared = std::move(work.prepared);
    out.filmOil = std::move(work.filmOils);
    for (size_t i = 0; i < m_elements.size(); ++i)
        if (const Part &e = m_elements[i]; e.film)
            out.oilTemperature_c[i]
                += out.prepared[i].curve->rise_k(out.pressure_pa[static_cast<size_t>(e.from)]
                                                 - out.pressure_pa[static_cast<size_t>(e.to)]);
    warn(point, work, out);
    return out;
}

void Network::warn(const OperatingPoint &point, const Work &, Solution &out) const
{
    out.warnings = m_compileWarnings;
    const auto add = [&](const char *id, Phrase text) {
        out.warnings.push_back({ id, std::move(text) });
    };
    if (point.sumpTemperature_c < -20 || point.sumpTemperature_c > 150)
        add("temperature_extrapolated",
            "oil temperature lies outside -20 to 150 C; the viscosity "
            "is extrapolated");
    const auto &pump = static_cast<const PumpLaw &>(law(m_pump));
    const AbsolutePressure inlet
        = absolute(GaugePressure { out.pressure_pa[static_cast<size_t>(fromNode(m_pump))] });
    if (inlet.value_pa < pump.releasePressure().value_pa + 10e3)
        add("inlet_near_release",
            { "solver.inlet",
              "pump inlet at {0} absolute: air comes out, the pump does not fill",
              { asPressure(inlet.value_pa) } });
    const double delivered = out.flow_m3_s[static_cast<size_t>(m_pump)];
    for (size_t i = 0; i < m_elements.size(); ++i) {
        const Part &e = m_elements[i];
        if (e.kind == ElementKind::CrankDrilling) {
            const double needed
                = static_cast<const CrankLaw &>(*e.law).supplyNeeded_pa(out.prepared[i]);
            const double supply = out.pressure_pa[static_cast<size_t>(e.from)];
            if (supply < needed)
                add("crank_not_fed",
                    { "solver.crank",
                      "\"{0}\": {1} at the main is below the {2} the oil needs to enter the crank",
                      { e.id, asPressure(supply), asPressure(needed) } });
        } else if (e.kind == ElementKind::Relief) {
            const bool isRelief = static_cast<int>(i) == m_relief;
            const double share = delivered > 0 ? out.flow_m3_s[i] / delivered : 0;
            if (isRelief && share > 0.01 && point.turned.rpm <= 1000
                && point.sumpTemperature_c >= 80)
                add("relief_open_at_hot_idle", "the relief valve is open at hot idle");
            if (!isRelief && share > 0.1)
                add("filter_bypassed",
                    { "solver.bypass",
                      "\"{0}\": {1} of the oil passes round the filter",
                      { e.id, asShare(share) } });
        }
    }
    if (out.void_m3_s > 1e-3 * pump.swept_m3_s(out.prepared[static_cast<size_t>(m_pump)])
        && out.emptyNode >= 0)
        add("oil_runs_out",
            { "solver.void",
              "oil runs out at \"{0}\": more is drawn from it than reaches it",
              { m_nodes[static_cast<size_t>(out.emptyNode)] } });
    if (out.pressure_pa[static_cast<size_t>(toNode(m_pump))] > beyondStrength_pa)
        add("beyond_strength",
            { "solver.strength",
              "pump outlet above {0}, what filter cans stand",
              { asPressure(beyondStrength_pa, 0) } });
}

} // namespace mildpath
