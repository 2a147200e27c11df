// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "command.h"

#include "assess/believed.h"
#include "document/engineplan.h"
#include "plan/orders.h"
#include "plan/workplan.h"
#include "report/assessmentreport.h"
#include "study/beside.h"

#include "diagnose/faults.h"
#include "oil/grades.h"
#include "quantity/json.h"
#include "storage/evidencetables.h"
#include "storage/files.h"
#include "storage/keptchecks.h"
#include "storage/passagetables.h"
#include "storage/photos.h"
#include "storage/readingtable.h"
#include "storage/runfile.h"
#include "storage/starttables.h"
#include "storage/templates.h"
#include "storage/tracefile.h"
#include "study/sampling.h"

#include <filesystem>
#include <iostream>

namespace mildpath::cli {
namespace {

void printTable(const std::vector<ForecastLine> &lines)
{
    std::cout
        << "oil_temp_c,rpm,gauge_kpa,likely_low_kpa,likely_high_kpa,weakest_kpa,weakest_ratio\n";
    for (const ForecastLine &l : lines)
        for (size_t i = 0; i < l.rpm.size(); ++i)
            std::cout << formatPlain(l.oil_c, 1) << ',' << formatPlain(l.rpm[i], 0) << ','
                      << formatPlain(l.gauge[i].value_pa / 1e3, 2) << ','
                      << formatPlain(l.gauge[i].low_pa / 1e3, 2) << ','
                      << formatPlain(l.gauge[i].high_pa / 1e3, 2) << ','
                      << formatPlain(l.weakest_pa[i] / 1e3, 2) << ','
                      << formatPlain(l.weakestRatio[i], 3) << '\n';
}

/// Ranges of the draws in place of those to first order.
void takeDraws(const SampledForecast &drawn, std::vector<ForecastLine> &lines)
{
    for (size_t l = 0; l < lines.size(); ++l)
        for (size_t i = 0; i < lines[l].rpm.size(); ++i) {
            lines[l].gauge[i].low_pa = drawn.lines[l].low_pa[i];
            lines[l].gauge[i].high_pa = drawn.lines[l].high_pa[i];
        }
}

Result<Build> plannedBuild(const std::string &path)
{
    const auto text = readTextFile(path);
    if (!text)
        return tl::unexpected(text.error());
    const auto json = parseJson(*text);
    if (!json)
        return tl::unexpected(json.error());
    std::vector<Error> errors;
    const EnginePlan plan = fromJson<EnginePlan>(*json, "", errors);
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return planBuild(plan);
}

} // namespace

tl::expected<Build, int> loadOnly(const Options &options)
{
    if (options.words.size() != 1)
        return tl::unexpected<int>(
            report({ "FILE", "exactly one build file is needed" }, "", BadInput));
    auto loaded = loadBuild(options.words[0]);
    if (!loaded)
        return tl::unexpected<int>(report(loaded.error(), options.words[0]));
    return std::move(loaded->build);
}

int runTemplates(const Options &)
{
    for (const TemplateInfo &t : listTemplates())
        std::cout << t.name << std::string(26 - std::min<size_t>(25, t.name.size()), ' ') << t.title
                  << '\n';
    return Done;
}

int runNew(const Options &options)
{
    const auto name = options.value("--template"), plan = options.value("--plan");
    const auto file = options.value("-o");
    if (name.has_value() == plan.has_value() || !file)
        return report({ file ? "--template" : "-o", file ? "or --plan is needed" : "is needed" },
                      "", BadInput);
    Build build;
    if (plan) {
        const auto made = plannedBuild(*plan);
        if (!made)
            return report(made.error(), *plan, BadInput);
        build = *made;
    } else {
        const auto made = loadTemplate(*name);
        if (!made)
            return report(made.error(), "");
        build = made->build;
        if (const auto own = takeKeptChecks(build); !own)
            return report(own.error(), keptChecksFile().string(), BadInput);
    }
    std::error_code code;
    if (std::filesystem::exists(*file, code) && !options.has("--force"))
        return report({ *file, "exists already; --force replaces it" }, "", ReadWriteFailed);
    if (auto ok = saveBuild(*file, build); !ok)
        return report(ok.error(), "", ReadWriteFailed);
    return Done;
}

int runValidate(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    for (const std::string &photo : missingPhotos(*build, options.words[0]))
        std::cout << options.words[0] << ": photo " << photo << " is missing\n";
    std::cout << options.words[0] << ": in order\n";
    return Done;
}

int runAssess(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Assessment a = assess(*build);
    if (options.has("--json"))
        std::cout << assessmentToJson(*build, a, besideAssessment(*build, a.sizes)).dump(1) << '\n';
    else
        std::cout << assessmentText(*build, a, units());
    if (a.operating.unsolved)
        return report(*a.operating.unsolved, options.words[0], NoSolution);
    return a.checks.gate(CheckGate::Fire).open ? Done : HasHolds;
}

int runForecast(const Options &options)
{
    auto build = loadOnly(options);
    if (!build)
        return build.error();
    std::vector<double> rpm = forecastSpeeds(*build);
    std::vector<double> oil_c { 40, build->use.hotOil_c, build->use.hotOil_c + 30 };
    for (auto &[name, target] : { std::pair("--rpm", &rpm), std::pair("--oil-temp-c", &oil_c) })
        if (const auto text = options.value(name)) {
            auto numbers = numbersOption(name, *text);
            if (!numbers)
                return report(numbers.error(), "", BadInput);
            *target = std::move(*numbers);
        }
    if (const auto grade = options.value("--oil")) {
        const auto oil = findOil(*build, *grade);
        if (!oil) {
            std::string known;
            for (const ShelfOil &o : oilShelf())
                known += (known.empty() ? "" : ", ") + std::string(o.grade);
            return report({ "--oil", "no \"" + *grade + "\" on the shelf; there: " + known }, "",
                          BadInput);
        }
        build->oil = *oil;
    }
    const auto faults = faultsOption(*build, options);
    if (!faults)
        return report(faults.error(), "", BadInput);
    const CircuitChange change = faultChange(*build, *faults);
    const std::vector<GaugedSize> sizes = judgeSizes(*build);
    const auto failed = [&](const Error &error) {
        const bool input
            = error.place == "rpm" || error.place == "oil_temp_c" || error.place == "samples";
        return report(error, options.words[0], input ? BadInput : NoSolution);
    };
    auto lines = forecastLines(*build, sizes, oil_c, rpm, change);
    if (!lines)
        return failed(lines.error());
    if (options.value("--samples")) {
        const auto samples = wholeOption(options, "--samples", 0);
        const auto seed = wholeOption(options, "--seed", 1);
        if (!samples || !seed)
            return report(samples ? seed.error() : samples.error(), "", BadInput);
        const Sampling sampling { *samples, static_cast<unsigned>(*seed), oil_c, rpm };
        const auto drawn = sampleForecast(*build, sizes, sampling, nullptr, change);
        if (!drawn)
            return failed(drawn.error());
        takeDraws(*drawn, *lines);
    }
    // Readings speak of the engine as it stands: not of other oil, nor of faults.
    const bool asked = options.has("--json") && faults->empty() && !options.value("--oil");
    const auto believed
        = asked ? Believed::by(*build, sizes) : Result<Believed>(fail("readings", "not asked for"));
    if (believed)
        if (const auto ok = believed->update(*build, sizes, *lines); !ok)
            return failed(ok.error());
    if (options.has("--json"))
        std::cout << (believed ? forecastToJson(*build, *lines, *believed)
                               : forecastToJson(*build, *lines))
                         .dump(1)
                  << '\n';
    else
        printTable(*lines);
    return Done;
}

int runExport(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const auto folder = options.value("--csv");
    if (!folder)
        return report({ "--csv", "is missing: the folder to write to" }, "", BadInput);
    std::error_code made;
    std::filesystem::create_directories(*folder, made);
    const Assessment assessment = assess(*build);
    const WorkPlan plan = planOf(*build, assessment.checks, "");
    const Orders orders = ordersOf(*build, assessment, assessment.checks, plan);
    std::vector<std::pair<std::string, std::string>> tables {
        { "readings.csv", readingsToCsv(*build) },
        { "passages.csv", passagesToCsv(*build) },
        { "plugs.csv", plugsToCsv(*build) },
        { "events.csv", eventsToCsv(*build) },
        { "orders.csv", tableToCsv(ordersTable(orders)) },
        { "signoffs.csv", signOffsToCsv(*build) },
        { "run_card.csv", cardStepsToCsv(*build) },
        { "gauge_readings.csv", gaugeReadingsToCsv(*build) },
        { "filter_cuts.csv", filterCutsToCsv(*build) },
        { "oil_samples.csv", oilSamplesToCsv(*build) },
        { "seal_checks.csv", sealChecksToCsv(*build) },
    };
    for (const BoreTrace *t : standing(build->boreTraces))
        tables.emplace_back("trace-" + t->id + ".csv",
                            traceToCsv(t->spacing_um, { t->z.um().begin(), t->z.um().end() }));
    for (const RunLog *r : standing(build->runs))
        tables.emplace_back("run-" + r->id + ".csv", runToCsv(r->trace, r->marks));
    for (const auto &[name, text] : tables) {
        const auto path = std::filesystem::path(*folder) / name;
        if (auto ok = writeOutput(path, text, overOption(options)); !ok)
            return report(ok.error(), "", ReadWriteFailed);
        std::cout << path.string() << '\n';
    }
    return Done;
}

} // namespace mildpath::cli
