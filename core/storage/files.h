// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <cstdint>
#include <filesystem>
#include <optional>
#include <string>

namespace mildpath {

/// No file of the program is larger: neither read nor written.
inline constexpr std::uintmax_t mostFileBytes = 64u << 20;

/// Whole file. Errors: place = path; missing, not readable, a directory, or larger than 64 MiB.
Result<std::string> readTextFile(const std::filesystem::path &path);

/// Writes beside the target, syncs, renames over it: after a crash either the old or the new file
/// is there, whole. A link stays a link and its file is written; the file keeps its mode; what an
/// earlier, killed write left beside it is cleared away.
/// Errors: place = path; not a plain file, set read-only, larger than 64 MiB, or the system's
/// reason. The target is then unchanged and nothing is left beside it.
Result<void> writeTextFile(const std::filesystem::path &path, const std::string &text);

/// Whether output may go over what is there already.
enum class Over { Nothing, AnyFile };

/// A report, a table, a picture. Errors: place = path; the target is a build (never written over),
/// another file without Over::AnyFile, or as writeTextFile().
Result<void> writeOutput(const std::filesystem::path &path, const std::string &text, Over over);
/// The same question without writing.
Result<void> mayWriteOutput(const std::filesystem::path &path, Over over);

/// What a file looked like, to tell whether somebody else has written to it since.
struct FileStamp
{
    std::uint64_t device = 0, inode = 0, size = 0;
    std::int64_t modified_ns = 0;
    bool operator==(const FileStamp &) const = default;
};
/// Absent where there is no such file.
std::optional<FileStamp> stampOf(const std::filesystem::path &path);

} // namespace mildpath
