// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/likelihood.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mildpath {

Covariance::Covariance(std::span<const double> predicted, std::span<const double> gauge,
                       double independent, double common,
                       std::span<const std::vector<double>> directions)
    : m_predicted(predicted.begin(), predicted.end())
    , m_factor(predicted.size() * predicted.size())
{
    const size_t n = size();
    for (size_t i = 0; i < n; ++i)
        for (size_t j = 0; j <= i; ++j) {
            double s = common * common * predicted[i] * predicted[j];
            if (i == j)
                s += gauge[i] * gauge[i] + std::pow(independent * predicted[i], 2);
            for (const std::vector<double> &v : directions)
                s += v[i] * v[j];
            for (size_t k = 0; k < j; ++k)
                s -= factor(i, k) * factor(j, k);
            factor(i, j) = i == j ? std::sqrt(s) : s / factor(j, j);
        }
}

std::vector<double> Covariance::forward(std::span<const double> r) const
{
    std::vector<double> out(r.begin(), r.end());
    for (size_t i = 0; i < size(); ++i) {
        for (size_t k = 0; k < i; ++k)
            out[i] -= factor(i, k) * out[k];
        out[i] /= factor(i, i);
    }
    return out;
}

std::vector<double> Covariance::solve(std::span<const double> r) const
{
    std::vector<double> out = forward(r);
    for (size_t i = size(); i-- > 0;) {
        for (size_t k = i + 1; k < size(); ++k)
            out[i] -= factor(k, i) * out[k];
        out[i] /= factor(i, i);
    }
    return out;
}

double Covariance::quadratic(std::span<const double> r) const
{
    double out = 0;
    for (const double x : forward(r))
        out += x * x;
    return out;
}

double Covariance::logDeterminant() const
{
    double out = 0;
    for (size_t i = 0; i < size(); ++i)
        out += 2 * std::log(factor(i, i));
    return out;
}

Covariance::MeanVariance Covariance::lastGiven(std::span<const double> residual) const
{
    // The factor's last row holds both: with L z = r, the mean moves by ℓ·z, and what is left of
    // the variance is the last pivot squared.
    const size_t last = size() - 1;
    double mean = m_predicted[last];
    std::vector<double> z;
    for (size_t i = 0; i < last; ++i) {
        double x = residual[i];
        for (size_t k = 0; k < i; ++k)
            x -= factor(i, k) * z[k];
        z.push_back(x / factor(i, i));
        mean += factor(last, i) * z[i];
    }
    return { mean, factor(last, last) * factor(last, last) };
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
