// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"

#include <string>
#include <vector>

namespace mildpath {

/// A row of the rule book, with texts of its own.
struct BookRow
{
    std::string id;
    double value;
    std::string unit, meaning, source;
};
/// Every number of a rule: the table of core/rules, and what each kind of fault is at its worst, at
/// first sight and before anything was read.
std::vector<BookRow> ruleBook();

/// A row a line: id, value, unit, meaning, source.
std::string rulesToText();
/// The same as a table; docs/theory/rules.md holds it and a test compares.
std::string rulesToMarkdown();

} // namespace mildpath
