// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/templates.h"

#include <algorithm>
#include <cstdlib>

namespace mildpath {

std::filesystem::path dataFolder()
{
    if (const char *chosen = std::getenv("MILDPATH_DATA"))
        return chosen;
    std::error_code code;
    const std::filesystem::path source = sourceDataFolder;
    if (std::filesystem::is_directory(source / "templates", code))
        return source;
    return installedDataFolder;
}

bool isShipped(const std::filesystem::path &file)
{
    std::error_code code;
    const auto folder = std::filesystem::weakly_canonical(file, code).parent_path();
    return !code
        && (folder == std::filesystem::weakly_canonical(dataFolder() / "demo", code)
            || folder == std::filesystem::weakly_canonical(dataFolder() / "templates", code));
}

std::filesystem::path demoBuildPath()
{
    return dataFolder() / "demo" / "harbour-fire-pump.mildpath";
}

std::vector<TemplateInfo> listTemplates()
{
    std::vector<TemplateInfo> out;
    std::error_code code;
    for (const auto &entry :
         std::filesystem::directory_iterator(dataFolder() / "templates", code)) {
        if (entry.path().extension() != ".json")
            continue;
        if (const auto loaded = loadBuild(entry.path()))
            out.push_back(
                { entry.path().stem().string(), loaded->build.engine.name, entry.path() });
    }
    std::sort(out.begin(), out.end(), [](const auto &a, const auto &b) { return a.name < b.name; });
    return out;
}

LoadResult loadTemplate(const std::string &name)
{
    std::string known;
    for (const TemplateInfo &t : listTemplates()) {
        if (t.name == name) {
            LoadResult out = loadBuild(t.path);
            if (out)
                out->build.fromTemplate = name;
            return out;
        }
        known += (known.empty() ? "" : ", ") + t.name;
    }
    return tl::unexpected(LoadFailure {
        false, { { "template", "there is no template \"" + name + "\"; known: " + known } } });
}

} // namespace mildpath
