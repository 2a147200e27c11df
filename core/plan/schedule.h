// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace mildpath {

// When each piece of work can be done: what comes first, whose hands are free, what waits by
// itself. Serial schedule generation with priorities after the critical-path method (Kelley, Walker
// 1959, from memory); the order of the priorities is an own choice. docs/theory/plan.md.

/// One piece of work: hands, then a wait that passes by itself.
struct WorkItem
{
    std::string id;
    double minutes = 0; ///< of somebody's hands, 0 or more
    double wait_d = 0; ///< days round the clock after the hands, 0 or more
    std::optional<double> due_d {}; ///< day its wait ends as promised, counted as `begin_d`
    double from_d = 0; ///< not sooner: what it waits for comes then; counted as `begin_d`
    bool first = false; ///< before all others: somebody should have had it by now
    std::vector<size_t> after {}; ///< items that come first
    bool leadsToStart = true; ///< the first start waits for it
    int stage = 0, setup = 0; ///< of the work; posture and instrument
    int place = 0; ///< in oil order
    int harm = 0; ///< 0 to 3, what it would cost if it were false
    int row = 0; ///< of the catalogue
    std::string who {}; ///< given to; empty: whoever is free
};

/// Somebody who works so many hours a day.
struct WorkHand
{
    std::string name;
    double hours_d = 4; ///< above 0, at most 24
    double from_h = 9; ///< of the day
};

/// When an item is done. Days since midnight before the plan begins.
struct WorkTime
{
    double start_d = 0;
    double hands_d = 0; ///< hands off it
    double done_d = 0; ///< after its wait
    size_t hand = 0; ///< who
    /// Days it may be late without the first start being later; absent where that does not wait for
    /// it.
    std::optional<double> slack_d {};
    bool isCritical() const { return slack_d && *slack_d < 1e-6; }
    bool isUrgent() const { return slack_d && *slack_d < 1; }
};

struct Schedule
{
    std::vector<WorkTime> times; ///< as the items
    std::vector<size_t> order; ///< items by their start
    double end_d = 0; ///< all done
};

/// @param begin_d  day and hour from which anybody is free
/// Errors: place is the id of an item in a circle, or that of one given to nobody here; no hand.
Result<Schedule> schedule(std::span<const WorkItem> items, std::span<const WorkHand> hands,
                          double begin_d = 0);

/// Hours and minutes a person works from a moment on: the moment they have passed.
double afterHands_d(double from_d, double minutes, const WorkHand &hand);

} // namespace mildpath
