// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "quantity/types.h"
#include "sump/drainback.h"
#include "sump/fillwindow.h"
#include "sump/level.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double degree = pi / 180;
const CalcInput beta
    = optional(notNegative("expansion_per_k", "expansion of the oil", "1/K"), oilExpansion_per_k);
constexpr CalcInput fillTemperature = optional(temperature("fill_c", "when it was poured in"), 20);
constexpr CalcInput accel = optional(
    either("accel_g", "sideways acceleration over g; positive pushes oil to +x", "g"), 0);
constexpr CalcInput incline
    = optional(either("incline_deg", "installation; positive: the +x end is lower", "°"), 0);
constexpr CalcInput profileInput { .key = "profile_mm",
                                   .meaning = "section, corners [x, z] of a simple polygon",
                                   .unit = "mm",
                                   .kind = CalcKind::Points };
constexpr CalcInput sideways(std::string_view key, std::string_view meaning)
{
    return either(key, meaning, "mm");
}

std::vector<double> scaled(std::vector<double> values, double by)
{
    for (double &v : values)
        v *= by;
    return values;
}

Result<Profile> profileOf(const CalcArguments &in)
{
    Profile out;
    for (const auto &[x, z] : in.points("profile_mm"))
        out.push_back({ x * 1e-3, z * 1e-3 });
    if (auto ok = checkProfile(out); !ok)
        return fail(ok.error().place.empty() ? "profile_mm" : "profile_mm/" + ok.error().place,
                    ok.error().message);
    return out;
}

Result<SectionPoint> mouthWithin(const CalcArguments &in, const Profile &profile)
{
    const SectionPoint p { in.mm("pickup_x_mm"), in.mm("pickup_z_mm") };
    if (!contains(profile, p))
        return fail("pickup_x_mm", "the pickup lies outside the pan");
    return p;
}

const std::array levelInputs {
    many(notNegative("height_mm", "heights over the lowest inside point, the first 0", "mm")),
    many(notNegative("area_mm2", "whole horizontal area there", "mm²")),
    positive("fill_l", "oil poured in", "l"),
    many(optional(notNegative("immersed_area_mm2", "of it taken up by parts", "mm²"))),
    optional(notNegative("static_holdup_l", "what never comes back at rest", "l"), 0),
    optional(notNegative("flow_l_min", "oil in circulation", "l/min"), 0),
    optional(notNegative("residence_s", "mean time it stays outside the sump", "s"), 0),
    fillTemperature,
    optional(temperature("oil_c", "of the oil when it runs; as filled when left out")),
    beta,
    within(optional(notNegative("void_fraction", "gas in the sump's oil", ""), 0), 0, 0.999999),
};
constexpr std::array levelOutputs {
    CalcOutput { "volume_rest_l", "in the sump at rest, as filled", "l" },
    CalcOutput { "level_rest_mm", "its level", "mm" },
    CalcOutput { "dynamic_holdup_l", "on its way when it runs", "l" },
    CalcOutput { "volume_running_l", "in the sump when it runs", "l" },
    CalcOutput { "level_running_mm", "its level", "mm" },
    CalcOutput { "sump_empty", "nothing is left", "" },
};

