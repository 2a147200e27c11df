// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/rulebook.h"

#include "diagnose/faults.h"

#include <array>
#include <cstdio>

namespace mildpath {
namespace {

/// As short as it can be said: 0.06, 1e-09, 200000.
std::string shortest(double value)
{
    std::array<char, 32> text {};
    std::snprintf(text.data(), text.size(), "%.10g", value);
    return text.data();
}

} // namespace

std::vector<BookRow> ruleBook()
{
    std::vector<BookRow> out;
    for (const Rule &r : rules())
        out.push_back({ std::string(r.id), r.value, std::string(r.unit), std::string(r.meaning),
                        std::string(r.source) });
    for (const FaultKind &k : faultKinds()) {
        const std::string id = "fault." + std::string(k.id), name = std::string(k.name);
        const std::string source = "own choice, no source";
        if (k.most > 0)
            out.push_back(
                { id + ".most", k.most, "", name + ": of its measure, at its worst", source });
        out.push_back(
            { id + ".usual", k.usual, "", name + ": severity a what-if opens with", source });
        if (k.prior > 0)
            out.push_back(
                { id + ".prior", k.prior, "", name + ": before anything was read", source });
    }
    return out;
}

std::string rulesToText()
{
    std::string out;
    for (const BookRow &r : ruleBook())
        out += r.id + "  " + shortest(r.value) + (r.unit.empty() ? "" : " " + r.unit) + "  "
            + r.meaning + " (" + r.source + ")\n";
    return out;
}

std::string rulesToMarkdown()
{
    std::string out = "| number | value | unit | meaning | source |\n|---|---|---|---|---|\n";
    for (const BookRow &r : ruleBook())
        out += "| `" + r.id + "` | " + shortest(r.value) + " | " + r.unit + " | " + r.meaning
            + " | " + r.source + " |\n";
    return out;
}

} // namespace mildpath
