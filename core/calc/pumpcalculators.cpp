// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "pump/relief.h"
#include "pump/suction.h"
#include "quantity/types.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array springInputs {
    length("plunger_d_mm", "plunger diameter"),
    positive("spring_rate_n_per_mm", "spring rate", "N/mm"),
    length("free_length_mm", "free length"),
    length("fitted_length_mm", "fitted length, valve shut, no shim"),
    optional(notNegative("shim_mm", "shim added", "mm"), 0),
    optional(notNegative("uncover_mm", "travel before the port opens", "mm"), 0),
    length("full_lift_mm", "further travel to fully open"),
    optional(notNegative("solid_length_mm", "length coil on coil; 0: not measured", "mm"), 0),
};
constexpr std::array springOutputs {
    CalcOutput { "preload_n", "force on the seat", "N" },
    CalcOutput { "crack_kpa", "begins to open", "kPa" },
    CalcOutput { "full_kpa", "fully open", "kPa" },
    CalcOutput { "kpa_per_mm_shim", "what a shim adds", "kPa/mm" },
    CalcOutput { "coil_clearance_mm", "left between the coils when open", "mm" },
};

Result<Json> runReliefSetting(const CalcArguments &in)
{
    const auto s = reliefSetting({ .plunger_m = in.mm("plunger_d_mm"),
                                   .rate_n_per_m = in.number("spring_rate_n_per_mm") * 1e3,
                                   .free_m = in.mm("free_length_mm"),
                                   .fitted_m = in.mm("fitted_length_mm"),
                                   .shim_m = in.mm("shim_mm"),
                                   .uncover_m = in.mm("uncover_mm"),
                                   .lift_m = in.mm("full_lift_mm"),
                                   .solid_m = in.mm("solid_length_mm") });
    if (!s)
        return tl::unexpected(s.error());
    return Json { { "preload_n", s->preload_n },
                  { "crack_kpa", s->crack_pa / 1e3 },
                  { "full_kpa", s->full_pa / 1e3 },
                  { "kpa_per_mm_shim", s->perShim_pa_per_m / 1e6 },
                  { "coil_clearance_mm", s->coilClearance_m * 1e3 } };
}

constexpr std::array ringInputs {
    length("section_mm", "section of the new ring"),
    length("gland_depth_mm", "depth of the gland"),
    within(optional(notNegative("stretch", "stretch of the ring's length, fraction", ""), 0), 0,
           0.5),
    within(optional(notNegative("compression_set", "compression set, fraction", ""), 0), 0, 1.5),
    optional(length("groove_width_mm", "width of the groove")),
};
constexpr std::array ringOutputs {
    CalcOutput { "section_stretched_mm", "section when stretched", "mm" },
    CalcOutput { "squeeze_percent", "squeeze when new", "%" },
    CalcOutput { "section_after_set_mm", "section after set", "mm" },
    CalcOutput { "squeeze_after_set_percent", "squeeze left after set", "%" },
    CalcOutput { "gland_fill_percent", "of the gland's section; with a groove width", "%" },
    CalcOutput { "verdict", "ok, watch, high, no_seal, over_squeezed or overfilled_groove", "" },
};

Result<Json> runORingSqueeze(const CalcArguments &in)
{
    ORing ring { in.mm("section_mm"), in.mm("gland_depth_mm"), in.number("stretch"),
                 in.number("compression_set") };
    if (in.has("groove_width_mm"))
        ring.grooveWidth_m = in.mm("groove_width_mm");
    const ORingFit f = oRingFit(ring);
    Json out { { "section_stretched_mm", f.stretchedSection_m * 1e3 },
               { "squeeze_percent", f.squeeze * 100 },
               { "section_after_set_mm", f.sectionAfterSet_m * 1e3 },
               { "squeeze_after_set_percent", f.squeezeAfterSet * 100 } };
    if (f.glandFill)
        out["gland_fill_percent"] = *f.glandFill * 100;
    out["verdict"] = f.verdict;
    return out;
}

constexpr std::array setInputs {
    length("h0_mm", "height when new"),
    length("h1_mm", "height compressed (spacer or gland depth)"),
    length("h2_mm", "height recovered"),
};
constexpr std::array setOutputs {
    CalcOutput { "compression_set_percent", "compression set; may pass 100", "%" },
    CalcOutput { "squeeze_percent", "how far it was squeezed", "%" },
    CalcOutput { "verdict", "swollen, ok, watch or replace", "" },
};

