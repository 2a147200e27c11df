// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/assessment.h"

#include "pump/relief.h"
#include "pump/suction.h"
#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

FitVerdict springVerdict(const Stop &relief)
{
    FitVerdict out { "relief_spring",
                     relief.id,
                     Mark::NotDone,
                     "Relief spring not measured",
                     "the setting is the circuit's",
                     "Measure spring and plunger" };
    const auto setting = springSetting(relief);
    if (!setting)
        return out;
    if (!*setting) {
        out.mark = Mark::Hold;
        out.title = "Relief spring cannot work";
        out.detail = setting->error().message;
        out.next = "Measure again; another spring";
        return out;
    }
    const ReliefSetting &s = **setting;
    out.mark = Mark::Proven;
    out.title = { "fit.relief", "Relief valve opens at {0}", { asPressure(s.crack_pa, 1) } };
    out.detail
        = { "fit.relief_detail",
            "fully open at {0}; a {1} shim adds {2}",
            { asPressure(s.full_pa, 1), asLength(1), asPressure(s.perShim_pa_per_m / 1e3) } };
    out.next = "";
    if (s.coilClearance_m < 1e-3 && relief.has("solid_length_mm")) {
        out.mark = Mark::LookAgain;
        out.detail = { "fit.coils",
                       "only {0} between the coils when fully open",
                       { asLength(s.coilClearance_m * 1e3) } };
        out.next = "A longer or thinner-wired spring";
    }
    return out;
}

FitVerdict ringVerdict(const Stop &pickup)
{
    FitVerdict out { "oring",
                     pickup.id,
                     Mark::NotDone,
                     "Pickup O-ring not measured",
                     "",
                     "Measure the ring's section and the depth of its gland" };
    if (!pickup.has("oring_section_mm") || !pickup.has("gland_depth_mm"))
        return out;
    ORing ring { pickup.value("oring_section_mm") * 1e-3,
                 pickup.value("gland_depth_mm") * 1e-3,
                 pickup.value("oring_stretch"),
                 pickup.value("oring_set"),
                 {} };
    if (pickup.has("gland_width_mm"))
        ring.grooveWidth_m = pickup.value("gland_width_mm") * 1e-3;
    const ORingFit f = oRingFit(ring);
    out.title = { "fit.oring", "O-ring squeeze {0}", { asShare(f.squeezeAfterSet) } };
    const Phrase proud { "fit.oring_proud",
                         "stands {0} proud of its groove when new",
                         { asLength((f.stretchedSection_m - ring.gland_m) * 1e3, 2) } };
    out.detail = proud;
    out.next = "";
    out.mark = Mark::Proven;
    if (f.verdict == "no_seal" || f.verdict == "high") {
        out.mark = Mark::Hold;
        out.detail = joinedBy({ proud, "the joint may pass air above the oil level" }, "{*|; }");
        out.next = "A new ring; a used pickup ring is never used again";
    } else if (f.verdict != "ok") {
        out.mark = Mark::LookAgain;
        out.detail = joinedBy(
            { proud, f.verdict == "watch" ? "little is left" : "more than the groove holds" },
            "{*|; }");
        out.next = "Check ring and gland against each other";
    }
    return out;
}

FitVerdict gapVerdict(const Stop &pickup)
{
    FitVerdict out { "pickup_gap",
                     pickup.id,
                     Mark::NotDone,
                     "Pickup to floor not measured",
                     "",
                     "Measure mouth to floor: a lump of clay under the pan's bolts shows it" };
    if (!pickup.has("pickup_gap_mm") || !pickup.has("pickup_bore_mm"))
        return out;
    const double bore = pickup.value("pickup_bore_mm");
    const double mouth = pickup.value("pickup_mouth_mm", bore), gap = pickup.value("pickup_gap_mm");
    out.title = { "fit.gap", "Pickup {0} off the pan floor", { asLength(gap) } };
    if (!(gap > 0)) {
        out.mark = Mark::Hold;
        out.detail = "it stands on the floor";
        out.next = "Raise it to a quarter to half its bore";
        return out;
    }
    const auto g = pickupGap(bore * 1e-3, mouth * 1e-3, gap * 1e-3, std::nullopt, 850);
    if (!g) {
        out.mark = Mark::LookAgain;
        out.detail = { "", "the mouth {0}", { g.error().message } };
        out.next = "Measure the mouth again";
        return out;
    }
    const Phrase rule { "fit.gap_rule",
                        "a quarter to half its bore is {0} (common practice)",
                        { QuantityRange { asLength(g->ruleLeast_m * 1e3, 1),
                                          asLength(g->ruleMost_m * 1e3, 1) } } };
    out.detail = rule;
    out.next = "";
    out.mark = Mark::Proven;
    if (g->verdict == "tight") {
        out.mark = Mark::Hold;
        out.detail = joinedBy({ "passes less than its bore", rule }, "{*|; }");
        out.next = "Raise the pickup";
    } else if (g->verdict == "wide") {
        out.mark = Mark::LookAgain;
        out.detail = joinedBy({ "needs more oil over its mouth", rule }, "{*|; }");
        out.next = "Lower the pickup, or keep the level high";
    }
    return out;
}

