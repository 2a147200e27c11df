// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/buildsheet.h"

namespace mildpath {

/// What a run left: filter cuts, used oil, the engine opened again, ring seal, bore finish. Empty
/// where nothing of it was looked at.
std::vector<SheetBlock> afterRunBlocks(const Build &build);

} // namespace mildpath
