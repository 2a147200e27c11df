// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "document/document.h"

#include <string>
#include <vector>

namespace mildpath {

/// One outlet of a stop and what was last seen of it.
struct FlowOutlet
{
    std::string name;
    const FlowSeen *seen = nullptr; ///< of the build; null: nobody looked
    Mark mark() const;
};

/// What is proven of a stop's flow by looking.
struct FlowProof
{
    std::vector<FlowOutlet> outlets;
    int seen = 0; ///< outlets somebody looked at
    Mark mark = Mark::NotDone; ///< proven only when every outlet flows
    Phrase text, next;
};
FlowProof flowProof(const Build &build, const Stop &stop);
/// @param standing  entries that stand, for asking of many stops
FlowProof flowProof(const Build &build, const Stop &stop,
                    const std::vector<const FlowSeen *> &standing);
/// "flows" proves, "weak" wants another look, "dry" holds.
Mark markOfSight(std::string_view saw);

/// One outlet of two engines side by side.
struct FlowPair
{
    std::string stop, outlet; ///< names
    const FlowSeen *here = nullptr, *there = nullptr;
    std::optional<double> here_l_min, there_l_min; ///< where it was caught
};
struct FlowComparison
{
    std::vector<FlowPair> pairs; ///< outlets seen on both
    /// Why the two may not be compared as they stand: another oil, filter, temperature, way.
    std::vector<std::string> cautions;
    std::vector<std::string> onlyOne; ///< seen on one engine only
};
/// Flow seen on two engines. Two engines compare only with the same oil and the same filter,
/// about as warm (10 K), brought to pressure the same way. Source: common practice, no source.
FlowComparison compareFlows(const Build &here, const Build &there);

} // namespace mildpath
