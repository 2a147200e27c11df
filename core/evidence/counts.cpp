// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/counts.h"

#include <boost/math/distributions/binomial.hpp>

#include <algorithm>

namespace mildpath {
namespace {

using Binomial = boost::math::binomial_distribution<>;

/// Two-sided, by the sum of small probabilities.
double smallProbabilities(int n, int k, double p0)
{
    const Binomial counts(n, p0);
    const double limit = pdf(counts, k) * (1 + 1e-7);
    double sum = 0;
    for (int i = 0; i <= n; ++i)
        if (const double p = pdf(counts, i); p <= limit)
            sum += p;
    return std::min(1.0, sum);
}

} // namespace

CountComparison compareCounts(const Exposure &first, const Exposure &second)
{
    CountComparison out;
    const double e1 = first.exposure(), e2 = second.exposure();
    const int n = first.count + second.count;
    if (n == 0)
        return out;
    out.p = smallProbabilities(n, second.count, e2 / (e1 + e2));
    const auto ratio = [&](double p) { return p / (1 - p) * e1 / e2; };
    out.low95
        = second.count == 0 ? 0 : ratio(Binomial::find_lower_bound_on_p(n, second.count, 0.025));
    if (first.count == 0)
        return out;
    out.ratio = second.rate_per_h_cm2() / first.rate_per_h_cm2();
    out.high95 = ratio(Binomial::find_upper_bound_on_p(n, second.count, 0.025));
    return out;
}

} // namespace mildpath
