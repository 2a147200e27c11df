// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace mildpath {

/// A moment as stored (ISO 8601) for people: "12 Mar 2026, 14:05"; a day alone "12 Mar 2026". What
/// is no date stays as it is.
std::string dayText(std::string_view iso);

/// Whole days from one moment to another; absent where one is no date.
std::optional<int> daysBetween(std::string_view from, std::string_view to);

} // namespace mildpath
