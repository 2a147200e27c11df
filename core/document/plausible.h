// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/enginevalue.h"

namespace mildpath {

/// Why a number of the engine is likely a slip, were it entered: a wall over a tenth of its
/// journal, a displacement three times too large, limits in millimetres. Said beside the field;
/// kept only where somebody says so. Empty: nothing speaks against it.
/// @param at     see document/enginevalue.h
/// @param value  in the unit of the file
Phrase whyUnlikely(const Build &build, const std::string &at, double value);

} // namespace mildpath
