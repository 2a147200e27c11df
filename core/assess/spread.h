// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"

#include <string>
#include <vector>

namespace mildpath {

/// Something the oil of a failed bearing touched.
struct SpreadItem
{
    std::string id; ///< a stop's id, or "crank", "head", "head_left", "head_right", "solenoids"
    std::string stop; ///< where to look for it on the rail
    std::string name;
    std::string rule, reason; ///< what is to be done, and why
    std::string way; ///< how the metal came here
    std::vector<std::string> choices; ///< cleaned, flushed, replaced: what settles it
    std::string buy; ///< for the shopping list; empty: nothing unless it is replaced by choice
    std::string done, by, at, note; ///< as recorded
    Mark mark = Mark::Hold; ///< proven once settled
};

struct Spread
{
    std::string failure; ///< id
    std::string stop;
    std::vector<SpreadItem> items; ///< in the order the metal reached them
};

/// Every failure that stands, with what it touched in the oil's order: the bearing and the crank's
/// drillings, back to the gallery it is fed from; then with the oil that leaves it into the sump,
/// through pickup, pump, filter, cooler, and on to everything the galleries feed.
std::vector<Spread> spreadsOf(const Build &build);

} // namespace mildpath
