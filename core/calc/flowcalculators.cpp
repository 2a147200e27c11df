// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/feed.h"
#include "bearing/journalheat.h"
#include "bearing/shellform.h"
#include "calc/inputs.h"
#include "circuit/crankinflow.h"
#include "pump/delivery.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr CalcInput gauge(std::string_view key, std::string_view meaning)
{
    return { .key = key, .meaning = meaning, .unit = "kPa", .least = -101.3, .most = 100000 };
}
constexpr CalcInput size(std::string_view key, std::string_view meaning, double fallback)
{
    return optional(length(key, meaning), fallback);
}

constexpr std::array inflowInputs {
    within(notNegative("speed_rpm", "speed", "rev/min"), 0, 50000),
    length("main_radius_mm", "radius of the main journal"),
    length("pin_exit_radius_mm", "radius of the mouth at the pin"),
    length("drilling_diameter_mm", "bore of the crank's drilling"),
    length("drilling_length_mm", "its length"),
    positive("viscosity_pa_s", "dynamic viscosity", "Pa·s"),
    gauge("main_kpa", "pressure at the main"),
    optional(positive("density_kg_m3", "density", "kg/m³"), 850),
    optional(notNegative("loss_k", "loss coefficient of entry, exit, bends", ""), 2.5),
    optional(
        within(notNegative("r_min_mm", "nearest the drilling comes to the axis", "mm"), 0, 10000)),
    optional(gauge("pin_kpa", "pressure at the pin"), 0),
    within(optional(either("keep_kpa", "least pressure kept at the innermost place", "kPa"), 0),
           -71.3, 200),
    CalcInput { .key = "groove",
                .meaning = "how the main hands the oil over",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "none|partial|full|journal|both" },
    within(optional(positive("groove_angle_deg", "arc of a partial groove", "°"), 180), 0, 360),
    size("groove_width_mm", "width of the groove", 3.5),
    size("groove_depth_mm", "depth of the shell's groove", 1),
    size("journal_groove_depth_mm", "depth of the journal's groove", 1),
    optional(length("feed_hole_diameter_mm",
                    "hole in an ungrooved shell; unless given as wide as "
                    "the drilling")),
    CalcInput { .key = "entries",
                .meaning = "mouths in the journal: 2 when it is drilled across",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .required = false,
                .fallback = 1,
                .least = 1,
                .most = 2 },
};
constexpr std::array inflowOutputs {
    CalcOutput { "required_main_kpa", "below it no oil enters", "kPa" },
    CalcOutput { "feed_fraction", "share of a turn the drilling meets oil", "" },
    CalcOutput { "window_ms", "one window lasts; null: it never shuts", "ms" },
    CalcOutput { "inflow_limit_l_min", "what the windows let in", "l/min" },
    CalcOutput { "flow_l_min", "what reaches the pin", "l/min" },
    CalcOutput { "column", "stands, suction (it may hang on, not counted) or broken", "" },
};

Result<CrankInflow> drillingOf(const CalcArguments &in)
{
    const double d = in.mm("drilling_diameter_mm"), R = in.mm("main_radius_mm");
    CrankInflow out { .passage = { d, in.mm("drilling_length_mm"), 10e-6, in.number("loss_k") },
                      .rIn_m = R,
                      .rOut_m = in.mm("pin_exit_radius_mm"),
                      .closest_m = closestShare * R };
    out.mouths = static_cast<int>(in.number("entries"));
    out.keep_pa = in.kpa("keep_kpa");
    if (out.mouths == 2)
        out.closest_m = 0;
    if (const auto nearest = in.optionalNumber("r_min_mm"))
        out.closest_m = *nearest * 1e-3;
    if (!(out.closest_m <= R))
        return fail("r_min_mm", "cannot be more than the main's radius");
    if (!(d < 2 * R))
        return fail("drilling_diameter_mm", "cannot be as wide as the journal");
    const std::string groove = in.text("groove");
    const double hole = in.optionalNumber("feed_hole_diameter_mm").value_or(d * 1e3) * 1e-3;
    if (!(hole < 2 * R))
        return fail("feed_hole_diameter_mm", "cannot be as wide as the journal");
    const bool arc = groove == "partial";
    const FeedGroove kind = groove == "none" ? FeedGroove::None
        : arc                                ? FeedGroove::Partial
                                             : FeedGroove::Full;
    out.windowShare = feedFraction(kind, in.number("groove_angle_deg"), R, d, hole, 1);
    if (kind == FeedGroove::None) {
        out.openMean = meanHoleOverlap(d, hole);
        return out;
    }
    out.slotWidth_m = in.mm("groove_width_mm");
    out.slotDepth_m = (groove == "journal" ? 0 : in.mm("groove_depth_mm"))
        + (groove == "journal" || groove == "both" ? in.mm("journal_groove_depth_mm") : 0);
    out.slotLength_m = arc ? arcSlot_m(R, in.number("groove_angle_deg")) : wholeSlot_m(R);
    return out;
}

