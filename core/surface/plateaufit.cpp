// SPDX-License-Identifier: GPL-3.0-or-later
#include "rules/rules.h"
#include "surface/finish.h"

#include <Eigen/Dense>
#include <boost/math/special_functions/erf.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace mildpath {
namespace {

// The steps of the fit are own choices (docs/theory/finish.md).
constexpr size_t gridPoints = 241;

PlateauFit::Line lineThrough(std::span<const double> s, std::span<const double> z)
{
    const auto n = static_cast<Eigen::Index>(s.size());
    const Eigen::Map<const Eigen::VectorXd> x(s.data(), n), y(z.data(), n);
    const double mx = x.mean(), my = y.mean();
    const double slope = (x.array() - mx).matrix().dot((y.array() - my).matrix())
        / (x.array() - mx).matrix().squaredNorm();
    return { my - slope * mx, slope };
}

/// Squared error of the best p + q s + c max(0, s − s0).
double bentError(const Eigen::VectorXd &s, const Eigen::VectorXd &z, double s0)
{
    Eigen::MatrixXd m(s.size(), 3);
    m.col(0).setOnes();
    m.col(1) = s;
    m.col(2) = (s.array() - s0).max(0).matrix();
    const Eigen::Vector3d fit = (m.transpose() * m).ldlt().solve(m.transpose() * z);
    return (z - m * fit).squaredNorm();
}

} // namespace

double normalQuantile(double ratio)
{
    return -std::numbers::sqrt2 * boost::math::erfc_inv(2 * ratio);
}

double normalShare(double s)
{
    return 0.5 * std::erfc(-s / std::numbers::sqrt2);
}

PlateauFit plateauFit(const MaterialRatioCurve &curve)
{
    const std::vector<double> &heights = curve.heights_um();
    const auto n = static_cast<double>(heights.size());
    const double reach = std::min(mostS, std::abs(normalQuantile(5 / n)));
    PlateauFit out;
    const auto ratioOf = [&](double i) { return (i + 0.5) / n; };
    for (size_t k = 0; k < gridPoints; ++k) {
        const double s = -reach + 2 * reach * static_cast<double>(k) / (gridPoints - 1);
        // Between the two points around it, linear in s.
        const double place = std::clamp(normalShare(s) * n - 0.5, 0.0, n - 2);
        const double i = std::floor(place);
        const double from = normalQuantile(ratioOf(i)), to = normalQuantile(ratioOf(i + 1));
        const auto at = static_cast<size_t>(i);
        out.s.push_back(s);
        out.z_um.push_back(heights[at]
                           + (heights[at + 1] - heights[at]) * (s - from) / (to - from));
    }
    const Eigen::Map<const Eigen::VectorXd> s(out.s.data(), gridPoints),
        z(out.z_um.data(), gridPoints);
    double bend = 0, least = std::numeric_limits<double>::infinity();
    for (const double s0 : out.s)
        if (s0 >= -reach + bendFromEnd - 1e-12 && s0 <= reach - bendFromEnd + 1e-12)
            if (const double e = bentError(s, z, s0); e < least) {
                least = e;
                bend = s0;
            }
    const std::span<const double> sAll(out.s), zAll(out.z_um);
    size_t plateauEnd = 0, valleyFrom = gridPoints;
    for (size_t k = 0; k < gridPoints; ++k) {
        if (out.s[k] <= bend - bendGap + 1e-12)
            plateauEnd = k + 1;
        if (out.s[k] >= bend + bendGap - 1e-12)
            valleyFrom = std::min(valleyFrom, k);
    }
    out.plateau = lineThrough(sAll.first(plateauEnd), zAll.first(plateauEnd));
    out.valley = lineThrough(sAll.subspan(valleyFrom), zAll.subspan(valleyFrom));
    const double rpq = -out.plateau.slope, rvq = -out.valley.slope;
    const double crossing
        = (out.valley.at0 - out.plateau.at0) / (out.plateau.slope - out.valley.slope);
    const double rmq = 100 * normalShare(crossing);
    out.twoProcess = rpq > 0 && rvq >= leastSteepening * rpq && rmq >= leastBend && rmq <= mostBend;
    if (!out.twoProcess) {
        out.plateau = out.valley = lineThrough(sAll, zAll);
        out.rpq_um = -out.plateau.slope;
        return out;
    }
    out.rpq_um = rpq;
    out.rvq_um = rvq;
    out.rmq_percent = rmq;
    return out;
}

} // namespace mildpath
