// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/network.h"

#include "circuit/settling.h"
#include "quantity/rounding.h"
#include "rules/rules.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int mostNewtonSteps = 100;
constexpr int mostCoupledSteps = 12;
constexpr int mostRounds = 80;
constexpr int stubbornFrom = 6; // rounds after which a cycle is to be broken

} // namespace

/// Everything one solve writes to.
struct Network::Work
{
    struct Lag
    {
        double value = 0;
        ValueSlope target {}; ///< by the pressure before the element
        double flowPer = 0; ///< dQ/d(value), count and duty included
        Secant secant {};
        Bracket bracket {};
    };
    /// Oil at one temperature; a circuit has only a handful of them.
    struct CachedOil
    {
        double temperature_c;
        OilState oil;
    };

    WaltherLine line {};
    std::vector<double> p, residual, step; ///< per unknown
    std::vector<Prepared> prepared;
    std::vector<double> memory, filmRise_k, temperature_c, flow;
    std::vector<OilState> oil; ///< per element
    std::vector<Lag> lag;
    std::vector<Secant> film; ///< per element; bearings only
    std::vector<CachedOil> oils;
    std::vector<std::shared_ptr<const FilmOil>> filmOils;
    Elimination::Values matrix;
    int steps = 0, mostInOneRound = 0, rounds = 0;
    double error = 0; ///< absolute imbalance, m³/s
    int worst = 0; ///< unknown
};

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
    work.filmOils.push_back(std::make_shared<const FilmOil>(filmOil(supply_c, [&](double t) {
        const OilState s = oilState(work.line, point.oil.rho15_kg_m3, { t });
        return FilmOilState { s.density_kg_m3, s.dynamicViscosity_pa_s };
    })));
    return work.filmOils.back().get();
}

void Network::prepareAll(const OperatingPoint &point, const KnownCurves *known, Work &work) const
{
    const double speed = radPerSecond(point.rpm);
    const bool same = known && known->point == point && known->curves.size() == m_elements.size();
    for (size_t i = 0; i < m_elements.size(); ++i) {
        const OilState oil = oilAt(m_elements[i], i, point, work);
        const FilmOil *filmOil = filmOilAt(m_elements[i], point, work);
        if (same && filmOil && known->curves[i].first == m_elements[i].law.get())
            work.prepared[i] = { {}, known->curves[i].second };
        else
            work.prepared[i]
                = m_elements[i].law->prepare({ oil, speed, point.sumpTemperature_c, filmOil });
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
    const double rise = m_rise.base_k + m_rise.perKrpm_k * point.rpm / 1000;
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
        const double share = (point.rpm - state->rpm) / (state->rpm - state->formerRpm);
        if (share > 0 && share <= 1.5)
            for (size_t i = 0; i < unknowns; ++i)
                work.p[i] += share * (work.p[i] - state->formerPressure_pa[i]);
    }
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
    work.error = 0;
    for (size_t i = 0; i < work.residual.size(); ++i)
        if (!(std::abs(work.residual[i]) <= work.error)) {
            work.error = std::abs(work.residual[i]);
            work.worst = static_cast<int>(i);
        }
    return work.error;
}

double Network::pumpFlow(const Work &work) const
{
    const auto pump = static_cast<size_t>(m_pump);
    return std::max(std::abs(work.flow[pump]), 1e-6 * std::abs(work.lag[pump].value));
}

/// Damped Newton at fixed lagged values. Returns the steps taken, or −1 when it does not arrive.
int Network::newton(Work &work, double tolerance) const
{
    evaluate(work);
    for (int steps = 0; steps < mostNewtonSteps; ++steps) {
        if (work.error <= tolerance * pumpFlow(work))
            return steps;
        Elimination::Values factor = work.matrix;
        if (m_elimination.factorize(factor) >= 0)
            return -1;
        work.step.resize(work.p.size());
        for (size_t i = 0; i < work.p.size(); ++i)
            work.step[i] = -work.residual[i];
        m_elimination.solve(factor, work.step);
        for (double &s : work.step)
            s = std::clamp(s, -largestStep_pa, largestStep_pa);

        // Line search on the slope F·d of the convex co-content along the step: no integral needed.
        const std::vector<double> base = work.p;
        const auto slopeAt = [&](double a) {
            for (size_t i = 0; i < base.size(); ++i)
                work.p[i] = base[i] + a * work.step[i];
            evaluate(work);
            double slope = 0;
            for (size_t i = 0; i < base.size(); ++i)
                slope += work.residual[i] * work.step[i];
            return slope;
        };
        double slope0 = 0;
        for (size_t i = 0; i < base.size(); ++i)
            slope0 += work.residual[i] * work.step[i];
        double low = 0, high = 1, slopeLow = slope0, a = 1;
        double slope = slopeAt(a);
        double slopeHigh = slope;
        for (int tries = 0; tries < 30; ++tries) {
            if (std::abs(slope) <= slopeLeft * std::abs(slope0) || (slope < 0 && a >= 1))
                break;
            if (slope > 0) {
                high = a;
                slopeHigh = slope;
            } else {
                low = a;
                slopeLow = slope;
            }
            const double secant = low - slopeLow * (high - low) / (slopeHigh - slopeLow);
            const double margin = 0.1 * (high - low);
            a = std::clamp(secant, low + margin, high - margin);
            slope = slopeAt(a);
        }
    }
    return -1;
}

