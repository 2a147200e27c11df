// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// For files that build or read JSON; others get by with quantity/extrakeys.h, which compiles fast.

#include "quantity/extrakeys.h"

#include "quantity/phrase.h"

#include <nlohmann/json.hpp>

namespace mildpath {

/// A sentence as programs read it: metric, plain digits.
inline void to_json(Json &json, const Phrase &phrase)
{
    json = render(phrase, fileStyle);
}

} // namespace mildpath
