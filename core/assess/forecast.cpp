// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/forecast.h"

#include "assess/circuitof.h"
#include "assess/figuremarks.h"
#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "assess/states.h"
#include "oil/grades.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr int speeds = 14;

/// Speed at which something begins, between one where it has not and one where it has (bisected to
/// 25 rev/min: nobody sets a tachometer closer).
template <typename Has>
Result<double> beginsBetween(OperatingModel &model, double not_rpm, double has_rpm, Has has)
{
    while (has_rpm - not_rpm > 25) {
        const double middle = (not_rpm + has_rpm) / 2;
        const auto r = model.at(middle, OperatingModel::Detail::Values);
        if (!r)
            return tl::unexpected(r.error());
        (has(*r) ? has_rpm : not_rpm) = middle;
    }
    return has_rpm;
}

bool reliefOpen(const OperatingResult &r)
{
    return r.reliefOpen();
}
bool crankStarves(const OperatingResult &r)
{
    return r.crankNeed_pa > 0 && r.crankRatio < 1;
}

Result<ForecastLine> lineAt(OperatingModel &model, double oil_c, const std::vector<double> &rpm)
{
    ForecastLine out;
    out.oil_c = oil_c;
    out.rpm = rpm;
    double shut_rpm = -1, fed_rpm = -1;
    for (const double n : rpm) {
        const auto r = model.at(n, OperatingModel::Detail::Ranges);
        if (!r)
            return tl::unexpected(r.error());
        out.gauge.push_back(r->gauge);
        out.weakest_pa.push_back(r->weakestPressure.value_pa);
        out.weakestRatio.push_back(
            r->weakest < 0 ? 0 : r->points[static_cast<size_t>(r->weakest)].ratio());
        out.bigEndsOfCrank.push_back(r->bigEndsOfCrank());
        out.crankNeed_pa.push_back(r->crankNeed_pa);
        if (!reliefOpen(*r))
            shut_rpm = n;
        else if (!out.reliefOpens_rpm)
            out.reliefOpens_rpm = n;
        if (!crankStarves(*r))
            fed_rpm = n;
        else if (!out.crankStarves_rpm)
            out.crankStarves_rpm = n;
    }
    const auto refine = [&](std::optional<double> &at_rpm, double not_rpm,
                            bool (*has)(const OperatingResult &)) -> Result<void> {
        if (!at_rpm || !(not_rpm > 0 && not_rpm < *at_rpm))
            return {};
        const auto begins = beginsBetween(model, not_rpm, *at_rpm, has);
        if (!begins)
            return tl::unexpected(begins.error());
        at_rpm = *begins;
        return {};
    };
    if (auto ok = refine(out.reliefOpens_rpm, shut_rpm, reliefOpen); !ok)
        return tl::unexpected(ok.error());
    if (auto ok = refine(out.crankStarves_rpm, fed_rpm, crankStarves); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Mark markOf(const OperatingResult &r, double floor_pa)
{
    const double ratio = r.weakest < 0 ? 1e9 : r.points[static_cast<size_t>(r.weakest)].ratio();
    return worse(supplyMark(r.gauge.value_pa / floor_pa), supplyMark(ratio));
}

void fillOtherOils(const Build &build, const std::vector<GaugedSize> &sizes, OperatingModel &hot,
                   Forecast &out)
{
    const auto add = [&](const std::string &grade, const Oil &oil, bool gear, bool fitted) {
        const auto r = hot.at(build.use.hotIdle_rpm, oil);
        if (!r)
            return;
        OtherOil row { grade,
                       gear,
                       fitted,
                       r->gauge.value_pa,
                       r->weakestPressure.value_pa,
                       "",
                       onSizes(markOf(*r, build.use.hotIdleFloor_kpa * 1e3), sizes) };
        if (gear)
            row.mark = Mark::Hold;
        if (r->weakest >= 0)
            row.weakestName = r->points[static_cast<size_t>(r->weakest)].name;
        out.otherOils.push_back(std::move(row));
    };
    bool listed = false;
    for (const ShelfOil &oil : oilShelf()) {
        const bool fitted = oil.grade == build.oil.grade && oil.oil == build.oil.oil;
        listed = listed || fitted;
        add(std::string(oil.grade), runningOil(oil), oil.gearOil, fitted);
    }
    if (!listed)
        add(build.oil.grade.empty() ? "as entered" : build.oil.grade, runningOil(build.oil), false,
            true);
}

/// Hot idle as it is: where changes of it start from and what they are compared with.
struct Idling
{
    const SolveState &state;
    double gauge_pa;
};

/// Hot idle at the gauge of a changed document, less the present one.
std::optional<double> hotIdleChange(const Build &changed, const std::vector<GaugedSize> &sizes,
                                    const Idling &now, double oil_c)
{
    // A lever changes circuit or oil, never the readings: the clearances stay as judged.
    auto model = OperatingModel::make(changed, sizes, oil_c);
    if (!model)
        return std::nullopt;
    model->startFrom(now.state);
    const auto r = model->at(changed.use.hotIdle_rpm, OperatingModel::Detail::Values);
    if (!r)
        return std::nullopt;
    return r->gauge.value_pa - now.gauge_pa;
}

/// The same with every clearance of a kind moved.
std::optional<double> clearanceChange(const Build &build, const std::vector<GaugedSize> &sizes,
                                      const Idling &now, const std::string &kind, double by_um)
{
    const bool any = std::any_of(sizes.begin(), sizes.end(),
                                 [&](const GaugedSize &s) { return s.family == kind; });
    auto model = OperatingModel::make(build, movedBy(sizes, kind, by_um), build.use.hotOil_c);
    if (!any || !model)
        return std::nullopt;
    model->startFrom(now.state);
    const auto r = model->at(build.use.hotIdle_rpm, OperatingModel::Detail::Values);
    if (!r)
        return std::nullopt;
    return r->gauge.value_pa - now.gauge_pa;
}

void fillLevers(const Build &build, const std::vector<GaugedSize> &sizes, const Idling &now,
                Forecast &out)
{
    const double oil_c = build.use.hotOil_c;
    const auto add = [&](const Phrase &name, std::optional<double> change,
                         const Phrase &remark = {}) {
        if (change)
            out.levers.push_back({ name, *change, std::abs(*change) < 50 ? remark : Phrase() });
    };
    const auto by = [](std::string_view pattern, double um) {
        return Phrase("lever.clearance", pattern, { asChange(asWholeClearance(um)) });
    };
    add(by("pump end clearance {0}", -25), clearanceChange(build, sizes, now, "pump_end", -25),
        "the tips govern the slip");
    add(by("all mains {0}", -10), clearanceChange(build, sizes, now, "main", -10));
    add(by("big-ends {0}", -10), clearanceChange(build, sizes, now, "big_end", -10));
    if (const ShelfOil *thicker = nextThickerOil(build.oil.oil)) {
        Build changed = build;
        changed.oil = { std::string(thicker->grade), thicker->oil, thicker->hths_mpa_s };
        add("thicker oil: " + changed.oil.grade, hotIdleChange(changed, sizes, now, oil_c));
    }
    add({ "lever.cooler", "oil {0} cooler", { asTemperatureDifference(10) } },
        hotIdleChange(build, sizes, now, oil_c - 10));
    add({ "lever.section", "pump section {0}", { asChange(asShare(0.25)) } },
        hotIdleChange(withLongerRotors(build, 1.25), sizes, now, oil_c));
    if (std::any_of(build.engine.stops.begin(), build.engine.stops.end(), [](const Stop &stop) {
            return stop.kind == StopKind::Relief && !stop.elements.empty();
        }))
        add({ "lever.spring", "relief spring {0}", { asChange(asPressure(1e5, 1)) } },
            hotIdleChange(withStifferSpring(build, 100), sizes, now, oil_c), "nothing: still shut");
}

/// Hot and at the highest speed, cool at the highest speed, and at the coldest start idling and
/// fast.
void fillSuction(const Build &build, const std::vector<GaugedSize> &sizes, Predicted &out)
{
    const auto pump = std::ranges::find(build.circuit.elements, ElementKind::Pump, &Element::kind);
    if (pump == build.circuit.elements.end())
        return;
    const Use &use = build.use;
    const bool unknown = reliefReturnOf(build) == ReliefReturn::Unknown;
    const CircuitChange toSump = [](Circuit &circuit, Oil &) -> Result<void> {
        leadRelief(circuit, true);
        return {};
    };
    std::map<double, OperatingModel> others;
    std::map<double, OperatingModel> &models = unknown ? others : out.models;
    const std::array wanted { std::pair(use.hotOil_c, use.most_rpm),
                              std::pair(coldForecast_c, use.most_rpm),
                              std::pair(use.coldestStart_c, use.hotIdle_rpm),
                              std::pair(use.coldestStart_c, fast_rpm) };
    for (const auto &[oil_c, rpm] : wanted) {
        auto at = models.find(oil_c);
        if (at == models.end()) {
            auto made
                = OperatingModel::make(build, sizes, oil_c, unknown ? toSump : CircuitChange());
            if (!made)
                continue;
            at = models.emplace(oil_c, std::move(*made)).first;
        }
        OperatingModel &model = at->second;
        if (const auto p = model.pressures(rpm, model.oil(), std::array { pump->from }))
            out.operating.suction.push_back({ rpm, oil_c, p->front() });
    }
}

} // namespace

std::vector<double> forecastSpeeds(const Build &build)
{
    std::vector<double> out;
    const double from = std::min(build.use.hotIdle_rpm, 600.0);
    for (int i = 0; i < speeds; ++i)
        out.push_back(from + (build.use.most_rpm - from) * i / (speeds - 1));
    return out;
}

Result<std::vector<ForecastLine>> forecastLines(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                const std::vector<double> &oil_c,
                                                const std::vector<double> &rpm,
                                                const CircuitChange &change)
{
    std::vector<ForecastLine> out;
    for (const double t : oil_c) {
        auto model = OperatingModel::make(build, sizes, t, change);
        if (!model)
            return tl::unexpected(model.error());
        auto line = lineAt(*model, t, rpm);
        if (!line)
            return tl::unexpected(line.error());
        out.push_back(std::move(*line));
    }
    return out;
}

Result<std::vector<ForecastLine>> finerForecast(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                const Forecast &coarse, int speeds)
{
    if (coarse.lines.empty())
        return std::vector<ForecastLine> {};
    std::vector<double> rpm, oil_c;
    const double from = coarse.lines.front().rpm.front(), to = coarse.lines.front().rpm.back();
    for (int i = 0; i < speeds; ++i)
        rpm.push_back(from + (to - from) * i / (speeds - 1));
    for (const ForecastLine &line : coarse.lines)
        oil_c.push_back(line.oil_c);
    auto out = forecastLines(build, sizes, oil_c, rpm);
    if (out)
        for (size_t i = 0; i < out->size(); ++i)
            (*out)[i].reliefOpens_rpm = coarse.lines[i].reliefOpens_rpm;
    return out;
}

Predicted predict(const Build &build, const std::vector<GaugedSize> &sizes)
{
    Predicted out;
    Operating &operating = out.operating;
    const double hot_c = build.use.hotOil_c;
    const std::array temperatures { coldForecast_c, hot_c, hot_c + hotterBy_k };
    for (const double t : temperatures) {
        auto made = OperatingModel::make(build, sizes, t);
        if (!made) {
            operating.unsolved = made.error();
            return out;
        }
        OperatingModel &model = out.models.emplace(t, std::move(*made)).first->second;
        auto line = lineAt(model, t, forecastSpeeds(build));
        if (!line) {
            operating.unsolved = line.error();
            return out;
        }
        out.forecast.lines.push_back(std::move(*line));
        if (t != hot_c)
            continue;
        // From the end of the line backwards: each starts close to where the last one ended.
        auto most = model.at(build.use.most_rpm);
        auto fast = model.at(build.use.highSpeed_rpm);
        auto idle = model.at(build.use.hotIdle_rpm);
        for (const auto *r : { &most, &fast, &idle })
            if (!*r) {
                operating.unsolved = r->error();
                return out;
            }
        operating.mostSpeed = std::move(*most);
        operating.hotIdle = std::move(*idle);
        operating.highSpeed = std::move(*fast);
        fillLevers(build, sizes, { model.state(), operating.hotIdle.gauge.value_pa }, out.forecast);
        fillOtherOils(build, sizes, model, out.forecast);
    }
    fillSuction(build, sizes, out);
    return out;
}

} // namespace mildpath
