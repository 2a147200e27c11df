// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/likelihood.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mildpath {

namespace {

Eigen::Map<const Eigen::VectorXd> vectorOf(std::span<const double> x)
{
    return { x.data(), static_cast<Eigen::Index>(x.size()) };
}

} // namespace

Covariance::Covariance(std::span<const double> predicted, std::span<const double> gauge,
                       double independent, double common,
                       std::span<const std::vector<double>> directions)
    : m_predicted(predicted.begin(), predicted.end())
{
    const auto h = vectorOf(predicted);
    Eigen::MatrixXd s = common * common * h * h.transpose();
    s.diagonal()
        += vectorOf(gauge).array().square().matrix() + (independent * h).array().square().matrix();
    for (const std::vector<double> &v : directions)
        s += vectorOf(v) * vectorOf(v).transpose();
    m_factor.compute(s);
}

std::vector<double> Covariance::solve(std::span<const double> r) const
{
    const Eigen::VectorXd x = m_factor.solve(vectorOf(r));
    return { x.begin(), x.end() };
}

double Covariance::quadratic(std::span<const double> r) const
{
    return m_factor.matrixL().solve(vectorOf(r)).squaredNorm();
}

double Covariance::logDeterminant() const
{
    return 2 * m_factor.matrixLLT().diagonal().array().log().sum();
}

Covariance::MeanVariance Covariance::lastGiven(std::span<const double> residual) const
{
    // The factor's last row holds both: with L z = r, the mean moves by ℓ·z, and what is left of
    // the variance is the last pivot squared.
    const auto last = static_cast<Eigen::Index>(size()) - 1;
    const Eigen::MatrixXd l = m_factor.matrixL();
    const Eigen::VectorXd z = l.topLeftCorner(last, last)
                                  .triangularView<Eigen::Lower>()
                                  .solve(vectorOf(residual.first(static_cast<size_t>(last))));
    const double pivot = l(last, last);
    return { m_predicted.back() + l.row(last).head(last).dot(z), pivot * pivot };
}

double Covariance::logDensity(std::span<const double> y) const
{
    std::vector<double> r(y.begin(), y.end());
    for (size_t i = 0; i < r.size(); ++i)
        r[i] -= m_predicted[i];
    return -0.5
        * (quadratic(r) + logDeterminant()
           + static_cast<double>(r.size()) * std::log(2 * std::numbers::pi));
}

double mixtureEntropy_bits(std::span<const NormalPart> parts)
{
    if (parts.empty())
        return 0;
    constexpr int points = 1500;
    constexpr double reach = 6;
    double from = parts[0].mean, to = from;
    for (const NormalPart &p : parts) {
        from = std::min(from, p.mean - reach * p.deviation);
        to = std::max(to, p.mean + reach * p.deviation);
    }
    const double step = (to - from) / (points - 1);
    std::vector<double> density(points, 0.0);
    for (const NormalPart &p : parts) {
        const double peak = p.weight / (p.deviation * std::sqrt(2 * std::numbers::pi));
        const int first = std::max(
            0, static_cast<int>(std::floor((p.mean - reach * p.deviation - from) / step)));
        const int last = std::min(
            points - 1, static_cast<int>(std::ceil((p.mean + reach * p.deviation - from) / step)));
        for (int i = first; i <= last; ++i) {
            const double z = (from + i * step - p.mean) / p.deviation;
            density[static_cast<size_t>(i)] += peak * std::exp(-0.5 * z * z);
        }
    }
    double out = 0;
    for (const double d : density)
        if (d > 0)
            out -= d * std::log2(d) * step;
    return out;
}

double binaryEntropy_bits(double p)
{
    if (p <= 0 || p >= 1)
        return 0;
    return -p * std::log2(p) - (1 - p) * std::log2(1 - p);
}

} // namespace mildpath
