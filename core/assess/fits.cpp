// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/fits.h"

#include "assess/crankfeeds.h"

#include "assess/circuitof.h"
#include "assess/sizes.h"
#include "bearing/feed.h"
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
    if (const Stop *pump = build.engine.ofKind(StopKind::Pump))
        out.push_back(scoringVerdict(sizes, *pump));
    if (const Stop *relief = build.engine.ofKind(StopKind::Relief))
        out.push_back(springVerdict(*relief));
    if (const Stop *pickup = build.engine.ofKind(StopKind::Pickup)) {
        out.push_back(ringVerdict(*pickup));
        out.push_back(gapVerdict(*pickup));
    }
    return out;
}

std::optional<double> feedShareOfTurn(const Build &build, const Stop &main)
{
    if (!grooveEntered(main) || main.points.empty())
        return std::nullopt;
    double drilling_mm = 0;
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::CrankDrilling && e.from == main.points.front().node)
            drilling_mm = e.value("d_mm");
    if (drilling_mm == 0)
        return std::nullopt;
    const MainGroove groove = mainGroove(build, main);
    return std::min(
        1.0,
        groove.mouths
            * mouthShareOfTurn(groove, journalOf_mm(build, main) / 2 * 1e-3, drilling_mm * 1e-3));
}

std::vector<FeedHole> judgeFeedHoles(const Build &build)
{
    std::vector<FeedHole> out;
    for (const Stop &stop : build.engine.stops) {
        if (stop.kind != StopKind::Main || !stop.has("shell_hole_mm") || !stop.has("block_hole_mm"))
            continue;
        const HoleOverlap o
            = holeOverlap(stop.value("block_hole_mm") * 1e-3, stop.value("shell_hole_mm") * 1e-3,
                          stop.value("hole_offset_mm") * 1e-3);
        FeedHole f;
        f.stop = stop.id;
        f.openArea_mm2 = o.area_m2 * 1e6;
        f.openShare = o.ofSmaller;
        const Element *drilling = feedDrilling(build, stop);
        const double d = drilling ? drilling->value("d_mm") * 1e-3 : 0;
        f.ofDrilling = d > 0 ? std::min(1.0, o.area_m2 / (pi / 4 * d * d)) : o.ofSmaller;
        const auto open = [&](std::string_view pattern) {
            return Phrase("feed.open", pattern, { asShare(o.ofSmaller) });
        };
        if (o.ofSmaller >= feedShareFine) {
            f.mark = Mark::Proven;
            f.verdict = open("feed hole {0} of the smaller hole open");
        } else {
            f.mark = Mark::LookAgain;
            f.verdict = open(o.ofSmaller >= feedShareLeast
                                 ? "only {0} of the smaller hole open; no pressure gauge shows it"
                                 : "only {0} of the smaller hole open; what is left can close and "
                                   "starves the rod behind it");
            f.next = "Goggles. Close the oil holes, file to match, deburr, clean again. Block: if "
                     "unsure, qualified shop";
        }
        out.push_back(std::move(f));
    }
    return out;
}

} // namespace mildpath
