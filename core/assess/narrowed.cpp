// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/narrowed.h"

#include "assess/operatingmodel.h"
#include "document/families.h"
#include "document/logbook.h"
#include "rules/rules.h"

#include <Eigen/Eigenvalues>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {
namespace {

Eigen::Map<const Eigen::VectorXd> vectorOf(std::span<const double> x)
{
    return { x.data(), static_cast<Eigen::Index>(x.size()) };
}

std::vector<double> plain(const Eigen::VectorXd &x)
{
    return { x.data(), x.data() + x.size() };
}

} // namespace

std::string lastMended(const Build &build)
{
    std::string out;
    for (const Repair *r : standing(build.repairs))
        out = std::max(out, r->at);
    for (const Opening *o : standing(build.openings))
        out = std::max(out, o->at);
    return out;
}

const Calibration *readingsInForce(const Build &build)
{
    const Calibration *out = nullptr;
    for (const Calibration *c : standing(build.calibrations))
        if (c->input == "readings")
            out = c;
    return out && out->at > lastMended(build) ? out : nullptr;
}

Build withoutReadings(Build build)
{
    std::vector<Calibration> kept;
    for (const Calibration &c : build.calibrations)
        if (c.input != "readings")
            kept.push_back(c);
    build.calibrations = std::move(kept);
    return build;
}

Narrowed::Narrowed(const Build &build, const std::vector<UncertainInput> &inputs)
{
    const Calibration *c = readingsInForce(build);
    if (!c)
        return;
    size_t readings = 0;
    for (const BelievedInput &b : c->believed)
        readings = std::max(readings, b.narrows.size());
    m_z.assign(inputs.size(), 0);
    m_w = Eigen::MatrixXd::Zero(static_cast<Eigen::Index>(inputs.size()),
                                static_cast<Eigen::Index>(readings));
    m_off = c->off;
    double common_ln = 0;
    // Several inputs of one cause stand in one order.
    std::map<std::string_view, std::vector<BelievedInput>::const_iterator> next;
    for (size_t i = 0; i < inputs.size(); ++i) {
        auto &from = next.try_emplace(inputs[i].cause, c->believed.begin()).first->second;
        const auto b = std::find_if(from, c->believed.end(), [&](const BelievedInput &known) {
            return known.cause == inputs[i].cause;
        });
        if (b == c->believed.end())
            continue;
        from = b + 1;
        m_z[i] = b->z;
        common_ln += inputs[i].pressure_ln * b->z;
        for (size_t k = 0; k < b->narrows.size(); ++k)
            m_w(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(k)) = b->narrows[k];
    }
    m_factor = std::exp(common_ln);
}

double Narrowed::variance(std::span<const double> effects) const
{
    const auto e = vectorOf(effects);
    const double whole = e.squaredNorm();
    return any() ? std::max(0.0, whole - (m_w.transpose() * e).squaredNorm()) : whole;
}

std::vector<double> Narrowed::left(std::span<const double> effects) const
{
    if (!any())
        return { effects.begin(), effects.end() };
    const auto e = vectorOf(effects);
    return plain(e - m_w * (m_w.transpose() * e));
}

/// The root of C: with WᵀW = V Λ Vᵀ it is I − W V (1 − √(1 − Λ))/Λ Vᵀ Wᵀ.
std::vector<double> Narrowed::spread(std::span<const double> normals) const
{
    if (!any() || m_w.cols() == 0)
        return { normals.begin(), normals.end() };
    const Eigen::SelfAdjointEigenSolver<Eigen::MatrixXd> solver(m_w.transpose() * m_w);
    Eigen::VectorXd scale = solver.eigenvalues();
    for (double &s : scale)
        s = s > 1e-9 ? (1 - std::sqrt(std::max(0.0, 1 - s))) / s : 0.5;
    const auto x = vectorOf(normals);
    const Eigen::MatrixXd v = solver.eigenvectors();
    return plain(x - m_w * (v * (scale.asDiagonal() * (v.transpose() * (m_w.transpose() * x)))));
}

LikelyPressure Narrowed::range(double value_pa, std::span<const double> effects_pa) const
{
    const double own = bandModelOwn_ln * value_pa;
    const double sigma = std::sqrt(variance(effects_pa) + own * own);
    // In the logarithm where there is pressure, plainly where there is suction.
    if (!(value_pa > 0))
        return { value_pa, value_pa - likelyFactor * sigma, value_pa + likelyFactor * sigma };
    const double sd = sigma / value_pa;
    if (m_off == 0) {
        const double factor = std::exp(likelyFactor * sd);
        return { value_pa, value_pa / factor, value_pa * factor };
    }
    const auto e = vectorOf(effects_pa);
    const double before = std::log(value_pa) - e.dot(vectorOf(m_z)) / value_pa;
    const double otherSd = std::sqrt(e.squaredNorm() / (value_pa * value_pa)
                                     + offCommon_ln * offCommon_ln + offEach_ln * offEach_ln);
    const Ends ends = mixtureEnds(std::log(value_pa), sd, before, otherSd, m_off);
    return { value_pa, std::exp(ends.low), std::exp(ends.high) };
}