Result<Json> runLevel(const CalcArguments &in)
{
    const auto table = HeightTable::make(scaled(in.numbers("height_mm"), 1e-3),
                                         scaled(in.numbers("area_mm2"), 1e-6),
                                         scaled(in.numbers("immersed_area_mm2"), 1e-6));
    if (!table)
        return tl::unexpected(table.error());
    const SumpFill fill { .fill_m3 = in.litres("fill_l"),
                          .static_m3 = in.litres("static_holdup_l"),
                          .circulating_m3_s = in.l_min("flow_l_min"),
                          .residence_s = in.number("residence_s"),
                          .fill_c = in.number("fill_c"),
                          .oil_c = in.optionalNumber("oil_c").value_or(in.number("fill_c")),
                          .expansion_per_k = in.number("expansion_per_k"),
                          .gas = in.number("void_fraction") };
    if (fill.static_m3 > fill.fill_m3)
        return fail("static_holdup_l", "is more than was poured in");
    const SumpVolumes v = sumpVolumes(fill);
    const auto rest = table->level_m(v.rest_m3);
    const auto running = table->level_m(std::max(0.0, v.running_m3));
    for (const auto *level : { &rest, &running })
        if (!*level)
            return tl::unexpected(level->error());
    return Json { { "volume_rest_l", v.rest_m3 * 1e3 },
                  { "level_rest_mm", *rest * 1e3 },
                  { "dynamic_holdup_l", v.held_m3 * 1e3 },
                  { "volume_running_l", std::max(0.0, v.running_m3) * 1e3 },
                  { "level_running_mm", *running * 1e3 },
                  { "sump_empty", v.running_m3 <= 0 } };
}

constexpr std::array boxInputs {
    length("length_mm", "of the pan, along x"),
    length("width_mm", "of the pan"),
    length("wall_height_mm", "floor to rail"),
    notNegative("volume_l", "oil in it", "l"),
    notNegative("pickup_x_mm", "pickup along the length", "mm"),
    notNegative("pickup_height_mm", "its mouth over the floor", "mm"),
    accel,
    incline,
};
constexpr std::array boxOutputs {
    CalcOutput { "tilt_deg", "of the surface", "°" },
    CalcOutput { "mean_depth_mm", "on the level", "mm" },
    CalcOutput { "depth_low_mm", "at the lower end", "mm" },
    CalcOutput { "depth_high_mm", "at the higher end", "mm" },
    CalcOutput { "dry_length_mm", "of the floor", "mm" },
    CalcOutput { "depth_at_pickup_mm", "over the floor", "mm" },
    CalcOutput { "submergence_mm", "of the mouth, normal to the surface", "mm" },
    CalcOutput { "over_rail_mm", "the high end over the wall", "mm" },
    CalcOutput { "slosh_period_s", "first mode, on the level", "s" },
};

Result<Json> runBox(const CalcArguments &in)
{
    if (in.number("pickup_x_mm") > in.number("length_mm"))
        return fail("pickup_x_mm", "the pickup lies outside the pan");
    const auto tilt = surfaceTilt_rad(in.number("accel_g"), in.number("incline_deg") * degree);
    if (!tilt)
        return tl::unexpected(tilt.error());
    const TiltedBox b = tiltedBox(in.mm("length_mm"), in.mm("width_mm"), in.mm("wall_height_mm"),
                                  in.litres("volume_l"),
                                  { in.mm("pickup_x_mm"), in.mm("pickup_height_mm") }, *tilt);
    return Json { { "tilt_deg", *tilt / degree },
                  { "mean_depth_mm", b.meanDepth_m * 1e3 },
                  { "depth_low_mm", b.low_m * 1e3 },
                  { "depth_high_mm", b.high_m * 1e3 },
                  { "dry_length_mm", b.dryLength_m * 1e3 },
                  { "depth_at_pickup_mm", b.atPickup_m * 1e3 },
                  { "submergence_mm", b.submergence_m * 1e3 },
                  { "over_rail_mm", b.overRail_m * 1e3 },
                  { "slosh_period_s", orNull(b.slosh_s) } };
}

constexpr std::array profileInputs {
    profileInput,
    length("width_mm", "extent normal to the section"),
    notNegative("volume_l", "oil in it", "l"),
    sideways("pickup_x_mm", "pickup, sideways"),
    sideways("pickup_z_mm", "its mouth, upwards"),
    accel,
    incline,
    optional(length("crank_radius_mm", "swept by the crank")),
    optional(sideways("crank_x_mm", "its centre, sideways")),
    optional(sideways("crank_z_mm", "its centre, upwards")),
};
constexpr std::array profileOutputs {
    CalcOutput { "tilt_deg", "of the surface", "°" },
    CalcOutput { "surface_offset_mm", "c of n·p = c, n = (−sin, cos) of the tilt", "mm" },
    CalcOutput { "surface_z_at_pickup_mm", "height of the surface over the pickup", "mm" },
    CalcOutput { "submergence_mm", "of the mouth, normal to the surface", "mm" },
    CalcOutput { "crank_clearance_mm", "circle to surface; negative: it dips", "mm" },
};

