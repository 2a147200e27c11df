// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <optional>
#include <string>
#include <string_view>

namespace mildpath {

/// A moment as stored (ISO 8601) for people: "12 Mar 2026, 14:05"; a day alone "12 Mar 2026". What
/// is no date stays as it is.
std::string dayText(std::string_view iso);

/// Whether it is a day of the calendar, alone: "2026-03-21".
bool isDay(std::string_view iso);
/// The day so many days later; what is no date stays as it is.
std::string dayAfter(std::string_view iso, int days);
/// A day as somebody types it: "2026-12-04", or in so many days: "5". Empty stays empty.
/// Errors: `day`, what is none.
Result<std::string> dayFrom(std::string_view typed, std::string_view today);
/// "Fri 4 Dec": a day near enough that its year goes without saying.
std::string nearDayText(std::string_view iso);

/// Whole days from one moment to another; absent where one is no date.
std::optional<int> daysBetween(std::string_view from, std::string_view to);

} // namespace mildpath
