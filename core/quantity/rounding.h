// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <span>
#include <string>
#include <vector>

namespace mildpath {

/// A value with its standard uncertainty, both in one unit.
struct Measured
{
    double value;
    double standardUncertainty;

    /// Half width of the interval that holds about 95 % (coverage factor 2, JCGM 100 "GUM", 2008,
    /// clause 6.3.3).
    double expanded() const { return 2 * standardUncertainty; }
    bool operator==(const Measured &) const = default;
};

/// Decimals worth showing for a value of this standard uncertainty: two significant digits of the
/// expanded uncertainty (JCGM 100 "GUM", 2008, 7.2.6: at most two). Zero, negative or not finite:
/// `most`.
int decimalsFor(double standardUncertainty, int most = 4);

/// Fixed-point text with a thin space between thousands (U+202F), the true minus sign, and "–" for
/// a value that is not finite. @param decimals 0…9
std::string formatNumber(double value, int decimals);

/// Shares in whole percent that add up to their sum in whole percent: what is cut off is given to
/// those that lost most by it (largest remainder). @param shares  of one, ≥ 0
std::vector<int> wholePercents(std::span<const double> shares);

/// As formatNumber, with plain ASCII (command line, CSV): no thousands mark, hyphen-minus.
std::string formatPlain(double value, int decimals);

/// The value to so many decimals, and to the nearest multiple of a step (> 0): what goes into a
/// file keeps the digits it deserves, not those a double has.
double roundedTo(double value, int decimals);
double roundedToStep(double value, double step);

} // namespace mildpath
