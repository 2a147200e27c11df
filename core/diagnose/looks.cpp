// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/diagnosis.h"

#include "diagnose/faultplaces.h"
#include "kinds/cautions.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

// Efforts: docs/theory/diagnosis.md. What each shows: own choice, common practice.
const std::array<Look, 10> lookTable { {
    { "stick",
      "Oil on the stick: level, feel, smell",
      1,
      { "fuel_in_oil", "oil_too_thin", "coolant_in_oil", "oil_too_thick", "overfill", "low_fill" },
      caution::spoiltOil },
    { "follow_lines", "Follow the lines by hand, port by port", 5, { "lines_swapped" } },
    { "cut_filter",
      "Cut the filter",
      15,
      { "filter_clogged", "bypass_stuck_shut", "bypass_stuck_open", "drain_back_leaking",
        "mains_worn", "big_ends_worn" },
      caution::usedOil },
    { "camera",
      "Camera down the drive hole",
      20,
      { "gallery_plug_missing", "pump_gasket", "jet_lost" } },
    { "watch_lifters",
      "Cover off, watch the lifters and rockers",
      25,
      { "lifter_plug_missing", "lifter_swarf", "lifter_bores_worn", "rockers_worn", "rocker_swarf",
        "pushrods_restricted" },
      caution::coverOff },
    { "pan_off",
      "Pan off",
      120,
      { "suction_air", "pickup_blocked", "hose_collapsed", "pickup_uncovers", "jet_lost",
        "big_ends_worn", "mains_worn", "feed_hole_covered", "shell_spun" },
      caution::hoist },
    { "front_cover",
      "Front cover off, pump and relief apart",
      180,
      { "pump_worn", "pump_gasket", "relief_stuck_open", "relief_leaking", "relief_stuck_shut",
        "chain_swarf", "tensioner_swarf", "phaser_swarf" },
      caution::hoist },
    { "engine_out",
      "Engine out, galleries and cam bearings looked at",
      480,
      { "cams_worn", "swarf", "plug_missing", "lifter_bores_worn", "mains_worn", "big_ends_worn",
        "feed_hole_covered", "shell_spun", "bearing_worn" },
      caution::hoist },
    { "turn",
      "Hard turns on a level ground, eye on the gauge",
      10,
      { "pickup_uncovers", "low_fill" },
      caution::hardTurns },
    { "oil_sample",
      "Oil sample to the laboratory",
      5,
      { "fuel_in_oil", "oil_too_thin", "oil_too_thick", "coolant_in_oil" } },
} };

bool has(std::span<const std::string_view> list, const std::vector<std::string> &words)
{
    return std::any_of(words.begin(), words.end(), [&](const std::string &w) {
        return std::find(list.begin(), list.end(), w) != list.end();
    });
}

} // namespace

bool wouldShow(const Look &look, const std::vector<std::string> &words)
{
    return has(look.shows, words);
}

std::vector<std::string_view> cautionsOf(std::span<const NextStep> steps)
{
    std::vector<std::string_view> out;
    for (const NextStep &n : steps.first(std::min(stepsTold, steps.size())))
        if (!n.caution.empty() && std::ranges::find(out, n.caution) == out.end())
            out.push_back(n.caution);
    return out;
}

std::span<const Look> looks()
{
    return lookTable;
}

double symptomChance(const SymptomKind &s, const std::vector<std::string> &words)
{
    if (has(s.likely, words))
        return symptomLikely;
    return has(s.possible, words) ? symptomPossible : symptomOtherwise;
}

std::vector<const Look *> looksFor(const Build &build, const Fault &fault)
{
    const auto words = faultWords(build, fault);
    std::vector<const Look *> out;
    for (const Look &l : lookTable)
        if (wouldShow(l, words))
            out.push_back(&l);
    std::stable_sort(out.begin(), out.end(),
                     [](const Look *a, const Look *b) { return a->minutes < b->minutes; });
    return out;
}

} // namespace mildpath
