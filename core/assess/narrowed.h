// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/uncertain.h"
#include "document/document.h"

#include <Eigen/Core>

#include <vector>

namespace mildpath {

/// The calibration by readings that is in force: the last that stands, unless something was opened
/// or mended since. Null without one.
const Calibration *readingsInForce(const Build &build);
/// As it was forecast before readings were used.
Build withoutReadings(Build build);
/// The last day that something was opened or mended: what was read before is of another engine.
std::string lastMended(const Build &build);

/// A build's uncertain inputs as readings have them: z ± a covariance C = I − W Wᵀ, and a chance
/// that something else is at work (assess/believed.h). As they were where no readings are used.
class Narrowed
{
public:
    Narrowed() = default;
    /// Those of the inputs the calibration knows; one it does not know stays as it was.
    Narrowed(const Build &build, const std::vector<UncertainInput> &inputs);

    bool any() const { return !m_z.empty(); }
    const std::vector<double> &z() const { return m_z; }
    /// Of every pressure, by what the model itself leaves out of all of them.
    double factor() const { return m_factor; }
    /// Variance of a sum of the inputs. @param effects  of one standard deviation of each
    double variance(std::span<const double> effects) const;
    /// C times the effects.
    std::vector<double> left(std::span<const double> effects) const;
    /// Independent normals made into inputs spread about z as C says.
    std::vector<double> spread(std::span<const double> normals) const;
    /// The range nine in ten fall in of a pressure with these effects (Pa), the model's own
    /// remainder beside them.
    LikelyPressure range(double value_pa, std::span<const double> effects_pa) const;

private:
    std::vector<double> m_z;
    Eigen::MatrixXd m_w; ///< inputs × readings
    double m_factor = 1;
    double m_off = 0;
};

struct DoubtfulPressure;

/// Wider than a factor of two: a guess, beside which stands what would narrow it.
inline bool isWide(const LikelyPressure &p)
{
    return p.low_pa > 0 && p.high_pa > 2 * p.low_pa;
}

/// What narrows a likely range most: gauging one family, or reading a gauge there.
struct Narrowing
{
    Phrase what; ///< "Gauge all Big-end bearings: likely 1.2 to 1.9 bar then"
    LikelyPressure to;
};
/// @param least_pa  what is asked of it: gauging that brings the low end over it is named before
///                  reading a gauge, which narrows more; 0: nothing is asked
Narrowing narrowest(const DoubtfulPressure &pressure, double least_pa);

/// Low and high end of nine in ten of a mixture of two normals.
/// @param off  weight of the other
struct Ends
{
    double low, high;
};
Ends mixtureEnds(double middle, double sd, double otherMiddle, double otherSd, double off);

} // namespace mildpath
