// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <array>
#include <string>
#include <vector>

namespace mildpath {

/// A table as CSV: RFC 4180, UTF-8, formulas in cells defused.
std::string tableToCsv(const std::vector<std::vector<std::string>> &rows);

/// Passages: one row each, units in the header.
std::string passagesToCsv(const Build &build);
/// Plugs with where they sit.
std::string plugsToCsv(const Build &build);
/// The cleaning logbook, struck entries too.
std::string eventsToCsv(const Build &build);

} // namespace mildpath
