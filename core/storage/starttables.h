// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <string>

namespace mildpath {

// CSV of what belongs to the start, RFC 4180, UTF-8, units in the header; struck entries too.

std::string signOffsToCsv(const Build &build);
std::string cardStepsToCsv(const Build &build);
std::string gaugeReadingsToCsv(const Build &build);

} // namespace mildpath
