// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/feed.h"
#include "document/document.h"

namespace mildpath {

/// How a main hands oil to the mouths of the drillings in its journal.
struct MainGroove
{
    FeedGroove kind = FeedGroove::None; ///< Journal: with a groove in the shell too, or without
    double extent_deg = 0; ///< of the shell's groove
    double width_m = 0; ///< of the groove the oil comes along
    double journalWidth_m = 0; ///< of the journal's; 0 without one
    double depth_m = 0; ///< of shell and journal together
    double hole_m = 0; ///< in the shell
    int mouths = 1; ///< 2: the journal is drilled across
};
/// As entered, else as the circuit's bearing has it. A shell's groove is 0.45 of its wall deep
/// within 0.6…1.2 mm, 1 mm where the wall is not known, a journal's 1 mm. Common practice, no
/// source.
MainGroove mainGroove(const Build &build, const Stop &main);

/// Names of the big-ends whose oil comes through a main; none: it feeds none, and a groove would
/// only cost it.
std::vector<std::string> rodsFedBy(const Build &build, const Stop &main);

/// The same with the shell's groove all round.
MainGroove withGrooveAllRound(MainGroove groove, const Stop &main);

/// Share of a turn during which one mouth meets oil, 0…1.
double mouthShareOfTurn(const MainGroove &groove, double journalRadius_m, double drilling_m);

/// Writes into a drilling of the circuit how that groove feeds it: window, mouths, slot.
void feedDrillingBy(Element &drilling, const MainGroove &groove, double journalRadius_m);

} // namespace mildpath
