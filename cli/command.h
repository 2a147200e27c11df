// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/jsonreader.h"
#include "quantity/phrase.h"
#include "quantity/result.h"
#include "storage/buildfile.h"
#include "storage/files.h"

#include <map>
#include <optional>
#include <set>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath::cli {

/// Exit codes, the same for every verb.
enum Exit { Done = 0, HasHolds = 1, BadInput = 2, ReadWriteFailed = 3, NoSolution = 4 };

/// The words after the verb, sorted into files and options.
struct Options
{
    std::vector<std::string> words;
    std::map<std::string, std::string> values; ///< "--rpm" → "800"
    std::set<std::string> flags;

    bool has(const std::string &flag) const { return flags.contains(flag); }
    std::optional<std::string> value(const std::string &name) const;
};

/// What a verb accepts.
struct Verb
{
    std::string_view name;
    std::string_view usage;
    std::string_view help;
    std::set<std::string> valueOptions;
    std::set<std::string> flagOptions;
    int (*run)(const Options &);
};

/// Errors: an unknown option, or one without its value (place = the option).
Result<Options> parseOptions(const Verb &verb, const std::vector<std::string> &words);

/// The units sentences are printed in: --units, which every verb takes; metric without it.
const UnitStyle &units();
/// Prints a line of what was found.
void print(const Phrase &line);

/// Prints "place: message" on stderr. @return the exit code given
int report(const Error &error, const std::string &file, int exitCode);
int report(const LoadFailure &failure, const std::string &file);

/// Whether --force lets output go over a file that is there (never over a build).
inline Over overOption(const Options &options)
{
    return options.has("--force") ? Over::AnyFile : Over::Nothing;
}

/// A number written out in full. Errors: place = `name`.
Result<double> numberOption(const std::string &name, const std::string &text);
/// A whole number from 0 to a million. Errors: place = `name`.
Result<int> wholeOption(const Options &options, const char *name, int fallback);
/// "600:7000:200" or "800,3000" or one number.
Result<std::vector<double>> numbersOption(const std::string &name, const std::string &text);

/// The one file a verb needs. Errors are printed; the exit code is the failed branch.
tl::expected<Build, int> loadOnly(const Options &options);

/// Faults named by --fault, comma between them; none without it. Errors: place = the option.
Result<std::vector<Fault>> faultsOption(const Build &build, const Options &options);

int runCalc(const Options &);
int runTemplates(const Options &);
int runNew(const Options &);
int runValidate(const Options &);
int runAssess(const Options &);
int runForecast(const Options &);
int runRunningCircuit(const Options &);
int runExport(const Options &);
int runSolve(const Options &);
int runPlanCleaning(const Options &);
int runDrawPassages(const Options &);
int runDrawLines(const Options &);
int runWhatIf(const Options &);
int runRemedies(const Options &);
int runOils(const Options &);
int runVerdicts(const Options &);
int runDiagnose(const Options &);
int runTryDiagnosis(const Options &);
int runCompareFlows(const Options &);
int runReplay(const Options &);
int runChecks(const Options &);
int runPlan(const Options &);
int runOrders(const Options &);
int runStart(const Options &);
int runReport(const Options &);
int runAfter(const Options &);
int runShelf(const Options &);
int runRules(const Options &);
int runSchema(const Options &);

} // namespace mildpath::cli