Result<Json> runProfile(const CalcArguments &in)
{
    const auto profile = profileOf(in);
    if (!profile)
        return tl::unexpected(profile.error());
    const auto mouth = mouthWithin(in, *profile);
    const auto tilt = surfaceTilt_rad(in.number("accel_g"), in.number("incline_deg") * degree);
    if (!mouth)
        return tl::unexpected(mouth.error());
    if (!tilt)
        return tl::unexpected(tilt.error());
    const auto surface = surfaceOver(*profile, *tilt, in.litres("volume_l") / in.mm("width_mm"));
    if (!surface)
        return tl::unexpected(surface.error());
    Json out { { "tilt_deg", *tilt / degree },
               { "surface_offset_mm", surface->offset_m * 1e3 },
               { "surface_z_at_pickup_mm", surface->heightAt_m(mouth->x_m) * 1e3 },
               { "submergence_mm", surface->depthOf_m(*mouth) * 1e3 },
               { "crank_clearance_mm", nullptr } };
    if (in.has("crank_radius_mm")) {
        for (const char *key : { "crank_x_mm", "crank_z_mm" })
            if (!in.has(key))
                return fail(key, "is missing: with a radius the centre is needed");
        out["crank_clearance_mm"] = clearance_m(*surface,
                                                { { in.mm("crank_x_mm"), in.mm("crank_z_mm") },
                                                  in.mm("crank_radius_mm") })
            * 1e3;
    }
    return out;
}

constexpr std::array caseInputs {
    accel,
    incline,
    optional(notNegative("dynamic_holdup_l", "on its way outside the sump", "l"), 0),
    optional(temperature("oil_c", "of the oil; as filled when left out")),
};
const std::array fillWindowInputs {
    profileInput,
    length("width_mm", "extent normal to the section"),
    sideways("pickup_x_mm", "pickup, sideways"),
    sideways("pickup_z_mm", "its mouth, upwards"),
    notNegative("submergence_mm", "wanted over the mouth", "mm"),
    sideways("crank_x_mm", "centre of the swept circle, sideways"),
    sideways("crank_z_mm", "and upwards"),
    length("crank_radius_mm", "of the swept circle"),
    notNegative("allowance_mm", "clear of it", "mm"),
    optional(notNegative("static_holdup_l", "what never comes back at rest", "l"), 0),
    optional(notNegative("displaced_l", "by what hangs in the oil", "l"), 0),
    fillTemperature,
    beta,
    CalcInput { .key = "cases",
                .meaning = "what the fill must stand",
                .unit = "",
                .kind = CalcKind::List,
                .items = caseInputs },
};
constexpr std::array fillWindowOutputs {
    CalcOutput { "fill_min_l", "keeps the mouth under oil in every case", "l" },
    CalcOutput { "fill_max_l", "keeps the crank clear in every case", "l" },
    CalcOutput { "window_l", "between them; negative: none", "l" },
    CalcOutput { "feasible", "a fill serves every case", "" },
    CalcOutput { "limiting_min_case", "index of the case that sets the least", "" },
    CalcOutput { "limiting_max_case", "index of the case that sets the most", "" },
};

