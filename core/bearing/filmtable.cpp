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
    const auto here = [&](const double(&row)[filmTableLengths]) {
        double out = 0;
        for (size_t k = 0; k < 4; ++k)
            out += columns.weight[k] * row[static_cast<size_t>(columns.first) + k];
        return out;
    };
    m_logLow = here(filmTableEnds[0]);
    m_logHigh = here(filmTableEnds[1]);
    for (size_t load = 0; load < filmTableLoads; ++load)
        for (size_t q = 0; q < filmTableQuantities; ++q)
            m_value[load][q] = here(filmTableValues[q][load]);
}

double FilmLine::eccentricityAt(double logSommerfeld) const
{
    const double share = (logSommerfeld - m_logLow) / (m_logHigh - m_logLow);
    const Four rows = fourAbout(std::clamp(share, 0.0, 1.0) * (filmTableLoads - 1), filmTableLoads);
    double value = 0;
    for (size_t i = 0; i < 4; ++i)
        value += rows.weight[i] * m_value[static_cast<size_t>(rows.first) + i][0];
    return fromLogit(value) * (share > 1 ? std::exp(m_logHigh - logSommerfeld) : 1);
}

FilmPoint FilmLine::at(double logSommerfeld) const
{
    const double share = (logSommerfeld - m_logLow) / (m_logHigh - m_logLow);
    const Four rows = fourAbout(std::clamp(share, 0.0, 1.0) * (filmTableLoads - 1), filmTableLoads);
    double value[filmTableQuantities] {};
    for (size_t i = 0; i < 4; ++i)
        for (size_t q = 0; q < filmTableQuantities; ++q)
            value[q] += rows.weight[i] * m_value[static_cast<size_t>(rows.first) + i][q];
    FilmPoint out { fromLogit(value[0]), std::exp(value[1]), 0, value[3], value[4], share >= 0 };
    if (share > 1)
        out.eccentricityRatio *= std::exp(m_logHigh - logSommerfeld);
    out.sideFlow = value[2] * 2 * pi * out.eccentricityRatio;
    return out;
}

} // namespace mildpath
