// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/film.h"

#include <array>
#include <cmath>

namespace mildpath {

// The plain bearing's film, tabulated from solveFilm() over length ratio and load: what sits behind
// every bearing of a circuit.

inline constexpr int filmTableLengths = 24; ///< ln(L/D), evenly over 0.05…5
inline constexpr int filmTableLoads = 64; ///< ln S, evenly from ε = 0.99 to 0.001
inline constexpr int filmTableQuantities = 5;
inline constexpr double leastLengthRatio = 0.05, mostLengthRatio = 5;
inline constexpr double leastEccentricity = 0.001, mostEccentricity = 0.99;

inline double logit(double eps)
{
    return std::log(eps / (1 - eps));
}
inline double fromLogit(double x)
{
    return 1 / (1 + std::exp(-x));
}
/// L/D of a column of the table.
inline double filmTableLength(int column)
{
    return leastLengthRatio
        * std::pow(mostLengthRatio / leastLengthRatio,
                   static_cast<double>(column) / (filmTableLengths - 1));
}

/// What of a film matters to a circuit.
struct FilmPoint
{
    double eccentricityRatio;
    double frictionOverPetroff; ///< friction torque over that of a concentric journal
    double sideFlow; ///< Qs/(r c N L)
    double attitude_rad;
    double pressureRatio; ///< P/pmax
    bool carried; ///< false: more load than ε = 0.99 bears; the figures are those of 0.99
};

/// Films of one length ratio.
///
/// Against solveFilm() on its 360 × 24 grid, over all L/D of 0.05…5 and ε of 0.001…0.99: see
/// docs/theory/film.md for the measured error of each figure.
class FilmLine
{
public:
    /// @param lengthRatio  L/D, clamped to 0.05…5
    explicit FilmLine(double lengthRatio);
    /// @param logSommerfeld  ln S, S = (r/c)² μ N/P. Lighter than ε = 0.001: ε ∝ 1/S, friction of
    /// Petroff.
    FilmPoint at(double logSommerfeld) const;
    /// Of at(), alone.
    double eccentricityAt(double logSommerfeld) const;
    double lengthRatio() const { return m_lengthRatio; }

private:
    double m_lengthRatio;
    double m_logLow, m_logHigh;
    /// The table at this length ratio.
    std::array<std::array<double, filmTableQuantities>, filmTableLoads> m_value;
};

} // namespace mildpath
