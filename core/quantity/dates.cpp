// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/dates.h"

#include <array>
#include <charconv>
#include <chrono>

namespace mildpath {
namespace {

std::optional<std::chrono::sys_days> dayOf(std::string_view iso)
{
    if (iso.size() < 10 || iso[4] != '-' || iso[7] != '-')
        return std::nullopt;
    const auto number = [&](size_t from, size_t n) {
        int out = 0;
        std::from_chars(iso.data() + from, iso.data() + from + n, out);
        return out;
    };
    const std::chrono::year_month_day day { std::chrono::year(number(0, 4)),
                                            std::chrono::month(static_cast<unsigned>(number(5, 2))),
                                            std::chrono::day(static_cast<unsigned>(number(8, 2))) };
    if (!day.ok())
        return std::nullopt;
    return std::chrono::sys_days(day);
}

} // namespace

std::string dayText(std::string_view iso)
{
    constexpr std::array<std::string_view, 12> months { "Jan", "Feb", "Mar", "Apr", "May", "Jun",
                                                        "Jul", "Aug", "Sep", "Oct", "Nov", "Dec" };
    int month = 0, day = 0;
    const auto number = [&](size_t from, int &out) {
        const auto [end, code] = std::from_chars(iso.data() + from, iso.data() + from + 2, out);
        return code == std::errc() && end == iso.data() + from + 2;
    };
    if (iso.size() < 10 || iso[4] != '-' || iso[7] != '-' || !number(5, month) || !number(8, day)
        || month < 1 || month > 12 || day < 1 || day > 31)
        return std::string(iso);
    std::string out = std::to_string(day) + " "
        + std::string(months[static_cast<size_t>(month - 1)]) + " " + std::string(iso.substr(0, 4));
    if (iso.size() >= 16 && iso[10] == 'T')
        out += ", " + std::string(iso.substr(11, 5));
    return out;
}

bool isDay(std::string_view iso)
{
    return iso.size() == 10 && dayOf(iso);
}

std::string dayAfter(std::string_view iso, int days)
{
    const auto day = dayOf(iso);
    if (!day)
        return std::string(iso);
    const std::chrono::year_month_day then(*day + std::chrono::days(days));
    const auto two = [](unsigned n) { return (n < 10 ? "-0" : "-") + std::to_string(n); };
    return std::to_string(int(then.year())) + two(unsigned(then.month()))
        + two(unsigned(then.day()));
}

Result<std::string> dayFrom(std::string_view typed, std::string_view today)
{
    if (typed.empty() || isDay(typed))
        return std::string(typed);
    constexpr int most = 1000;
    int days = -1;
    const auto [end, code] = std::from_chars(typed.data(), typed.data() + typed.size(), days);
    if (code == std::errc() && end == typed.data() + typed.size() && days >= 0 && days <= most)
        return dayAfter(today, days);
    return fail("day", "a day is wanted, as 2026-12-04, or in how many days: 5");
}

std::string nearDayText(std::string_view iso)
{
    constexpr std::array<std::string_view, 7> names { "Sun", "Mon", "Tue", "Wed",
                                                      "Thu", "Fri", "Sat" };
    const auto day = dayOf(iso);
    if (!day)
        return std::string(iso);
    const std::string text = dayText(iso.substr(0, 10));
    return std::string(names[std::chrono::weekday(*day).c_encoding()]) + " "
        + text.substr(0, text.size() - 5); // without its year
}

std::optional<int> daysBetween(std::string_view from, std::string_view to)
{
    const auto a = dayOf(from), b = dayOf(to);
    if (!a || !b)
        return std::nullopt;
    return static_cast<int>((*b - *a).count());
}

} // namespace mildpath
