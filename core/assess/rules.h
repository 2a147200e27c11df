// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "kinds/stopkind.h"
#include "rules/rules.h"

#include <optional>
#include <span>
#include <string_view>

namespace mildpath {

// The numbers and rules of judgement, each once, each with where it comes from. All are own choices
// unless a row says otherwise; docs/theory/rules.md explains them.

/// What is shown of something: proven, look again, holds the start, not done; signed off by name;
/// good, but on sizes nobody measured; not asked by the job.
enum class Mark { Proven, LookAgain, Hold, NotDone, SignedOff, Assumed, NotAsked };
std::string_view markId(Mark mark); ///< "proven" …, for files and scripts
std::string_view markWord(Mark mark); ///< "holds the start" …, for people
/// The worse of two: holds, then look again, not done, signed off, good on assumed sizes.
Mark worse(Mark a, Mark b);

/// A group of outlets in "where the oil goes".
struct OilGroup
{
    std::string_view id;
    std::string_view name;
    std::span<const StopKind> stopKinds;
};
std::span<const OilGroup> oilGroups();

/// Least pressure wanted at a speed, by the rule the document states (Pa).
double leastWanted_pa(const Use &use, double rpm);

/// Something that is looked at and ticked, with the reason why.
struct TickKind
{
    std::string_view id;
    std::string_view check; ///< the kind of check it is evidence for (checks/catalogue.h)
    StopKind stopKind;
    std::string_view aspect; ///< size | clean | flow
    std::string_view text; ///< what is true when it is ticked
    std::string_view reason;
};
std::span<const TickKind> tickKinds();
/// @return null for an unknown id.
const TickKind *findTickKind(std::string_view id);

} // namespace mildpath
