// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"

#include <string_view>
#include <utility>
#include <vector>

namespace mildpath {

struct Build;
struct Figures;

/// What the numbers and the notes of a document mean.
struct Judgement
{
    Judgement(const Build &build, const Figures &figures);

    const std::vector<StopMarks> marks; ///< all stops in oil order
    const std::vector<Finding> findings; ///< holds first

    int holds() const;
    /// Marks (size, clean, flow of every stop) nobody has done anything for yet.
    int notDone() const;
    /// The worst of all marks and findings: only where every one is proven, all is.
    Mark worst() const;
    const StopMarks *marksOf(std::string_view stop) const;

private:
    explicit Judgement(std::pair<std::vector<StopMarks>, std::vector<Finding>> found);
};

} // namespace mildpath
