// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/afterreport.h"
#include "command.h"
#include "quantity/json.h"
#include "quantity/rounding.h"
#include "shelf/compare.h"
#include "storage/files.h"

#include <algorithm>
#include <filesystem>
#include <iostream>

namespace mildpath::cli {
namespace {

void listQuantities()
{
    for (const ShelfQuantity &q : shelfQuantities())
        print({ "",
                "{0}  {1}",
                { q.key, joinedBy({ q.name, shownUnit(q.as, units().system), Phrase(q.note) }) } });
}

void listShelf(const std::vector<ShelfEntry> &entries)
{
    for (const ShelfEntry &e : entries)
        print({ "",
                "{0}  {1}",
                { e.path.filename().string(),
                  e.damaged() ? named("damaged", e.trouble)
                              : Phrase(e.name + "  " + e.engine + "  " + e.last.substr(0, 10)) } });
}

Json rowsToJson(const std::vector<ShelfRow> &rows)
{
    const auto orNull = [](const std::optional<double> &v) { return v ? Json(*v) : Json(); };
    Json out = Json::array();
    for (const ShelfRow &r : rows)
        out.push_back({ { "file", r.path.filename().string() },
                        { "name", r.name },
                        { "engine", r.engine },
                        { "last", r.last },
                        { "value", orNull(r.value.value) },
                        { "low", orNull(r.value.low) },
                        { "high", orNull(r.value.high) },
                        { "of", r.value.of },
                        { "trouble", r.trouble } });
    return out;
}

} // namespace

int runAfter(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    std::cout << (options.has("--json") ? afterRunToJson(*build).dump(2) + "\n"
                                        : afterRunText(*build, units()));
    return Done;
}

int runShelf(const Options &options)
{
    if (options.has("--quantities")) {
        listQuantities();
        return Done;
    }
    if (options.words.size() != 1)
        return report({ "shelf", "needs one folder of builds" }, "", BadInput);
    const std::filesystem::path folder = options.words[0];
    std::error_code code;
    if (!std::filesystem::is_directory(folder, code))
        return report({ folder.string(), "is not a folder" }, "", ReadWriteFailed);
    std::vector<ShelfEntry> entries = openShelf(folder);
    if (const auto search = options.value("--search"))
        std::erase_if(entries, [&](const ShelfEntry &e) { return !e.matches(*search); });
    const auto key = options.value("--compare");
    if (!key) {
        listShelf(entries);
        return Done;
    }
    const std::vector<ShelfQuantity> all = shelfQuantities();
    const auto q = std::ranges::find(all, *key, &ShelfQuantity::key);
    if (q == all.end())
        return report({ "--compare", "there is no quantity \"" + *key + "\"; see --quantities" },
                      "", BadInput);
    const std::vector<ShelfRow> rows = compareOnShelf(entries, *key);
    if (const auto file = options.value("--csv")) {
        if (const auto ok = writeOutput(*file, shelfToCsv(rows, *q), overOption(options)); !ok)
            return report(ok.error(), "", ReadWriteFailed);
        std::cout << *file << '\n';
    } else if (options.has("--json"))
        std::cout << rowsToJson(rows).dump(2) << '\n';
    else
        std::cout << shelfToCsv(rows, *q);
    return Done;
}

} // namespace mildpath::cli
