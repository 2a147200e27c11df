// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"

#include <charconv>
#include <cmath>
#include <iostream>

namespace mildpath::cli {
namespace {

UnitStyle chosenUnits;

Result<void> chooseUnits(const std::string &name)
{
    constexpr std::pair<std::string_view, UnitSystem> systems[] {
        { "metric", UnitSystem::Metric },
        { "imperial", UnitSystem::Imperial },
        { "both", UnitSystem::Both },
    };
    for (const auto &[id, system] : systems)
        if (name == id) {
            chosenUnits.system = system;
            return {};
        }
    return fail("--units", "must be metric, imperial or both, is \"" + name + "\"");
}

} // namespace

const UnitStyle &units()
{
    return chosenUnits;
}

void print(const Phrase &line)
{
    std::cout << render(line, units()) << '\n';
}

std::optional<std::string> Options::value(const std::string &name) const
{
    const auto it = values.find(name);
    return it == values.end() ? std::nullopt : std::optional(it->second);
}

Result<Options> parseOptions(const Verb &verb, const std::vector<std::string> &words)
{
    Options out;
    for (size_t i = 0; i < words.size(); ++i) {
        const std::string &w = words[i];
        if (!w.starts_with("-") || w == "-") {
            out.words.push_back(w);
            continue;
        }
        const size_t equals = w.find('=');
        const std::string name = w.substr(0, equals);
        if (verb.flagOptions.contains(name) && equals == w.npos) {
            out.flags.insert(name);
        } else if (verb.valueOptions.contains(name) || name == "--units") {
            if (equals != w.npos)
                out.values[name] = w.substr(equals + 1);
            else if (i + 1 < words.size())
                out.values[name] = words[++i];
            else
                return fail(name, "needs a value");
        } else {
            return fail(w, "is not an option of \"" + std::string(verb.name) + "\"");
        }
    }
    if (const auto system = out.value("--units"))
        if (const auto ok = chooseUnits(*system); !ok)
            return tl::unexpected(ok.error());
    return out;
}

int report(const Error &error, const std::string &file, int exitCode)
{
    std::cerr << (file.empty() ? "" : file + ": ")
              << (error.place.empty() ? "" : error.place + ": ") << render(error.message, units())
              << '\n';
    return exitCode;
}

int report(const LoadFailure &failure, const std::string &file)
{
    for (const Error &e : failure.errors)
        report(e, e.place == file ? "" : file, 0);
    return failure.unreadable ? ReadWriteFailed : BadInput;
}

Result<double> numberOption(const std::string &name, const std::string &text)
{
    double value = 0;
    const auto [end, code] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (code != std::errc() || end != text.data() + text.size() || !std::isfinite(value))
        return fail(name, "\"" + text + "\" is not a number");
    return value;
}

Result<int> wholeOption(const Options &options, const char *name, int fallback)
{
    const auto text = options.value(name);
    if (!text)
        return fallback;
    const auto number = numberOption(name, *text);
    if (!number)
        return tl::unexpected(number.error());
    if (!(*number >= 0 && *number <= 1e6) || *number != static_cast<int>(*number))
        return fail(name, "must be a whole number from 0 to 1 000 000");
    return static_cast<int>(*number);
}

Result<std::vector<double>> numbersOption(const std::string &name, const std::string &text)
{
    std::vector<double> parts;
    const bool range = text.find(':') != text.npos;
    size_t at = 0;
    while (at <= text.size()) {
        const size_t end = std::min(text.find(range ? ':' : ',', at), text.size());
        const auto number = numberOption(name, text.substr(at, end - at));
        if (!number)
            return tl::unexpected(number.error());
        parts.push_back(*number);
        at = end + 1;
    }
    if (!range)
        return parts;
    if (parts.size() != 3 || !(parts[2] > 0) || parts[1] < parts[0]
        || (parts[1] - parts[0]) / parts[2] > 10000)
        return fail(name, "a range is FROM:TO:STEP with STEP above 0, at most 10000 points");
    std::vector<double> out;
    for (int i = 0; parts[0] + i * parts[2] <= parts[1] * (1 + 1e-12); ++i)
        out.push_back(parts[0] + i * parts[2]);
    return out;
}

} // namespace mildpath::cli
