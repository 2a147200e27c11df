// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "quantity/phrase.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct GaugedSize;

/// How a main's feed hole meets the drilling in the block.
struct FeedHole
{
    std::string stop;
    double openArea_mm2 = 0;
    double openShare = 1; ///< of the smaller hole
    double ofDrilling = 1; ///< of the feed drilling of the circuit
    Mark mark = Mark::NotDone;
    Phrase verdict, next;
};

/// A part of the pump's or pickup's fit that is judged by itself.
struct FitVerdict
{
    std::string id; ///< "relief_spring", "oring", "pickup_gap", "scoring"
    std::string stop;
    Mark mark = Mark::NotDone;
    Phrase title, detail, next;
};

std::vector<FeedHole> judgeFeedHoles(const Build &build);
std::vector<FitVerdict> judgeFits(const Build &build, const std::vector<GaugedSize> &sizes);

/// Share of a turn during which the crank drillings of a main see oil, by its groove and holes;
/// absent where none of that was entered.
std::optional<double> feedShareOfTurn(const Build &build, const Stop &main);

} // namespace mildpath