/// How far the lagged values are from their targets, the worst in units of its tolerance. Also
/// refreshes the targets.
double Network::unsettled(Work &work) const
{
    double worst = 0;
    for (const size_t i : m_lagging) {
        const Part &e = m_elements[i];
        const double from = e.freeFrom < 0 ? m_fixed_pa[static_cast<size_t>(e.from)]
                                           : work.p[static_cast<size_t>(e.freeFrom)];
        Work::Lag &lag = work.lag[i];
        lag.target = e.law->laggedTarget(from, work.prepared[i]);
        double tolerance = gateTolerance;
        if (e.law->lagged() == Lagged::Fill)
            tolerance = fillTolerance * std::max(std::abs(lag.target.value), 1e-12);
        else if (e.law->lagged() == Lagged::Supply)
            tolerance = supplyTolerance_pa;
        worst = std::max(worst, std::abs(lag.target.value - lag.value) / tolerance);
    }
    return worst;
}

/// One Newton step of pressures and lagged values together. Each lagged value answers to one
/// pressure only, so the step is the symmetric solve plus a correction of as many ranks as there
/// are lagged values (Woodbury). False when that small system is singular.
bool Network::coupledStep(Work &work) const
{
    Elimination::Values factor = work.matrix;
    if (m_elimination.factorize(factor) >= 0)
        return false;
    const size_t n = work.p.size(), m = m_lagging.size();
    const auto push = [&](size_t k, std::vector<double> &x, double amount) {
        const Part &e = m_elements[m_lagging[k]];
        const double q = work.lag[m_lagging[k]].flowPer * amount;
        if (e.freeFrom >= 0)
            x[static_cast<size_t>(e.freeFrom)] += q;
        if (e.freeTo >= 0)
            x[static_cast<size_t>(e.freeTo)] -= q;
    };
    work.step.assign(n, 0.0);
    for (size_t i = 0; i < n; ++i)
        work.step[i] = -work.residual[i];
    std::vector<size_t> live; // lagged values that answer to pressure here
    for (size_t k = 0; k < m; ++k) {
        const Work::Lag &lag = work.lag[m_lagging[k]];
        push(k, work.step, -(lag.target.value - lag.value));
        if (lag.target.slope != 0 && m_elements[m_lagging[k]].freeFrom >= 0)
            live.push_back(k);
    }
    m_elimination.solve(factor, work.step);

    // Woodbury: z answers to a unit of each live value, the small system tells how far each goes.
    const auto r = static_cast<Eigen::Index>(live.size());
    std::vector<std::vector<double>> z(live.size(), std::vector<double>(n, 0.0));
    const auto liveAt = [&](Eigen::Index k) { return live[static_cast<size_t>(k)]; };
    const auto at = [&](Eigen::Index k) {
        return static_cast<size_t>(m_elements[m_lagging[liveAt(k)]].freeFrom);
    };
    Eigen::MatrixXd small = Eigen::MatrixXd::Identity(r, r);
    Eigen::VectorXd moved(r);
    for (size_t k = 0; k < live.size(); ++k) {
        push(live[k], z[k], 1);
        m_elimination.solve(factor, z[k]);
    }
    for (Eigen::Index k = 0; k < r; ++k) {
        const double slope = work.lag[m_lagging[liveAt(k)]].target.slope;
        for (Eigen::Index j = 0; j < r; ++j)
            small(k, j) += slope * z[static_cast<size_t>(j)][at(k)];
        moved(k) = slope * work.step[at(k)];
    }
    if (r > 0) {
        const Eigen::FullPivLU<Eigen::MatrixXd> lu(small);
        if (!lu.isInvertible())
            return false;
        moved = lu.solve(moved);
    }
    for (size_t k = 0; k < live.size(); ++k)
        for (size_t i = 0; i < n; ++i)
            work.step[i] -= z[k][i] * moved(static_cast<Eigen::Index>(k));
    for (size_t i = 0; i < n; ++i)
        work.p[i] += std::clamp(work.step[i], -largestStep_pa, largestStep_pa);
    for (const size_t i : m_lagging) {
        Work::Lag &lag = work.lag[i];
        lag.value = lag.target.value;
    }
    for (Eigen::Index k = 0; k < r; ++k)
        work.lag[m_lagging[liveAt(k)]].value += moved(k);
    return true;
}

