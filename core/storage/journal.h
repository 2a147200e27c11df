// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"

#include <filesystem>
#include <memory>
#include <string>
#include <vector>

namespace mildpath {

/// Every edit between two saves, appended to a file as it is made, so that a killed program loses
/// at most the edit being typed.
///
/// One JSON object a line: first the document the edits start from and its file, then
/// {"edit":…}, {"undo":true} or {"redo":true} each. A line cut short by a crash is left out. The
/// writing process holds a lock on the file; a journal nobody holds is one a crash left behind.
class Journal
{
public:
    /// Starts a new journal in the folder (made if missing).
    /// @param baseUnsaved  the base itself is in no file yet (recovered work): worth offering again
    ///                     even without further edits
    /// Errors: place = path.
    static Result<Journal> start(const std::filesystem::path &folder, const Build &base,
                                 const std::string &buildPath, bool baseUnsaved = false);

    Journal(Journal &&other) noexcept;
    Journal &operator=(Journal &&other) noexcept;
    Journal(const Journal &) = delete;
    Journal &operator=(const Journal &) = delete;
    /// Closes the file and leaves it; see discard().
    ~Journal();

    Result<void> append(const Edit &edit);
    Result<void> appendUndo();
    Result<void> appendRedo();
    /// Flushes to disk, against power failure; append() alone survives a killed process.
    void sync();
    /// The work is saved or given up: removes the file.
    void discard();

    const std::filesystem::path &path() const { return m_path; }

private:
    Journal() = default;
    Result<void> writeLine(const Json &line);

    std::filesystem::path m_path;
    int m_fd = -1;
};

/// What a journal left behind holds.
struct Recovery
{
    std::filesystem::path journal;
    std::string buildPath; ///< empty: never saved
    Build base;
    Build recovered;
    int edits = 0; ///< that made a difference, undone ones not counted
};

/// Journals in the folder that no running program holds and that hold work in no file. Empty or
/// unreadable ones, and those whose document no longer makes sense, are skipped.
std::vector<Recovery> findRecoveries(const std::filesystem::path &folder);

} // namespace mildpath