Result<Json> runWindow(const CalcArguments &in)
{
    const auto profile = profileOf(in);
    if (!profile)
        return tl::unexpected(profile.error());
    const auto mouth = mouthWithin(in, *profile);
    if (!mouth)
        return tl::unexpected(mouth.error());
    const HungSection section { *profile,
                                *mouth,
                                { { { in.mm("crank_x_mm"), in.mm("crank_z_mm") },
                                    in.mm("crank_radius_mm") } } };
    std::vector<FillCase> cases;
    for (const CalcArguments &c : in.list("cases")) {
        const auto tilt = surfaceTilt_rad(c.number("accel_g"), c.number("incline_deg") * degree);
        if (!tilt)
            return fail("cases/" + std::to_string(cases.size()) + "/" + tilt.error().place,
                        tilt.error().message);
        const double fill_c = in.number("fill_c");
        cases.push_back({ &section, *tilt, c.litres("dynamic_holdup_l"),
                          volumeAt_m3(1, fill_c, c.optionalNumber("oil_c").value_or(fill_c),
                                      in.number("expansion_per_k")),
                          in.mm("submergence_mm"), in.mm("allowance_mm") });
    }
    if (cases.empty())
        return fail("cases", "needs at least one");
    const FillWindow w
        = fillWindow({ *profile, in.mm("width_mm") },
                     { in.litres("static_holdup_l"), in.litres("displaced_l") }, cases);
    return Json { { "fill_min_l", w.least_m3 * 1e3 },
                  { "fill_max_l", w.most_m3 * 1e3 },
                  { "window_l", (w.most_m3 - w.least_m3) * 1e3 },
                  { "feasible", w.feasible() },
                  { "limiting_min_case", w.leastCase },
                  { "limiting_max_case", w.mostCase } };
}

constexpr std::array uncoverInputs {
    positive("area_mm2", "of the compartment", "mm²"),
    positive("depth_start_mm", "level in it when the turn begins", "mm"),
    notNegative("depth_limit_mm", "level at which the mouth uncovers", "mm"),
    positive("pump_flow_l_min", "the pump draws", "l/min"),
    within(optional(notNegative("return_fraction", "of it falls straight back in", ""), 0), 0, 1),
    optional(notNegative("baffle_hole_area_mm2", "open to the outside", "mm²"), 0),
    optional(
        notNegative("outside_depth_mm", "level outside, held; as the start when left out", "mm")),
    within(optional(positive("discharge_coefficient", "of the opening", ""), 0.6), 0, 1),
};
constexpr std::array uncoverOutputs {
    CalcOutput { "uncovers", "the mouth comes free", "" },
    CalcOutput { "time_s", "until it does", "s" },
    CalcOutput { "equilibrium_depth_mm", "where the level stays", "mm" },
};

Result<Json> runUncover(const CalcArguments &in)
{
    const double start = in.mm("depth_start_mm");
    if (!(in.mm("depth_limit_mm") < start))
        return fail("depth_limit_mm", "must be below depth_start_mm");
    const double outside
        = in.optionalNumber("outside_depth_mm").value_or(in.number("depth_start_mm")) * 1e-3;
    if (outside < start)
        return fail("outside_depth_mm", "must be at least depth_start_mm");
    const Uncovering u = pickupUncovers(
        { in.number("area_mm2") * 1e-6, start, in.mm("depth_limit_mm"),
          in.l_min("pump_flow_l_min") * (1 - in.number("return_fraction")),
          in.number("baffle_hole_area_mm2") * 1e-6, outside, in.number("discharge_coefficient") });
    return Json { { "uncovers", u.time_s.has_value() },
                  { "time_s", orNull(u.time_s) },
                  { "equilibrium_depth_mm", u.time_s ? Json() : Json(u.equilibrium_m * 1e3) } };
}

