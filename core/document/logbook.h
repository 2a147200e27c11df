// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "rules/rules.h"

#include <algorithm>
#include <tuple>
#include <type_traits>
#include <variant>

namespace mildpath {

// The lists of the logbook that are alike: entries that are added, corrected by a later one, and
// taken back by one, never changed.

template <class T> struct Log
{
    using Entry = T;
    std::string_view key; ///< in a file
    std::string_view prefix; ///< of ids
    std::string_view meaning;
    SharedList<T> Build::*list;
    bool oneStandsAlone = false; ///< a single entry is in a file without a list
};

inline constexpr std::tuple logs {
    Log<CleanEvent> { "events", "e", "the cleaning logbook", &Build::events },
    Log<DebrisFind> { "finds", "f", "debris that was found", &Build::finds },
    Log<Sign> { "signs", "s", "signs looked for", &Build::signs },
    Log<BearingFailure> { "failures", "b", "bearings that failed", &Build::failures },
    Log<Repair> { "repairs", "d", "what was done after a failure", &Build::repairs },
    Log<ShopJob> { "shop_jobs", "j", "jobs for the machine shop", &Build::shopJobs },
    Log<GaugeReading> { "gauge_readings", "g", "oil pressure as read", &Build::gaugeReadings },
    Log<Symptom> { "symptoms", "y", "what was noticed on the running engine", &Build::symptoms },
    Log<FlowSeen> { "flows", "w", "where oil was seen to come", &Build::flows },
    Log<Scenario> { "scenarios", "c", "what if, kept", &Build::scenarios },
    Log<SignOff> { "signoffs", "o", "holds signed for", &Build::signOffs },
    Log<CardStep> { "card_steps", "k", "steps of the run card", &Build::cardSteps },
    Log<RunLog> { "run_logs", "l", "recordings of pressure", &Build::runs },
    Log<Calibration> { "calibrations", "a", "inputs moved to fit readings", &Build::calibrations },
    Log<FilterCut> { "filter_cuts", "u", "filters cut open", &Build::filterCuts },
    Log<OilSample> { "oil_samples", "m", "oil sent to a laboratory", &Build::oilSamples },
    Log<Opening> { "openings", "n", "times the engine was opened", &Build::openings },
    Log<SealCheck> { "seal_checks", "h", "blow-by and crankcase vacuum", &Build::sealChecks },
    Log<BoreTrace> { "bore_traces", "z", "profiles of the bores", &Build::boreTraces },
    Log<Job> { "job", "q", "what the engine is in for; a list where it was said anew", &Build::jobs,
               true },
    Log<Person> { "people", "p", "who works on it and may sign", &Build::people },
    Log<CheckEntry> { "check_entries", "i", "what was said of checks", &Build::checkEntries },
    Log<Act> { "acts", "v", "what was done on the bench and takes proofs away", &Build::acts },
    Log<Order> { "orders", "x", "what was ordered or sent out, and the day promised",
                 &Build::orders },
    Log<TimeTaken> { "times", "t", "how long hands were at checks, as said", &Build::times },
    Log<Instrument> { "instruments", "r", "what is measured with, and how far it is to be trusted",
                      &Build::instruments },
    Log<OwnCheck> { "own_checks", "own", "checks of one's own", &Build::ownChecks },
    Log<NextLook> { "next_looks", "look", "what is looked at again, and when", &Build::nextLooks },
};

template <class Visit> void forEachLog(Visit visit)
{
    std::apply([&](const auto &...log) { (visit(log), ...); }, logs);
}

/// An entry of any of them.
using LogEntry = decltype(std::apply(
    [](const auto &...log) {
        return std::variant<typename std::remove_cvref_t<decltype(log)>::Entry...>();
    },
    logs));

/// The list an entry belongs to: its key in a file.
std::string_view logOf(const LogEntry &entry);

/// A new entry; with `replaces` it corrects an earlier one.
struct AddEntry
{
    LogEntry entry; ///< id is filled in when it is applied
    bool operator==(const AddEntry &) const = default;
};
/// Takes a standing entry back; both are kept.
struct TakeBackEntry
{
    std::string log; ///< key of the list
    std::string id;
    std::string by, at;
    bool operator==(const TakeBackEntry &) const = default;
};
/// Errors: `replaces` or `id` names no standing entry.
Result<Build> addEntry(Build build, const AddEntry &edit);
Result<Build> takeBackEntry(Build build, const TakeBackEntry &edit);
Phrase describeEntry(const Build &build, const LogEntry &entry);

/// Faults of sense in these lists, with their places.
void checkLogs(const Build &build, std::vector<Error> &errors);

/// What is asked of the machine shop, in words.
std::string shopJobName(const ShopJob &job);
/// Whether the id is that of a job for the machine shop, as it was first written down.
bool isShopJob(const Build &build, std::string_view id);
/// "Main gallery", "block", "P4", "the whole engine": what an event is about.
std::string targetName(const Build &build, const CleanEvent &event);
/// Whether a calibration may move this input: oil, gauge, model, or a family that is measured.
bool isCalibrated(std::string_view input);

/// "Rear main gallery": a gauge tap for people.
std::string tapName(const Build &build, const std::string &tap);
/// "800 rev/min"; "drill at 250 rev/min".
Phrase turnedText(double rpm, bool byDrill);
/// Where oil can be seen to come at a stop, by name: each lifter, each rocker, each jet; or the
/// stop itself.
std::vector<std::string> flowOutlets(const Build &build, const Stop &stop);
/// Stop id → kind.
std::map<std::string, StopKind> stopKindsOf(const Build &build);

/// Whether an entry stands: neither corrected nor taken back.
template <class T> bool stands(const SharedList<T> &list, const std::string &id)
{
    const auto all = standing(list);
    return std::any_of(all.begin(), all.end(), [&](const T *r) { return r->id == id; });
}

} // namespace mildpath
