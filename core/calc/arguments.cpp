// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include <cassert>
#include <cmath>

namespace mildpath {
namespace {

bool choiceAllowed(std::string_view choices, std::string_view value)
{
    while (!choices.empty()) {
        const size_t bar = choices.find('|');
        if (choices.substr(0, bar) == value)
            return true;
        choices = bar == choices.npos ? std::string_view() : choices.substr(bar + 1);
    }
    return false;
}

Result<void> checkNumber(const CalcInput &in, const Json &value, const std::string &place)
{
    if (!value.is_number())
        return fail(place, std::string("must be a number, is ") + value.type_name());
    const double v = value.get<double>();
    if (!std::isfinite(v))
        return fail(place, "must be a finite number");
    const bool lowOk = in.aboveLeast ? v > in.least : v >= in.least;
    if (!lowOk || !(v <= in.most))
        return fail(place, "must be " + rangeText(in) + ", is " + value.dump());
    if (in.kind == CalcKind::WholeNumber && v != std::floor(v))
        return fail(place, "must be a whole number, is " + value.dump());
    return {};
}

Result<void> checkValue(const CalcInput &in, const Json &value, const std::string &place)
{
    switch (in.kind) {
    case CalcKind::Number:
    case CalcKind::WholeNumber:
        return checkNumber(in, value, place);
    case CalcKind::Text:
        if (!value.is_string())
            return fail(place, std::string("must be text, is ") + value.type_name());
        if (!in.choices.empty() && !choiceAllowed(in.choices, value.get<std::string>()))
            return fail(place,
                        "must be one of " + std::string(in.choices) + ", is " + value.dump());
        return {};
    case CalcKind::Boolean:
        if (!value.is_boolean())
            return fail(place, std::string("must be true or false, is ") + value.type_name());
        return {};
    case CalcKind::List:
        if (!value.is_array())
            return fail(place, std::string("must be a list, is ") + value.type_name());
        for (size_t i = 0; i < value.size(); ++i)
            if (auto ok
                = CalcArguments::check(in.items, value[i], place + "/" + std::to_string(i) + "/");
                !ok)
                return tl::unexpected(ok.error());
        return {};
    case CalcKind::Numbers:
        if (!value.is_array())
            return fail(place, std::string("must be a list of numbers, is ") + value.type_name());
        for (size_t i = 0; i < value.size(); ++i)
            if (auto ok = checkNumber(in, value[i], place + "/" + std::to_string(i)); !ok)
                return ok;
        return {};
    case CalcKind::Points:
        if (!value.is_array())
            return fail(place, std::string("must be a list of pairs, is ") + value.type_name());
        for (size_t i = 0; i < value.size(); ++i) {
            const std::string at = place + "/" + std::to_string(i);
            if (!value[i].is_array() || value[i].size() != 2)
                return fail(at, "must be a pair of numbers");
            for (size_t k = 0; k < 2; ++k)
                if (auto ok = checkNumber(in, value[i][k], at + "/" + std::to_string(k)); !ok)
                    return ok;
        }
        return {};
    }
    return {};
}

} // namespace

Result<CalcArguments> CalcArguments::check(std::span<const CalcInput> definition, const Json &input,
                                           const std::string &place)
{
    if (!input.is_object())
        return fail(place.empty() ? "input" : place,
                    std::string("must be a JSON object, is ") + input.type_name());
    CalcArguments out(definition, input);
    for (const auto &[key, value] : input.items())
        if (!out.definition(key))
            return fail(place + key, "is not a key of this calculator");
    for (const CalcInput &in : definition) {
        const std::string key(in.key);
        if (!out.has(key)) {
            if (in.required)
                return fail(place + key, "is missing (" + std::string(in.meaning) + ")");
            continue;
        }
        if (auto ok = checkValue(in, input[key], place + key); !ok)
            return tl::unexpected(ok.error());
    }
    return out;
}

const CalcInput *CalcArguments::definition(std::string_view key) const
{
    for (const CalcInput &in : m_definition)
        if (in.key == key)
            return &in;
    return nullptr;
}

bool CalcArguments::has(std::string_view key) const
{
    const auto it = m_values.find(std::string(key));
    return it != m_values.end() && !it->is_null();
}

std::optional<double> CalcArguments::optionalNumber(std::string_view key) const
{
    if (has(key))
        return m_values[std::string(key)].get<double>();
    return definition(key)->fallback;
}

double CalcArguments::number(std::string_view key) const
{
    const auto value = optionalNumber(key);
    assert(value && "an optional number without fallback must be asked for as optional");
    return *value;
}

std::string CalcArguments::text(std::string_view key) const
{
    if (has(key))
        return m_values[std::string(key)].get<std::string>();
    const std::string_view choices = definition(key)->choices;
    return std::string(choices.substr(0, choices.find('|')));
}

bool CalcArguments::boolean(std::string_view key) const
{
    return has(key) && m_values[std::string(key)].get<bool>();
}

std::vector<double> CalcArguments::numbers(std::string_view key) const
{
    return has(key) ? m_values[std::string(key)].get<std::vector<double>>()
                    : std::vector<double> {};
}

std::vector<std::pair<double, double>> CalcArguments::points(std::string_view key) const
{
    return has(key) ? m_values[std::string(key)].get<std::vector<std::pair<double, double>>>()
                    : std::vector<std::pair<double, double>> {};
}

std::vector<CalcArguments> CalcArguments::list(std::string_view key) const
{
    std::vector<CalcArguments> out;
    if (has(key))
        for (const Json &item : m_values[std::string(key)])
            out.push_back(CalcArguments(definition(key)->items, item));
    return out;
}

} // namespace mildpath
