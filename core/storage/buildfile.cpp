// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/buildfile.h"

#include "document/dimensions.h"
#include "oil/grades.h"
#include "quantity/json.h"
#include "storage/files.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

LoadResult bad(std::vector<Error> errors)
{
    return tl::unexpected(LoadFailure { false, std::move(errors) });
}

/// Load of a cam or balance shaft bearing of which nothing was said. Own choice.
constexpr double usualShaftLoad_n = 800;

Result<void> oilFromVersion1(Json &document)
{
    if (!document.contains("oil") || !document["oil"].is_string())
        return fail("/oil", "must be a grade (version 1)");
    const std::string grade = document["oil"].get<std::string>();
    const ShelfOil *oil = findShelfOil(grade);
    if (!oil)
        return fail("/oil", "there is no oil \"" + grade + "\" on the shelf");
    document["oil"] = toJson(ChosenOil { grade, oil->oil });
    return {};
}

/// Bearings of the plain law become films: what that law needed in place of a film goes.
Result<void> filmBearingsFromVersion4(Json &document)
{
    if (!document.contains("circuit") || !document["circuit"].is_object()
        || !document["circuit"].contains("elements") || !document["circuit"]["elements"].is_array())
        return {};
    std::map<std::string, std::string> kindOf; // of the stop an element belongs to
    if (document.contains("engine") && document["engine"].is_object())
        if (const auto stops = document["engine"].find("stops");
            stops != document["engine"].end() && stops->is_array())
            for (const Json &stop : *stops)
                if (stop.is_object() && stop.contains("elements") && stop["elements"].is_array())
                    for (const Json &id : stop["elements"])
                        if (id.is_string() && stop.contains("kind") && stop["kind"].is_string())
                            kindOf[id.get<std::string>()] = stop["kind"].get<std::string>();
    for (Json &e : document["circuit"]["elements"]) {
        if (!e.is_object() || !e.contains("type") || e["type"] != "bearing")
            continue;
        e["type"] = "film_bearing";
        for (const char *key : { "ecc", "speed_flow" })
            e.erase(key);
        if (e.contains("groove_deg") && e["groove_deg"].is_number() && e["groove_deg"] > 300)
            e["groove_deg"] = 360;
        const std::string kind
            = e.contains("id") && e["id"].is_string() ? kindOf[e["id"].get<std::string>()] : "";
        if (kind == "big_end")
            e["hole_in_journal"] = 1;
        else if (kind != "main")
            e["load_n"] = usualShaftLoad_n;
    }
    return {};
}

/// A tolerance of weight was a bare number by its part.
Result<void> weightsFromVersion11(Json &document)
{
    const auto old = document.find("weight_tolerance_g");
    if (old == document.end())
        return {};
    if (!old->is_object())
        return fail("/weight_tolerance_g", "must be an object");
    Json &parts = document["weighed_parts"];
    for (const auto &[part, tolerance] : old->items())
        parts[part]["tolerance_g"] = tolerance;
    document.erase("weight_tolerance_g");
    return {};
}

/// A bearing's journal stood at its stop and at its film: the film's counts. Where they differ the
/// other is kept to be asked about.
void journalsFromVersion11(Json &document)
{
    if (!document.contains("engine") || !document["engine"].is_object()
        || !document["engine"].contains("stops") || !document["engine"]["stops"].is_array()
        || !document.contains("circuit") || !document["circuit"].is_object()
        || !document["circuit"].contains("elements") || !document["circuit"]["elements"].is_array())
        return;
    std::map<std::string, double> films; // journal by element
    for (const Json &e : document["circuit"]["elements"])
        if (e.is_object() && e.contains("id") && e["id"].is_string()
            && e.value("type", Json()) == "film_bearing" && e.contains("d_mm")
            && e["d_mm"].is_number())
            films[e["id"].get<std::string>()] = e["d_mm"].get<double>();
    for (Json &stop : document["engine"]["stops"]) {
        if (!stop.is_object() || !stop.contains("journal_mm") || !stop["journal_mm"].is_number())
            continue;
        const double other = stop["journal_mm"].get<double>();
        if (!stop.contains("elements") || !stop["elements"].is_array())
            continue;
        for (const Json &id : stop["elements"]) {
            const auto film = id.is_string() ? films.find(id.get<std::string>()) : films.end();
            if (film == films.end())
                continue;
            stop.erase("journal_mm");
            if (std::abs(film->second - other) > 1e-6)
                document["two_values"].push_back(
                    { { "element", film->first }, { "key", "d_mm" }, { "other", other } });
            break;
        }
    }
}

Result<void> fromVersion11(Json &document)
{
    journalsFromVersion11(document);
    return weightsFromVersion11(document);
}

/// Torques were in N m; whether bolts are used once was said by yes or no.
void cardsFromVersion12(Json &document)
{
    if (!document.contains("torque_cards") || !document["torque_cards"].is_array())
        return;
    for (Json &card : document["torque_cards"]) {
        if (!card.is_object())
            continue;
        if (card.value("single_use", Json()) == true)
            card["uses"] = 1;
        card.erase("single_use");
        if (card.contains("stages") && card["stages"].is_array())
            for (Json &stage : card["stages"])
                if (stage.is_object() && stage.contains("torque_nm")) {
                    stage["torque"] = stage["torque_nm"];
                    stage.erase("torque_nm");
                }
    }
}

