// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"

#include <string>

namespace mildpath {

/// Something true and good to know about a result.
struct Warning
{
    std::string id; ///< stable, for programs
    Phrase text;
    bool operator==(const Warning &) const = default;
};

} // namespace mildpath
