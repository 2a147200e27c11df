// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plan/workplan.h"
#include "quantity/json.h"

#include <string>

namespace mildpath {

struct PlanShown
{
    bool hours = false; ///< asked for, however little was timed
    bool all = false; ///< what waits row by row, not only counted
};

std::string planText(const Build &build, const WorkPlan &plan, const PlanShown &shown,
                     const UnitStyle &style);
/// {"next", "now": […], "rows": [{"id", "minutes", "now", "waits_for", "start_d", "done_d",
/// "slack_d", "who"}], "hours": {"low", "likely", "high", "timed"}, "first_start_d"}
Json planToJson(const WorkPlan &plan);

} // namespace mildpath
