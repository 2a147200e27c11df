// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "quantity/result.h"

#include <filesystem>

namespace mildpath {

// A builder's own checks, kept by template beside his settings: the next build begun from it has
// them from the start.

/// Where they are kept: below $XDG_DATA_HOME, else ~/.local/share.
std::filesystem::path keptChecksFile();
/// Keeps the build's own checks in place of those kept for its template.
/// Errors: it was begun from no template; the file cannot be read or written.
Result<void> keepOwnChecks(const Build &build);
/// Gives a new build those that were kept for its template. @return how many
/// Errors: the file is damaged, with the place; the build is as it was.
Result<int> takeKeptChecks(Build &build);

} // namespace mildpath