constexpr std::array drainInputs {
    length("hole_diameter_mm", "of each hole"),
    CalcInput { .key = "hole_count",
                .meaning = "how many",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .required = false,
                .fallback = 1,
                .least = 1,
                .most = 1000 },
    optional(notNegative("hole_length_mm", "length of each", "mm"), 0),
    optional(notNegative("drop_mm", "further fall of a passage that runs full", "mm"), 0),
    positive("pool_area_mm2", "of the pool", "mm²"),
    positive("pool_depth_mm", "it begins with", "mm"),
    optional(notNegative("end_depth_mm", "it ends with", "mm"), 1),
    positive("nu_mm2_s", "kinematic viscosity", "mm²/s"),
    optional(positive("density_kg_m3", "density", "kg/m³"), 850),
    within(optional(notNegative("loss_coefficient", "of entry and exit", ""), 1.5), 1, 1000),
    optional(notNegative("back_pressure_kpa", "crankcase against it", "kPa"), 0),
    optional(positive("supply_flow_l_min", "steady supply to the pool", "l/min")),
    optional(positive("max_depth_mm", "pool that may stand; with a supply", "mm")),
};
constexpr std::array drainOutputs {
    CalcOutput { "drains", "it empties to the end depth", "" },
    CalcOutput { "time_s", "that takes", "s" },
    CalcOutput { "initial_flow_l_min", "to begin with", "l/min" },
    CalcOutput { "initial_reynolds", "in the hole; the law is laminar", "" },
    CalcOutput { "self_venting_flow_l_min", "down while gas comes up the same holes", "l/min" },
    CalcOutput { "steady_depth_mm", "pool under the supply", "mm" },
    CalcOutput { "steady_volume_l", "of it", "l" },
    CalcOutput { "holes_needed", "for the depth that may stand", "" },
};

Result<Json> runDrain(const CalcArguments &in)
{
    const DrainBack d { .hole_m = in.mm("hole_diameter_mm"),
                        .count = in.number("hole_count"),
                        .length_m = in.mm("hole_length_mm"),
                        .drop_m = in.mm("drop_mm"),
                        .pool_m2 = in.number("pool_area_mm2") * 1e-6,
                        .nu_m2_s = in.number("nu_mm2_s") * 1e-6,
                        .density_kg_m3 = in.number("density_kg_m3"),
                        .loss = in.number("loss_coefficient"),
                        .back_pa = in.kpa("back_pressure_kpa") };
    const double from = in.mm("pool_depth_mm"), to = in.mm("end_depth_mm");
    if (!(to < from))
        return fail("end_depth_mm", "must be below pool_depth_mm");
    const auto time = d.time_s(from, to);
    Json out { { "drains", time.has_value() },
               { "time_s", orNull(time) },
               { "initial_flow_l_min", d.flow_m3_s(from) * litresPerMinute },
               { "initial_reynolds", d.speed_m_s(from).value_or(0) * d.hole_m / d.nu_m2_s },
               { "self_venting_flow_l_min", d.selfVenting_m3_s() * litresPerMinute },
               { "steady_depth_mm", nullptr },
               { "steady_volume_l", nullptr },
               { "holes_needed", nullptr } };
    if (in.has("supply_flow_l_min")) {
        const double supply = in.l_min("supply_flow_l_min"), depth = d.steadyDepth_m(supply);
        out["steady_depth_mm"] = depth * 1e3;
        out["steady_volume_l"] = depth * d.pool_m2 * 1e3;
        if (in.has("max_depth_mm"))
            if (const auto holes = d.holesFor(supply, in.mm("max_depth_mm")))
                out["holes_needed"] = *holes;
    }
    return out;
}

const std::array volumeInputs {
    optional(positive("volume_l", "litres", "l")),
    optional(positive("volume_us_qt", "or US quarts", "US qt")),
    optional(positive("volume_imp_qt", "or imperial quarts", "imp qt")),
    temperature("from_c", "of the oil measured"),
    temperature("to_c", "wanted"),
    beta,
};
constexpr std::array volumeOutputs {
    CalcOutput { "volume_l", "at to_c", "l" },
    CalcOutput { "volume_us_qt", "the same", "US qt" },
    CalcOutput { "volume_imp_qt", "the same", "imp qt" },
    CalcOutput { "change_l", "grown", "l" },
};

