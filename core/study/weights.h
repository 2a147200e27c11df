// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "quantity/phrase.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// How parts weigh against each other.
struct WeightSpread
{
    std::string part;
    std::map<int, double> grams; ///< standing, by item
    double spread_g = 0;
    std::optional<double> tolerance_g;
    Mark mark = Mark::NotDone;
    Phrase verdict;
};
std::vector<WeightSpread> judgeWeights(const Build &build);

} // namespace mildpath
