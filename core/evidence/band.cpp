// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/band.h"

#include "rules/rules.h"

#include <Eigen/Dense>
#include <boost/math/special_functions/gamma.hpp>

#include <cmath>

namespace mildpath {
namespace {

/// ln of a normal density with that covariance, up to the power of 2π both candidates share.
double logDensity(const Eigen::VectorXd &r, const Eigen::LLT<Eigen::MatrixXd> &s)
{
    const Eigen::MatrixXd l = s.matrixL();
    return -0.5 * r.dot(s.solve(r)) - l.diagonal().array().log().sum();
}

} // namespace

LikelyBand likelyBand(double value, std::span<const double> effects_ln, double own_ln)
{
    double variance = own_ln * own_ln;
    for (const double e : effects_ln)
        variance += e * e;
    const double sigma = std::sqrt(variance), factor = std::exp(likelyFactor * sigma);
    return { sigma, value / factor, value * factor };
}

Result<BandUpdate> updateBand(std::span<const double> prior, std::span<const double> jacobian,
                              size_t inputs, std::span<const BandReading> readings, double own_ln)
{
    const auto points = static_cast<Eigen::Index>(prior.size()),
               n = static_cast<Eigen::Index>(inputs),
               m = static_cast<Eigen::Index>(readings.size());
    if (jacobian.size() != prior.size() * inputs)
        return fail("jacobian", "must have a number for every point and input");
    using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
    const Eigen::MatrixXd all = Eigen::Map<const RowMajor>(jacobian.data(), points, n);
    Eigen::MatrixXd j(m, n);
    Eigen::VectorXd r(m);
    Eigen::MatrixXd s = Eigen::MatrixXd::Zero(m, m);
    for (Eigen::Index i = 0; i < m; ++i) {
        const BandReading &read = readings[static_cast<size_t>(i)];
        if (read.point >= prior.size())
            return fail("read_index", "is no point of the forecast");
        j.row(i) = all.row(static_cast<Eigen::Index>(read.point));
        r(i) = std::log(read.value / prior[read.point]);
        const double relative = read.u / read.value;
        s(i, i) = relative * relative + own_ln * own_ln;
    }
    s += j * j.transpose();
    const Eigen::LLT<Eigen::MatrixXd> factor(s);
    BandUpdate out;
    const Eigen::VectorXd z = j.transpose() * factor.solve(r);
    out.inputs.assign(z.data(), z.data() + n);
    const Eigen::MatrixXd left = Eigen::MatrixXd::Identity(n, n) - j.transpose() * factor.solve(j);
    for (Eigen::Index i = 0; i < points; ++i) {
        out.value.push_back(prior[static_cast<size_t>(i)] * std::exp(all.row(i).dot(z)));
        out.sd_ln.push_back(std::sqrt(std::max(0.0, all.row(i).dot(left * all.row(i).transpose()))
                                      + own_ln * own_ln));
    }
    if (m == 0)
        return out;
    const RowMajor precision = factor.solve(Eigen::MatrixXd::Identity(m, m));
    out.precision.assign(precision.data(), precision.data() + precision.size());
    out.chi2 = r.dot(factor.solve(r));
    out.p_value = boost::math::gamma_q(static_cast<double>(m) / 2, out.chi2 / 2);
    Eigen::MatrixXd off = s + Eigen::MatrixXd::Constant(m, m, offCommon_ln * offCommon_ln);
    off.diagonal().array() += offEach_ln * offEach_ln;
    // As a ratio, so that neither runs out of range.
    const double odds = offPrior / (1 - offPrior)
        * std::exp(logDensity(r, Eigen::LLT<Eigen::MatrixXd>(off)) - logDensity(r, factor));
    out.offProbability = std::isinf(odds) ? 1 : odds / (1 + odds);
    return out;
}

} // namespace mildpath
