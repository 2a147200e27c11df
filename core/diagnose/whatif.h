// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "assess/sizes.h"
#include "diagnose/faults.h"

namespace mildpath {

/// A gauge before and after.
struct TapChange
{
    std::string tap;
    double before_pa, after_pa;
    /// The difference in standard deviations of gauge and forecast together.
    double distance;
    bool shows() const; ///< at least two of them
};

/// What a set of faults does at one speed and oil temperature.
struct WhatIf
{
    OperatingResult before, after;
    std::vector<TapChange> taps; ///< the document's gauge first
    /// Stops that had what they need and no longer have it, the worst first: index into
    /// after.points.
    std::vector<size_t> starved;
    Phrase gauge; ///< what the gauge would or would not show, one sentence
    Phrase elsewhere; ///< which other tap shows it best; empty: none does
};
/// Errors: as applyFault and Network::solve.
Result<WhatIf> whatIf(const Build &build, const std::vector<GaugedSize> &sizes,
                      const std::vector<Fault> &faults, const Turned &turned, double oil_c);

Json whatIfToJson(const Build &build, const std::vector<Fault> &faults, const WhatIf &result);

} // namespace mildpath
