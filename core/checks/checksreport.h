// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/checks.h"
#include "checks/cost.h"
#include "quantity/json.h"

#include <map>
#include <optional>
#include <string>

namespace mildpath {

/// What of the list is told.
struct ChecksShown
{
    bool all = false; ///< those the job does not ask as well
    bool openOnly = false;
    std::optional<CheckGate> gate {}; ///< only what stands before this one
    /// What it would cost if a check were false, by its id; empty: not asked.
    std::map<std::string, CheckCost> costs {};
    bool evidence = false; ///< with all that was said of each: for a second reading of the rules
};

/// {"checks": [{"id", "kind", "place", "state", "class", "gate", "reason"}], "gates": {"turn":
/// {"open", "open_checks", "holds"}, …}}; docs/theory/checks.md.
Json checksToJson(const Build &build, const CheckList &list, const ChecksShown &shown);
std::string checksText(const Build &build, const CheckList &list, const ChecksShown &shown,
                       const UnitStyle &style);

} // namespace mildpath
