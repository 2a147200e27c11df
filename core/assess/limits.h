// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>

namespace mildpath {

/// What evidence comes to.
enum class Evident : unsigned char { None, Yes, Unsure, No };

/// A figure against its limits; in the unit of its kind. A figure on a limit is inside, and both
/// limits are alike.
struct LimitedFigure
{
    double value = 0;
    double expanded = 0; ///< its uncertainty, k = 2
    std::optional<double> least, most;

    /// How far inside its nearer limit; below 0 outside, absent without limits.
    std::optional<double> margin() const;
    bool operator==(const LimitedFigure &) const = default;
};

/// Outside by more than its uncertainty: no. Nearer to a limit than that, on either side, or
/// without limits: unsure. Figures are compared as they were entered: the last digits of a change
/// of unit do not count.
Evident evidentOf(const LimitedFigure &figure);
/// Whether two figures cannot both be so: they differ by more than their uncertainties together.
bool disagree(const LimitedFigure &a, const LimitedFigure &b);

} // namespace mildpath
