// SPDX-License-Identifier: GPL-3.0-or-later
#include "command.h"

#include <array>
#include <iostream>

namespace mildpath::cli {
namespace {

const std::array<Verb, 29> verbs { {
    { "calc",
      "calc [NAME [--describe]]",
      "Lists the calculators; runs one (a JSON object on stdin, one on stdout); or prints its "
      "keys,\n"
      "units, ranges and source.",
      {},
      { "--describe" },
      runCalc },
    { "templates",
      "templates",
      "Lists the engines a new build can start from.",
      {},
      {},
      runTemplates },
    { "new",
      "new --template NAME | --plan PLAN.json -o FILE [--force]",
      "Makes a build without readings, from a template or from an engine's description "
      "(docs/format/plan.md). An existing file is replaced only with --force.",
      { "--template", "--plan", "-o" },
      { "--force" },
      runNew },
    { "validate",
      "validate FILE",
      "Checks a build for structure and sense and names every fault with its place.",
      {},
      {},
      runValidate },
    { "assess",
      "assess FILE [--json]",
      "Findings, holds, clearances, forecast. Exit code 1 when something holds the start.",
      {},
      { "--json" },
      runAssess },
    { "forecast",
      "forecast FILE [--rpm 600:7000:200] [--oil-temp-c 40,100,130] [--oil GRADE]\n"
      "                  [--fault KIND@STOP[=SEVERITY],…] [--samples N [--seed S]] [--json]",
      "Pressure at the gauge and at the weakest stop over speed and oil temperature, with the "
      "likely\n"
      "range. With --fault, of the engine with these faults. With "
      "--samples,\n"
      "the range is that of N draws (16 or more) instead of first order. CSV unless --json.",
      { "--rpm", "--oil-temp-c", "--oil", "--fault", "--samples", "--seed" },
      { "--json" },
      runForecast },
    { "export",
      "export FILE --csv DIR [--force]",
      "Writes tables, UTF-8, RFC 4180, units in the header: readings and events (struck ones "
      "too),\n"
      "passages, plugs, and what to buy and what goes to the machine shop.",
      { "--csv" },
      { "--force" },
      runExport },
    { "plan-cleaning",
      "plan-cleaning FILE [--json]",
      "The fewest brush pulls, then flushes, then plugs to draw, that cover every length which "
      "can\n"
      "be reached; how to draw each plug; what is not reached and why.",
      {},
      { "--json" },
      runPlanCleaning },
    { "draw-passages",
      "draw-passages FILE -o OUT [--force]",
      "Gives a build that has none the passages usual for its engine, to be corrected by what is "
      "seen.",
      { "-o" },
      { "--force" },
      runDrawPassages },
    { "draw-lines",
      "draw-lines FILE -o OUT [--force]",
      "Gives a build that has none the lines outside the engine as they should be, for somebody to "
      "look at.",
      { "-o" },
      { "--force" },
      runDrawLines },
    { "replay",
      "replay FILE DRIVE.csv [--csv | --json]",
      "Oil over the pickup through a lap or a crossing: columns time_s, lateral_g (left turn\n"
      "positive), longitudinal_g (accelerating positive).",
      {},
      { "--csv", "--json" },
      runReplay },
    { "checks",
      "checks FILE [--gate turn|fire|load|handover] [--open] [--all] [--cost] [--today DAY] "
      "[--json] "
      "[--evidence]",
      "Everything that must be true of this engine before it turns, fires, is loaded or is handed\n"
      "over: state and reason of each check the job asks, and the four gates. --all: what it does\n"
      "not ask as well; --open: only what is open; --cost: what each would cost if it were\n"
      "false; --evidence: in JSON, all that was said of "
      "each.\n"
      "Exit code 1 while the gate (fire, or the one named) is closed.",
      { "--gate", "--today" },
      { "--open", "--all", "--cost", "--json", "--evidence" },
      runChecks },
    { "plan",
      "plan FILE [--hours] [--all] [--now MOMENT] [--json | --sheet OUT.html [--paper a4|letter] "
      "[--force]]",
      "The open checks as the order of the work: what is next, what can be done now, what waits.\n"
      "--hours: how long it takes and when it starts, though little was timed; --all: what waits,\n"
      "and for what; --now: instead of this moment, such as 2026-03-21T08:30; --sheet: the day's\n"
      "work to take along.",
      { "--now", "--sheet", "--paper" },
      { "--hours", "--all", "--json", "--force" },
      runPlan },
    { "orders",
      "orders FILE [--now MOMENT] [--csv | --json | --sheet OUT.html [--paper a4|letter] "
      "[--force]]",
      "What is to buy, alike things summed, and what goes to the machine shop: size, by when, and\n"
      "how it stands. As text to send, as a table, or as a sheet to print.",
      { "--now", "--sheet", "--paper" },
      { "--csv", "--json", "--force" },
      runOrders },
    { "start",
      "start FILE [--json]",
      "What stands between the build and its first start: holds and who signed them, the prime\n"
      "forecast with where to look when nothing comes, the run card, what was read against the\n"
      "forecast and what would explain the difference. Exit code 1 while a hold is open.",
      {},
      { "--json" },
      runStart },
    { "report",
      "report FILE -o OUT.html [--paper a4|letter] [--svg DIR] [--force]",
      "The build sheet as one HTML file, its pictures in it; with --svg each picture as a file.\n"
      "As PDF: mildpath --report FILE -o OUT.pdf.",
      { "-o", "--paper", "--svg" },
      { "--force" },
      runReport },
    { "after",
      "after FILE [--json]",
      "What a run left: filter cuts and used oil against this engine's own, sizes before and\n"
      "after, ring seal, bore finish.",
      {},
      { "--json" },
      runAfter },
    { "shelf",
      "shelf FOLDER [--search WORDS] [--compare QUANTITY [--csv OUT [--force] | --json]] |\n"
      "                  --quantities",
      "Builds of a folder, damaged ones said to be so; with --compare one quantity over all of\n"
      "them, as CSV on stdout unless told otherwise. --quantities lists what can be compared.",
      { "--search", "--compare", "--csv" },
      { "--json", "--quantities", "--force" },
      runShelf },
    { "rules",
      "rules [--markdown]",
      "Numbers no publication gives, each with its meaning and where it comes from: limits,\n"
      "priors, sizes of faults, margins. --markdown: as docs/theory/rules.md holds them.",
      {},
      { "--markdown" },
      runRules },
    { "schema",
      "schema",
      "JSON Schema of a build file, made from what the program reads and writes.",
      {},
      {},
      runSchema },
    { "what-if",
      "what-if FILE --fault KIND@STOP[.ITEM][=SEVERITY],… [--rpm N] [--oil-temp-c T] [--json]",
      "Before and after, at every gauge tap and stop, with faults imagined; what the gauge would "
      "show.",
      { "--fault", "--rpm", "--oil-temp-c" },
      { "--json" },
      runWhatIf },
    { "remedies",
      "remedies FILE [--fault …] [--json]",
      "What each remedy does to the gauge, the weakest bearing, power and the relief, all on the "
      "same\n"
      "engine, with faults if any are given.",
      { "--fault" },
      { "--json" },
      runRemedies },
    { "oils",
      "oils FILE [--json]",
      "All oils beside each other in this engine, hot: hot idle, films at idle and at full load,\n"
      "cold limits.",
      {},
      { "--json" },
      runOils },
    { "verdicts",
      "verdicts FILE [--json]",
      "What must be enough, or not too much, at every state the engine is judged in, how sure "
      "each\n"
      "figure is, and what would narrow most.",
      {},
      { "--json" },
      runVerdicts },
    { "diagnose",
      "diagnose FILE [--json]",
      "Ranks what may be wrong by the build's gauge readings and symptoms, with the next best "
      "reading\n"
      "or look.",
      {},
      { "--json" },
      runDiagnose },
    { "try-diagnosis",
      "try-diagnosis FILE [--trials N] [--seed S] [--off-model] [--six] [--json]",
      "Invents every fault at three severities, reads it with noise, and counts how often the "
      "diagnosis\n"
      "finds it. --off-model draws clearances, oil and gauges off the forecast too; --six\n"
      "reads gauge and filter head only, three times.",
      { "--trials", "--seed" },
      { "--off-model", "--six", "--json" },
      runTryDiagnosis },
    { "compare-flows",
      "compare-flows FILE OTHER",
      "Oil seen to flow on two engines side by side, and what forbids comparing them.",
      {},
      {},
      runCompareFlows },
    { "solve",
      "solve CIRCUIT.json --rpm N --oil-temp-c T [--oil JSON] [--edits FILE]\n"
      "                   [--bearing-temperature default|energy]",
      "Solves a bare circuit: node pressures, flows, Newton steps, mass error. Without --oil an "
      "SAE 40\n"
      "is used (kv40 105, kv100 14.2 mm2/s, 878 kg/m3). --edits changes the circuit first.",
      { "--rpm", "--oil-temp-c", "--oil", "--edits", "--bearing-temperature" },
      {},
      runSolve },
    { "running-circuit",
      "running-circuit FILE --oil-temp-c T",
      "The build's circuit as it is solved at this oil temperature: running sizes, feeds of the\n"
      "crank, real shells, with `oil` and the node of the gauge (`gauge_tap`). `solve` takes it.",
      { "--oil-temp-c" },
      {},
      runRunningCircuit },
} };

void printHelp()
{
    std::cout << "mildpath-cli: checks an engine's lubrication system from the shell\n\n";
    for (const Verb &v : verbs)
        std::cout << "  mildpath-cli " << v.usage << '\n';
    std::cout
        << "\nEvery verb takes --units metric|imperial|both for its sentences; JSON and CSV stay "
           "metric.\n`mildpath-cli VERB --help` explains one. Exit codes: 0 done; 1 done, and the "
           "build\n"
           "has holds (assess); 2 bad input; 3 could not read or write; 4 no solution found.\n";
}

int run(const std::vector<std::string> &words)
{
    if (words.empty() || words[0] == "--help" || words[0] == "-h") {
        printHelp();
        return words.empty() ? BadInput : Done;
    }
    for (const Verb &v : verbs) {
        if (v.name != words[0])
            continue;
        const std::vector<std::string> rest(words.begin() + 1, words.end());
        for (const std::string &w : rest)
            if (w == "--help" || w == "-h") {
                std::cout << "usage: mildpath-cli " << v.usage << "\n\n" << v.help << '\n';
                return Done;
            }
        const auto options = parseOptions(v, rest);
        if (!options)
            return report(options.error(), "", BadInput);
        return v.run(*options);
    }
    return report({ words[0], "is not a verb; --help lists them" }, "", BadInput);
}

} // namespace
} // namespace mildpath::cli

int main(int argc, char **argv)
{
    return mildpath::cli::run(std::vector<std::string>(argv + 1, argv + argc));
}
