// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/operating.h"

#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "document/logbook.h"
#include "rules/rules.h"

#include <algorithm>

namespace mildpath {

Mark markAgainst(const LikelyPressure &pressure, double least_pa)
{
    if (pressure.value_pa < least_pa)
        return Mark::Hold;
    return pressure.low_pa < least_pa ? Mark::LookAgain : Mark::Proven;
}

const PointPressure *OperatingResult::leastFed() const
{
    const PointPressure *least = nullptr;
    for (const PointPressure &p : points)
        if (p.column_pa != 0 && (!least || p.fedShare < least->fedShare))
            least = &p;
    return least;
}

double OperatingResult::bigEndsOfCrank() const
{
    double mains = 0, bigEnds = 0;
    for (const OilShare &s : shares) {
        if (s.id == "mains")
            mains = s.flow_m3_s;
        if (s.id == "big_ends")
            bigEnds = s.flow_m3_s;
    }
    return mains + bigEnds > 0 ? bigEnds / (mains + bigEnds) : 0;
}

double pumpPower_w(const Build &build, const OperatingResult &result)
{
    const Stop *pump = build.engine.ofKind(StopKind::Pump);
    const Element *e
        = pump && !pump->elements.empty() ? build.circuit.find(pump->elements.front()) : nullptr;
    const auto outlet = e ? result.nodePressure_pa.find(e->to) : result.nodePressure_pa.end();
    return outlet == result.nodePressure_pa.end()
        ? 0
        : outlet->second * result.sweptFlow_m3_s / pumpEfficiency;
}

Result<OperatingResult> assessAt(const Build &build, const std::vector<GaugedSize> &sizes,
                                 const Turned &turned, double oil_c, const CircuitChange &change)
{
    auto model = OperatingModel::make(build, sizes, oil_c, change);
    if (!model)
        return tl::unexpected(model.error());
    return model->at(turned);
}

Result<OperatingResult> hotIdleAlone(const Build &build)
{
    return hotIdleWith(build, judgeSizes(build), {});
}

Result<OperatingResult> hotIdleWith(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const std::map<size_t, double> &cold_um)
{
    std::vector<GaugedSize> changed = sizes;
    for (const auto &[index, um] : cold_um)
        changed[index].circuit_um = um;
    auto model = OperatingModel::make(build, changed, build.use.hotOil_c);
    if (!model)
        return tl::unexpected(model.error());
    return model->at(build.use.hotIdle_rpm, OperatingModel::Detail::Values);
}

double pumpDriveRatio(const Build &build)
{
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::Pump)
            return std::max(0.01, e.value("drive_ratio"));
    return 0;
}

PrimeTurn primeTurn(const Build &build)
{
    PrimeTurn out;
    out.drill = choiceOf(build, question::primeBy) != "starter";
    if (const double ratio = pumpDriveRatio(build); ratio > 0) {
        const Start &s = build.start;
        out.shaft_rpm = out.drill ? *s.value("drill_rpm") : *s.value("starter_rpm") * ratio;
        out.crank_rpm = out.shaft_rpm / ratio;
    }
    return out;
}

Turned turnedAt(const Build &build, double rpm, bool byDrill)
{
    if (!byDrill)
        return rpm;
    const double ratio = pumpDriveRatio(build);
    return { ratio > 0 ? rpm / ratio : 0, true };
}

bool wasRunning(const Build &build, const GaugeReading &reading)
{
    constexpr double runsFrom = 0.5; // of hot idle
    return !reading.byDrill && reading.rpm > runsFrom * build.use.hotIdle_rpm;
}

Phrase turnedText(const Build &build, const OperatingResult &result)
{
    return turnedText(result.pumpAlone ? result.rpm * pumpDriveRatio(build) : result.rpm,
                      result.pumpAlone);
}

double primeOil_c(const Build &build)
{
    return build.start.own("oil_temp_c").value_or(build.heat.surroundings_c);
}

} // namespace mildpath
