// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "quantity/phrase.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

namespace mildpath {

/// How parts weigh against each other.
struct WeightSpread
{
    std::string part, name;
    std::map<int, double> grams; ///< standing, by item
    std::set<int> addedUp; ///< items of an assembly that were weighed piece by piece
    double spread_g = 0;
    int heaviest = 0, lightest = 0; ///< items; 0: fewer than two are known
    std::optional<double> tolerance_g;
    std::string source; ///< of the tolerance
    Mark mark = Mark::NotDone;
    Phrase verdict;
};
/// Every part that is to be weighed or was.
std::vector<WeightSpread> judgeWeights(const Build &build);

} // namespace mildpath
