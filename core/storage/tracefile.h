// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// How a file of a stylus trace is to be understood.
struct TraceFormat
{
    int columns = 2; ///< 2: place and height; 1: heights alone
    std::string xUnit = "mm"; ///< mm or µm
    std::string zUnit = "µm"; ///< nm, µm or mm
    std::optional<double> spacing_um; ///< one column: the step, to be asked for
    bool decimalComma = false;
    bool operator==(const TraceFormat &) const = default;
};
/// By the number of columns and by units in the header, where there are such.
TraceFormat guessTraceFormat(std::string_view text);

/// What a file of a trace holds: heights at an even step.
struct TraceImport
{
    std::vector<double> z_um;
    double spacing_um = 0;
    Phrase said; ///< what was done to it on the way; empty: nothing
    std::vector<Error> errors; ///< place "line N" or "spacing"; the first mostTraceErrors of them
};
inline constexpr size_t mostTraceErrors = 20;

/// Plain text: `x,z` with any of comma, semicolon, tab and blanks between, or one height a line;
/// lines of words before the first number are a header; lines that begin with # are passed over.
/// A step that differs by more than 1 % is made even by linear interpolation, and said. Errors: a
/// cell that is no number; a height missing (a gap); a place that does not rise, or jumps by more
/// than 1.5 steps (a gap); a length no trace has (units mixed); `spacing` missing; no heights.
TraceImport traceFromText(std::string_view text, const TraceFormat &format);

/// A trace as `x_mm,z_um`.
std::string traceToCsv(double spacing_um, const std::vector<double> &z_um);

} // namespace mildpath
