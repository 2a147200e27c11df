// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "sump/drive.h"

#include <string_view>
#include <vector>

namespace mildpath {

/// A drive from CSV or tab-separated text: a header with `time_s` and `lateral_g` or
/// `longitudinal_g` or both, in any order; other columns are passed over. Errors: all of them, each
/// with "line N, column": not a number, a time that does not rise, more than 5 g, no such header.
struct DriveImport
{
    std::vector<DriveMoment> moments;
    std::vector<Error> errors;
};
DriveImport driveFromTable(std::string_view text);
/// Whether a table is a drive, by its header.
bool isDriveTable(std::string_view text);

} // namespace mildpath