Result<Json> runCompressionSet(const CalcArguments &in)
{
    const auto s = compressionSet(in.mm("h0_mm"), in.mm("h1_mm"), in.mm("h2_mm"));
    if (!s)
        return tl::unexpected(s.error());
    return Json { { "compression_set_percent", s->set * 100 },
                  { "squeeze_percent", s->squeeze * 100 },
                  { "verdict", s->verdict } };
}

constexpr std::array gapInputs {
    length("bore_mm", "bore of the pickup tube"),
    optional(length("mouth_diameter_mm", "diameter of the mouth; the bore if left out")),
    length("gap_mm", "mouth to floor"),
    optional(positive("flow_l_min", "flow drawn", "l/min")),
    optional(positive("density_kg_m3", "density", "kg/m³"), 850),
    optional(notNegative("loss_coefficient", "of the gap's velocity head", ""), 1.5),
};
constexpr std::array gapOutputs {
    CalcOutput { "area_ratio", "area in over area of the bore", "" },
    CalcOutput { "gap_equal_area_mm", "gap that passes as much as the bore", "mm" },
    CalcOutput { "rule_min_mm", "a quarter of the bore (common practice)", "mm" },
    CalcOutput { "rule_max_mm", "half the bore (common practice)", "mm" },
    CalcOutput { "verdict", "tight, ok or wide", "" },
    CalcOutput { "gap_velocity_m_s", "speed in the gap; with a flow", "m/s" },
    CalcOutput { "gap_loss_kpa", "loss in the gap; with a flow", "kPa" },
};

Result<Json> runPickupGap(const CalcArguments &in)
{
    std::optional<double> flow;
    if (in.has("flow_l_min"))
        flow = in.number("flow_l_min") / litresPerMinute;
    const double mouth
        = in.has("mouth_diameter_mm") ? in.mm("mouth_diameter_mm") : in.mm("bore_mm");
    const auto g = pickupGap(in.mm("bore_mm"), mouth, in.mm("gap_mm"), flow,
                             in.number("density_kg_m3"), in.number("loss_coefficient"));
    if (!g)
        return tl::unexpected(g.error());
    Json out { { "area_ratio", g->areaRatio },
               { "gap_equal_area_mm", g->equalAreaGap_m * 1e3 },
               { "rule_min_mm", g->ruleLeast_m * 1e3 },
               { "rule_max_mm", g->ruleMost_m * 1e3 },
               { "verdict", g->verdict } };
    if (g->velocity_m_s) {
        out["gap_velocity_m_s"] = *g->velocity_m_s;
        out["gap_loss_kpa"] = *g->loss_pa / 1e3;
    }
    return out;
}

} // namespace

const Calculator reliefSettingCalculator {
    "relief-setting-from-spring",
    "Relief setting from its spring",
    "Where the relief cracks and is fully open, from spring and plunger as measured",
    "x0 = free − fitted + shim;  crack = k (x0 + uncover)/A;  full = k (x0 + uncover + lift)/A",
    "force balance, textbook",
    springInputs,
    springOutputs,
    runReliefSetting
};

const Calculator oRingSqueezeCalculator {
    "oring-squeeze",
    "Squeeze of an O-ring",
    "Whether the pickup's ring still seals, new and after it has set",
    "w = w0/√(1 + s);  squeeze = (w − g)/w;  w' = w − C (w − g);  fill = (π w²/4)/(g b)",
    "constant rubber volume; ranges from seal handbooks, ISO 3601-2, from memory; verdict limits "
    "own "
    "choice",
    ringInputs,
    ringOutputs,
    runORingSqueeze
};

const Calculator compressionSetCalculator {
    "compression-set",
    "Compression set",
    "How much of its squeeze a used ring or gasket has lost",
    "C = (h0 − h2)/(h0 − h1)",
    "ISO 815-1; verdict limits own choice. A used pickup ring is never reused (common practice)",
    setInputs,
    setOutputs,
    runCompressionSet
};

const Calculator pickupGapCalculator {
    "pickup-gap",
    "Pickup above the floor",
    "Whether the gap under the pickup passes as much oil as its bore",
    "area ratio = 4 D gap/d²;  loss = K ρ v²/2, v = Q/(π D gap)",
    "geometry; a quarter to half the bore: common practice, no source; K assumed",
    gapInputs,
    gapOutputs,
    runPickupGap
};

} // namespace mildpath
