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
/// {"edit":…}, {"undo":true} or {"redo":true} each, or {"state":…}, a whole document to go on from:
/// where an undo leads to before the journal, and after a write that failed. A line cut short by a
/// crash is left out. The writing process holds a lock on the file; a journal nobody holds is one a
/// crash left behind.
class Journal
{
public:
    /// Starts a new journal in the folder (made if missing, readable to its owner alone).
    /// @param baseUnsaved  the base itself is in no file yet (recovered work): worth offering again
    ///                     even without further edits
    /// Errors: place = path; no file is left then.
    static Result<Journal> start(const std::filesystem::path &folder, const Build &base,
                                 const std::string &buildPath, bool baseUnsaved = false);

    Journal(Journal &&other) noexcept;
    Journal &operator=(Journal &&other) noexcept;
    Journal(const Journal &) = delete;
    Journal &operator=(const Journal &) = delete;
    /// Closes the file and leaves it; see discard().
    ~Journal();

    /// Each with the document as it is afterwards. Errors: place = path; the file then holds what
    /// it held before, and the next one that can be written holds the whole document.
    Result<void> append(const Edit &edit, const Build &after);
    Result<void> appendUndo(const Build &after);
    Result<void> appendRedo(const Build &after);
    /// Whether the last write failed: what was done since the one before is not kept.
    bool isBehind() const { return m_behind; }
    /// Flushes to disk, against power failure; append() alone survives a killed process.
    void sync();
    /// The work is saved or given up: removes the file.
    void discard();

    const std::filesystem::path &path() const { return m_path; }

private:
    Journal() = default;
    Result<void> writeLine(const Json &line);
    Result<void> writeState(const Build &state);

    std::filesystem::path m_path;
    int m_fd = -1;
    size_t m_at = 0, m_top = 0; ///< edits since the last whole document: applied, and known
    bool m_behind = false;
};

/// What a journal left behind holds.
struct Recovery
{
    /// How the file of the build stands to what the edits began with.
    enum class File { None, Same, Changed, Missing };

    std::filesystem::path journal;
    std::string buildPath; ///< empty: never saved
    File file = File::None;
    std::string at; ///< of the last edit, ISO 8601, local time
    Build base;
    std::vector<Edit> edits; ///< since the base, undone ones left out
    Build recovered; ///< base and edits
    int unreadable = 0; ///< lines that could not be read or made no sense, left out
};
/// The document after the first so many of the edits.
Build recoveredUpTo(const Recovery &recovery, size_t edits);

/// A journal nothing can be taken from; it is kept until somebody deletes it.
struct LostJournal
{
    std::filesystem::path journal;
    std::string at; ///< of the last write
    Phrase reason;
};

struct FoundJournals
{
    std::vector<Recovery> recoveries; ///< newest first
    std::vector<LostJournal> lost;
};

/// Journals in the folder that no running program holds. Those that hold no work which is not in a
/// file are cleared away.
FoundJournals findRecoveries(const std::filesystem::path &folder);

} // namespace mildpath
