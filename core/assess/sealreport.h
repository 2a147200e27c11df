// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// Readings of one kind, taken alike, of one phase.
struct SealMean
{
    std::vector<double> values; ///< blow-by: percent of what the engine breathes; vacuum: kPa
    double mean() const;
    /// Standard deviation of repeats; absent for one reading.
    std::optional<double> scatter() const;
};
/// Before against after at one speed and load.
struct SealPair
{
    std::string kind; ///< blow_by or vacuum
    double rpm = 0, load_percent = 0;
    std::optional<double> pump_rpm {}, relief_kpa {};
    SealMean before, after;
    std::optional<double> change {}; ///< after less before
    double scatter = 0; ///< what a reading differs by when repeated
    bool counts = false; ///< the change is larger than that
    Mark mark = Mark::NotDone;
    Phrase verdict {};
};
struct SealReport
{
    std::vector<SealPair> pairs; ///< blow-by first, by speed
    std::vector<std::string> remarks;
};
/// Readings are put side by side only at equal speed and load (2 %, 5 points), vacuum also at equal
/// pump speed and relief setting. Blow-by is brought to 101.325 kPa and 25 °C and set against what
/// the engine breathes.
SealReport reportSeal(const Build &build);

} // namespace mildpath
