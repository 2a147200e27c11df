// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"

#include <filesystem>
#include <functional>
#include <string>

namespace mildpath {

// Files that are only ever added to, by one program at a time: what is written stands there even
// when the program is killed. The writer holds a lock; a file nobody holds was left by a crash.

/// An open file with its path.
struct Appending
{
    std::filesystem::path path;
    int fd = -1;
};
/// Makes the folder if missing, and in it a file of the first free name. @param name  by number,
/// from 1. Errors: place = path.
Result<Appending> startAppending(const std::filesystem::path &folder,
                                 const std::function<std::string(int)> &name);
/// All of the text, or an error with the path.
Result<void> appendText(int fd, const std::filesystem::path &path, const std::string &text);
/// Whether a running program holds the file, or it cannot be read.
bool heldByAnother(const std::filesystem::path &path);

} // namespace mildpath
