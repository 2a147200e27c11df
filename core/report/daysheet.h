// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/buildsheet.h"

#include <string>
#include <vector>

namespace mildpath {

struct Orders;
struct PlannedCheck;
struct WorkPlan;

/// What somebody does on the first day of a plan, in the order it is done.
struct DayOfWork
{
    std::string name; ///< who; empty: nobody is named
    std::vector<const PlannedCheck *> rows;
    double minutes = 0;
};
/// One for each person who has something to do that day; they must not outlive the plan.
std::vector<DayOfWork> daysOfWork(const WorkPlan &plan);

/// The same as a sheet to take along: what, how long, what to lay out first, what hurts people.
/// @param date  as printed; the core has no clock
BuildSheet daySheet(const Build &build, const WorkPlan &plan, const std::string &date,
                    const UnitStyle &style);

/// What is to order and to send, to take along or to hand in: what, size, how many, by when, how it
/// stands.
BuildSheet orderSheet(const Build &build, const Orders &orders, const std::string &date,
                      const UnitStyle &style);

} // namespace mildpath
