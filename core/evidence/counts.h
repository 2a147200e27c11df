// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace mildpath {

/// Particles counted on a filter: how many, and what they were gathered over.
struct Exposure
{
    int count = 0;
    double hours_h = 0; ///< above 0
    double area_cm2 = 0; ///< above 0
    double exposure() const { return hours_h * area_cm2; }
    double rate_per_h_cm2() const { return count / exposure(); }
};

/// The second count against the first.
struct CountComparison
{
    /// Rate of the second over that of the first; absent when the first is 0.
    std::optional<double> ratio, high95;
    std::optional<double> low95; ///< absent when both are 0
    double p = 1; ///< two-sided; too small where particles come in clumps
};

/// Given n1 + n2 = n, the second is binomial with p0 = e2/(e1 + e2) under equal rates; p is the sum
/// of all that is as unlikely as what was counted; the interval is Clopper & Pearson's. A large p
/// is no proof that nothing changed: show the interval. Source: Przyborowski & Wilenski,
/// Homogeneity of results in testing samples from Poisson series, Biometrika 31, 1940; Clopper &
/// Pearson, Biometrika 26, 1934, both from memory.
CountComparison compareCounts(const Exposure &first, const Exposure &second);

} // namespace mildpath
