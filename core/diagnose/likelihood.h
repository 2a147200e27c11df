// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <vector>

namespace mildpath {

/// Covariance of readings around a prediction: a diagonal and one common direction,
/// S = diag(d) + v vᵀ. Inverse and determinant are closed (Sherman and Morrison, 1950).
class Covariance
{
public:
    /// @param predicted    h, one a reading
    /// @param gauge        standard uncertainty of each gauge, same unit
    /// @param independent  relative error of the model from reading to reading
    /// @param common       relative error of the model common to all
    Covariance(std::span<const double> predicted, std::span<const double> gauge, double independent,
               double common);

    /// S⁻¹ r.
    std::vector<double> solve(std::span<const double> r) const;
    /// rᵀ S⁻¹ r.
    double quadratic(std::span<const double> r) const;
    double logDeterminant() const;
    /// ln of the normal density of readings y around the prediction.
    double logDensity(std::span<const double> y) const;

private:
    std::vector<double> m_predicted, m_diagonal, m_common;
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
