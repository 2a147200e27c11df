// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/checks.h"
#include "plan/hours.h"
#include "plan/schedule.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Figures;

// The list of checks as the order of the work: what can be done now, what waits and for what, how
// long it takes. docs/theory/plan.md.

/// An open check in the plan.
struct PlannedCheck
{
    const Check *check;
    WorkTime time;
    double minutes = 0; ///< of hands, as this builder takes them
    bool now = false; ///< nothing open comes before it, and nothing is under way
    bool late = false; ///< it was due: somebody should ring
    /// The moment it must be begun at the latest; absent where the start does not wait for it.
    std::optional<double> latest_d() const
    {
        return time.slack_d ? std::optional(time.start_d + *time.slack_d) : std::nullopt;
    }
    /// What it waits for in the end: open checks with nothing open before them.
    std::vector<const Check *> waitsFor {};
};

struct WorkPlan
{
    std::vector<PlannedCheck> rows; ///< in the order they are to be done
    std::vector<WorkHand> hands; ///< who works
    HoursRange hours {}; ///< left
    std::map<Stage, HoursRange> stageHours {}; ///< of these, stage by stage
    int timed = 0; ///< pieces of work the hours were learned from
    /// Days (in place of hours) from now to the first start, waits short, usual and long; absent
    /// once it ran, or where nothing leads there.
    std::optional<HoursRange> start_d {};
    std::optional<Error> problem {}; ///< why there is no order
    std::string begins; ///< the day it begins: ISO 8601
    double begin_d = 0; ///< and the hour, as part of it

    /// The next thing to do; null: nothing is open, or all of it waits.
    const PlannedCheck *next() const;
    const PlannedCheck *find(std::string_view check) const;
    /// @param check  of the list the plan is of
    const PlannedCheck *find(const Check &check) const;
    int nowCount() const;
    /// The day (ISO 8601) of a moment counted as the rows' times.
    std::string dayOf(double moment_d) const;
    /// The day of the first start, so many days after the plan begins.
    std::string startDay(double in_d) const { return dayOf(begin_d + in_d); }
    /// Hours stay unsaid until something was timed: nobody wants a guess for a plan.
    bool showsHours() const { return timed >= 2; }
};

/// Posture and instrument a kind of check is done in: those of one setup are done together.
int setupOf(const CheckKind &kind);

/// @param list  of the build; must outlive the plan
/// @param now   ISO 8601 moment from which anybody is free
WorkPlan planOf(const Build &build, const CheckList &list, std::string_view now);

/// What to do: "Main 4: clearance inside its limits", or whom to ring.
Phrase doText(const PlannedCheck &row);
/// "Main 4: …; waits for crank at the shop and 2 more", in one line.
Phrase waitText(const PlannedCheck &row);
/// Why it is next: what it lets be done, or that the start waits for it.
Phrase whyText(const WorkPlan &plan, const PlannedCheck &row);

} // namespace mildpath
