// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "rules/rules.h"

#include <tuple>
#include <variant>

namespace mildpath {

// The lists of the logbook that are alike: entries that are added, corrected by a later one, and
// taken back by one, never changed.

template <class T> struct Log
{
    using Entry = T;
    std::string_view key; ///< in a file
    std::string_view prefix; ///< of ids
    SharedList<T> Build::*list;
    T (*read)(const Json &, const std::string &, std::vector<Error> &);
    Json (*write)(const T &);
};

inline constexpr std::tuple logs {
    Log<CleanEvent> { "events", "e", &Build::events, eventFromJson, eventToJson },
    Log<DebrisFind> { "finds", "f", &Build::finds, findFromJson, findToJson },
    Log<Sign> { "signs", "s", &Build::signs, signFromJson, signToJson },
    Log<BearingFailure> { "failures", "b", &Build::failures, failureFromJson, failureToJson },
    Log<Repair> { "repairs", "d", &Build::repairs, repairFromJson, repairToJson },
    Log<ShopJob> { "shop_jobs", "j", &Build::shopJobs, shopJobFromJson, shopJobToJson },
    Log<GaugeReading> { "gauge_readings", "g", &Build::gaugeReadings, gaugeReadingFromJson,
                        gaugeReadingToJson },
    Log<Symptom> { "symptoms", "y", &Build::symptoms, symptomFromJson, symptomToJson },
    Log<FlowSeen> { "flows", "w", &Build::flows, flowSeenFromJson, flowSeenToJson },
    Log<Scenario> { "scenarios", "c", &Build::scenarios, scenarioFromJson, scenarioToJson },
    Log<SignOff> { "signoffs", "o", &Build::signOffs, signOffFromJson, signOffToJson },
    Log<CardStep> { "card_steps", "k", &Build::cardSteps, cardStepFromJson, cardStepToJson },
    Log<RunLog> { "run_logs", "l", &Build::runs, runLogFromJson, runLogToJson },
    Log<Calibration> { "calibrations", "a", &Build::calibrations, calibrationFromJson,
                       calibrationToJson },
    Log<FilterCut> { "filter_cuts", "u", &Build::filterCuts, filterCutFromJson, filterCutToJson },
    Log<OilSample> { "oil_samples", "m", &Build::oilSamples, oilSampleFromJson, oilSampleToJson },
    Log<Opening> { "openings", "n", &Build::openings, openingFromJson, openingToJson },
    Log<SealCheck> { "seal_checks", "h", &Build::sealChecks, sealCheckFromJson, sealCheckToJson },
    Log<BoreTrace> { "bore_traces", "z", &Build::boreTraces, boreTraceFromJson, boreTraceToJson },
};

template <class Visit> void forEachLog(Visit visit)
{
    std::apply([&](const auto &...log) { (visit(log), ...); }, logs);
}

using LogEntry = std::variant<CleanEvent, DebrisFind, Sign, BearingFailure, Repair, ShopJob,
                              GaugeReading, Symptom, FlowSeen, Scenario, SignOff, CardStep, RunLog,
                              Calibration, FilterCut, OilSample, Opening, SealCheck, BoreTrace>;

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
std::string describeEntry(const Build &build, const LogEntry &entry);

/// Faults of sense in these lists, with their places.
void checkLogs(const Build &build, std::vector<Error> &errors);

/// "Main gallery", "block", "P4", "the whole engine": what an event is about.
std::string targetName(const Build &build, const CleanEvent &event);
/// Whether a calibration may move this input: oil, gauge, model, or a family that is measured.
bool isCalibrated(std::string_view input);

/// "Rear main gallery": a gauge tap for people.
std::string tapName(const Build &build, const std::string &tap);
/// Where oil can be seen to come at a stop, by name: each lifter, each rocker, each jet; or the
/// stop itself.
std::vector<std::string> flowOutlets(const Build &build, const Stop &stop);
/// Stop id → kind.
std::map<std::string, std::string> stopKindsOf(const Build &build);

} // namespace mildpath
