// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/dressing.h"

#include "assess/circuitof.h"
#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

Result<DressingPlan> dressingPlan(const Build &build, const std::vector<GaugedSize> &sizes)
{
    size_t index = sizes.size();
    for (size_t i = 0; i < sizes.size(); ++i)
        if (sizes[i].family == "pump_end")
            index = i;
    const Stop *pump = build.engine.ofKind(StopKind::Pump);
    if (index == sizes.size() || !pump)
        return fail("pump", "there is no pump whose end clearance could be dressed");
    const GaugedSize &end = sizes[index];
    // Each point begins where the last one ended: they lie close together.
    std::optional<OperatingModel> former;
    const auto at = [&](double end_um) -> Result<DressingPoint> {
        std::vector<GaugedSize> moved = sizes;
        moved[index].circuit_um = end_um;
        auto model = OperatingModel::make(build, moved, build.use.hotOil_c);
        if (!model)
            return tl::unexpected(model.error());
        if (former)
            model->startFrom(*former);
        const auto r = model->at(build.use.hotIdle_rpm, OperatingModel::Detail::Values);
        if (!r)
            return tl::unexpected(r.error());
        former = std::move(*model);
        return DressingPoint { end_um, r->gauge.value_pa, r->weakestPressure.value_pa };
    };
    DressingPlan out;
    const double now = end.cold_um.value;
    // What the blade may have read too wide is not there to be taken.
    const double least
        = std::max(rotorsBind_um, end.limits && end.limits->min_um > 0 ? end.limits->min_um : 0.0)
        + (end.measured ? end.cold_um.expanded() : 0);
    out.score_um = pump->value("body_score_um");
    constexpr int steps = 12;
    // A little past where rotors may bind, so that the forbidden side is seen too.
    const double last = std::min(now, rotorsBind_um / 2);
    for (int i = 0; i <= steps; ++i) {
        const auto p = at(now + (last - now) * i / steps);
        if (!p)
            return tl::unexpected(p.error());
        out.points.push_back(*p);
    }
    out.now = out.points.front();
    out.stop = out.now;
    out.why = "it is close enough: dressing could only make the rotors bind";
    if (now > least) {
        out.why = "the least that surely keeps the rotors free";
        while (out.stop.end_um > least) {
            const auto next = at(std::max(least, out.stop.end_um - 5));
            if (!next)
                return tl::unexpected(next.error());
            const double gain = (next->gauge_pa - out.stop.gauge_pa) / out.stop.gauge_pa * 10
                / (out.stop.end_um - next->end_um);
            // Scores want taking off even where the clearance alone buys nothing.
            if (gain < dressingWorth && now - out.stop.end_um >= out.score_um) {
                out.why = { "dress.enough",
                            "a further {0} would buy less than {1} of hot idle",
                            { asWholeClearance(10), asShare(dressingWorth, 1) } };
                break;
            }
            out.stop = *next;
        }
    }
    out.scoreLeft_um = std::max(0.0, out.score_um - out.take_um());
    return out;
}

std::vector<PumpOption> pumpOptions(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const DressingPlan *plan)
{
    std::vector<PumpOption> out;
    std::optional<OperatingModel> former;
    const auto add = [&](const Phrase &name, const Build &changed,
                         const std::vector<GaugedSize> &with) {
        auto model = OperatingModel::make(changed, with, changed.use.hotOil_c);
        if (!model)
            return;
        if (former)
            model->startFrom(*former);
        const auto fast = model->at(changed.use.highSpeed_rpm, OperatingModel::Detail::Everything);
        const auto idle = model->at(changed.use.hotIdle_rpm, OperatingModel::Detail::Values);
        if (!idle || !fast)
            return;
        former = std::move(*model);
        PumpOption o { name, idle->gauge.value_pa, pumpPower_w(changed, *fast), "" };
        if (fast->reliefOpen())
            o.remark = { "pump.relief_open",
                         "relief valve open at {0}: the rest only stirs and warms",
                         { asSpeed(changed.use.highSpeed_rpm) } };
        out.push_back(std::move(o));
    };
    add("as it is", build, sizes);
    const auto sized = [&](const std::map<std::string, double> &um) {
        std::vector<GaugedSize> moved = sizes;
        for (GaugedSize &s : moved)
            if (const auto it = um.find(s.family); it != um.end())
                s.circuit_um = it->second;
        return moved;
    };
    if (plan && plan->take_um() > 0.5)
        add({ "pump.dressed", "dressed to {0}", { asWholeClearance(plan->stop.end_um) } }, build,
            sized({ { "pump_end", plan->stop.end_um } }));
    std::map<std::string, double> fresh;
    for (const char *family : { "pump_tip", "pump_end", "pump_body" })
        if (const auto l = build.limits.find(family); l != build.limits.end())
            fresh[family] = l->second.min_um + (l->second.max_um - l->second.min_um) / 4;
    add("new rotors, a quarter into the limits", build, sized(fresh));
    add({ "pump.longer", "rotors {0} longer", { asShare(0.25) } }, withLongerRotors(build, 1.25),
        sizes);
    const Phrase stiffer { "pump.stiffer", "spring {0}", { asChange(asPressure(1e5, 1)) } };
    add(stiffer, withStifferSpring(build, 100), sizes);
    if (!out.empty() && out.back().name == stiffer
        && std::abs(out.back().gauge_pa - out.front().gauge_pa) < 50)
        out.back().remark = "the relief is shut at hot idle: a stiffer spring cannot help there";
    return out;
}

PumpStudy studyPump(const Build &build, const std::vector<GaugedSize> &sizes)
{
    PumpStudy out { dressingPlan(build, sizes), {} };
    out.options = pumpOptions(build, sizes, out.plan ? &*out.plan : nullptr);
    return out;
}

} // namespace mildpath
