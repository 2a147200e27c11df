// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"

#include "circuit/edits.h"
#include "circuit/network.h"
#include "quantity/json.h"
#include "storage/files.h"

#include <iostream>

namespace mildpath::cli {
namespace {

/// SAE 40 of the reference tables: used when no oil is given.
constexpr Oil defaultOil { 105, 14.2, 878 };

Result<Oil> oilOption(const std::string &text)
{
    const auto json = parseJson(text);
    if (!json)
        return fail("--oil", json.error().message);
    std::vector<Error> errors;
    JsonReader in(*json, "", errors);
    const Oil oil { in.number("kv40_mm2_s"), in.number("kv100_mm2_s"), in.number("rho15_kg_m3") };
    const Json unknown = in.leftOver();
    for (const auto &[key, value] : unknown.items())
        in.error(key, "is not known");
    if (!errors.empty())
        return fail("--oil " + errors[0].place, errors[0].message);
    return oil;
}

Result<OperatingPoint> pointOf(const Options &options)
{
    OperatingPoint point { defaultOil, 0, 0 };
    for (auto &[name, target] :
         { std::pair("--rpm", &point.rpm), std::pair("--oil-temp-c", &point.sumpTemperature_c) }) {
        const auto text = options.value(name);
        if (!text)
            return fail(name, "is needed");
        const auto number = numberOption(name, *text);
        if (!number)
            return tl::unexpected(number.error());
        *target = *number;
    }
    if (const auto text = options.value("--oil")) {
        const auto oil = oilOption(*text);
        if (!oil)
            return tl::unexpected(oil.error());
        point.oil = *oil;
    }
    const std::string mode = options.value("--bearing-temperature").value_or("default");
    if (mode != "default" && mode != "energy")
        return fail("--bearing-temperature", "must be default or energy, is \"" + mode + "\"");
    point.bearingTemperature
        = mode == "energy" ? BearingTemperature::Energy : BearingTemperature::Default;
    return point;
}

/// A JSON file read, or the exit code after the reason was printed.
tl::expected<Json, int> jsonFile(const std::string &path)
{
    const auto text = readTextFile(path);
    if (!text)
        return tl::unexpected<int>(report(text.error(), "", ReadWriteFailed));
    const auto json = parseJson(*text);
    if (!json)
        return tl::unexpected<int>(report(json.error(), path, BadInput));
    return *json;
}

Json solutionJson(const Network &network, const Solution &s)
{
    Json out;
    out["node_kpa"] = Json::object();
    for (size_t i = 0; i < network.nodes().size(); ++i)
        out["node_kpa"][network.nodes()[i]] = s.pressure_pa[i] / 1e3;
    out["flow_l_min"] = Json::object();
    for (size_t e = 0; e < network.elementCount(); ++e)
        out["flow_l_min"][network.elementId(static_cast<int>(e))]
            = s.flow_m3_s[e] * litresPerMinute;
    out["newton_iterations"] = s.newtonSteps;
    out["mass_balance_error_relative"] = s.massErrorRelative;
    out["warnings"] = Json::array();
    for (const Warning &w : s.warnings)
        out["warnings"].push_back({ { "id", w.id }, { "text", w.text } });
    return out;
}

} // namespace

int runSolve(const Options &options)
{
    if (options.words.size() != 1)
        return report({ "CIRCUIT.json", "exactly one circuit file is needed" }, "", BadInput);
    const std::string &file = options.words[0];
    const auto point = pointOf(options);
    if (!point)
        return report(point.error(), "", BadInput);
    const auto json = jsonFile(file);
    if (!json)
        return json.error();
    std::vector<Error> errors;
    Circuit circuit = circuitFromJson(*json, "", errors);
    for (const Error &e : errors)
        report(e, file, 0);
    if (!errors.empty())
        return BadInput;
    if (const auto editsFile = options.value("--edits")) {
        const auto edits = jsonFile(*editsFile);
        if (!edits)
            return edits.error();
        auto edited = applyEdits(circuit, *edits);
        if (!edited)
            return report(edited.error(), *editsFile, BadInput);
        circuit = std::move(*edited);
    }
    const auto network = Network::compile(circuit);
    if (!network)
        return report(network.error(), file, BadInput);
    const auto solution = network->solve(*point);
    if (!solution)
        return report(solution.error(), file,
                      solution.error().message.id == "solver.none" ? NoSolution : BadInput);
    std::cout << solutionJson(*network, *solution).dump(1) << '\n';
    return Done;
}

} // namespace mildpath::cli
