// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/timedfeed.h"

#include "quantity/types.h"

#include <boost/math/quadrature/gauss_kronrod.hpp>

#include <algorithm>
#include <cmath>

namespace mildpath {

Result<TimedFeed> timedFeed(double journal_m, double d1, double d2, int alignments)
{
    TimedFeed out {};
    out.openShare = alignments * (d1 + d2) / (pi * journal_m);
    if (out.openShare > 1)
        return fail("alignments_per_rev",
                    "the holes would meet all the time: fewer, or smaller ones");
    const double r1 = d1 / 2, r2 = d2 / 2, least = std::min(r1, r2);
    // y = least sin t takes the root's steep ends away.
    const auto chord = [&](double t) {
        const double y = least * std::sin(t);
        return 4 * std::sqrt(std::max(0.0, r1 * r1 - y * y))
            * std::sqrt(std::max(0.0, r2 * r2 - y * y)) * least * std::cos(t);
    };
    const double swept = boost::math::quadrature::gauss_kronrod<double, 31>::integrate(
        chord, -pi / 2, pi / 2, 5, 1e-10);
    out.meanArea_m2 = alignments / (pi * journal_m) * swept;
    out.duty = out.meanArea_m2 / (pi * least * least);
    return out;
}

} // namespace mildpath
