// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/feed.h"
#include "calc/inputs.h"

#include <array>

namespace mildpath {
namespace {

constexpr CalcInput eccentricityRatio
    = within(optional(notNegative("eccentricity_ratio", "eccentricity ratio", ""), 0), 0, 0.99);
constexpr CalcInput sideFlow = optional(
    notNegative("side_flow_l_min", "hydrodynamic side leakage at this eccentricity", "l/min"), 0);
constexpr CalcInput clearance
    = positive("diametral_clearance_um", "diametral clearance, running", "µm");
constexpr CalcInput viscosity = positive("viscosity_pa_s", "dynamic viscosity", "Pa·s");
constexpr CalcInput pressure = notNegative("pressure_kpa", "pressure at the feed, gauge", "kPa");

/// A bearing as the keys give it; a hole does not ask for the journal.
FedBearing bearingOf(const CalcArguments &in, double journal_m)
{
    return { .journalDiameter_m = journal_m,
             .length_m = in.mm("bearing_length_mm"),
             .clearance = { in.um("diametral_clearance_um") },
             .viscosity_pa_s = in.number("viscosity_pa_s"),
             .pressure_pa = in.kpa("pressure_kpa"),
             .eccentricityRatio = in.number("eccentricity_ratio"),
             .sideFlow_m3_s = in.number("side_flow_l_min") / litresPerMinute };
}

constexpr std::array grooveInputs {
    CalcInput { .key = "type",
                .meaning = "how the groove runs",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "circumferential|axial" },
    length("journal_diameter_mm", "journal diameter"),
    length("bearing_length_mm", "whole bearing length"),
    CalcInput { .key = "groove_axial_mm",
                .meaning = "width of the groove along the axis",
                .unit = "mm",
                .least = 0 },
    optional(length("groove_arc_mm", "length of an axial groove along the circumference")),
    clearance,
    viscosity,
    pressure,
    eccentricityRatio,
    sideFlow,
    CalcInput { .key = "center_from_max_film_deg",
                .meaning = "middle of the groove from the maximum film, in rotation",
                .unit = "°",
                .required = false,
                .fallback = 0 },
    CalcInput { .key = "extent_deg",
                .meaning = "arc of a circumferential groove: up to 300, or 360",
                .unit = "°",
                .required = false,
                .fallback = 360,
                .least = 0,
                .most = 360,
                .aboveLeast = true },
};
constexpr std::array grooveOutputs {
    CalcOutput { "pressure_flow_l_min", "by supply pressure", "l/min" },
    CalcOutput { "end_flow_l_min", "of that, over the groove's ends", "l/min" },
    CalcOutput { "total_flow_l_min", "with what rotation draws", "l/min" },
};

Result<Json> runGrooveFlow(const CalcArguments &in)
{
    const FedBearing b = bearingOf(in, in.mm("journal_diameter_mm"));
    const double centre = in.number("center_from_max_film_deg");
    Result<FeedFlow> flow;
    if (in.text("type") == "axial") {
        if (!in.has("groove_arc_mm"))
            return fail("groove_arc_mm", "is missing with type axial");
        if (in.has("extent_deg"))
            return fail("extent_deg", "belongs to a circumferential groove");
        flow = axialGrooveFlow(b, in.mm("groove_axial_mm"), in.mm("groove_arc_mm"), centre);
    } else {
        if (in.has("groove_arc_mm"))
            return fail("groove_arc_mm", "belongs to an axial groove");
        flow = grooveFlow(b, in.mm("groove_axial_mm"), in.number("extent_deg"), centre);
    }
    if (!flow)
        return tl::unexpected(flow.error());
    return Json { { "pressure_flow_l_min", flow->pressure_m3_s * litresPerMinute },
                  { "end_flow_l_min", flow->ends_m3_s * litresPerMinute },
                  { "total_flow_l_min", flow->total_m3_s * litresPerMinute } };
}

constexpr std::array holeInputs {
    length("bearing_length_mm", "bearing length"),
    length("hole_diameter_mm", "feed hole, at most 0.8 of the length"),
    clearance,
    viscosity,
    pressure,
    eccentricityRatio,
    CalcInput { .key = "angle_from_max_film_deg",
                .meaning = "hole from the maximum film, in rotation",
                .unit = "°",
                .required = false,
                .fallback = 0 },
    sideFlow,
};
constexpr std::array holeOutputs {
    CalcOutput { "film_at_hole_um", "film thickness at the hole", "µm" },
    CalcOutput { "pressure_flow_l_min", "by supply pressure", "l/min" },
    CalcOutput { "total_flow_l_min", "with what rotation draws; ± 30 %", "l/min" },
};

Result<Json> runHoleFlow(const CalcArguments &in)
{
    const auto flow = holeFlow(bearingOf(in, 0), in.mm("hole_diameter_mm"),
                               in.number("angle_from_max_film_deg"));
    if (!flow)
        return tl::unexpected(flow.error());
    return Json { { "film_at_hole_um", flow->filmAtHole_m * 1e6 },
                  { "pressure_flow_l_min", flow->pressure_m3_s * litresPerMinute },
                  { "total_flow_l_min", flow->total_m3_s * litresPerMinute } };
}

constexpr std::array overlapInputs {
    length("hole1_diameter_mm", "one hole"),
    length("hole2_diameter_mm", "the other hole"),
    notNegative("offset_mm", "between their centres", "mm"),
    optional(notNegative("pressure_drop_kpa", "pressure drop across", "kPa")),
    within(optional(positive("discharge_coefficient", "discharge coefficient", ""), 0.6), 0, 1),
    optional(positive("density_kg_m3", "density", "kg/m³"), 850),
};
constexpr std::array overlapOutputs {
    CalcOutput { "overlap_area_mm2", "area open to oil", "mm²" },
    CalcOutput { "fraction_of_smaller", "of the smaller hole", "" },
    CalcOutput { "equivalent_diameter_mm", "round hole of that area", "mm" },
    CalcOutput { "orifice_flow_l_min", "through a sharp edge of that area; with a drop", "l/min" },
};

Result<Json> runFeedOverlap(const CalcArguments &in)
{
    const HoleOverlap o
        = holeOverlap(in.mm("hole1_diameter_mm"), in.mm("hole2_diameter_mm"), in.mm("offset_mm"));
    Json out { { "overlap_area_mm2", o.area_m2 * 1e6 },
               { "fraction_of_smaller", o.ofSmaller },
               { "equivalent_diameter_mm", o.equivalentDiameter_m * 1e3 } };
    if (in.has("pressure_drop_kpa"))
        out["orifice_flow_l_min"]
            = sharpOrificeFlow_m3_s(o.area_m2, in.kpa("pressure_drop_kpa"),
                                    in.number("discharge_coefficient"), in.number("density_kg_m3"))
            * litresPerMinute;
    return out;
}

} // namespace

const Calculator grooveFlowCalculator {
    "groove-flow",
    "Oil through a bearing's groove",
    "What a grooved bearing passes, by supply pressure and with rotation",
    "360°: π r c³ p (1 + 1.5 ε²)/(3 μ l);  arc: p/(12 μ) [2 r c³ I/l + 2 k (h1³ + h2³)];  axial: "
    "(p h³/μ)[(1.25 − 0.25 w/L)/(3 (L/w − 1)^⅓) + (b/L)/(3 (1 − w/L))]",
    "textbook (full groove); F. A. Martin in Stachowiak and Batchelor, Engineering Tribology, ch. "
    "4, "
    "from memory; arc's exponent fitted to a mass-conserving solution",
    grooveInputs,
    grooveOutputs,
    runGrooveFlow
};

const Calculator holeFlowCalculator {
    "hole-flow",
    "Oil through a bearing's feed hole",
    "What a plain bearing with one feed hole passes; ± 30 %",
    "Qp = 0.675 (p h³/μ)(d/L + 0.4)^1.75;  Q = max(Qs^0.6 Qp^0.4, Qp)",
    "F. A. Martin in Stachowiak and Batchelor, Engineering Tribology, ch. 4, from memory",
    holeInputs,
    holeOutputs,
    runHoleFlow
};

const Calculator feedOverlapCalculator {
    "feed-overlap",
    "Feed holes that do not line up",
    "How much of the shell's hole is open to the drilling behind it",
    "A = r1² acos(…) + r2² acos(…) − ½ √(…) (lens of two circles);  Q = Cd A √(2 Δp/ρ)",
    "circle-circle intersection, textbook geometry; orifice equation, textbook",
    overlapInputs,
    overlapOutputs,
    runFeedOverlap
};

} // namespace mildpath
