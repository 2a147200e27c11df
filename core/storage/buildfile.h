// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <filesystem>
#include <string>
#include <variant>
#include <vector>

namespace mildpath {

/// A build as it came from a file.
struct LoadedBuild
{
    Build build;
    int fileVersion = buildVersion;
    std::string olderText; ///< the file's text when it was of an older version; else empty
};

/// Why a file did not become a build: it could not be read, or what is in it is wrong.
struct LoadFailure
{
    bool unreadable; ///< true: exit code 3; false: bad content, exit code 2
    std::vector<Error> errors; ///< at least one
};

using LoadResult = tl::expected<LoadedBuild, LoadFailure>;

/// Text → build: JSON, format, version, migration, structure, sense, in this order; the first stage
/// that finds faults reports all it found.
LoadResult parseBuild(const std::string &text);
LoadResult loadBuild(const std::filesystem::path &path);

/// What a build file may be, as JSON Schema: published as docs/format/mild-path-build.schema.json.
std::string buildSchema();
/// The text saveBuild() writes.
std::string buildText(const Build &build);

/// Writes a build. @param olderText  if not empty, the file there is of an older version and is
/// kept beside it as NAME.bak first. Errors: place = path; nothing half written.
Result<void> saveBuild(const std::filesystem::path &path, const Build &build,
                       const std::string &olderText = {});

/// Lifts a document to the present version. Errors: version missing, newer, or not a whole number.
///   1 → 2: "oil" was a grade from the shelf ("15W-40"); it is now an object with the numbers.
Result<Json> migrateBuild(Json document);

} // namespace mildpath
