// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/words.h"

namespace mildpath {

/// Where a number of the engine comes from, the surest last.
enum class Origin : unsigned char {
    Typical, ///< of the template or the plan: nobody said it of this engine
    Shop, ///< somebody of the shop decided or knows it
    Manufacturer, ///< published for this engine
    Measured, ///< on this engine
};
template <> std::span<const std::string_view> enumWords<Origin>();

} // namespace mildpath
