// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "assess/rules.h"
#include "document/document.h"
#include "evidence/counts.h"
#include "rules/rules.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// One kind of particle in one cut.
struct JudgedKind
{
    std::string kind; ///< see cutKinds()
    std::optional<int> count; ///< pleats and can; absent: not looked for
    int inCan = 0; ///< of them in the can
    std::optional<double> largest_mm {};
    double per100h_100cm2 = 0; ///< particles in 100 h on 100 cm²
    std::optional<CountComparison> against {}; ///< the earlier cut it is like in hours
    std::string againstCut; ///< id of that cut
    Mark mark = Mark::NotDone;
    Phrase verdict;
};

struct JudgedCut
{
    std::string id;
    double engine_h = 0;
    bool firstHours = false; ///< more than half of its hours lie in them
    std::vector<JudgedKind> kinds; ///< in the order of cutKinds()
    std::vector<std::string> remarks; ///< what is odd about the entry
    Mark mark = Mark::NotDone; ///< the worst of its kinds
    Phrase verdict;

    const JudgedKind &kind(std::string_view id) const;
};

/// The filters of this engine, cut by cut in the order of its hours. Copper colour is always a
/// finding; a rate is compared with the last earlier cut of the same part of the engine's life.
struct CutReport
{
    std::vector<JudgedCut> cuts;
    std::vector<Finding> findings;
};
CutReport reportCuts(const Build &build);

/// The cut with its kinds compared with another one of one's choice, whichever hours that saw;
/// marks and verdicts stay. Kinds that one of them did not look for are not compared.
JudgedCut comparedWith(const Build &build, JudgedCut cut, const std::string &other);

/// Exposure of a cut with a count of some kind.
Exposure exposureOf(const FilterCut &cut, int count);
/// "3.0 times the rate (0.9 to 12.8), too few to tell": the comparison in words, interval and all.
Phrase comparisonText(const CountComparison &comparison);

} // namespace mildpath
