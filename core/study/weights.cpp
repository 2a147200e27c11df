// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/weights.h"

#include <algorithm>

namespace mildpath {
namespace {

/// An assembly nobody put on the scales as a whole weighs what its pieces weigh.
void addUp(std::map<std::string, WeightSpread> &parts, WeightSpread &whole,
           const std::vector<std::string> &pieces, int items)
{
    for (int item = 1; item <= items; ++item) {
        double grams = 0;
        const bool known
            = !pieces.empty() && std::ranges::all_of(pieces, [&](const std::string &piece) {
                  const auto &of = parts[piece].grams;
                  const auto at = of.find(item);
                  grams += at == of.end() ? 0 : at->second;
                  return at != of.end();
              });
        if (known && whole.grams.try_emplace(item, grams).second)
            whole.addedUp.insert(item);
    }
}

void judge(WeightSpread &s, int items)
{
    if (s.grams.size() < 2) {
        s.verdict = s.grams.empty() ? "not weighed" : "one weighed";
        return;
    }
    const auto [least, most]
        = std::minmax_element(s.grams.begin(), s.grams.end(),
                              [](const auto &a, const auto &b) { return a.second < b.second; });
    s.spread_g = most->second - least->second;
    s.heaviest = most->first;
    s.lightest = least->first;
    const Quantity spread { s.spread_g, Shows::Mass, 0, 1 };
    const auto heaviest = asCount(s.heaviest), lightest = asCount(s.lightest);
    s.verdict = s.tolerance_g
        ? Phrase("weights.spread", "{0} apart, {1} allowed: {2} is the heaviest, {3} the lightest",
                 { spread, Quantity { *s.tolerance_g, Shows::Mass, 0, 1 }, heaviest, lightest })
        : Phrase("weights.free",
                 "{0} apart, no tolerance said: {1} is the heaviest, {2} the lightest",
                 { spread, heaviest, lightest });
    const bool alike = s.tolerance_g && s.spread_g <= *s.tolerance_g + 1e-9;
    // Until all are weighed the spread may still grow.
    const bool all = static_cast<int>(s.grams.size()) >= items;
    s.mark = !alike ? Mark::LookAgain : all ? Mark::Proven : Mark::NotDone;
}

} // namespace

std::vector<WeightSpread> judgeWeights(const Build &build)
{
    std::map<std::string, WeightSpread> parts;
    for (const auto &[part, about] : build.weighedParts) {
        parts[part].tolerance_g = about.tolerance_g;
        parts[part].source = about.source;
    }
    for (const Weighing &w : build.weighings)
        parts[w.part].grams[w.item] = w.grams;
    for (const auto &[part, about] : build.weighedParts)
        addUp(parts, parts[part], about.pieces, build.engine.cylinders);
    std::vector<WeightSpread> out;
    for (auto &[part, s] : parts) {
        if (s.grams.empty() && !build.weighedParts.contains(part))
            continue; // a piece nobody weighs by itself
        s.part = part;
        s.name = weighedPartName(part);
        judge(s, build.engine.cylinders);
        out.push_back(std::move(s));
    }
    return out;
}

} // namespace mildpath
