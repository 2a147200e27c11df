// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"

#include "calc//catalogue.h"
#include "quantity/json.h"

#include <iostream>
#include <iterator>

namespace mildpath::cli {

int runCalc(const Options &options)
{
    if (options.words.empty()) {
        for (const Calculator *c : calculators())
            std::cout << c->name << std::string(26 - std::min<size_t>(25, c->name.size()), ' ')
                      << c->meaning << '\n';
        return Done;
    }
    const Calculator *calculator = findCalculator(options.words[0]);
    if (!calculator)
        return report({ options.words[0], "there is no such calculator; `calc` lists them" }, "",
                      BadInput);
    if (options.words.size() > 1)
        return report({ options.words[1], "unexpected; the input comes on stdin" }, "", BadInput);
    if (options.has("--describe")) {
        std::cout << describeCalculator(*calculator).dump(1) << '\n';
        return Done;
    }
    const std::string text((std::istreambuf_iterator<char>(std::cin)),
                           std::istreambuf_iterator<char>());
    const auto input = parseJson(text);
    if (!input)
        return report(input.error(), "stdin", BadInput);
    const auto output = runCalculator(*calculator, *input);
    if (!output)
        return report(output.error(), "", BadInput);
    std::cout << output->dump() << '\n';
    return Done;
}

} // namespace mildpath::cli
