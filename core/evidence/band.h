// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <span>
#include <vector>

namespace mildpath {

// Likely ranges of pressures in ln p: every uncertain input is a standard normal, its effect the
// change of ln p by one standard deviation. All uncertainties are own choices.

struct LikelyBand
{
    double sigma_ln;
    double low, high; ///< in the unit of the value
};
/// σ = √(Σ J² + own²), edges value e^{±1.645 σ}. First order.
/// @param value  > 0
LikelyBand likelyBand(double value, std::span<const double> effects_ln, double own_ln);

/// A pressure that was read.
struct BandReading
{
    size_t point; ///< which of the forecast's
    double value, u; ///< in the unit of the forecast; > 0
};
/// What readings make of a forecast.
struct BandUpdate
{
    std::vector<double> value; ///< of every point
    std::vector<double> sd_ln;
    std::vector<double> inputs; ///< in their standard deviations
    std::vector<double> precision; ///< S⁻¹, readings × readings
    double chi2 = 0; ///< of the readings against the forecast
    double p_value = 1;
    double offProbability = 0; ///< that something is at work which is not among the inputs
};
/// Linear-Gaussian inversion: K = JᵀS⁻¹, S = JJᵀ + R, z = K r, C = I − KJ; ln p = h + J z with
/// variance J C Jᵀ + own². R holds (u/y)² and own² on its diagonal. The alternative, that the model
/// is off, has S + common² 11ᵀ + each² I and a prior of its own (rules evidence.off…).
/// Source: Tarantola, "Inverse Problem Theory", 2005, ch. 3; a discrepancy term after Kennedy and
/// O'Hagan, 2001; both from memory; its size an own choice.
/// @param jacobian  one row a point: change of ln p by one standard deviation of each input
/// Errors: `jacobian` of other sizes; `read_index` outside the points.
Result<BandUpdate> updateBand(std::span<const double> prior, std::span<const double> jacobian,
                              size_t inputs, std::span<const BandReading> readings, double own_ln);

} // namespace mildpath
