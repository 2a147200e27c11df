// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/flow.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

// Own choice: likely 0.8, possible 0.3, otherwise 0.05 (diagnose/diagnosis.h).
const std::array<SymptomKind, 8> symptoms { {
    { "rattle_cold",
      "rattle, first seconds cold",
      { "suction_air", "drain_back_leaking" },
      { "relief_stuck_open", "mains_worn", "pump_worn" } },
    { "tapping_warm",
      "tapping, warm idle only",
      { "lifter_plug_missing", "lifter_bores_worn" },
      { "cams_worn", "pump_worn", "mains_worn" } },
    { "last_lifters_dry",
      "last lifters do not fill",
      { "lifter_plug_missing", "lifter_swarf" },
      { "lifter_bores_worn" } },
    { "gauge_zero",
      "gauge steady at zero",
      { "pump_gasket", "lines_swapped" },
      { "relief_stuck_open", "suction_air" } },
    { "falls_in_turns",
      "pressure falls in turns",
      { "pickup_uncovers", "low_fill" },
      { "suction_air" } },
    { "foam",
      "foam on the stick",
      { "overfill", "suction_air" },
      { "coolant_in_oil", "pump_gasket" } },
    { "knock_hot",
      "knock hot, metals normal",
      {},
      { "big_ends_worn", "relief_stuck_open", "oil_too_thin" } },
    { "noise_other", "another noise", {}, {} },
} };

constexpr std::array sounds {
    NoiseWord { "rattle", "rattle" }, NoiseWord { "tapping", "tapping" },
    NoiseWord { "knock", "knock" },   NoiseWord { "whine", "whine" },
    NoiseWord { "squeal", "squeal" },
};
constexpr std::array times {
    NoiseWord { "first_seconds_cold", "first seconds, cold" },
    NoiseWord { "cold_idle", "at cold idle" },
    NoiseWord { "warm_idle", "at warm idle only" },
    NoiseWord { "hot_load", "hot, under load" },
    NoiseWord { "always", "always" },
};

constexpr std::array<std::string_view, 4> means { "pressure_pot", "drill", "starter", "running" };
constexpr std::array<std::string_view, 3> sights { "flows", "weak", "dry" };

} // namespace

std::span<const SymptomKind> symptomKinds()
{
    return symptoms;
}

const SymptomKind *findSymptomKind(std::string_view id)
{
    const auto it = std::find_if(symptoms.begin(), symptoms.end(),
                                 [&](const SymptomKind &s) { return s.id == id; });
    return it == symptoms.end() ? nullptr : &*it;
}

std::span<const NoiseWord> noiseSounds()
{
    return sounds;
}

std::span<const NoiseWord> noiseTimes()
{
    return times;
}

std::string_view symptomOf(std::string_view sound, std::string_view heard)
{
    if (sound == "rattle" && heard == "first_seconds_cold")
        return "rattle_cold";
    if (sound == "tapping" && heard == "warm_idle")
        return "tapping_warm";
    if (sound == "knock" && heard == "hot_load")
        return "knock_hot";
    return otherNoise;
}

std::span<const std::string_view> flowMeans()
{
    return means;
}
std::span<const std::string_view> flowSights()
{
    return sights;
}

} // namespace mildpath
