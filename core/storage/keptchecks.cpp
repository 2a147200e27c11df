// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/keptchecks.h"

#include "quantity/json.h"
#include "storage/files.h"

#include <cstdlib>

namespace mildpath {
namespace {

/// Everything kept, by template; an empty object where nothing was.
Result<Json> keptChecks()
{
    std::error_code code;
    if (!std::filesystem::exists(keptChecksFile(), code))
        return Json::object();
    const auto text = readTextFile(keptChecksFile());
    if (!text)
        return tl::unexpected(text.error());
    auto json = parseJson(*text);
    if (!json)
        return tl::unexpected(json.error());
    if (!json->is_object())
        return fail(keptChecksFile().string(), "must be an object, by template");
    return json;
}

} // namespace

std::filesystem::path keptChecksFile()
{
    const char *data = std::getenv("XDG_DATA_HOME"), *home = std::getenv("HOME");
    const auto folder = data && *data ? std::filesystem::path(data)
                                      : std::filesystem::path(home ? home : ".") / ".local/share";
    return folder / "mild-path" / "own-checks.json";
}

Result<void> keepOwnChecks(const Build &build)
{
    if (build.fromTemplate.empty())
        return fail("template", "this build was begun from none: there is nothing to keep it with");
    auto kept = keptChecks();
    if (!kept)
        return tl::unexpected(kept.error());
    Json list = Json::array();
    for (const OwnCheck *c : standing(build.ownChecks)) {
        OwnCheck own = *c;
        own.id = firstEntry(build.ownChecks, *c).id; // others come after it by this one
        own.replaces.clear();
        list.push_back(toJson(own));
    }
    (*kept)[build.fromTemplate] = std::move(list);
    std::error_code code;
    std::filesystem::create_directories(keptChecksFile().parent_path(), code);
    return writeTextFile(keptChecksFile(), kept->dump(1));
}

Result<int> takeKeptChecks(Build &build)
{
    const auto kept = keptChecks();
    if (!kept)
        return tl::unexpected(kept.error());
    const auto list = kept->find(build.fromTemplate);
    if (list == kept->end() || !list->is_array())
        return 0;
    std::vector<Error> errors;
    std::vector<OwnCheck> own;
    for (const Json &one : *list)
        own.push_back(fromJson<OwnCheck>(one, "/" + build.fromTemplate, errors));
    if (!errors.empty())
        return tl::unexpected(errors.front());
    for (OwnCheck &c : own)
        build.ownChecks.push_back(std::move(c));
    return static_cast<int>(own.size());
}

} // namespace mildpath
