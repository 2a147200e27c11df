// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/finding.h"

#include <utility>
#include <vector>

namespace mildpath {

struct Build;
struct Figures;

/// The marks of all stops in oil order, and the findings, holds first.
std::pair<std::vector<StopMarks>, std::vector<Finding>> judge(const Build &build,
                                                              const Figures &figures);

} // namespace mildpath
