// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "assess/states.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Figures;

// Every verdict of the forecast at once: what must be enough, or not too much, at every state the
// engine is judged in. The computed checks take their marks from the same functions.

/// A supply against its need in a state: hotter oil than asked only warns.
Mark supplyMarkAt(const StateKind &state, double ratio);
/// The pressure gauge in a state: against the user's minimum at idle, against the rule at speed.
struct GaugeVerdict
{
    double value_pa = 0, least_pa = 0;
    Mark mark = Mark::Proven;
};
GaugeVerdict gaugeVerdict(const Build &build, const OperatingState &state);
/// The verdicts that lead, as the strip, the forecast and the build sheet show them.
struct LeadingVerdicts
{
    GaugeVerdict idle, fast; ///< hot at idle; hot at the higher speed
    Mark weakest = Mark::NotAsked; ///< the weakest feed at hot idle; no feed, no verdict
};
/// Valid for figures that are solved.
LeadingVerdicts leadingVerdicts(const Build &build, const Figures &figures);
/// A pressure against what a part stands: above `warn_pa` look again, above `hold_pa` it holds.
Mark standsMark(double pa, double warn_pa, double hold_pa);

struct VerdictCell
{
    double value_pa = 0;
    double ratio = 0; ///< of what there is to what is needed; of what is stood to what there is
    double limit_pa = 0; ///< need, or most
    std::string stop, at; ///< the worst of the row here; its name
    Mark mark = Mark::NotAsked; ///< nothing to judge here

    /// Good, be it on sizes that were not measured.
    bool isInside() const { return mark == Mark::Proven || mark == Mark::Assumed; }
};
struct VerdictRow
{
    std::string id, name;
    bool upper = false; ///< the limit is a most
    bool absolute = false; ///< pressures are absolute
    std::vector<VerdictCell> cells; ///< one a state of the table
    Mark worst() const;
};
struct VerdictTable
{
    std::vector<const OperatingState *> states; ///< of the figures, with a relief that works
    std::vector<VerdictRow> rows; ///< the worst first
    int inside = 0, doubtful = 0, beyond = 0; ///< cells
};
/// It must not outlive the figures.
VerdictTable verdictTable(const Build &build, const Figures &figures);

} // namespace mildpath
