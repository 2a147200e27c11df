// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"
#include "quantity/rounding.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// One size before a run and after it.
struct Rechecked
{
    std::string stop, family;
    int item = 1;
    std::string name; ///< "Main 4"
    std::optional<Measured> before_um; ///< at 20 °C, diametral where it is a clearance
    Measured after_um { 0, 0 };
    std::optional<Limits> limits;
    double change_um = 0;
    double u_um = 0; ///< of the change, standard
    bool changed = false; ///< by more than twice that
    Mark mark = Mark::NotDone;
    Phrase verdict;
};

/// An opened engine: what was gauged again, against what was gauged before it ran.
struct Recheck
{
    std::string opening; ///< id
    double engine_h = 0;
    std::vector<Rechecked> sizes; ///< those gauged again, in the order of the assessment
    int notAgain = 0; ///< sizes that were gauged before and not again
};
/// By the order readings were written in, not by their clock: those the logbook held when the
/// opening was noted are before, later ones after, up to the next opening.
Recheck recheckOf(const Build &build, const Opening &opening);

} // namespace mildpath
