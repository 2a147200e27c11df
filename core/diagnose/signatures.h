// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/progress.h"
#include "assess/sizes.h"
#include "diagnose/faults.h"

#include <string>
#include <vector>

namespace mildpath {

/// Where a gauge was or could be read: speed and oil, all taps at once.
struct Condition
{
    double rpm; ///< crankshaft; of the pump's shaft by a drill
    double oil_c;
    std::string oil {}; ///< grade; empty: the build's
    bool byDrill = false; ///< the crank at rest
    bool operator==(const Condition &) const = default;
};

/// One guess at what is wrong: nothing, a fault, or several at once, at one severity each.
using Guess = std::vector<Fault>;

/// Pressures (Pa) of many guesses at every tap, under every condition. An entry that has no
/// solution is not a number.
class Signatures
{
public:
    /// Solves guess by guess, each from the healthy engine's solution, on all cores.
    /// Errors: as Network::solve for the healthy engine; `cancelled`.
    static Result<Signatures> make(const Build &build, const std::vector<GaugedSize> &sizes,
                                   std::vector<Guess> guesses, std::vector<Condition> conditions,
                                   Progress *progress = nullptr);

    size_t guesses() const { return m_guesses.size(); }
    const std::vector<Condition> &conditions() const { return m_conditions; }
    const std::vector<std::string> &taps() const { return m_taps; }
    double at(size_t guess, size_t condition, size_t tap) const
    {
        return m_pressure_pa[(guess * m_conditions.size() + condition) * m_taps.size() + tap];
    }
    double healthy(size_t condition, size_t tap) const
    {
        return m_healthy_pa[condition * m_taps.size() + tap];
    }

private:
    std::vector<Guess> m_guesses;
    std::vector<Condition> m_conditions;
    std::vector<std::string> m_taps;
    std::vector<double> m_pressure_pa, m_healthy_pa;
};

} // namespace mildpath
