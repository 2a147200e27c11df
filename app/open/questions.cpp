// SPDX-License-Identifier: GPL-3.0-or-later
#include "open/questions.h"

#include "assess/believed.h"
#include "assess/cutreport.h"
#include "assess/finishreport.h"
#include "assess/oilreport.h"
#include "checks/assessment.h"
#include "diagnose/diagnosis.h"
#include "diagnose/remedies.h"
#include "plan/workplan.h"
#include "start/afterwards.h"
#include "start/modified.h"
#include "start/runcard.h"
#include "study/contacts.h"
#include "study/dressing.h"
#include "study/feedcover.h"
#include "study/gaseffect.h"
#include "study/oilsbeside.h"
#include "study/room.h"
#include "study/sampling.h"
#include "study/shellplan.h"

namespace mildpath::ask {
namespace {

/// What an answer depends on, apart from each other in its key.
std::string keyOf(const std::string &part)
{
    return part + '\n';
}
std::string keyOf(double part)
{
    char text[32];
    std::snprintf(text, sizeof text, "%.17g\n", part);
    return text;
}
template <class... Parts> std::string settings(const Parts &...parts)
{
    return (keyOf(parts) + ...);
}
std::string settingsOf(const std::string &family, const RoomConditions &c)
{
    return settings(family, c.coldestStart_c, c.hotOil_c, c.idle_rpm, c.pumpSection);
}

} // namespace

Question<StartCard> start()
{
    return { "start", {}, [](const AskedAbout &about, Progress &) {
                return startCardOf(*about.build, *about.assessment);
            } };
}

Question<Result<Diagnosis>> diagnosis()
{
    return { "diagnosis", {}, [](const AskedAbout &about, Progress &progress) {
                return diagnose(*about.build, about.assessment->sizes, &progress);
            } };
}

Question<Result<ReadAgainst>> readings()
{
    return { "readings", {}, [](const AskedAbout &about, Progress &) {
                return readAgainstForecast(*about.build, about.assessment->sizes);
            } };
}

Question<Result<RemedyTable>> remedies(const std::vector<Fault> &faults, const RemedyWishes &wishes)
{
    std::string key;
    for (const auto &[id, size] : wishes.sizes)
        key += settings(id, size);
    for (const std::string &id : wishes.together)
        key += keyOf(id);
    for (const Fault &f : faults)
        key += settings(faultId(f), f.severity);
    return { "remedies", std::move(key), [faults, wishes](const AskedAbout &about, Progress &) {
                return compareRemedies(*about.build, about.assessment->sizes, faults, wishes);
            } };
}

Question<RoomStudy> room(const std::string &family, const RoomConditions &conditions)
{
    return { "room", settingsOf(family, conditions),
             [family, conditions](const AskedAbout &about, Progress &) {
                 return studyRoom(*about.build, about.assessment->sizes, family, conditions);
             } };
}

Question<Result<RoomMap>> roomMap(const std::string &family, const RoomConditions &conditions,
                                  int columns)
{
    return { "roomMap", settingsOf(family, conditions) + settings(columns),
             [=](const AskedAbout &about, Progress &progress) {
                 return mildpath::roomMap(*about.build, about.assessment->sizes, family, conditions,
                                          columns, &progress);
             } };
}

Question<WarmUps> warmUp(double rpm, int points)
{
    return { "warmUp", settings(rpm, points), [=](const AskedAbout &about, Progress &) {
                return warmUps(*about.build, about.assessment->sizes, rpm, points);
            } };
}

Question<Result<std::optional<double>>> floatsFrom()
{
    return { "floatsFrom", {}, [](const AskedAbout &about, Progress &) {
                return floatsFrom_rpm(*about.build, about.assessment->sizes,
                                      about.build->use.hotOil_c);
            } };
}

Question<Result<std::vector<OilBeside>>> oils()
{
    return { "oils", {}, [](const AskedAbout &about, Progress &) {
                return oilsBeside(*about.build, about.assessment->sizes);
            } };
}

Question<Result<std::vector<ForecastLine>>> forecastAt(int speeds)
{
    return { "forecast", settings(speeds), [=](const AskedAbout &about, Progress &) {
                return finerForecast(*about.build, about.assessment->sizes,
                                     about.assessment->forecast, speeds);
            } };
}

Question<Result<SampledForecast>> likelyRange()
{
    return { "likelyRange", {}, [](const AskedAbout &about, Progress &progress) {
                return sampleForecast(*about.build, about.assessment->sizes,
                                      usualSampling(*about.build), &progress);
            } };
}

Question<Result<BelievedIdle>> believed()
{
    return { "believed", {}, [](const AskedAbout &about, Progress &) {
                return believedIdle(*about.build, about.assessment->sizes);
            } };
}

Question<Result<GasStudy>> gas(double share)
{
    return { "gas", settings(share), [share](const AskedAbout &about, Progress &) {
                const Assessment &a = *about.assessment;
                return studyGas(*about.build, a.sizes, a.operating, a.forecast, share);
            } };
}

Question<Result<std::vector<CoverPoint>>> covered(const std::string &main,
                                                  const std::vector<double> &shares)
{
    std::string key = settings(main);
    for (const double share : shares)
        key += settings(share);
    return { "covered", std::move(key), [main, shares](const AskedAbout &about, Progress &) {
                return coverSweep(*about.build, about.assessment->sizes,
                                  *about.build->engine.find(main), shares);
            } };
}

Question<Result<ShellPlan>> shells(const std::string &family)
{
    return { "shells", settings(family), [family](const AskedAbout &about, Progress &) {
                return shellPlan(*about.build, about.assessment->sizes, family);
            } };
}

Question<CutReport> cuts()
{
    return { "cuts", {}, [](const AskedAbout &about, Progress &) {
                return reportCuts(*about.build);
            } };
}

Question<OilReport> usedOil()
{
    return { "usedOil", {}, [](const AskedAbout &about, Progress &) {
                return reportOil(*about.build);
            } };
}

Question<VerdictRanges> verdictRanges()
{
    return { "verdictRanges", {}, [](const AskedAbout &about, Progress &progress) {
                return mildpath::verdictRanges(*about.build, *about.assessment, &progress);
            } };
}

Question<std::map<std::string, CheckCost>> checkCosts()
{
    return { "checkCosts", {}, [](const AskedAbout &about, Progress &progress) {
                return costsOf(*about.build, *about.assessment, about.assessment->checks,
                               &progress);
            } };
}

Question<WorkPlan> plan()
{
    // By the hour: what can be done does not change with the minute.
    const std::string now = OpenBuild::now().substr(0, 13) + ":00";
    return { "plan", now, [now](const AskedAbout &about, Progress &) {
                return planOf(*about.build, about.assessment->checks, now);
            } };
}

Question<PumpStudy> pump()
{
    return { "pump", {}, [](const AskedAbout &about, Progress &) {
                return studyPump(*about.build, about.assessment->sizes);
            } };
}

Question<Result<Modified>> modified(const std::vector<ElementChange> &changes)
{
    std::string key;
    for (const ElementChange &c : changes)
        key += settings(c.element, c.key, c.value);
    return { "modified", std::move(key), [changes](const AskedAbout &about, Progress &) {
                return compareModified(*about.build, about.assessment->sizes, changes);
            } };
}

Question<std::vector<ReadTrace>> traces(double cutoff_mm, ProfileFilter filter)
{
    return { "traces", settings(cutoff_mm, static_cast<int>(filter)),
             [=](const AskedAbout &about, Progress &) {
                 std::vector<ReadTrace> out;
                 for (const BoreTrace *t : standing(about.build->boreTraces))
                     out.push_back(readTrace(*t, cutoff_mm, filter));
                 return out;
             } };
}

} // namespace mildpath::ask
