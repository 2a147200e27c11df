// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/catalogue.h"
#include "document/document.h"

#include <string>
#include <vector>

namespace mildpath {

/// Where a check stands.
struct CheckPlace
{
    std::string id; ///< "main_3", "lifter_gallery#4", "engine"
    std::string name; ///< "Main 3", for people
    std::string stop; ///< on the rail; empty: none of its own
    /// What a job's scope or an act may name and mean this place by, its own id among them.
    std::vector<std::string> ids;
    std::vector<std::string> parts {}; ///< a stop's passages run through: what is done to them
                                       ///< comes first, and is not done to the stop
    std::string family {}; ///< of a size, with its item
    int item = 0;

    bool isMeantBy(std::string_view id) const;
    /// Whether one belongs to the other: an id means both.
    bool shares(const CheckPlace &other) const;
};

/// The place of what concerns the engine as a whole.
inline constexpr std::string_view wholeEngine = "engine";

/// Every place the kind stands at on this engine, in oil order. Which of them are asked is another
/// matter (checks/asked.h).
std::vector<CheckPlace> placesOf(const Build &build, const CheckKind &kind);

/// The lines outside the engine: those written down, else the ones such an engine wants.
std::vector<ExternalLine> linesOf(const Build &build);

} // namespace mildpath
