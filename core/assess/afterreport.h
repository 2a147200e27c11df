// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <string>

namespace mildpath {

/// Everything a run left: filter cuts, used oil, openings, ring seal, bore finish. Stable,
/// documented (docs/format/README.md).
Json afterRunToJson(const Build &build);
/// The same for people, plain text.
std::string afterRunText(const Build &build, const UnitStyle &style);

} // namespace mildpath
