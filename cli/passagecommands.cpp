// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/cleanmarks.h"
#include "command.h"
#include "document/edit.h"
#include "quantity/json.h"

#include <filesystem>
#include <iostream>

namespace mildpath::cli {

int runPlanCleaning(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const BuildPlan plan = cleaningPlanOf(*build);
    if (options.has("--json"))
        std::cout << cleaningPlanToJson(plan).dump(1) << '\n';
    else
        std::cout << cleaningPlanText(plan, units());
    return Done;
}

namespace {

/// The build with something drawn up for it, written to another file.
int runDraw(const Options &options, const Edit &edit)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const auto file = options.value("-o");
    if (!file)
        return report({ "-o", "is needed" }, "", BadInput);
    std::error_code code;
    if (std::filesystem::exists(*file, code) && !options.has("--force"))
        return report({ *file, "exists already; --force replaces it" }, "", ReadWriteFailed);
    const auto drawn = applyEdit(*build, edit);
    if (!drawn)
        return report(drawn.error(), options.words[0], BadInput);
    if (auto ok = saveBuild(*file, *drawn); !ok)
        return report(ok.error(), "", ReadWriteFailed);
    return Done;
}

} // namespace

int runDrawPassages(const Options &options)
{
    return runDraw(options, DrawPassages {});
}

int runDrawLines(const Options &options)
{
    return runDraw(options, DrawLines {});
}

} // namespace mildpath::cli