/// Pressures and lagged values together, from a state where the pressures nearly balance. False,
/// with the state put back, when it does not close in: the rounds then go on.
bool Network::coupledNewton(Work &work) const
{
    const std::vector<double> pressure = work.p;
    const std::vector<Work::Lag> lag = work.lag;
    double before = std::max(unsettled(work), work.error / (massTolerance * pumpFlow(work)));
    for (int i = 0; i < mostCoupledSteps && before > 1; ++i) {
        if (!coupledStep(work))
            break;
        ++work.steps;
        evaluate(work);
        const double now = std::max(unsettled(work), work.error / (massTolerance * pumpFlow(work)));
        if (!(now < before))
            break;
        before = now;
    }
    if (before <= 1 && work.error <= massTolerance * pumpFlow(work))
        return true;
    work.p = pressure;
    work.lag = lag;
    return false;
}

/// Moves every lagged value toward its target, by itself.
void Network::substituteLagged(Work &work) const
{
    unsettled(work);
    for (const size_t i : m_lagging) {
        Work::Lag &lag = work.lag[i];
        const double miss = lag.target.value - lag.value;
        const double first = std::abs(miss) > 0.02 * std::abs(lag.target.value) ? 0.5 : 1;
        const double share = lag.secant.share(lag.value, lag.target.value, first);
        const double next = lag.value + share * miss;
        // The secant alone is quicker wherever it arrives at all.
        const bool stubborn = work.rounds > stubbornFrom;
        lag.value = stubborn && m_elements[i].law->lagged() == Lagged::Fill
            ? lag.bracket.keep(lag.value, lag.target.value, next)
            : next;
    }
}

/// Film rise of every bearing from its own loss and flow. True when settled.
bool Network::balanceHeat(const OperatingPoint &point, Work &work) const
{
    bool settled = true;
    const double speed = radPerSecond(point.rpm);
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
    if (!(point.rpm > 0) || !(point.rpm <= 30000))
        return fail("rpm", "must be above 0 and at most 30000, is " + formatPlain(point.rpm, 1));
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
        return fail(node,
                    { "solver.none",
                      "no solution found at {0}, {1}; worst balance at node \"{2}\"",
                      { asSpeed(point.rpm), asTemperature(point.sumpTemperature_c), node } });
    }
    if (state) {
        state->formerRpm = state->filled ? state->rpm : 0;
        state->formerPressure_pa = std::move(state->pressure_pa);
        state->filled = true;
        state->rpm = point.rpm;
        state->pressure_pa = work.p;
        state->memory = work.memory;
        state->filmRise_k = work.filmRise_k;
        state->lagged.resize(m_elements.size());
        for (size_t i = 0; i < m_elements.size(); ++i)
            state->lagged[i] = work.lag[i].value;
    }
    return finish(point, work);
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
            if (isRelief && share > 0.01 && point.rpm <= 1000 && point.sumpTemperature_c >= 80)
                add("relief_open_at_hot_idle", "the relief valve is open at hot idle");
            if (!isRelief && share > 0.1)
                add("filter_bypassed",
                    { "solver.bypass",
                      "\"{0}\": {1} of the oil passes round the filter",
                      { e.id, asShare(share) } });
        }
    }
    double highest = 0;
    for (const double p : out.pressure_pa)
        highest = std::max(highest, p);
    if (out.pressure_pa[static_cast<size_t>(toNode(m_pump))] > beyondStrength_pa)
        add("beyond_strength",
            { "solver.strength",
              "pump outlet above {0}, what filter cans stand",
              { asPressure(beyondStrength_pa, 0) } });
}

} // namespace mildpath