Result<Json> runVolume(const CalcArguments &in)
{
    const std::pair<const char *, double> units[] = { { "volume_l", 1e-3 },
                                                      { "volume_us_qt", usQuart_m3 },
                                                      { "volume_imp_qt", imperialQuart_m3 } };
    std::optional<double> from;
    for (const auto &[key, m3] : units) {
        if (!in.has(key))
            continue;
        if (from)
            return fail("volume_l", "give one of litres, US quarts and imperial quarts");
        from = in.number(key) * m3;
    }
    if (!from)
        return fail("volume_l", "give one of litres, US quarts and imperial quarts");
    const double to
        = volumeAt_m3(*from, in.number("from_c"), in.number("to_c"), in.number("expansion_per_k"));
    return Json { { "volume_l", to * 1e3 },
                  { "volume_us_qt", to / usQuart_m3 },
                  { "volume_imp_qt", to / imperialQuart_m3 },
                  { "change_l", (to - *from) * 1e3 } };
}

} // namespace

const Calculator sumpLevelCalculator {
    "sump-level",
    "Level in the sump",
    "Where the oil stands at rest and running, and what is on its way",
    "V_run = [V (1 + β (T − T_fill)) − V_static − Q t]/(1 − φ); V(h) trapezoids of free area",
    "mass balance; β of mineral oil a common value, no source",
    levelInputs,
    levelOutputs,
    runLevel
};
const Calculator tiltedSumpCalculator {
    "tilted-sump",
    "A box-shaped pan in a turn",
    "How deep the pickup lies when the oil stands aslant",
    "θ = atan a + α;  h0 ≥ L t/2: z = h0 + t (x − L/2);  else z = t (x − L + √(2 h0 L/t))",
    "geometry; slosh by linear wave theory, textbook",
    boxInputs,
    boxOutputs,
    runBox
};
const Calculator tiltedProfileCalculator {
    "tilted-sump-profile",
    "A pan by its section in a turn",
    "How deep the pickup lies, and how far the crank clears the oil",
    "n·p ≤ c clipped from the section so that its area is V/W;  S = c − n·p_pickup",
    "half-plane clip (Sutherland and Hodgman 1974) and shoelace formula",
    profileInputs,
    profileOutputs,
    runProfile
};
const Calculator fillWindowCalculator {
    "fill-window",
    "Fill window",
    "How much oil keeps the pickup wet and the crank dry in every case",
    "least = max ((max(0, A_min W − V_d) + V_static + V_held)/(1 + β ΔT)); most likewise, the "
    "least of all",
    "geometry, exact for a prism",
    fillWindowInputs,
    fillWindowOutputs,
    runWindow
};
const Calculator pickupUncoverCalculator {
    "pickup-uncover-time",
    "Pickup in a compartment",
    "How long a turn the oil round the pickup lasts",
    "A dh/dt = −Q (1 − r) + Cd a √(2 g (H − h))",
    "orifice law, integrated; Cd 0.6 of a sharp edge, textbook",
    uncoverInputs,
    uncoverOutputs,
    runUncover
};
const Calculator drainBackCalculator {
    "drainback-time",
    "Drain-back",
    "Whether oil comes down from the head as fast as it goes up",
    "K v²/2 + 32 ν L v/d² = g (h + drop − p_b/(ρ g))",
    "textbook, laminar in the tube; self-venting at Fr 0.31, Simpson (1969), from memory",
    drainInputs,
    drainOutputs,
    runDrain
};
const Calculator oilVolumeCalculator {
    "oil-volume-at-temperature",
    "Volume of oil when warm",
    "Litres and both quarts, cold and hot",
    "V₂ = V₁ (1 + β (T₂ − T₁))",
    "US quart 0.946352946 l, imperial quart 1.1365225 l, both exact; β a common value, no source",
    volumeInputs,
    volumeOutputs,
    runVolume
};

} // namespace mildpath
