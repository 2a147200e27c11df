// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"

#include "assess/figures.h"
#include "assess/flowproof.h"
#include "checks/verdictreport.h"
#include "diagnose/diagnosis.h"
#include "diagnose/remedies.h"
#include "diagnose/trials.h"
#include "diagnose/whatif.h"
#include "quantity/json.h"
#include "storage/passagetables.h"
#include "study/oilsbeside.h"

#include <iostream>

namespace mildpath::cli {
namespace {

void printWhatIf(const Build &build, const std::vector<Fault> &faults, const WhatIf &r)
{
    for (const Fault &f : faults) {
        print(joinedBy({ faultName(build, f), severityText(build, f) }));
    }
    print(r.gauge);
    if (!r.elsewhere.empty())
        print(r.elsewhere);
    print("\nbefore, after, required pressure");
    for (size_t i = 0; i < r.after.points.size(); ++i) {
        const PointPressure &p = r.after.points[i];
        print({ "",
                "  {0}  {1}  {2}  {3}",
                { asPressure(r.before.points[i].pressure_pa), asPressure(p.pressure_pa),
                  p.need_pa > 0 ? asPhrase(asPressure(p.need_pa)) : Phrase("-"), p.name } });
    }
}

void printRemedies(const RemedyTable &t)
{
    std::vector<std::vector<std::string>> rows { { "remedy", "gauge_bar", "gauge_fast_bar",
                                                   "weakest_bearing_bar", "pump_power_w",
                                                   "relief_l_min", "verdict" } };
    const auto row = [&](const std::string &name, const RemedyFigures &f, const Phrase &word) {
        const auto bar = [](double pa) { return formatPlain(pa / 1e5, 2); };
        rows.push_back({ name, bar(f.gauge_pa), bar(f.gaugeFast_pa), bar(f.bearing_pa),
                         formatPlain(f.power_w, 0), formatPlain(f.relief_m3_s * litresPerMinute, 1),
                         render(word, fileStyle) });
    };
    row("as it stands", t.now, "weakest bearing " + t.now.bearing);
    for (const Remedy &r : t.remedies)
        row(r.name, r.figures, r.verdict);
    std::cout << tableToCsv(rows);
    for (const std::string &n : t.notHere)
        std::cerr << n << '\n';
}

} // namespace

Result<std::vector<Fault>> faultsOption(const Build &build, const Options &options)
{
    std::vector<Fault> out;
    std::string rest = options.value("--fault").value_or("");
    while (!rest.empty()) {
        const size_t comma = rest.find(',');
        const auto fault = parseFault(build, rest.substr(0, comma));
        if (!fault)
            return tl::unexpected(Error { "--fault", fault.error().message });
        out.push_back(*fault);
        rest = comma == rest.npos ? "" : rest.substr(comma + 1);
    }
    return out;
}

int runWhatIf(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const auto faults = faultsOption(*build, options);
    if (!faults)
        return report(faults.error(), "", BadInput);
    if (faults->empty())
        return report({ "--fault", "is needed: KIND@STOP[.ITEM][=SEVERITY], several with commas" },
                      "", BadInput);
    double rpm = build->use.hotIdle_rpm, oil_c = build->use.hotOil_c;
    for (auto &[name, target] : { std::pair("--rpm", &rpm), std::pair("--oil-temp-c", &oil_c) })
        if (const auto text = options.value(name)) {
            const auto number = numberOption(name, *text);
            if (!number)
                return report(number.error(), "", BadInput);
            *target = *number;
        }
    const auto r = whatIf(*build, judgeSizes(*build), *faults, rpm, oil_c);
    if (!r)
        return report(r.error(), options.words[0], NoSolution);
    if (options.has("--json"))
        std::cout << whatIfToJson(*build, *faults, *r).dump(1) << '\n';
    else
        printWhatIf(*build, *faults, *r);
    return Done;
}

int runRemedies(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const auto faults = faultsOption(*build, options);
    if (!faults)
        return report(faults.error(), "", BadInput);
    const auto table = compareRemedies(*build, judgeSizes(*build), *faults);
    if (!table)
        return report(table.error(), options.words[0], NoSolution);
    if (options.has("--json"))
        std::cout << remediesToJson(*table).dump(1) << '\n';
    else
        printRemedies(*table);
    return Done;
}

int runOils(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const auto oils = oilsBeside(*build, judgeSizes(*build));
    if (!oils)
        return report(oils.error(), options.words[0], NoSolution);
    if (options.has("--json")) {
        std::cout << oilsToJson(*oils).dump(1) << '\n';
        return Done;
    }
    std::vector<std::vector<std::string>> rows {
        { "oil", "hot_idle_bar", "weakest_ratio", "crank_lambda_idle", "crank_lambda_full_load",
          "cam_lambda_idle", "film_c", "cranks_to_c", "pumps_to_c" }
    };
    const auto lambda
        = [](const Contact *c) { return c ? formatPlain(c->filmParameter, 2) : std::string("-"); };
    for (const OilBeside &o : *oils)
        rows.push_back({ o.oil.grade, formatPlain(o.gauge_pa / 1e5, 2),
                         formatPlain(o.weakestRatio, 2), lambda(o.leastOfTheCrank(false)),
                         lambda(o.leastOfTheCrank(true)), lambda(o.cam(false)),
                         formatPlain(o.film_c, 0), formatPlain(o.cranks.tested_c, 0),
                         formatPlain(o.pumpsTo_c, 0) });
    std::cout << tableToCsv(rows);
    return Done;
}

int runVerdicts(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Figures figures(*build);
    if (figures.operating.unsolved)
        return report(*figures.operating.unsolved, options.words[0], NoSolution);
    const VerdictTable table = verdictTable(*build, figures);
    const VerdictRanges ranges = verdictRanges(*build, figures, nullptr);
    if (options.has("--json"))
        std::cout << verdictsToJson(table, ranges).dump(1) << '\n';
    else
        std::cout << verdictsText(table, ranges, units());
    return Done;
}

int runDiagnose(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const auto d = diagnose(*build, judgeSizes(*build));
    if (!d)
        return report(d.error(), options.words[0], NoSolution);
    if (options.has("--json"))
        std::cout << diagnosisToJson(*build, *d).dump(1) << '\n';
    else
        std::cout << diagnosisText(*build, *d, units());
    return Done;
}

int runTryDiagnosis(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    TrialPlan plan = options.has("--six") ? sixReadings(*build) : usualTrials(*build);
    const auto trials = wholeOption(options, "--trials", plan.trials);
    const auto seed = wholeOption(options, "--seed", 1);
    if (!trials || !seed)
        return report(trials ? seed.error() : trials.error(), "", BadInput);
    if (*trials < 1)
        return report({ "--trials", "must be at least 1" }, "", BadInput);
    plan.trials = *trials;
    plan.seed = static_cast<unsigned>(*seed);
    plan.offModel = options.has("--off-model");
    const auto r = mildpath::runTrials(*build, judgeSizes(*build), plan);
    if (!r)
        return report(r.error(), options.words[0], NoSolution);
    if (options.has("--json"))
        std::cout << trialsToJson(*r).dump(1) << '\n';
    else
        std::cout << trialsText(*r);
    return Done;
}

int runCompareFlows(const Options &options)
{
    if (options.words.size() != 2)
        return report({ "FILE", "two build files are needed" }, "", BadInput);
    Options one = options;
    one.words = { options.words[0] };
    const auto here = loadOnly(one);
    if (!here)
        return here.error();
    one.words = { options.words[1] };
    const auto there = loadOnly(one);
    if (!there)
        return there.error();
    const FlowComparison c = compareFlows(*here, *there);
    for (const std::string &caution : c.cautions)
        std::cout << "not comparable: " << caution << '\n';
    std::vector<std::vector<std::string>> rows { { "stop", "outlet", "here", "there", "here_l_min",
                                                   "there_l_min" } };
    const auto rate = [](const std::optional<double> &v) { return v ? formatPlain(*v, 2) : ""; };
    for (const FlowPair &p : c.pairs)
        rows.push_back({ p.stop, p.outlet, p.here->saw, p.there->saw, rate(p.here_l_min),
                         rate(p.there_l_min) });
    std::cout << tableToCsv(rows);
    for (const std::string &name : c.onlyOne)
        std::cerr << "seen on one only: " << name << '\n';
    return Done;
}

} // namespace mildpath::cli
