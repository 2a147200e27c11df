// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/figures.h"
#include "checks/judgement.h"

#include <string_view>

namespace mildpath {

/// Everything that can be said about a document: its numbers, and what they and its notes mean.
struct Assessment : Figures, Judgement
{
    /// @param today  ISO 8601 day; empty: proofs do not grow old
    explicit Assessment(const Build &build, std::string_view today = {});
};

/// Never fails: what cannot be solved is said in `operating.unsolved` and as a check.
Assessment assess(const Build &build, std::string_view today = {});

} // namespace mildpath
