// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <filesystem>
#include <string>

namespace mildpath {

/// Whole file. Errors: place = path; missing, not readable, a directory, or larger than 64 MiB.
Result<std::string> readTextFile(const std::filesystem::path &path);

/// Writes beside the target, syncs, renames over it: after a crash either the old or the new file
/// is there, whole. Errors: place = path; the target is then unchanged.
Result<void> writeTextFile(const std::filesystem::path &path, const std::string &text);

} // namespace mildpath