Result<Json> runInflow(const CalcArguments &in)
{
    const auto drilling = drillingOf(in);
    if (!drilling)
        return tl::unexpected(drilling.error());
    const OilState oil { in.number("density_kg_m3"), in.number("viscosity_pa_s") };
    const InflowConditions at
        = inflowConditions(*drilling, oil, radPerSecond(in.number("speed_rpm")));
    const double main_pa = in.kpa("main_kpa");
    const CrankFlow q = crankFlow(*drilling, at, main_pa, in.kpa("pin_kpa"));
    // Down to where oil gives off its air an unbroken column may hang on.
    const double suction_pa = PumpInlet {}.release.value_pa - atmosphere_pa;
    return Json { { "required_main_kpa", at.need_pa / 1e3 },
                  { "feed_fraction", drilling->openShare() },
                  { "window_ms", std::isfinite(at.window_s) ? Json(at.window_s * 1e3) : Json() },
                  { "inflow_limit_l_min", q.inflowLimit_m3_s * litresPerMinute },
                  { "flow_l_min", q.flow_m3_s * litresPerMinute },
                  { "column",
                    main_pa > at.need_pa                    ? "stands"
                        : main_pa > at.need_pa + suction_pa ? "suction"
                                                            : "broken" } };
}

constexpr std::array seepInputs {
    length("plunger_mm", "plunger"),
    within(positive("clearance_um", "diametral clearance in its bore", "µm"), 0, 5000),
    length("length_mm", "length of the gap"),
    within(notNegative("vent_mm", "vent hole; 0: none", "mm"), 0, 10000),
    within(notNegative("dp_kpa", "pressure behind it", "kPa"), 0, 100000),
    positive("rho_kg_m3", "density", "kg/m³"),
    positive("mu_pa_s", "dynamic viscosity", "Pa·s"),
    within(optional(notNegative("ecc", "eccentricity of the plunger", ""), 0.7), 0, 0.99),
};
constexpr std::array seepOutputs {
    CalcOutput { "seep_l_min", "past the plunger", "l/min" },
    CalcOutput { "vent_l_min", "through the vent", "l/min" },
    CalcOutput { "flow_l_min", "both", "l/min" },
};

Result<Json> runSeep(const CalcArguments &in)
{
    constexpr double ventLength_m = 2e-3, ventDischarge = 0.75;
    const OilState oil { in.number("rho_kg_m3"), in.number("mu_pa_s") };
    const double dp = in.kpa("dp_kpa"), vent_m = in.mm("vent_mm");
    const double seep = dp
        * annulusConductance_m3_s_pa(in.mm("plunger_mm"),
                                     radial(DiametralClearance { in.um("clearance_um") }),
                                     in.mm("length_mm"), in.number("ecc"),
                                     oil.dynamicViscosity_pa_s);
    double vent = 0;
    if (vent_m > 0) {
        const HoleCoefficients k = holeCoefficients(vent_m, ventLength_m, ventDischarge, oil);
        vent = quadraticFlow(k.a, k.b, dp).flow_m3_s;
    }
    return Json { { "seep_l_min", seep * litresPerMinute },
                  { "vent_l_min", vent * litresPerMinute },
                  { "flow_l_min", (seep + vent) * litresPerMinute } };
}

constexpr std::array journalInputs {
    length("journal_diameter_mm", "journal diameter"),
    length("length_mm", "length of the bearing"),
    within(positive("diametral_clearance_um", "diametral clearance, running", "µm"), 0, 5000),
    temperature("film_c", "film, effective"),
    temperature("oil_c", "oil that comes in"),
};
constexpr std::array journalOutputs {
    CalcOutput { "x_journal", "share of the film's rise the journal takes on", "" },
    CalcOutput { "journal_c", "the journal's temperature", "°C" },
};

Result<Json> runJournal(const CalcArguments &in)
{
    const double x = journalWarmthShare(in.mm("journal_diameter_mm"), in.mm("length_mm"),
                                        DiametralClearance { in.um("diametral_clearance_um") });
    return Json { { "x_journal", x },
                  { "journal_c",
                    journalTemperature_c(x, in.number("film_c"), in.number("oil_c")) } };
}

constexpr std::array shellReadings {
    CalcInput { .key = "angle_deg",
                .meaning = "from the joint; 90: upright",
                .unit = "°",
                .least = 0,
                .most = 180 },
    CalcInput { .key = "station",
                .meaning = "along the bore, 1 front, 2 middle, 3 rear",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .least = 1,
                .most = 3 },
    within(positive("clearance_um", "diametral clearance there", "µm"), 0, 5000),
};
constexpr std::array shellInputs {
    CalcInput { .key = "readings",
                .meaning = "clearances as read",
                .unit = "",
                .kind = CalcKind::List,
                .items = shellReadings },
    length("journal_diameter_mm", "journal diameter"),
    length("bearing_length_mm", "whole bearing length"),
    within(notNegative("groove_axial_mm", "width of the groove", "mm"), 0, 10000),
    within(notNegative("extent_deg", "arc of the groove; 0: a hole in the journal", "°"), 0, 360),
    optional(length("station_distance_mm",
                    "between the outer stations; 0.6 of the length unless "
                    "given")),
    within(optional(notNegative("eccentricity_ratio", "eccentricity ratio", ""), 0.6), 0, 0.99),
    within(optional(notNegative("relief_um", "relief at the joint, radial", "µm"), 15), 0, 5000),
    within(optional(notNegative("relief_length_mm", "its length along the arc", "mm"), 6), 0,
           10000),
};
constexpr std::array shellOutputs {
    CalcOutput { "upright_um", "mean upright clearance", "µm" },
    CalcOutput { "shell_eccentricity_um", "wall thinner at the joint, radial", "µm" },
    CalcOutput { "taper_um", "over the whole length", "µm" },
    CalcOutput { "out_of_round_um", "what the eccentric wall does not account for", "µm" },
    CalcOutput { "form_factor", "flow by pressure over that of a round shell", "" },
    CalcOutput { "taper_mark", "proven, look_again or hold", "" },
    CalcOutput { "out_of_round_mark", "proven, look_again or hold", "" },
};

