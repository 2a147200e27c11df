// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/svg.h"
#include "start/prime.h"

namespace mildpath {

struct Assessment;

// Pictures of a build sheet, drawn for paper: black on white, as wide as a page's text.

inline constexpr double sheetPictureWidth = 660; ///< px

/// Every bearing of a family on one clearance axis: limits, target, the readings, the value with
/// its uncertainty. @return no svg where nothing of the family is known
SheetPicture clearancePicture(const Build &build, const Assessment &assessment,
                              const std::string &family, const UnitStyle &style);
/// Pressure at the gauge against speed with its bands, the floor, and what was read.
SheetPicture forecastPicture(const Build &build, const Assessment &assessment,
                             const UnitStyle &style);
/// Where the oil goes at hot idle.
SheetPicture sharesPicture(const Assessment &assessment, const UnitStyle &style);
/// A recorded run; of a prime with its corridor.
SheetPicture runPicture(const RunLog &run, const PrimeForecast &prime, double floor_pa,
                        const UnitStyle &style);
/// All pictures of a build, in the order of its sheet.
std::vector<SheetPicture> sheetPictures(const Build &build, const Assessment &assessment,
                                        const UnitStyle &style);

} // namespace mildpath
