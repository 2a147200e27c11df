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

/// A forecast where a gauge is read.
struct ReadAt
{
    double forecast_pa;
    std::vector<double> ln; ///< by one standard deviation of each input but the oil's temperature
    /// What its own speed (the larger of 20 rev/min and 1 %) and oil temperature (2 K) may be off.
    double own_ln;
};
/// What narrows a likely range most: gauging one family, the gauge while it is primed, or one
/// there.
struct Narrowing
{
    /// A family to gauge; or one of these.
    static constexpr std::string_view priming = "priming", there = "there";
    std::string by;
    Phrase action; ///< "Gauge all Big-end bearings"
    Phrase what; ///< "Gauge all Big-end bearings: likely 1.2 to 1.9 bar then"
    LikelyPressure to;
};
/// Before it runs: what brings the low end over what is asked, gauging first; else what narrows
/// most, if it takes off a fifth. Else it must run to be read there.
/// @param least_pa  what is asked of it; 0: nothing is asked
/// @param primed    whilePriming() of the build; null: it is not primed any more
Narrowing narrowest(const DoubtfulPressure &pressure, double least_pa, const ReadAt *primed);

/// Low and high end of nine in ten of a mixture of two normals.
/// @param off  weight of the other
struct Ends
{
    double low, high;
};
Ends mixtureEnds(double middle, double sd, double otherMiddle, double otherSd, double off);

} // namespace mildpath
