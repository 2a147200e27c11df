// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/likelihood.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mildpath {

Covariance::Covariance(std::span<const double> predicted, std::span<const double> gauge,
                       double independent, double common)
    : m_predicted(predicted.begin(), predicted.end())
{
    for (size_t i = 0; i < predicted.size(); ++i) {
        m_diagonal.push_back(gauge[i] * gauge[i] + std::pow(independent * predicted[i], 2));
        m_common.push_back(common * predicted[i]);
    }
}

std::vector<double> Covariance::solve(std::span<const double> r) const
{
    double vr = 0, vv = 0;
    for (size_t i = 0; i < r.size(); ++i) {
        vr += m_common[i] * r[i] / m_diagonal[i];
        vv += m_common[i] * m_common[i] / m_diagonal[i];
    }
    std::vector<double> out;
    for (size_t i = 0; i < r.size(); ++i)
        out.push_back((r[i] - m_common[i] * vr / (1 + vv)) / m_diagonal[i]);
    return out;
}

double Covariance::quadratic(std::span<const double> r) const
{
    const std::vector<double> solved = solve(r);
    double out = 0;
    for (size_t i = 0; i < r.size(); ++i)
        out += r[i] * solved[i];
    return out;
}

double Covariance::logDeterminant() const
{
    double out = 0, vv = 0;
    for (size_t i = 0; i < m_diagonal.size(); ++i) {
        out += std::log(m_diagonal[i]);
        vv += m_common[i] * m_common[i] / m_diagonal[i];
    }
    return out + std::log1p(vv);
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
        const int last
            = std::min(points - 1,
                       static_cast<int>(std::ceil((p.mean + reach * p.deviation - from) / step)));
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