const char *formMark(double m, const FormLimits &limits)
{
    return m > limits.most_m ? "hold" : m > limits.fine_m ? "look_again" : "proven";
}

Result<Json> runShell(const CalcArguments &in)
{
    std::vector<PositionReading> readings;
    for (const CalcArguments &r : in.list("readings"))
        readings.push_back(
            { r.number("angle_deg"), static_cast<int>(r.number("station")), r.um("clearance_um") });
    const double length_m = in.mm("bearing_length_mm"), groove_m = in.mm("groove_axial_mm");
    const double extent = in.number("extent_deg");
    if (!(groove_m < length_m))
        return fail("groove_axial_mm", "must be less than the bearing length");
    const double apart_m
        = in.optionalNumber("station_distance_mm").value_or(usualStationsApart * length_m * 1e3)
        * 1e-3;
    if (!(apart_m <= length_m))
        return fail("station_distance_mm", "cannot be more than the bearing length");
    auto shape = shellShape(readings, length_m, apart_m);
    if (!shape)
        return tl::unexpected(shape.error());
    shape->reliefDepth_m = in.um("relief_um");
    shape->reliefLength_m = in.mm("relief_length_mm");
    const DiametralClearance upright { shape->upright_m };
    const double round_m = outOfRound_m(readings, *shape);
    return Json { { "upright_um", upright.value_m * 1e6 },
                  { "shell_eccentricity_um", shape->eccentric_m * 1e6 },
                  { "taper_um", shape->taper_m * 1e6 },
                  { "out_of_round_um", round_m * 1e6 },
                  { "form_factor",
                    formFactor({ in.mm("journal_diameter_mm"), length_m, groove_m,
                                 extent * pi / 180, in.number("eccentricity_ratio") },
                               *shape) },
                  { "taper_mark", formMark(shape->taper_m, usualTaperLimits(upright)) },
                  { "out_of_round_mark", formMark(round_m, usualRoundLimits(upright)) } };
}

} // namespace

const Calculator shellFormCalculator {
    "shell-form",
    "Leak of the real shell",
    "What eccentric wall, relief at the joint, taper and bell-mouth let out beside a round bore",
    "h = C/2 (1 + ε cos θ) + e (1 − cos a) + d max(0, 1 − y/b) + T z/(2L) + B (2z/L)²;  F = "
    "Q(h)/Q(round)",
    "thin film, textbook; the shape is an own derivation, the limits are common practice, no "
    "source",
    shellInputs,
    shellOutputs,
    runShell
};

const Calculator crankFlowCalculator {
    "crank-feed-flow",
    "Oil through the crank",
    "What a turning crank's drilling passes from main to pin, by the windows of hole or groove",
    "N = ½ρω²(R² − r²) + keep;  in: s Q∞(p − N) ln cosh x/x, x = window · (p − N) A/(ρ l Q∞);  "
    "on: Q∞(N + s (p − N) − p_pin + ½ρω²(r_o² − R²));  Q⁻⁸ = Q_in⁻⁸ + Q_on⁻⁸",
    "rotating column and Darcy–Weisbach with Churchill's friction, textbook; slot after Shah and "
    "London, 1978, from memory; windows, filling and joining are an own derivation",
    inflowInputs,
    inflowOutputs,
    runInflow
};

const Calculator tensionerSeepCalculator {
    "tensioner-seep",
    "Oil past a tensioner's plunger",
    "What a chain tensioner takes: the gap of its plunger and its vent",
    "Q = π D c³ (1 + 1.5 ε²) Δp/(12 μ l) + vent, Δp = a Q² + b Q",
    "thin annulus, textbook; hole with creeping flow after Sampson and Dagan et al., from memory",
    seepInputs,
    seepOutputs,
    runSeep
};

const Calculator journalTemperatureCalculator {
    "journal-temperature",
    "Warmth of a journal",
    "How much of the film's warmth above its oil the journal takes on",
    "x = 0.7 G_f/(G_f + G_o);  G_f = 4 k_o π D L/C;  1/G_o = 1/(4 k_s (π D²/4)/L) + 1/(600 · 4 D²)",
    "conduction, textbook; the factors are own choices",
    journalInputs,
    journalOutputs,
    runJournal
};

} // namespace mildpath
