// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace mildpath {

// Cells of tables as people hand them in.

/// A tab if the first line holds one, else a semicolon, else a comma.
char separatorOf(std::string_view text);
/// Without blanks, line ends and a byte-order mark around it.
std::string trimmedCell(const std::string &cell);
/// A number with a point, a sign before it at most; with `decimalComma` a comma instead.
/// @return absent for anything else, also for what is not finite
std::optional<double> numberOfCell(std::string cell, bool decimalComma = false);

} // namespace mildpath
