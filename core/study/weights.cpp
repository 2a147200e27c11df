// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/weights.h"

#include <algorithm>

namespace mildpath {

std::vector<WeightSpread> judgeWeights(const Build &build)
{
    std::map<std::string, WeightSpread> parts;
    for (const auto &[part, tolerance] : build.weightTolerance_g) {
        parts[part].part = part;
        parts[part].tolerance_g = tolerance;
    }
    for (const Weighing &w : build.weighings) {
        parts[w.part].part = w.part;
        parts[w.part].grams[w.item] = w.grams;
    }
    std::vector<WeightSpread> out;
    for (auto &[part, s] : parts) {
        const auto [least, most]
            = std::minmax_element(s.grams.begin(), s.grams.end(),
                                  [](const auto &a, const auto &b) { return a.second < b.second; });
        if (s.grams.size() >= 2) {
            s.spread_g = most->second - least->second;
            s.verdict = { "weights.spread",
                          "{0} between number {1} and number {2}",
                          { Quantity { s.spread_g, Shows::Mass, 0, 1 }, asCount(least->first),
                            asCount(most->first) } };
            if (!s.tolerance_g)
                s.mark = Mark::LookAgain;
            else
                s.mark = s.spread_g <= *s.tolerance_g ? Mark::Proven : Mark::LookAgain;
        } else {
            s.verdict = "not weighed";
        }
        // Until all are weighed the spread may still grow.
        if (s.mark == Mark::Proven && static_cast<int>(s.grams.size()) < build.engine.cylinders)
            s.mark = Mark::NotDone;
        out.push_back(std::move(s));
    }
    return out;
}

} // namespace mildpath
