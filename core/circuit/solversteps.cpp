// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/solverwork.h"

#include "rules/rules.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int mostNewtonSteps = 300;
constexpr int slopeSteps = 20; // before steps are also searched by the imbalance
constexpr int mostCoupledSteps = 12;

} // namespace

/// Newton's step at fixed fill and gates, for work.residual. What is supplied through the crank
/// makes the matrix unsymmetric: a correction of as many ranks as there are such drillings
/// (Woodbury). False when there is none.
bool Network::newtonStep(Work &work) const
{
    Elimination::Values factor = work.matrix;
    if (m_elimination.factorize(factor) >= 0)
        return false;
    work.step.resize(work.p.size());
    for (size_t i = 0; i < work.p.size(); ++i)
        work.step[i] = -work.residual[i];
    m_elimination.solve(factor, work.step);
    return bend(work, factor, m_supplied);
}

/// A symmetric step made into that of the whole Jacobian, in which some lagged values answer to the
/// pressure before them. False when that small system is singular.
bool Network::bend(Work &work, const Elimination::Values &factor,
                   const std::vector<size_t> &answering) const
{
    const size_t n = work.p.size();
    work.moved.clear();
    std::vector<size_t> live; // that answer to pressure here
    for (const size_t i : answering)
        if (work.lag[i].target.slope != 0 && work.lag[i].flowPer != 0
            && m_elements[i].freeFrom >= 0)
            live.push_back(i);
    if (live.empty())
        return true;
    // z answers to a unit of each live value, the small system tells how far each goes.
    const auto r = static_cast<Eigen::Index>(live.size());
    std::vector<std::vector<double>> z(live.size(), std::vector<double>(n, 0.0));
    const auto at = [&](Eigen::Index k) {
        return static_cast<size_t>(m_elements[live[static_cast<size_t>(k)]].freeFrom);
    };
    for (size_t k = 0; k < live.size(); ++k) {
        const Part &e = m_elements[live[k]];
        const double q = work.lag[live[k]].flowPer;
        z[k][static_cast<size_t>(e.freeFrom)] += q;
        if (e.freeTo >= 0)
            z[k][static_cast<size_t>(e.freeTo)] -= q;
        m_elimination.solve(factor, z[k]);
    }
    Eigen::MatrixXd small = Eigen::MatrixXd::Identity(r, r);
    Eigen::VectorXd moved(r);
    for (Eigen::Index k = 0; k < r; ++k) {
        const double slope = work.lag[live[static_cast<size_t>(k)]].target.slope;
        for (Eigen::Index j = 0; j < r; ++j)
            small(k, j) += slope * z[static_cast<size_t>(j)][at(k)];
        moved(k) = slope * work.step[at(k)];
    }
    const Eigen::FullPivLU<Eigen::MatrixXd> lu(small);
    if (!lu.isInvertible())
        return false;
    moved = lu.solve(moved);
    for (size_t k = 0; k < live.size(); ++k) {
        const double by = moved(static_cast<Eigen::Index>(k));
        for (size_t i = 0; i < n; ++i)
            work.step[i] -= z[k][i] * by;
        work.moved.emplace_back(live[k], by);
    }
    return true;
}

/// Damped Newton at fixed fill and gates. Returns the steps taken, or −1 when it does not arrive.
int Network::newton(Work &work, double tolerance) const
{
    evaluate(work);
    for (int steps = 0; steps < mostNewtonSteps; ++steps) {
        if (work.error <= tolerance * pumpFlow(work))
            return steps;
        if (!newtonStep(work))
            return -1;
        for (double &s : work.step)
            s = std::clamp(s, -largestStep_pa, largestStep_pa);
        // The slope alone knows films with their corners best; what it leaves going round is
        // settled by the imbalance.
        if (m_supplied.empty() || steps < slopeSteps || steps % 2 == 0)
            alongTheSlope(work);
        else
            alongTheImbalance(work);
    }
    return -1;
}

/// As far along the step as the slope F·d of the convex co-content says: no integral needed.
void Network::alongTheSlope(Work &work) const
{
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

/// Halved until the imbalances together have fallen: columns of the Jacobian sum to nothing
/// negative (an M-function; Rheinboldt 1970, from memory), so there is such a part of the step.
void Network::alongTheImbalance(Work &work) const
{
    const std::vector<double> base = work.p;
    const auto imbalance = [&] {
        double sum = 0;
        for (const double r : work.residual)
            sum += std::abs(r);
        return sum;
    };
    const double before = imbalance();
    for (double a = 1; a > 1e-3; a /= 2) {
        for (size_t i = 0; i < base.size(); ++i)
            work.p[i] = base[i] + a * work.step[i];
        evaluate(work);
        if (imbalance() <= (1 - 0.1 * a) * before)
            return;
    }
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
        if (e.law->lagged() == Lagged::Supply)
            continue;
        const double tolerance = e.law->lagged() == Lagged::Fill
            ? fillTolerance * std::max(std::abs(lag.target.value), 0.1 * work.swept_m3_s)
            : gateTolerance;
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
    for (size_t k = 0; k < m; ++k) {
        const Work::Lag &lag = work.lag[m_lagging[k]];
        push(k, work.step, -(lag.target.value - lag.value));
    }
    m_elimination.solve(factor, work.step);
    if (!bend(work, factor, m_lagging))
        return false;
    for (size_t i = 0; i < n; ++i)
        work.p[i] += std::clamp(work.step[i], -largestStep_pa, largestStep_pa);
    for (const size_t i : m_lagging) {
        Work::Lag &lag = work.lag[i];
        lag.value = lag.target.value;
    }
    for (const auto &[i, by] : work.moved)
        work.lag[i].value += by;
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
        const Lagged kind = m_elements[i].law->lagged();
        if (kind == Lagged::Supply)
            continue;
        const double miss = lag.target.value - lag.value;
        const double first = std::abs(miss) > 0.02 * std::abs(lag.target.value) ? 0.5 : 1;
        const double share = lag.secant.share(lag.value, lag.target.value, first);
        const double next = lag.value + share * miss;
        // The secant alone is quicker wherever it arrives at all.
        const bool stubborn = work.rounds > stubbornFrom;
        lag.value = stubborn && kind == Lagged::Fill
            ? lag.bracket.keep(lag.value, lag.target.value, next)
            : next;
    }
}

} // namespace mildpath
