// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/assessment.h"
#include "checks/checksreport.h"
#include "command.h"
#include "plan/orders.h"
#include "plan/planreport.h"
#include "quantity/dates.h"
#include "report/buildsheet.h"
#include "report/daysheet.h"
#include "report/pictures.h"
#include "start/startreport.h"
#include "storage/files.h"
#include "storage/passagetables.h"

#include <chrono>
#include <ctime>
#include <filesystem>
#include <iostream>

namespace mildpath::cli {
namespace {

std::string today()
{
    const std::time_t now = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    std::tm parts {};
    localtime_r(&now, &parts);
    char text[16];
    std::strftime(text, sizeof text, "%Y-%m-%d", &parts);
    return text;
}

/// Each picture as a file of its own, numbered in the order of the sheet.
int writePictures(const Build &build, const Assessment &assessment, const std::string &folder,
                  Over over)
{
    std::error_code code;
    std::filesystem::create_directories(folder, code);
    if (code)
        return report({ folder, "cannot be made: " + code.message() }, "", ReadWriteFailed);
    int number = 0;
    for (const SheetPicture &p : sheetPictures(build, assessment, units())) {
        const auto path = std::filesystem::path(folder) / (std::to_string(++number) + ".svg");
        if (const auto ok = writeOutput(path, p.svg, over); !ok)
            return report(ok.error(), "", ReadWriteFailed);
        std::cout << path.string() << "  " << p.title << '\n';
    }
    return Done;
}

Result<Paper> paperOption(const Options &options)
{
    const std::string paper = options.value("--paper").value_or("a4");
    if (paper != "a4" && paper != "letter")
        return fail("--paper", "must be a4 or letter, is \"" + paper + "\"");
    return paper == "a4" ? Paper::A4 : Paper::Letter;
}

} // namespace

int runChecks(const Options &options)
{
    ChecksShown shown;
    shown.all = options.has("--all");
    shown.openOnly = options.has("--open");
    shown.evidence = options.has("--evidence");
    if (const auto word = options.value("--gate")) {
        shown.gate = fromWord<CheckGate>(*word);
        if (!shown.gate)
            return report({ "--gate", noSuchWord(wordsOf(enumWords<CheckGate>()), *word) }, "",
                          BadInput);
    }
    const std::string day = options.value("--today").value_or(today());
    if (!daysBetween(day, day))
        return report({ "--today", "must be a day such as 2026-03-21, is \"" + day + "\"" }, "",
                      BadInput);
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Assessment assessment = assess(*build, day);
    const CheckList &list = assessment.checks;
    if (options.has("--cost"))
        shown.costs = costsOf(*build, assessment, list);
    if (options.has("--json"))
        std::cout << checksToJson(*build, list, shown).dump(2) << '\n';
    else
        std::cout << checksText(*build, list, shown, units());
    return list.gate(shown.gate.value_or(CheckGate::Fire)).open ? Done : HasHolds;
}

namespace {

/// From which moment on, and the sheet it is asked as.
struct PlanOptions
{
    std::string now;
    Paper paper;
    std::optional<std::string> sheet;

    std::string day() const { return now.substr(0, 10); }
};

/// Errors: the exit code; the reason is said.
tl::expected<PlanOptions, int> planOptions(const Options &options)
{
    const std::string now = options.value("--now").value_or(today() + "T08:00");
    if (!daysBetween(now.substr(0, 10), now.substr(0, 10)))
        return tl::unexpected(
            report({ "--now", "must be a moment such as 2026-03-21T08:30, is \"" + now + "\"" }, "",
                   BadInput));
    const auto paper = paperOption(options);
    if (!paper)
        return tl::unexpected(report(paper.error(), "", BadInput));
    const auto sheet = options.value("--sheet");
    if (sheet)
        if (const auto ok = mayWriteOutput(*sheet, overOption(options)); !ok)
            return tl::unexpected(report(ok.error(), "", ReadWriteFailed));
    return PlanOptions { now, *paper, sheet };
}

int writeSheet(const PlanOptions &asked, const BuildSheet &sheet, const Options &options)
{
    const auto ok = writeOutput(*asked.sheet, sheetToHtml(sheet, asked.paper), overOption(options));
    return ok ? Done : report(ok.error(), "", ReadWriteFailed);
}

} // namespace

int runPlan(const Options &options)
{
    const auto asked = planOptions(options);
    if (!asked)
        return asked.error();
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Assessment assessment = assess(*build, asked->day());
    const WorkPlan plan = planOf(*build, assessment.checks, asked->now);
    if (asked->sheet)
        if (const int failed
            = writeSheet(*asked, daySheet(*build, plan, asked->day(), units()), options))
            return failed;
    if (options.has("--json"))
        std::cout << planToJson(plan).dump(2) << '\n';
    else if (!asked->sheet)
        std::cout << planText(*build, plan, { options.has("--hours"), options.has("--all") },
                              units());
    return plan.problem ? BadInput : Done;
}

int runOrders(const Options &options)
{
    const auto asked = planOptions(options);
    if (!asked)
        return asked.error();
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Assessment assessment = assess(*build, asked->day());
    const WorkPlan plan = planOf(*build, assessment.checks, asked->now);
    const Orders orders = ordersOf(*build, assessment, assessment.checks, plan);
    if (asked->sheet)
        return writeSheet(*asked, orderSheet(*build, orders, asked->day(), units()), options);
    if (options.has("--json"))
        std::cout << ordersToJson(orders).dump(2) << '\n';
    else if (options.has("--csv"))
        std::cout << tableToCsv(ordersTable(orders));
    else
        std::cout << ordersText(orders, units());
    return Done;
}

int runStart(const Options &options)
{
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Assessment assessment = assess(*build, today());
    const StartGate gate = gateOf(assessment);
    const PrimeForecast prime = primeForecast(*build, assessment);
    const RunCard card = runCardOf(*build, assessment, prime, gate);
    const auto against = readAgainstForecast(*build, assessment.sizes);
    if (!against)
        return report(against.error(), options.words[0], NoSolution);
    if (options.has("--json"))
        std::cout << startReportToJson(*build, gate, prime, card, *against).dump(2) << '\n';
    else
        std::cout << startReportText(*build, gate, prime, card, *against, units());
    return gate.mayStart() ? Done : HasHolds;
}

int runReport(const Options &options)
{
    const auto out = options.value("-o"), pictures = options.value("--svg");
    if (!out && !pictures)
        return report({ "report", "needs -o FILE.html or --svg DIR" }, "", BadInput);
    const auto paper = paperOption(options);
    if (!paper)
        return report(paper.error(), "", BadInput);
    if (out) // before the work, which may be long
        if (const auto ok = mayWriteOutput(*out, overOption(options)); !ok)
            return report(ok.error(), "", ReadWriteFailed);
    const auto build = loadOnly(options);
    if (!build)
        return build.error();
    const Assessment assessment = assess(*build, today());
    if (pictures)
        if (const int code = writePictures(*build, assessment, *pictures, overOption(options));
            code != Done)
            return code;
    if (out) {
        const std::string text
            = sheetToHtml(buildSheet(*build, assessment, today(), units()), *paper);
        if (const auto ok = writeOutput(*out, text, overOption(options)); !ok)
            return report(ok.error(), "", ReadWriteFailed);
    }
    return Done;
}

} // namespace mildpath::cli
