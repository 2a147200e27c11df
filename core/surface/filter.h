// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <span>
#include <vector>

namespace mildpath {

/// How form and waviness are taken out of a trace.
enum class ProfileFilter {
    None, ///< only the mean
    Gaussian, ///< ISO 16610-21
    TwoStep, ///< ISO 13565-1: valleys do not pull the mean line down
};

/// A trace with the filter's ends dropped.
struct RoughnessProfile
{
    std::vector<double> r_um; ///< height over the mean line
    size_t first = 0; ///< where it begins in the trace
};

/// The filter needs at least so many points in a cut-off, and so many cut-offs of trace.
inline constexpr double pointsPerCutoff = 50, leastCutoffs = 2;
/// Without a filter a trace has at least so many points. Own choice.
inline constexpr size_t leastPoints = 100;

/// Weighted mean line, the same length as the trace. Weights s(x) = exp(-π (x/(α λc))²)/(α λc), α =
/// √(ln 2/π), over ±1 cut-off, divided by the sum of those that lie on the trace. A sine of
/// wavelength λ passes by 2^-(λc/λ)².
/// Source: ISO 16610-21:2011, from memory. The ±0.5 cut-off the standard permits moves Rk by 0.7 %.
/// @param spacing_um  above 0
std::vector<double> gaussianMeanLine(std::span<const double> z_um, double spacing_um,
                                     double cutoff_um);

/// A trace by its chosen filter, and by the single Gaussian one, which amplitudes are read from.
struct FilteredTrace
{
    RoughnessProfile chosen, single;
};
/// Height over the mean line; half a cut-off of it dropped at both ends after a filter.
/// Source of the two-step filter: ISO 13565-1:1996, 4.2, from memory.
/// Errors: `z_um` (too few points, shorter than two cut-offs, a height that is no number),
/// `spacing_um` (not above 0, more than a fiftieth of the cut-off).
Result<FilteredTrace> filterTrace(std::span<const double> z_um, double spacing_um, double cutoff_um,
                                  ProfileFilter filter);

/// The trace less its least-squares parabola: for strong form, to be said where it is done.
std::vector<double> withoutParabola(std::span<const double> z_um);

} // namespace mildpath
