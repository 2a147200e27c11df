// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "quantity/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// Cells of separated text after RFC 4180: quotes, doubled quotes, line breaks inside quotes, CR LF
/// or LF. Errors: place = "line N" of an unclosed quote.
Result<std::vector<std::vector<std::string>>> cellsOf(std::string_view text, char separator);

/// One cell, quoted where it must be. A text that a spreadsheet would take for a formula (it begins
/// with = + - @ or a control character) gets an apostrophe in front, unless it is a number.
std::string cellText(std::string_view value, char separator);

/// All readings, struck ones too, as CSV with a header that names the units.
std::string readingsToCsv(const Build &build);

/// Readings from CSV or tab-separated text with that header; columns may stand in any order and the
/// ones with a default may be missing. An apostrophe put there on export is taken off. Ids and what
/// a reading strikes are not taken over: they are made anew on entry. Errors: all of them, each
/// with "line N, column".
struct ReadingImport
{
    std::vector<Reading> readings;
    std::vector<Error> errors;
};
ReadingImport readingsFromTable(const Build &build, std::string_view text);

/// Whether text begins with the header of readings.
bool isReadingTable(std::string_view text);

/// The numbers in pasted cells, row by row; empty when any cell is neither a number nor empty.
std::vector<double> numbersOf(std::string_view text);

} // namespace mildpath
