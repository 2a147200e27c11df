// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "calc/catalogue.h"

namespace mildpath {

// Rows that the definitions of several topics share.

constexpr CalcInput positive(std::string_view key, std::string_view meaning, std::string_view unit)
{
    return { .key = key, .meaning = meaning, .unit = unit, .least = 0, .aboveLeast = true };
}

constexpr CalcInput notNegative(std::string_view key, std::string_view meaning,
                                std::string_view unit)
{
    return { .key = key, .meaning = meaning, .unit = unit, .least = 0 };
}

constexpr CalcInput length(std::string_view key, std::string_view meaning)
{
    return {
        .key = key, .meaning = meaning, .unit = "mm", .least = 0, .most = 10000, .aboveLeast = true
    };
}

constexpr CalcInput temperature(std::string_view key, std::string_view meaning)
{
    return { .key = key, .meaning = meaning, .unit = "°C", .least = -80, .most = 350 };
}

constexpr CalcInput expansion(std::string_view key, std::string_view meaning)
{
    return {
        .key = key, .meaning = meaning, .unit = "1/K", .least = 0, .most = 60e-6, .aboveLeast = true
    };
}

/// The same key, left out at will; without a fallback its absence has a meaning of its own.
constexpr CalcInput optional(CalcInput in, std::optional<double> fallback = std::nullopt)
{
    in.required = false;
    in.fallback = fallback;
    return in;
}

/// A number that may lie on either side of zero.
constexpr CalcInput either(std::string_view key, std::string_view meaning, std::string_view unit)
{
    return { .key = key, .meaning = meaning, .unit = unit };
}

/// The same key as a list of numbers.
constexpr CalcInput many(CalcInput in)
{
    in.kind = CalcKind::Numbers;
    return in;
}

/// The same key within a range.
constexpr CalcInput within(CalcInput in, double least, double most)
{
    in.least = least;
    in.most = most;
    return in;
}

} // namespace mildpath
