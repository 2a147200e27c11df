// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <Eigen/Cholesky>

#include <span>
#include <vector>

namespace mildpath {

/// Covariance of readings around a prediction: a diagonal and a few common directions,
/// S = diag(d) + Σ v vᵀ.
class Covariance
{
public:
    /// S = diag(gauge² + (independent h)²) + common² h hᵀ + the further directions.
    /// @param predicted    h, one a reading
    /// @param gauge        standard uncertainty of each gauge, same unit
    /// @param independent  relative error of the model from reading to reading
    /// @param common       relative error of the model common to all
    /// @param directions   further errors that move readings together, each one standard deviation
    Covariance(std::span<const double> predicted, std::span<const double> gauge, double independent,
               double common, std::span<const std::vector<double>> directions = {});

    /// S⁻¹ r.
    std::vector<double> solve(std::span<const double> r) const;
    /// rᵀ S⁻¹ r.
    double quadratic(std::span<const double> r) const;
    double logDeterminant() const;
    /// Mean and variance of the last reading when all others are known.
    /// @param residual  y − h of the others
    struct MeanVariance
    {
        double mean, variance;
    };
    MeanVariance lastGiven(std::span<const double> residual) const;
    /// ln of the normal density of readings y around the prediction.
    double logDensity(std::span<const double> y) const;

private:
    size_t size() const { return m_predicted.size(); }

    std::vector<double> m_predicted;
    Eigen::LLT<Eigen::MatrixXd> m_factor; ///< L of S = L Lᵀ
};

/// A normal component of a mixture: weight, mean, standard deviation.
struct NormalPart
{
    double weight, mean, deviation;
};
/// Differential entropy of a mixture in bits, on an even grid over its parts (± 6 deviations).
/// @param parts  weights sum to 1; @return 0 without parts
double mixtureEntropy_bits(std::span<const NormalPart> parts);
/// Entropy of a yes with probability p, in bits.
double binaryEntropy_bits(double p);

} // namespace mildpath
