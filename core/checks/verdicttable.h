// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/narrowed.h"
#include "assess/operatingmodel.h"
#include "assess/progress.h"
#include "assess/rules.h"
#include "assess/states.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace mildpath {

struct Figures;

// Every verdict of the forecast at once: what must be enough, or not too much, at every state the
// engine is judged in. The computed checks take their marks from the same functions.

/// A supply against its need in a state: hotter oil than asked only warns.
Mark supplyMarkAt(const StateKind &state, double ratio);
/// What a point gets against what it needs.
struct Supply
{
    double value = 0, need = 0; ///< Pa or m3/s
    Shows shows = Shows::Pressure;
    double ratio() const { return value / need; }
};
/// By pressure, and of warm oil by flow, where it needs either; what a film takes is judged of warm
/// oil too.
std::vector<Supply> suppliesOf(const StateKind &state, const PointPressure &point);
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
    double value = 0; ///< Pa, m3/s or m: see `shows`
    double ratio = 0; ///< of what there is to what is needed; of what is stood to what there is
    double limit = 0; ///< need, or most
    std::string stop, at; ///< the worst of the row here; its name
    std::string node {}; ///< of the circuit, whose pressure it is; empty: no one node's
    Shows shows = Shows::Pressure;
    Mark mark = Mark::NotAsked; ///< nothing to judge here

    /// Good, be it on sizes that were not measured.
    Quantity figure(double si) const { return { si, shows }; }
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
/// How sure a cell is: nine builds in ten lie within, and what the width is for.
struct VerdictRange
{
    double low_pa = 0, high_pa = 0;
    DoubtfulPressure doubtful;
};
struct VerdictRanges
{
    std::map<std::pair<std::string, std::string_view>, VerdictRange> cells {}; ///< by row and state
    std::optional<ReadAt> primed {}; ///< whilePriming() of the build
    /// Null: not one node's pressure.
    const VerdictRange *find(const std::string &row, std::string_view state) const;
    const ReadAt *priming() const { return primed ? &*primed : nullptr; }
};
/// Of every cell that is one node's pressure. Some solves and back-substitutions: not for a frame.
VerdictRanges verdictRanges(const Build &build, const Figures &figures, Progress *progress);
/// Whether what is within its limit may not be.
bool reachesPast(const VerdictRow &row, const VerdictCell &cell, const VerdictRange &range);

/// Ranges too wide to judge by, gathered by the measurement or reading that narrows them most.
struct WideCause
{
    std::string by; ///< see Narrowing
    Phrase action;
    int figures = 0; ///< wider than a factor of two, or reaching past their limit
    int past = 0; ///< of these, reaching past their limit
    int settled = 0; ///< of these, no longer so afterwards
};
/// What settles most first, then what narrows most figures.
std::vector<WideCause> wideCauses(const VerdictTable &table, const VerdictRanges &ranges);

/// It must not outlive the figures.
VerdictTable verdictTable(const Build &build, const Figures &figures);

} // namespace mildpath