namespace {

constexpr const char *readThere = "Read the pressure gauge there, once it runs";

/// A range about a value with that much scatter of its logarithm.
LikelyPressure about(double value_pa, double sd_ln)
{
    const double factor = std::exp(likelyFactor * sd_ln);
    return { value_pa, value_pa / factor, value_pa * factor };
}

QuantityRange likely(const LikelyPressure &p)
{
    return { asPressure(p.low_pa), asPressure(p.high_pa) };
}

double gaugeShare(double pressure_pa)
{
    return GaugeReading::usualGaugeU_kpa * 1e3 / pressure_pa;
}

/// Without the family it is widest for.
std::optional<Narrowing> byGauging(const DoubtfulPressure &p)
{
    const Doubt *widest = nullptr;
    for (const Doubt &d : p.from)
        if (!d.family.empty() && (!widest || d.share > widest->share))
            widest = &d;
    if (!widest)
        return std::nullopt;
    Narrowing out {
        widest->family,
        { "narrow.gauge", "Gauge all {0}", { std::string(findFamily(widest->family)->plural) } },
        {},
        p.without(*widest)
    };
    out.what = { "narrow.gauged", "{0}: likely {1} then", { out.action, likely(out.to) } };
    return out;
}

/// What a pressure and the gauge while priming have in common is known then.
std::optional<Narrowing> byPriming(const DoubtfulPressure &p, double sigma, const ReadAt *primed)
{
    if (!primed || primed->ln.size() != p.left_ln.size() || !(primed->forecast_pa > 0))
        return std::nullopt;
    const double own = bandModelOwn_ln * bandModelOwn_ln, gauge = gaugeShare(primed->forecast_pa);
    double common = 0, variance = own + gauge * gauge + primed->own_ln * primed->own_ln;
    for (size_t i = 0; i < p.left_ln.size(); ++i) {
        common += p.left_ln[i] * primed->ln[i];
        variance += primed->ln[i] * primed->ln[i];
    }
    const double left = std::max(own, sigma * sigma - common * common / variance);
    Narrowing out { std::string(Narrowing::priming),
                    "Read the pressure gauge while priming",
                    {},
                    about(p.pressure.value_pa, std::sqrt(left)) };
    out.what = { "narrow.primed", "{0}: likely {1} then", { out.action, likely(out.to) } };
    return out;
}

/// A reading is good to its gauge and to what the model leaves out of one pressure.
Narrowing byReadingThere(const DoubtfulPressure &p, double sigma)
{
    const double own = bandModelOwn_ln * bandModelOwn_ln, gauge = gaugeShare(p.pressure.value_pa),
                 before = std::max(0.0, sigma * sigma - own), eye = gauge * gauge + own;
    Narrowing out { std::string(Narrowing::there),
                    readThere,
                    {},
                    about(p.pressure.value_pa, std::sqrt(before * eye / (before + eye) + own)) };
    out.what = { "narrow.read", "{0}: good to {1} then", { out.action, likely(out.to) } };
    return out;
}

} // namespace

Narrowing narrowest(const DoubtfulPressure &p, double least_pa, const ReadAt *primed)
{
    const auto gauged = byGauging(p);
    if (!(p.pressure.value_pa > 0) || !(p.pressure.low_pa > 0))
        return gauged.value_or(
            Narrowing { std::string(Narrowing::there), readThere, readThere, p.pressure });
    const double sigma = std::log(p.pressure.high_pa / p.pressure.low_pa) / (2 * likelyFactor);
    const auto whilePrimed = byPriming(p, sigma, primed);
    for (const auto *one : { &gauged, &whilePrimed })
        if (*one && least_pa > 0 && (*one)->to.low_pa >= least_pa)
            return **one;
    const auto width = [](const LikelyPressure &r) { return std::log(r.high_pa / r.low_pa); };
    constexpr double worthIt = 0.8;
    const std::optional<Narrowing> *best = nullptr;
    for (const auto *one : { &gauged, &whilePrimed })
        if (*one && width((*one)->to) < worthIt * width(p.pressure)
            && (!best || width((*one)->to) < width((*best)->to)))
            best = one;
    return best ? **best : byReadingThere(p, sigma);
}

Ends mixtureEnds(double middle, double sd, double otherMiddle, double otherSd, double off)
{
    const boost::math::normal known(middle, sd), other(otherMiddle, otherSd);
    const auto quantile = [&](double share) {
        const auto miss
            = [&](double x) { return (1 - off) * cdf(known, x) + off * cdf(other, x) - share; };
        const double low = std::min(middle - 8 * sd, otherMiddle - 8 * otherSd),
                     high = std::max(middle + 8 * sd, otherMiddle + 8 * otherSd);
        std::uintmax_t most = 60;
        const auto root = boost::math::tools::toms748_solve(
            miss, low, high, boost::math::tools::eps_tolerance<double>(30), most);
        return (root.first + root.second) / 2;
    };
    return { quantile(0.05), quantile(0.95) };
}

} // namespace mildpath
