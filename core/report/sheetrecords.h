// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/buildsheet.h"

#include <vector>

namespace mildpath {

// What the logbook holds, as tables of a build sheet. Each is empty where nothing was recorded.

/// What was measured with, and when it was last held against a standard.
std::vector<SheetBlock> instrumentBlocks(const Build &build);
/// Parts weighed against each other, and how far apart they may be.
std::vector<SheetBlock> weightBlocks(const Build &build);
/// Checks of one's own, and how they stand.
std::vector<SheetBlock> ownBlocks(const Assessment &assessment);
/// What is looked at again, and when.
/// @param date  ISO 8601 day the sheet is of
std::vector<SheetBlock> lookBlocks(const Build &build, const std::string &date);
/// Every plug: what it is, in or out, sealed with what, who fitted it, who saw it.
std::vector<SheetBlock> plugBlocks(const Build &build, const Assessment &assessment);
/// What was done to the passages, in order.
std::vector<SheetBlock> cleaningBlocks(const Build &build);
/// Each set of bolts: its stages, how far it is, who turned the last one.
std::vector<SheetBlock> torqueBlocks(const Build &build, const Assessment &assessment);
/// The lines outside the engine, as followed by hand.
std::vector<SheetBlock> lineBlocks(const Build &build, const Assessment &assessment);
/// What was found, with the names of its photos.
std::vector<SheetBlock> findBlocks(const Build &build);
/// After a bearing failure: every part the oil touched, and what was done with it.
std::vector<SheetBlock> failureBlocks(const Build &build, const Assessment &assessment);

} // namespace mildpath
