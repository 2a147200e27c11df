// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/jsonreader.h"
#include "quantity/result.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace mildpath {

/// What a key of a calculator takes.
enum class CalcKind { Number, WholeNumber, Text, Boolean, List, Numbers, Points };

/// One input: its meaning, unit and range. The same row checks the value, describes it on the
/// command line and explains it in the Working panel.
struct CalcInput
{
    std::string_view key;
    std::string_view meaning;
    std::string_view unit; ///< empty for a bare number
    CalcKind kind = CalcKind::Number;
    bool required = true;
    std::optional<double> fallback {}; ///< of an optional number; none: absent has its own meaning
    double least = -1e12;
    double most = 1e12;
    bool aboveLeast = false; ///< `least` itself is refused
    std::string_view choices {}; ///< of a text, separated by '|'; the first is the default
    std::span<const CalcInput> items {}; ///< of a list: the keys of its objects
};

struct CalcOutput
{
    std::string_view key;
    std::string_view meaning;
    std::string_view unit;
};

/// Checked inputs of one run.
class CalcArguments;

/// One formula anyone can run: the Working panel, What's-this and the command line read this.
struct Calculator
{
    std::string_view name;
    std::string_view title;
    std::string_view meaning; ///< in plain words, what it is good for
    std::string_view formula;
    std::string_view source;
    std::span<const CalcInput> inputs;
    std::span<const CalcOutput> outputs;
    Result<Json> (*run)(const CalcArguments &);
};

/// All calculators, by topic.
std::span<const Calculator *const> calculators();
/// @return null for an unknown name.
const Calculator *findCalculator(std::string_view name);

/// Runs a calculator. Strict: unknown key, missing key, wrong type, value not finite or out of
/// range is an error whose place is the key.
Result<Json> runCalculator(const Calculator &calculator, const Json &input);

/// The definition as data: keys, units, ranges, formula, source.
Json describeCalculator(const Calculator &calculator);

/// "above 0 and at most 60", or empty when any number will do.
std::string rangeText(const CalcInput &input);

} // namespace mildpath
