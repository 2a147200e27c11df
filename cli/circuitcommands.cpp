// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"

#include "assess/growth.h"
#include "assess/operatingmodel.h"
#include "circuit/edits.h"
#include "circuit/network.h"
#include "oil/shear.h"
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
    Oil oil { in.number("kv40_mm2_s"), in.number("kv100_mm2_s"), in.number("rho15_kg_m3") };
    if (const auto hths = in.optionalNumber("hths_mpa_s"); hths && errors.empty()) {
        const auto line = waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s);
        if (!line)
            return fail("--oil " + line.error().place, line.error().message);
        const auto law = shearThinning(
            oilState(*line, oil.rho15_kg_m3, { 150 }).dynamicViscosity_pa_s, *hths * 1e-3);
        if (!law)
            return fail("--oil hths_mpa_s", law.error().message);
        oil.highShearRatio = law->newtonian ? 1 : law->ratio;
    }
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
    for (auto &[name, target] : { std::pair("--rpm", &point.turned.rpm),
                                  std::pair("--oil-temp-c", &point.sumpTemperature_c) }) {
        const auto text = options.value(name);
        if (!text)
            return fail(name, "is needed");
        const auto number = numberOption(name, *text);
        if (!number)
            return tl::unexpected(number.error());
        *target = *number;
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

int runRunningCircuit(const Options &options)
{
    const auto text = options.value("--oil-temp-c");
    if (!text)
        return report({ "--oil-temp-c", "is needed" }, "", BadInput);
    const auto oil_c = numberOption("--oil-temp-c", *text);
    if (!oil_c)
        return report(oil_c.error(), "", BadInput);
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const RunningCircuit running
        = runningCircuit(*build, judgeSizes(*build), settledTemperatures(*build, *oil_c));
    Json out = circuitToJson(running.circuit);
    // By their keys' defaults too, so that whoever edits it finds what there is.
    for (Json &e : out["elements"])
        if (!e.contains("flow_factor"))
            e["flow_factor"] = 1.0;
    const Oil &oil = running.oil;
    out["oil"] = { { "kv40_mm2_s", oil.kv40_mm2_s },
                   { "kv100_mm2_s", oil.kv100_mm2_s },
                   { "rho15_kg_m3", oil.rho15_kg_m3 } };
    if (const auto line = waltherLine(oil.kv40_mm2_s, oil.kv100_mm2_s);
        line && oil.highShearRatio < 1)
        out["oil"]["hths_mpa_s"] = 1e3 * oil.highShearRatio
            * oilState(*line, oil.rho15_kg_m3, { 150 }).dynamicViscosity_pa_s;
    const auto tap = build->circuit.taps.find(build->gaugeTap);
    out["gauge_tap"] = tap == build->circuit.taps.end() ? "" : tap->second;
    std::cout << out.dump(1) << '\n';
    return Done;
}

int runSolve(const Options &options)
{
    if (options.words.size() != 1)
        return report({ "CIRCUIT.json", "exactly one circuit file is needed" }, "", BadInput);
    const std::string &file = options.words[0];
    auto point = pointOf(options);
    if (!point)
        return report(point.error(), "", BadInput);
    const auto json = jsonFile(file);
    if (!json)
        return json.error();
    // The oil of a running circuit stands with it; one said here goes before.
    const auto said = options.value("--oil");
    if (said || (json->is_object() && json->contains("oil"))) {
        const auto oil = oilOption(said ? *said : (*json)["oil"].dump());
        if (!oil)
            return report(oil.error(), said ? "" : file, BadInput);
        point->oil = *oil;
    }
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
