// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "quantity/result.h"

#include <optional>
#include <span>
#include <vector>

namespace mildpath {

struct GaugedSize;

/// Hot oil, higher speed, with a main's feed hole covered by a share of its area.
struct CoverPoint
{
    double covered; ///< 0…1 of the smaller hole
    double main_pa, gauge_pa; ///< at the feed
    std::optional<double> bigEnd_pa; ///< without the crank's oil column; a main may feed no rod
};
/// Errors: as Network::solve; `points` when the main feeds nothing.
Result<std::vector<CoverPoint>> coverSweep(const Build &build, const std::vector<GaugedSize> &sizes,
                                           const Stop &main, std::span<const double> covered);

} // namespace mildpath
