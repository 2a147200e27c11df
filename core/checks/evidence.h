// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/limits.h"
#include "quantity/phrase.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace mildpath {

// What the records of a build say of one check, and what it comes to. docs/theory/checks.md has the
// rules; tools/checks/rules.py is a second implementation of them.

/// One thing that speaks for or against a check.
struct Evidence
{
    enum class Kind : unsigned char {
        Yes,
        No,
        Unsure, ///< seen, and not enough: paper only, one's own work looked at by oneself
        Figure, ///< read: its limits decide
        Breaks, ///< the statement is presumed false from here on
        Undoes, ///< the same where something had been proven; with nothing before it, not done
        Ages, ///< what was proven asks for another look
    };
    Kind kind = Kind::Yes;
    std::string at; ///< when: ISO 8601; orders the evidence, empty comes first
    std::string by, seenBy, means;
    Phrase text; ///< "brush white, far end seen", "filed"
    std::optional<LimitedFigure> figure {};
    Phrase next {}; ///< what to do about it; empty: nothing in particular
};

struct Finds
{
    Evident evident = Evident::None;
    Phrase reason; ///< empty where nothing was said
    const Evidence *last = nullptr; ///< that stands, of the timeline; null: none
    const Evidence *spoilt = nullptr; ///< what took it away or aged it; null: nothing
};

/// @param timeline  in order of time
Finds findsOf(std::span<const Evidence> timeline);

} // namespace mildpath
