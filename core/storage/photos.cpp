// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/photos.h"

#include "document/logbook.h"

#include <algorithm>

namespace mildpath {

namespace fs = std::filesystem;

fs::path photoFolder(const fs::path &buildFile)
{
    fs::path out = buildFile;
    return out.replace_extension(".files");
}

std::vector<std::string> photosOf(const Build &build)
{
    std::vector<std::string> out;
    forEachLog([&](const auto &log) {
        for (const auto &entry : build.*log.list)
            for (const std::string &photo : entry.photos)
                if (std::find(out.begin(), out.end(), photo) == out.end())
                    out.push_back(photo);
    });
    for (const RunLog &r : build.runs)
        if (!r.file.empty() && std::find(out.begin(), out.end(), r.file) == out.end())
            out.push_back(r.file);
    return out;
}

std::vector<std::string> missingPhotos(const Build &build, const fs::path &buildFile)
{
    std::vector<std::string> out;
    std::error_code code;
    for (const std::string &photo : photosOf(build))
        if (!fs::is_regular_file(photoFolder(buildFile) / photo, code))
            out.push_back(photo);
    return out;
}

Result<void> keepPhoto(const fs::path &from, const fs::path &buildFile, const std::string &name)
{
    const fs::path folder = photoFolder(buildFile), to = folder / name;
    std::error_code code;
    if (fs::exists(to, code))
        return {};
    fs::create_directories(folder, code);
    if (code)
        return fail(folder.string(), code.message());
    // Beside its place first, so that a full disk leaves no half picture under a true name.
    fs::path part = to;
    part += ".part";
    fs::copy_file(from, part, fs::copy_options::overwrite_existing, code);
    if (!code)
        fs::rename(part, to, code);
    if (code) {
        const std::string why = code.message();
        fs::remove(part, code);
        return fail(to.string(), why);
    }
    return {};
}

Result<void> copyPhotos(const Build &build, const fs::path &fromFile, const fs::path &toFile)
{
    std::error_code code;
    if (photoFolder(fromFile) == photoFolder(toFile))
        return {};
    for (const std::string &photo : photosOf(build)) {
        const fs::path from = photoFolder(fromFile) / photo;
        if (!fs::is_regular_file(from, code))
            continue;
        if (auto ok = keepPhoto(from, toFile, photo); !ok)
            return ok;
    }
    return {};
}

} // namespace mildpath
