// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"
#include "report/rulebook.h"
#include "storage/buildfile.h"

#include <iostream>

namespace mildpath::cli {

int runRules(const Options &options)
{
    std::cout << (options.has("--markdown") ? rulesToMarkdown() : rulesToText());
    return Done;
}

int runSchema(const Options &)
{
    std::cout << buildSchema();
    return Done;
}

} // namespace mildpath::cli
