// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "quantity/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// CSV of what a run leaves, RFC 4180, UTF-8, units in the header; struck entries too.

std::string filterCutsToCsv(const Build &build);
std::string oilSamplesToCsv(const Build &build);
std::string sealChecksToCsv(const Build &build);

/// Filter cuts from a table with the header of filterCutsToCsv(); only hours, area and at least one
/// count must be there. Errors: all of them, each with "line N, column": no number, a number with a
/// unit of its own, out of range, hours that are there already.
struct CutImport
{
    std::vector<FilterCut> cuts;
    std::vector<Error> errors;
};
CutImport cutsFromTable(const Build &build, std::string_view text);

/// Oil samples likewise. Elements stand in columns named by their symbol; a unit behind it must be
/// mg/kg or ppm. Errors: as cutsFromTable, and a column in another unit.
struct SampleImport
{
    std::vector<OilSample> samples;
    std::vector<Error> errors;
};
SampleImport samplesFromTable(const Build &build, std::string_view text);

/// Whether text begins with a header of filter cuts, or of oil samples.
bool isCutTable(std::string_view text);
bool isSampleTable(std::string_view text);

} // namespace mildpath
