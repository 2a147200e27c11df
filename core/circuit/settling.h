// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cmath>
#include <limits>

namespace mildpath {

// How values that depend on themselves through the whole circuit come to rest, round by round.

/// Leads a value that depends on itself through the whole circuit to rest. Taking more lowers what
/// there is to take (pressure at an inlet, a film's warmth), so the target falls as the value rises
/// and plain substitution may cycle; a secant through the last two rounds finds the crossing.
struct Secant
{
    double lastValue = 0, lastTarget = 0;
    bool hasLast = false;

    /// Share of the way to its target the value should go, 0.02 to 1. @param first  before there is
    /// a round to compare with
    double share(double value, double target, double first)
    {
        double out = first;
        if (hasLast && value != lastValue) {
            const double slope = (target - lastTarget) / (value - lastValue);
            out = slope < 0.5 ? 1 / (1 - slope) : first;
        }
        lastValue = value;
        lastTarget = target;
        hasLast = true;
        return std::clamp(out, 0.02, 1.0);
    }
};

/// What was too little and too much of a value whose target falls as it rises: where a step would
/// leave the two, the middle is taken. For the pump's fill, whose law ends abruptly at the release
/// pressure.
struct Bracket
{
    double tooLittle = 0;
    double tooMuch = std::numeric_limits<double>::infinity();

    double keep(double value, double target, double next)
    {
        (target > value ? tooLittle : tooMuch) = value;
        const double width = tooMuch - tooLittle;
        if (!(width
              > 1e-12 * std::abs(value))) { // the rest of the circuit has moved on: begin anew
            *this = {};
            return next;
        }
        const bool inside = next > tooLittle + 0.02 * width && next < tooMuch - 0.02 * width;
        return inside || !std::isfinite(width) ? next : tooLittle + width / 2;
    }
};

} // namespace mildpath
