// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "quantity/phrase.h"

#include <vector>

namespace mildpath {

/// What a forecast of this build cannot know, in one sentence each.
std::vector<Phrase> cannotKnow(const Build &build);

} // namespace mildpath