/// Who saw a cap was not kept.
void capsFromVersion12(Json &document)
{
    if (!document.contains("plumbing") || !document["plumbing"].is_object()
        || !document["plumbing"].contains("capped") || !document["plumbing"]["capped"].is_array())
        return;
    for (Json &cap : document["plumbing"]["capped"])
        if (cap.is_string())
            cap = { { "port", cap } };
}

/// Numbers of a stop that stood beside its values.
Result<void> fromVersion12(Json &document)
{
    cardsFromVersion12(document);
    capsFromVersion12(document);
    if (!document.contains("engine") || !document["engine"].is_object()
        || !document["engine"].contains("stops") || !document["engine"]["stops"].is_array())
        return {};
    for (Json &stop : document["engine"]["stops"])
        for (const char *key : { "shell_wall_mm", "plug_bore_mm" }) {
            if (!stop.is_object() || !stop.contains(key))
                continue;
            if (const Json value = stop[key]; !value.is_number() || value != 0)
                stop["values"][key] = value;
            stop.erase(key);
        }
    return {};
}

/// How a file of one version becomes one of the next; null: the next only adds.
using Step = Result<void> (*)(Json &document);
constexpr std::array<Step, buildVersion - 1> steps {
    oilFromVersion1, // → 2: the oil by its numbers, not only its grade
    nullptr, // → 3: families and methods of readings, torque cards, shells, weights
    nullptr, // → 4: part temperatures, own expansions, the heated-block log
    filmBearingsFromVersion4, // → 5: bearings by their films, own oils, bore and stroke
    nullptr, // → 6: passages, plugs and the logbook about them
    nullptr, // → 7: lines outside the engine, gauge readings, symptoms, flow seen, scenarios
    nullptr, // → 8: the sump and what turns the engine stands
    nullptr, // → 9: the start: its numbers, sign-offs, the run card, runs, calibrations
    nullptr, // → 10: filter cuts, oil samples, openings, how rings and bores seal
    nullptr, // → 11: the job, people, what was said of checks, what was done on the bench
    fromVersion11, // → 12: journals once, weights with their source; next looks, own checks
    fromVersion12, // → 13: what follows from other sizes stands nowhere; sources
};

} // namespace

Result<Json> migrateBuild(Json document)
{
    const auto version = document.find("version");
    if (version == document.end())
        return fail("/version", "is missing");
    if (!version->is_number_integer() || version->get<std::int64_t>() < 1)
        return fail("/version", "must be a whole number from 1, is " + version->dump());
    if (version->get<std::int64_t>() > buildVersion)
        return fail("/version",
                    "is " + version->dump() + "; this program reads up to "
                        + std::to_string(buildVersion) + ". Use a newer one");
    for (auto v = version->get<size_t>(); v < buildVersion; ++v)
        if (const Step step = steps[v - 1])
            if (auto ok = step(document); !ok)
                return tl::unexpected(ok.error());
    document["version"] = buildVersion;
    return document;
}

LoadResult parseBuild(const std::string &text)
{
    auto json = parseJson(text);
    if (!json)
        return bad({ json.error() });
    if (!json->is_object())
        return bad({ { "/", std::string("must be an object, is ") + json->type_name() } });
    const auto format = json->find("format");
    if (format == json->end() || *format != buildFormat)
        return bad({ { "/format",
                       "must be \"" + std::string(buildFormat)
                           + "\": this is not a build of this program" } });
    const Json version = json->value("version", Json());
    const auto document = migrateBuild(std::move(*json)); // large: not copied
    if (!document)
        return bad({ document.error() });
    LoadedBuild out;
    out.fileVersion = version.get<int>();
    if (out.fileVersion != buildVersion)
        out.olderText = text;
    std::vector<Error> errors;
    out.build = fromJson<Build>(*document, "", errors);
    if (errors.empty() && out.fileVersion < 13)
        settleOlder(out.build);
    if (errors.empty())
        followCircuit(out.build);
    if (errors.empty())
        errors = validateBuild(out.build);
    if (!errors.empty())
        return bad(std::move(errors));
    return out;
}

LoadResult loadBuild(const std::filesystem::path &path)
{
    const auto text = readTextFile(path);
    if (!text)
        return tl::unexpected(LoadFailure { true, { text.error() } });
    return parseBuild(*text);
}

std::string buildSchema()
{
    Json out = { { "$schema", "https://json-schema.org/draft/2020-12/schema" },
                 { "title", "Mild Path build" },
                 { "description",
                   "One engine build: what it is, what was measured and seen. "
                   "Unknown keys are allowed everywhere and kept." } };
    out.update(schemaOf(recordType<Build>()));
    for (const char *key : { "format", "version" })
        out["required"].push_back(key);
    return out.dump(1) + "\n";
}

std::string buildText(const Build &build)
{
    return toJson(build).dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Result<void> saveBuild(const std::filesystem::path &path, const Build &build,
                       const std::string &olderText)
{
    if (!olderText.empty()) {
        std::filesystem::path backup = path;
        backup += ".bak";
        if (auto ok = writeTextFile(backup, olderText); !ok)
            return ok;
    }
    return writeTextFile(path, buildText(build));
}

} // namespace mildpath
