// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "rules/rules.h"
#include "surface/finish.h"

#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// A trace of the document, filtered and read.
struct ReadTrace
{
    std::string id;
    int bore = 1;
    std::string phase;
    std::shared_ptr<const FinishedTrace> trace; ///< null: `trouble` says why
    PlateauFit fit;
    Phrase trouble;
    std::string remark; ///< what is weak about it; empty: nothing
};
ReadTrace readTrace(const BoreTrace &trace, double cutoff_mm, ProfileFilter filter);

/// All standing traces of a build, by its cut-off and the two-step filter.
std::vector<ReadTrace> readTraces(const Build &build);

/// A parameter of a finish: its name, and how it is read off.
struct FinishQuantity
{
    std::string_view key, name;
    Shows as;
    int decimals;
    std::string_view meaning;
    bool valley; ///< of the valleys: one trace is good to 20 to 40 % only
    std::optional<double> (*of)(const ReadTrace &);

    Quantity asQuantity(double value) const;
};
std::span<const FinishQuantity> finishQuantities();
/// @return null for an unknown key
const FinishQuantity *findFinishQuantity(std::string_view key);

/// One parameter over the traces of a bore.
struct FinishRange
{
    int traces = 0; ///< that have it
    double mean = 0, least = 0, most = 0;
};
/// Over the traces of a bore in a phase; bore 0: of all bores.
FinishRange rangeOf(std::span<const ReadTrace> traces, int bore, std::string_view phase,
                    const FinishQuantity &quantity);
/// "one trace is weak evidence …"; empty from three traces on.
Phrase trustIn(int traces);
/// Too few are to be added to.
Mark tracesMark(int traces);
inline constexpr int enoughTraces = 3;

/// A parameter before and after finishing strokes.
struct FinishChange
{
    FinishRange before, after;
    double share = 0; ///< of before
    bool counts = false; ///< more than traces of one wall scatter
};
/// Absent unless both phases have it.
std::optional<FinishChange> changeOf(std::span<const ReadTrace> traces, int bore,
                                     const FinishQuantity &quantity);

/// Valley volume wanted, by both schools (µm³/µm²); absent until a petrol figure is entered.
struct ValleyTarget
{
    double petrol, doubled;
};
std::optional<ValleyTarget> valleyTarget(const Build &build);
/// A mean valley volume against one wanted: proven within what one trace scatters, valleyScatter.
Mark valleyMark(double mean, double wanted);

} // namespace mildpath
