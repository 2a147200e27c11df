// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"
#include "checks/checks.h"

#include <string_view>
#include <vector>

namespace mildpath {

/// What the numbers and the notes of a document mean: the list of checks, and views of it.
struct Judgement
{
    /// @param today  ISO 8601 day; empty: proofs do not grow old
    Judgement(const Build &build, const Figures &figures, std::string_view today);

    const CheckList checks;
    const std::vector<StopMarks> marks; ///< all stops in oil order
    /// What holds and what is to be checked again, holds first; then remarks, which hold nothing.
    const std::vector<Finding> findings;

    int holds() const { return checks.count(CheckState::Hold); }
    /// Asked checks nobody has done anything for yet.
    int notDone() const { return checks.count(CheckState::NotDone); }
    Mark worst() const { return markOf(checks.worst()); }
    const StopMarks *marksOf(std::string_view stop) const;
};

/// Where a kind of check is looked at and mended.
Place placeOf(const CheckKind &kind);

} // namespace mildpath
