// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/cost.h"
#include "checks/verdicttable.h"
#include "open/answers.h"
#include "quantity/result.h"

#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace mildpath {

struct BelievedIdle;
struct CoverPoint;
struct CutReport;
struct Diagnosis;
struct ElementChange;
struct Fault;
struct ForecastLine;
struct GasStudy;
struct Modified;
struct OilReport;
struct PumpStudy;
struct ReadAgainst;
struct ReadTrace;
struct OilBeside;
struct RemedyTable;
struct RemedyWishes;
struct RoomConditions;
struct RoomMap;
struct RoomStudy;
struct SampledForecast;
struct ShellPlan;
struct StartCard;
struct WarmUps;
struct WorkPlan;
enum class ProfileFilter;

/// The questions about the open document, each in one place whoever asks it.
namespace ask {

/// Gate, priming and the start-up checklist.
Question<StartCard> start();
Question<Result<Diagnosis>> diagnosis();
/// Readings against the forecast, and what they make of it.
Question<Result<ReadAgainst>> readings();
Question<Result<RemedyTable>> remedies(const std::vector<Fault> &faults,
                                       const RemedyWishes &wishes);
/// Room to choose, the crank's oil cold and hot, the films.
Question<RoomStudy> room(const std::string &family, const RoomConditions &conditions);
/// @param columns  clearances across; coarse ones are there within a frame
Question<Result<RoomMap>> roomMap(const std::string &family, const RoomConditions &conditions,
                                  int columns);
/// @param points  moments of the warm-up
Question<WarmUps> warmUp(double rpm, int points);
/// Speed from which mains and big-ends float, hot.
Question<Result<std::optional<double>>> floatsFrom();
/// All oils beside each other.
Question<Result<std::vector<OilBeside>>> oils();
/// The forecast's lines at so many speeds.
Question<Result<std::vector<ForecastLine>>> forecastAt(int speeds);
/// Bands from some thousand possible builds.
Question<Result<SampledForecast>> likelyRange();
/// @param share  of gas in what the pump takes
Question<Result<GasStudy>> gas(double share);
/// Feed hole of a main covered bit by bit.
Question<Result<std::vector<CoverPoint>>> covered(const std::string &main,
                                                  const std::vector<double> &shares);
Question<Result<ShellPlan>> shells(const std::string &family);
Question<CutReport> cuts();
Question<OilReport> usedOil();
/// How sure each verdict is, and what would make it surer.
Question<VerdictRanges> verdictRanges();
/// What the gauge readings make of hot idle.
Question<Result<BelievedIdle>> believed();
/// What each check would cost if it were false, by its id.
Question<std::map<std::string, CheckCost>> checkCosts();
/// The open checks as the order of the work; it points into the list it is about.
Question<WorkPlan> plan();
/// How far to dress the pump, and what else would do.
Question<PumpStudy> pump();
Question<Result<Modified>> modified(const std::vector<ElementChange> &changes);
Question<std::vector<ReadTrace>> traces(double cutoff_mm, ProfileFilter filter);

} // namespace ask

} // namespace mildpath
