// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/svg.h"
#include "start/afterwards.h"

#include <vector>

namespace mildpath {

struct Assessment;

// The pictures of a build sheet's first page. Each has no svg where there is nothing to draw.

/// Every family on one axis between its limits: a dot and a line (value ± U) for each size, a ring
/// for what is assumed.
SheetPicture sizesPicture(const Assessment &assessment, const UnitStyle &style);
/// What the gauge read, each in its likely range.
SheetPicture readAgainstPicture(const std::vector<Residual> &residuals, const UnitStyle &style);
/// Plugs in a row, each its mark; how many passages were seen through.
SheetPicture plugsPicture(const Build &build, const Assessment &assessment);

} // namespace mildpath
