// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "storage/buildfile.h"

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// Where the sources stand, and where the files are once installed (made by the build).
extern const char *const sourceDataFolder, *const installedDataFolder;

/// Folder with `templates/` and `demo/`: $MILDPATH_DATA, else beside the sources, else as
/// installed.
std::filesystem::path dataFolder();

/// Whether a file came with the program (a demo, a template): it is opened as a copy and never
/// saved to.
bool isShipped(const std::filesystem::path &file);

/// The demo build's file.
std::filesystem::path demoBuildPath();

/// A build without readings to start from.
struct TemplateInfo
{
    std::string name; ///< file name without ending
    std::string title; ///< the engine's name
    std::filesystem::path path;
};
/// By name. Files that cannot be read are left out.
std::vector<TemplateInfo> listTemplates();

/// The template, ready to become a new build. Errors as loadBuild; an unknown name lists the known.
LoadResult loadTemplate(const std::string &name);

} // namespace mildpath
