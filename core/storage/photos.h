// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <filesystem>
#include <string>
#include <vector>

namespace mildpath {

/// The folder beside a build that holds its photos and recorded runs: NAME.files/ for
/// NAME.mildpath.
std::filesystem::path photoFolder(const std::filesystem::path &buildFile);

/// Every photo the build names, and every file of a recorded run, once, in the order they were
/// taken down.
std::vector<std::string> photosOf(const Build &build);

/// Photos that are named and do not lie in the folder.
std::vector<std::string> missingPhotos(const Build &build, const std::filesystem::path &buildFile);

/// Lays a photo into the folder under its name; one that lies there already is left as it is.
/// Errors: place = path; nothing half written.
Result<void> keepPhoto(const std::filesystem::path &from, const std::filesystem::path &buildFile,
                       const std::string &name);

/// Takes the photos along when a build is saved elsewhere. What is missing stays missing.
/// Errors: place = path of the first that could not be copied.
Result<void> copyPhotos(const Build &build, const std::filesystem::path &fromFile,
                        const std::filesystem::path &toFile);

} // namespace mildpath
