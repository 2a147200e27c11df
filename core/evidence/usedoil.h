// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace mildpath {

/// What an element in the oil may come from. Common practice, no source.
struct OilElement
{
    std::string_view symbol, name;
    std::string_view parts; ///< likely parts; empty: none
    std::string_view additive; ///< what the new oil carries it for; empty: new oil has none
    bool wear; ///< its rise is wear or dirt; otherwise it is the oil's own, or coolant
    bool bearing; ///< of plain bearings
};
std::span<const OilElement> knownOilElements();
/// @return null for an unknown symbol
const OilElement *findOilElement(std::string_view symbol);

/// One stretch of running on one fill.
struct WearInput
{
    double sump_kg = 0; ///< above 0
    double element_mg_kg = 0;
    double baseline_mg_kg = 0; ///< of the new oil
    double start_mg_kg = 0; ///< at the beginning of the stretch
    double hours_h = 0; ///< above 0
    double added_kg = 0; ///< made up in it, evenly
};
struct WearRate
{
    double net_mg_kg = 0; ///< over the baseline
    double gain_mg_kg = 0; ///< that would have gathered without make-up
    double mass_mg = 0;
    double rate_mg_h = 0;
    double per100h_mg_kg = 0;
    bool belowBaseline = false; ///< less than the new oil: an additive, scatter, another oil
};
/// Mass balance of a well-mixed sump at constant level: dc/dt = w/V − A/(V t) (c − b), what leaves
/// carries the sump's concentration. Oil that only evaporates leaves its metal: then 0 was added.
/// Source: own derivation (docs/theory/evidence.md).
WearRate wearRate(const WearInput &in);

/// A rate against the engine's own earlier ones: a screening rule, not a probability.
struct OwnPattern
{
    double median = 0, scale = 0;
    std::optional<double> z; ///< absent with fewer than 3 earlier rates
};
/// Median and 1.4826 × median deviation (Rousseeuw & Croux, JASA 88, 1993, from memory), which is
/// at least 10 % of the median and 1 mg/kg in the hours run (common practice, no source).
/// @param earlier  mg/kg per 100 h; not empty
OwnPattern ownPattern(std::span<const double> earlier, double per100h_mg_kg, double hours_h);
inline constexpr size_t leastHistory = 3;

} // namespace mildpath
