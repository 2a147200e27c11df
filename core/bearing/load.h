// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/types.h"

#include <cmath>

namespace mildpath {

/// Bore, stroke and moving masses as far as bearing loads go.
struct CrankTrain
{
    double bore_m;
    double stroke_m;
    double peakPressure_pa
        = 15e5; ///< of combustion: 15 bar with no load, 40 part, 65 full, 110 diesel
    double reciprocating_kg = 650 * bore_m * bore_m * bore_m;
    double rotating_kg = 0.8 * reciprocating_kg;
};

/// As long as bore and stroke are not known they are taken as equal.
inline CrankTrain squareTrain(double displacement_m3, int cylinders)
{
    const double bore = std::cbrt(4 * displacement_m3 / (pi * cylinders));
    return { .bore_m = bore, .stroke_m = bore };
}

/// Steady load that stands for a big-end's cycle (N), an indicator:
///   W = 0.25 p_max A + (0.66 m_rec + m_rot) r ω²
/// Own choice, no source.
inline double bigEndMeanLoad_n(const CrankTrain &t, double rpm)
{
    const double omega = 2 * pi * rpm / 60;
    return 0.25 * t.peakPressure_pa * pi / 4 * t.bore_m * t.bore_m
        + (0.66 * t.reciprocating_kg + t.rotating_kg) * t.stroke_m / 2 * omega * omega;
}

/// The same of a main between big-ends of these loads; 0 where there is none on a side.
/// W = 0.6 × half the sum of its neighbours'. Own choice, no source.
inline double mainMeanLoad_n(double before_n, double behind_n)
{
    return 0.6 * (before_n + behind_n) / 2;
}

} // namespace mildpath