FitVerdict scoringVerdict(const std::vector<GaugedSize> &sizes, const Stop &pump)
{
    FitVerdict out { "scoring",
                     pump.id,
                     Mark::NotDone,
                     "Scoring not looked at",
                     "",
                     "Measure the deepest score in body and cover" };
    if (!pump.has("body_score_um") && !pump.has("cover_score_um"))
        return out;
    const double body = pump.value("body_score_um"), cover = pump.value("cover_score_um");
    out.mark = Mark::LookAgain;
    out.next = "Dress the faces to the plan, then enter what is left";
    out.title = { "fit.scored", "Scored {0} deep", { asWholeClearance(std::max(body, cover)) } };
    double end = 0;
    for (const GaugedSize &s : sizes)
        if (s.family == "pump_end")
            end = s.cold_um.value;
    const double canTake = std::max(0.0, end - rotorsBind_um);
    out.detail = { "fit.can_lose",
                   "body can lose {0} before rotors may bind",
                   { asWholeClearance(canTake) } };
    if (body <= 0 && cover <= 0) {
        out = { "scoring", pump.id, Mark::Proven, "Faces not scored", "", "" };
    } else if (body > canTake || cover > pump.value("cover_spare_um", cover)) {
        out.detail = body > canTake
            ? Phrase("fit.too_deep",
                     "the body's scores go deeper than the {0} it can lose: some stays",
                     { asWholeClearance(canTake) })
            : Phrase("the cover's scores go deeper than the metal it can lose");
        out.next = "Dress to the plan and leave the rest; or another part";
    }
    return out;
}

} // namespace

std::vector<FitVerdict> judgeFits(const Build &build, const std::vector<GaugedSize> &sizes)
{
    std::vector<FitVerdict> out;
    if (const Stop *pump = build.engine.ofKind("pump"))
        out.push_back(scoringVerdict(sizes, *pump));
    if (const Stop *relief = build.engine.ofKind("relief"))
        out.push_back(springVerdict(*relief));
    if (const Stop *pickup = build.engine.ofKind("pickup")) {
        out.push_back(ringVerdict(*pickup));
        out.push_back(gapVerdict(*pickup));
    }
    return out;
}

Result<DressingPlan> dressingPlan(const Build &build, const Assessment &assessment)
{
    size_t index = assessment.sizes.size();
    for (size_t i = 0; i < assessment.sizes.size(); ++i)
        if (assessment.sizes[i].family == "pump_end")
            index = i;
    const Stop *pump = build.engine.ofKind("pump");
    if (index == assessment.sizes.size() || !pump)
        return fail("pump", "there is no pump whose end clearance could be dressed");
    const GaugedSize &end = assessment.sizes[index];
    // Each point begins where the last one ended: they lie close together.
    std::optional<OperatingModel> former;
    const auto at = [&](double end_um) -> Result<DressingPoint> {
        std::vector<GaugedSize> sizes = assessment.sizes;
        sizes[index].circuit_um = end_um;
        auto model = OperatingModel::make(build, sizes, build.use.hotOil_c);
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

std::vector<PumpOption> pumpOptions(const Build &build, const Assessment &assessment,
                                    const DressingPlan *plan)
{
    std::vector<PumpOption> out;
    std::optional<OperatingModel> former;
    const auto add = [&](const Phrase &name, const Build &changed,
                         const std::vector<GaugedSize> &sizes) {
        auto model = OperatingModel::make(changed, sizes, changed.use.hotOil_c);
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
    add("as it is", build, assessment.sizes);
    const auto sized = [&](const std::map<std::string, double> &um) {
        std::vector<GaugedSize> sizes = assessment.sizes;
        for (GaugedSize &s : sizes)
            if (const auto it = um.find(s.family); it != um.end())
                s.circuit_um = it->second;
        return sizes;
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
        assessment.sizes);
    const Phrase stiffer { "pump.stiffer", "spring {0}", { asChange(asPressure(1e5, 1)) } };
    add(stiffer, withStifferSpring(build, 100), assessment.sizes);
    if (!out.empty() && out.back().name == stiffer
        && std::abs(out.back().gauge_pa - out.front().gauge_pa) < 50)
        out.back().remark = "the relief is shut at hot idle: a stiffer spring cannot help there";
    return out;
}

} // namespace mildpath
