// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/filmtable.h"

#include <algorithm>

namespace mildpath {
namespace {

// clang-format off
#include "bearing/filmtabledata.inc"
// clang-format on

/// Where four neighbouring nodes of an even grid lie about a place, and how much each counts
/// (cubic through all four).
struct Four
{
    int first;
    std::array<double, 4> weight;
};

Four fourAbout(double place, int nodes)
{
    const int first = std::clamp(static_cast<int>(place) - 1, 0, nodes - 4);
    const double t = place - first;
    const double a = t, b = t - 1, c = t - 2, d = t - 3;
    return { first, { -b * c * d / 6, a * c * d / 2, -a * b * d / 2, a * b * c / 6 } };
}

} // namespace

FilmLine::FilmLine(double lengthRatio)
    : m_lengthRatio(std::clamp(lengthRatio, leastLengthRatio, mostLengthRatio))
{
    const double place = std::log(m_lengthRatio / leastLengthRatio)
        / std::log(mostLengthRatio / leastLengthRatio) * (filmTableLengths - 1);
    const Four columns = fourAbout(place, filmTableLengths);
    m_column = columns.first;
    m_weight = columns.weight;
    m_logLow = m_logHigh = 0;
    for (size_t k = 0; k < 4; ++k) {
        m_logLow += m_weight[k] * filmTableEnds[0][static_cast<size_t>(m_column) + k];
        m_logHigh += m_weight[k] * filmTableEnds[1][static_cast<size_t>(m_column) + k];
    }
}

FilmPoint FilmLine::at(double logSommerfeld) const
{
    const double share = (logSommerfeld - m_logLow) / (m_logHigh - m_logLow);
    const Four rows = fourAbout(std::clamp(share, 0.0, 1.0) * (filmTableLoads - 1), filmTableLoads);
    double value[filmTableQuantities] {};
    for (int q = 0; q < filmTableQuantities; ++q)
        for (int i = 0; i < 4; ++i) {
            const double *row = &filmTableValues[q][rows.first + i][m_column];
            value[q] += rows.weight[static_cast<size_t>(i)]
                * (m_weight[0] * row[0] + m_weight[1] * row[1] + m_weight[2] * row[2]
                   + m_weight[3] * row[3]);
        }
    FilmPoint out { fromLogit(value[0]), std::exp(value[1]), 0, value[3], value[4], share >= 0 };
    if (share > 1)
        out.eccentricityRatio *= std::exp(m_logHigh - logSommerfeld);
    out.sideFlow = value[2] * 2 * pi * out.eccentricityRatio;
    return out;
}

} // namespace mildpath
