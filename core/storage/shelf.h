// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"
#include <cstdint>
#include <filesystem>
#include <set>
#include <string>
#include <vector>

namespace mildpath {

/// A build in a folder, as far as its cover tells: read by streaming, nothing computed, no photo
/// touched.
struct ShelfEntry
{
    std::filesystem::path path;
    Phrase trouble; ///< why it is damaged; empty: it is whole JSON of a build
    std::string name, notes;
    std::string engine, layout, oil;
    double displacement_l = 0;
    int version = 0;
    int readings = 0, cuts = 0, samples = 0, traces = 0; ///< entries, struck ones too
    std::string last; ///< latest "at" in it, ISO 8601
    std::set<std::string> people; ///< all "by" in it
    std::uintmax_t bytes = 0;

    bool damaged() const { return !trouble.empty(); }
    /// Whether every word of a search stands somewhere in it; case does not matter.
    bool matches(const std::string &search) const;
};

/// Builds of a folder (*.mildpath, its subfolders not), by file name. A folder that cannot be read
/// is empty.
std::vector<std::filesystem::path> buildsIn(const std::filesystem::path &folder);
/// The cover of one file; damage is told in it, never thrown.
ShelfEntry readShelfEntry(const std::filesystem::path &file);
/// Covers of a whole folder, on all cores, in the order of buildsIn().
std::vector<ShelfEntry> openShelf(const std::filesystem::path &folder);

} // namespace mildpath
