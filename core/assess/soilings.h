// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <vector>

namespace mildpath {

struct Spread;

/// What made passages dirty beside the cleaning logbook: chips of bench work, a bearing that
/// failed, what was found in them. The network and the build must outlive it.
std::vector<Soiling> soilingsOf(const Build &build, const PassageNetwork &network,
                                const std::vector<Spread> &spreads);

/// Flags by passage: those a job's or an act's place means, by stop, passage, plug or part.
std::vector<bool> passagesAt(const Build &build, const std::vector<std::string> &places);

} // namespace mildpath
