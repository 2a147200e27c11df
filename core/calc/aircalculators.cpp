// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "sump/gas.h"
#include "sump/intake.h"
#include "sump/risk.h"
#include "sump/windage.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr CalcInput usualDensity
    = optional(positive("density_kg_m3", "density of the oil", "kg/m³"), 850);
constexpr CalcInput crankcase = optional(
    positive("crankcase_abs_kpa", "pressure in the crankcase, absolute", "kPa"), 101.325);
constexpr CalcInput share(std::string_view key, std::string_view meaning)
{
    return within(notNegative(key, meaning, ""), 0, 0.999999);
}
constexpr CalcInput fraction(std::string_view key, std::string_view meaning)
{
    return within(notNegative(key, meaning, ""), 0, 1);
}
constexpr CalcInput exponent = within(
    optional(positive("polytropic_exponent", "1 for small bubbles, to 1.4", ""), 1), 1, 1.4);
constexpr CalcInput reference = optional(
    positive("reference_abs_kpa", "pressure the share is given at, absolute", "kPa"), 101.325);

AbsolutePressure absoluteKpa(const CalcArguments &in, std::string_view key)
{
    return { in.kpa(key) };
}

const std::array windageInputs {
    length("radius_mm", "swept by the crank"),
    notNegative("rpm", "speed", "rev/min"),
    either("gap_mm", "running level to the circle; negative: it dips", "mm"),
    usualDensity,
    optional(positive("surface_tension_n_m", "surface tension", "N/m"), 0.030),
    optional(positive("gas_density_kg_m3", "of warm crankcase air", "kg/m³"), 1),
    optional(fraction("coupling", "of the crank's speed that the air takes up"), windCoupling),
    optional(fraction("tray_open_fraction", "open share of a windage tray"), 1),
    optional(notNegative("ripple_mm", "waves that are there anyway", "mm"), usualRipple_m * 1e3),
};
constexpr std::array windageOutputs {
    CalcOutput { "tip_speed_m_s", "of the circle", "m/s" },
    CalcOutput { "surface_wind_m_s", "on the oil", "m/s" },
    CalcOutput { "kh_speed_m_s", "at which waves begin", "m/s" },
    CalcOutput { "wind_ratio", "wind over that", "" },
    CalcOutput { "wind_head_mm", "depth the wind can pile up", "mm" },
    CalcOutput { "allowance_mm", "ripple and wind", "mm" },
    CalcOutput { "index", "allowance over gap; a ranking, no share of air", "" },
    CalcOutput { "immersed_fraction", "of the circle's arc", "" },
    CalcOutput { "state", "low, watch or high", "" },
};

Result<Json> runWindage(const CalcArguments &in)
{
    const CrankOverOil c { .radius_m = in.mm("radius_mm"),
                           .speed_rad_s = in.number("rpm") * pi / 30,
                           .gap_m = in.mm("gap_mm"),
                           .density_kg_m3 = in.number("density_kg_m3"),
                           .tension_n_m = in.number("surface_tension_n_m"),
                           .gasDensity_kg_m3 = in.number("gas_density_kg_m3"),
                           .coupling = in.number("coupling"),
                           .trayOpen = in.number("tray_open_fraction"),
                           .ripple_m = in.mm("ripple_mm") };
    if (c.gap_m < -c.radius_m)
        return fail("gap_mm", "must not be below −radius_mm");
    if (!(c.gasDensity_kg_m3 < c.density_kg_m3))
        return fail("gas_density_kg_m3", "must be below density_kg_m3");
    const Windage w = windage(c);
    return Json { { "tip_speed_m_s", w.tip_m_s },
                  { "surface_wind_m_s", w.wind_m_s },
                  { "kh_speed_m_s", w.onset_m_s },
                  { "wind_ratio", w.wind_m_s / w.onset_m_s },
                  { "wind_head_mm", w.windHead_m * 1e3 },
                  { "allowance_mm", w.allowance_m * 1e3 },
                  { "index", orNull(w.index) },
                  { "immersed_fraction", w.immersedShare },
                  { "state", w.state } };
}

constexpr std::array submergenceInputs {
    positive("flow_l_min", "the pump draws", "l/min"),
    length("diameter_mm", "outside of the mouth"),
    optional(positive("nu_mm2_s", "kinematic viscosity", "mm²/s")),
    optional(positive("dip_factor", "on the dip limit, for slosh and foam", ""), 2),
    optional(either("actual_submergence_mm", "oil over the mouth", "mm")),
};
constexpr std::array submergenceOutputs {
    CalcOutput { "velocity_m_s", "into the mouth", "m/s" },
    CalcOutput { "froude", "V/√(g D)", "" },
    CalcOutput { "submergence_mm", "free of vortices in water", "mm" },
    CalcOutput { "dip_limit_mm", "below it gas is drawn in any oil", "mm" },
    CalcOutput { "radial_reynolds", "Q/(ν S)", "" },
    CalcOutput { "viscous", "too thick for a full vortex", "" },
    CalcOutput { "required_mm", "wanted", "mm" },
    CalcOutput { "state", "of the depth there is", "" },
};

Result<Json> runSubmergence(const CalcArguments &in)
{
    const auto nu = in.optionalNumber("nu_mm2_s");
    const Submergence s
        = submergence(in.l_min("flow_l_min"), in.mm("diameter_mm"),
                      nu ? std::optional(*nu * 1e-6) : std::nullopt, in.number("dip_factor"));
    const auto depth = in.optionalNumber("actual_submergence_mm");
    return Json { { "velocity_m_s", s.velocity_m_s },
                  { "froude", s.froude },
                  { "submergence_mm", s.vortexFree_m * 1e3 },
                  { "dip_limit_mm", s.dip_m * 1e3 },
                  { "radial_reynolds", orNull(s.reynolds) },
                  { "viscous", s.reynolds ? Json(s.viscous) : Json() },
                  { "required_mm", s.required_m * 1e3 },
                  { "state", depth ? Json(s.state(*depth * 1e-3)) : Json() } };
}

constexpr std::array suctionInputs {
    notNegative("flow_l_min", "the pump draws", "l/min"),
    length("bore_mm", "of the suction tube"),
    notNegative("length_mm", "of it", "mm"),
    positive("nu_mm2_s", "kinematic viscosity", "mm²/s"),
    usualDensity,
    optional(notNegative("k_minor", "losses of entry and bends", ""), 0.5),
    optional(notNegative("k1_minor", "their part that grows when cold, over Re", ""), 0),
    optional(either("lift_mm", "pump over the running level; negative: flooded", "mm"), 0),
    optional(notNegative("screen_loss_kpa", "over the strainer", "kPa"), 0),
    crankcase,
};
constexpr std::array suctionOutputs {
    CalcOutput { "velocity_m_s", "in the tube", "m/s" },
    CalcOutput { "reynolds", "", "" },
    CalcOutput { "friction_kpa", "along the tube", "kPa" },
    CalcOutput { "minor_kpa", "entry and bends", "kPa" },
    CalcOutput { "velocity_head_kpa", "to set it moving", "kPa" },
    CalcOutput { "static_kpa", "for lifting it", "kPa" },
    CalcOutput { "inlet_abs_kpa", "at the pump, absolute", "kPa" },
    CalcOutput { "starved", "the flow cannot happen", "" },
};

Result<Json> runSuction(const CalcArguments &in)
{
    const SuctionPressure s = suctionPressure({ .flow_m3_s = in.l_min("flow_l_min"),
                                                .bore_m = in.mm("bore_mm"),
                                                .length_m = in.mm("length_mm"),
                                                .nu_m2_s = in.number("nu_mm2_s") * 1e-6,
                                                .density_kg_m3 = in.number("density_kg_m3"),
                                                .loss = in.number("k_minor"),
                                                .lossCold = in.number("k1_minor"),
                                                .lift_m = in.mm("lift_mm"),
                                                .screen_pa = in.kpa("screen_loss_kpa"),
                                                .crankcase_pa = in.kpa("crankcase_abs_kpa") });
    return Json { { "velocity_m_s", s.velocity_m_s },
                  { "reynolds", s.reynolds },
                  { "friction_kpa", s.friction_pa / 1e3 },
                  { "minor_kpa", s.minor_pa / 1e3 },
                  { "velocity_head_kpa", s.velocityHead_pa / 1e3 },
                  { "static_kpa", s.static_pa / 1e3 },
                  { "inlet_abs_kpa", s.inlet ? Json(s.inlet->value_pa / 1e3) : Json() },
                  { "starved", !s.inlet } };
}

constexpr std::array leakInputs {
    positive("area_mm2", "of the hole", "mm²"),
    positive("inlet_abs_kpa", "pressure in the suction line, absolute", "kPa"),
    within(optional(positive("discharge_coefficient", "", ""), 0.7), 0, 1),
    crankcase,
    optional(temperature("temperature_c", "of the air"), 20),
    optional(positive("pump_flow_l_min", "the pump sweeps", "l/min")),
};
constexpr std::array leakOutputs {
    CalcOutput { "choked", "the air goes as fast as it can", "" },
    CalcOutput { "mass_flow_g_s", "air", "g/s" },
    CalcOutput { "gas_flow_inlet_l_min", "at the inlet's pressure", "l/min" },
    CalcOutput { "free_air_l_min", "at the crankcase's", "l/min" },
    CalcOutput { "void_fraction_inlet", "of what the pump sweeps", "" },
};

Result<Json> runLeak(const CalcArguments &in)
{
    const auto a = airLeak(in.number("area_mm2") * 1e-6, absoluteKpa(in, "inlet_abs_kpa"),
                           absoluteKpa(in, "crankcase_abs_kpa"), in.number("temperature_c"),
                           in.number("discharge_coefficient"));
    if (!a)
        return tl::unexpected(a.error());
    Json out { { "choked", a->choked },
               { "mass_flow_g_s", a->mass_kg_s * 1e3 },
               { "gas_flow_inlet_l_min", a->atInlet_m3_s * litresPerMinute },
               { "free_air_l_min", a->free_m3_s * litresPerMinute },
               { "void_fraction_inlet", nullptr } };
    if (in.has("pump_flow_l_min"))
        out["void_fraction_inlet"] = std::min(1.0, a->atInlet_m3_s / in.l_min("pump_flow_l_min"));
    return out;
}

const std::array releaseInputs {
    positive("pressure_abs_kpa", "at the place of low pressure, absolute", "kPa"),
    optional(notNegative("bunsen", "gas dissolved per volume and atmosphere", ""), usualBunsen),
    optional(positive("saturation_abs_kpa", "pressure the oil is saturated at", "kPa"), 101.325),
    optional(temperature("temperature_c", "of the oil"), 20),
    optional(fraction("release_fraction", "that comes out; 1 is equilibrium, an upper bound"), 1),
    optional(share("entrained_fraction", "bubbles there already, at saturation pressure"), 0),
};
constexpr std::array releaseOutputs {
    CalcOutput { "released_ratio", "gas released over oil", "" },
    CalcOutput { "entrained_ratio", "bubbles over oil", "" },
    CalcOutput { "gas_oil_ratio", "both", "" },
    CalcOutput { "void_fraction", "gas in the mixture", "" },
};

Result<Json> runRelease(const CalcArguments &in)
{
    const GasAtPressure g
        = gasAtPressure(absoluteKpa(in, "pressure_abs_kpa"), absoluteKpa(in, "saturation_abs_kpa"),
                        in.number("temperature_c"), in.number("bunsen"),
                        in.number("release_fraction"), in.number("entrained_fraction"));
    return Json { { "released_ratio", g.released },
                  { "entrained_ratio", g.carried },
                  { "gas_oil_ratio", g.released + g.carried },
                  { "void_fraction", g.share() } };
}

constexpr std::array bubbleInputs {
    positive("diameter_um", "of the bubble", "µm"),
    positive("nu_mm2_s", "kinematic viscosity", "mm²/s"),
    usualDensity,
    optional(positive("gas_density_kg_m3", "of the gas", "kg/m³"), 1.2),
    CalcInput { .key = "interface",
                .meaning = "rigid where additives cover it (the safe side), or mobile",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "rigid|mobile" },
    optional(positive("depth_mm", "it has to rise", "mm")),
    optional(positive("sump_volume_l", "oil in the sump; with a depth", "l")),
    optional(positive("flow_l_min", "through it; with a depth", "l/min")),
};
constexpr std::array bubbleOutputs {
    CalcOutput { "velocity_mm_s", "it rises with", "mm/s" },
    CalcOutput { "reynolds", "of the bubble", "" },
    CalcOutput { "stokes_valid", "Re at most 1", "" },
    CalcOutput { "residence_s", "oil stays in the sump", "s" },
    CalcOutput { "rise_time_s", "over the depth", "s" },
    CalcOutput { "escapes", "in time", "" },
    CalcOutput { "escape_diameter_um", "smallest that does", "µm" },
    CalcOutput { "escape_reynolds", "of that", "" },
};

Result<Json> runBubble(const CalcArguments &in)
{
    const double nu = in.number("nu_mm2_s") * 1e-6, d = in.um("diameter_um");
    const double rho = in.number("density_kg_m3"), gas = in.number("gas_density_kg_m3");
    if (!(gas < rho))
        return fail("gas_density_kg_m3", "must be below density_kg_m3");
    const Bubble kind = in.text("interface") == "rigid" ? Bubble::Rigid : Bubble::Mobile;
    const double u = riseSpeed_m_s(d, nu, rho, gas, kind);
    Json out { { "velocity_mm_s", u * 1e3 },
               { "reynolds", u * d / nu },
               { "stokes_valid", u * d / nu <= 1 } };
    for (const char *key :
         { "residence_s", "rise_time_s", "escapes", "escape_diameter_um", "escape_reynolds" })
        out[key] = nullptr;
    if (!in.has("depth_mm"))
        return out;
    for (const char *key : { "sump_volume_l", "flow_l_min" })
        if (!in.has(key))
            return fail(key, "is missing: with a depth it is needed");
    const double stay = in.litres("sump_volume_l") / in.l_min("flow_l_min");
    const double least = escapingBubble_m(in.mm("depth_mm"), stay, nu, rho, gas, kind);
    out["residence_s"] = stay;
    out["rise_time_s"] = in.mm("depth_mm") / u;
    out["escapes"] = in.mm("depth_mm") / u <= stay;
    out["escape_diameter_um"] = least * 1e6;
    out["escape_reynolds"] = riseSpeed_m_s(least, nu, rho, gas, kind) * least / nu;
    return out;
}

constexpr std::array deliveryInputs {
    positive("displacement_flow_l_min", "the pump sweeps", "l/min"),
    share("void_fraction", "gas in the oil at the reference pressure"),
    reference,
    optional(positive("inlet_abs_kpa", "at the pump's inlet, absolute", "kPa"), 101.325),
    positive("outlet_abs_kpa", "at its outlet, absolute", "kPa"),
    exponent,
    within(optional(positive("volumetric_efficiency", "", ""), 1), 0, 1),
    usualDensity,
    optional(temperature("temperature_c", "of the oil"), 100),
};
constexpr std::array deliveryOutputs {
    CalcOutput { "void_fraction_inlet", "gas at the inlet", "" },
    CalcOutput { "void_fraction_outlet", "gas at the outlet", "" },
    CalcOutput { "liquid_flow_l_min", "oil delivered", "l/min" },
    CalcOutput { "liquid_fraction_delivered", "share of oil in what is delivered, at the inlet",
                 "" },
    CalcOutput { "outlet_flow_l_min", "oil and gas at the outlet", "l/min" },
    CalcOutput { "outlet_density_kg_m3", "there", "kg/m³" },
};

Result<Json> runDelivery(const CalcArguments &in)
{
    const AbsolutePressure inlet = absoluteKpa(in, "inlet_abs_kpa");
    const AbsolutePressure outlet = absoluteKpa(in, "outlet_abs_kpa");
    if (outlet.value_pa < inlet.value_pa)
        return fail("outlet_abs_kpa", "must be at least inlet_abs_kpa");
    const double n = in.number("polytropic_exponent"), phi = in.number("void_fraction");
    const AbsolutePressure at = absoluteKpa(in, "reference_abs_kpa");
    const double phiIn = shareAt(phi, at, inlet, n), phiOut = shareAt(phi, at, outlet, n);
    const double swept = in.number("displacement_flow_l_min");
    const double liquid = in.number("volumetric_efficiency") * swept * (1 - phiIn);
    return Json { { "void_fraction_inlet", phiIn },
                  { "void_fraction_outlet", phiOut },
                  { "liquid_flow_l_min", liquid },
                  { "liquid_fraction_delivered", 1 - phiIn },
                  { "outlet_flow_l_min", liquid / (1 - phiOut) },
                  { "outlet_density_kg_m3",
                    mixedDensity_kg_m3(phiOut, outlet, in.number("density_kg_m3"),
                                       in.number("temperature_c")) } };
}

constexpr std::array modulusInputs {
    share("void_fraction", "gas in the oil at the reference pressure"),
    reference,
    positive("pressure_abs_kpa", "where it is asked, absolute", "kPa"),
    exponent,
    optional(positive("liquid_modulus_pa", "of the oil alone", "Pa"), 1.5e9),
    usualDensity,
    optional(temperature("temperature_c", "of the oil"), 100),
};
constexpr std::array modulusOutputs {
    CalcOutput { "void_fraction", "gas at that pressure", "" },
    CalcOutput { "bulk_modulus_pa", "of the mixture", "Pa" },
    CalcOutput { "modulus_ratio", "to the oil alone", "" },
    CalcOutput { "density_kg_m3", "of the mixture", "kg/m³" },
    CalcOutput { "sound_speed_m_s", "in it", "m/s" },
};

Result<Json> runModulus(const CalcArguments &in)
{
    const AbsolutePressure p = absoluteKpa(in, "pressure_abs_kpa");
    const double n = in.number("polytropic_exponent"), liquid = in.number("liquid_modulus_pa");
    const double phi
        = shareAt(in.number("void_fraction"), absoluteKpa(in, "reference_abs_kpa"), p, n);
    const AeratedOil a
        = aeratedOil(phi, p, n, liquid, in.number("density_kg_m3"), in.number("temperature_c"));
    return Json { { "void_fraction", phi },
                  { "bulk_modulus_pa", a.modulus_pa },
                  { "modulus_ratio", a.modulus_pa / liquid },
                  { "density_kg_m3", a.density_kg_m3 },
                  { "sound_speed_m_s", a.soundSpeed_m_s } };
}

constexpr std::array riskInputs {
    optional(either("crank_clearance_mm", "circle to running level", "mm")),
    optional(notNegative("allowance_mm", "wanted; with a clearance", "mm")),
    optional(either("submergence_mm", "oil over the mouth in the worst case", "mm")),
    optional(notNegative("dip_limit_mm", "below it gas is drawn; with a submergence", "mm")),
    optional(notNegative("required_mm", "wanted; with a submergence", "mm")),
    optional(fraction("leak_void_fraction", "gas at the inlet from a leak")),
    optional(fraction("release_void_fraction", "gas at the inlet out of solution")),
    optional(notNegative("escape_diameter_um", "smallest bubble that escapes in the sump", "µm")),
    optional(notNegative("dynamic_holdup_l", "oil on its way", "l")),
    optional(positive("fill_l", "oil poured in; with a hold-up", "l")),
    CalcInput { .key = "coolant",
                .meaning = "in the oil",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "none|suspected|confirmed" },
};
constexpr std::array riskOutputs {
    CalcOutput { "windage_state", "crank and oil", "" },
    CalcOutput { "uncovering_state", "pickup", "" },
    CalcOutput { "suction_leak_state", "air past a joint", "" },
    CalcOutput { "air_release_state", "air out of solution", "" },
    CalcOutput { "residence_state", "time for bubbles", "" },
    CalcOutput { "drainback_state", "oil on its way", "" },
    CalcOutput { "coolant_state", "water in the oil", "" },
    CalcOutput { "unknown_count", "of the seven", "" },
    CalcOutput { "overall_state", "the worst known; never low with something unknown", "" },
};

Result<Json> runRisk(const CalcArguments &in)
{
    const std::pair<const char *, const char *> pairs[]
        = { { "crank_clearance_mm", "allowance_mm" },
            { "submergence_mm", "dip_limit_mm" },
            { "submergence_mm", "required_mm" },
            { "dynamic_holdup_l", "fill_l" } };
    for (const auto &[first, second] : pairs)
        if (in.has(first) && !in.has(second))
            return fail(second, std::string("is missing: with ") + first + " it is needed");
    const auto n = [&](const char *key) { return in.number(key); };
    constexpr AirState unknown = AirState::Unknown;
    const std::pair<const char *, AirState> states[] = {
        { "windage_state",
          in.has("crank_clearance_mm") ? windageState(n("crank_clearance_mm"), n("allowance_mm"))
                                       : unknown },
        { "uncovering_state",
          in.has("submergence_mm")
              ? uncoveringState(n("submergence_mm"), n("dip_limit_mm"), n("required_mm"))
              : unknown },
        { "suction_leak_state",
          in.has("leak_void_fraction") ? leakState(n("leak_void_fraction")) : unknown },
        { "air_release_state",
          in.has("release_void_fraction") ? releaseState(n("release_void_fraction")) : unknown },
        { "residence_state",
          in.has("escape_diameter_um") ? bubbleState(n("escape_diameter_um") * 1e-6) : unknown },
        { "drainback_state",
          in.has("dynamic_holdup_l") ? heldState(n("dynamic_holdup_l"), n("fill_l")) : unknown },
        { "coolant_state", in.has("coolant") ? foreignState(in.text("coolant")) : unknown },
    };
    Json out = Json::object();
    std::vector<AirState> all;
    for (const auto &[key, state] : states) {
        out[key] = airStateWord(state);
        all.push_back(state);
    }
    out["unknown_count"] = std::count(all.begin(), all.end(), unknown);
    out["overall_state"] = airStateWord(overallState(all));
    return out;
}

} // namespace

const Calculator windageCalculator {
    "windage-index",
    "Crank over oil",
    "Which of two builds is closer to whipping its oil; no share of air",
    "U_s = κ τ ω R²/(R + gap);  h_w = ρg U_s²/(2 ρ g);  index = (ripple + h_w)/gap",
    "free vortex and Kelvin–Helmholtz onset, textbook; coupling, ripple and limits own choice",
    windageInputs,
    windageOutputs,
    runWindage
};
const Calculator submergenceCalculator {
    "critical-submergence",
    "Oil over the pickup",
    "How deep the mouth must lie to draw no air",
    "S = D (1 + 2.3 Fr);  S_dip = 0.69 (Q²/g)^0.2;  Re = Q/(ν S)",
    "ANSI/HI 9.8; Lubin and Springer (1967); Anwar et al. (1978); all from memory; factor 2 own "
    "choice",
    submergenceInputs,
    submergenceOutputs,
    runSubmergence
};
const Calculator suctionPressureCalculator {
    "pump-inlet-pressure",
    "Suction line",
    "Pressure left at the pump's inlet",
    "p = p_c − ρ g lift − ρ v²/2 (1 + f L/d + K + K₁/Re) − screen",
    "Darcy–Weisbach, Blasius, textbook; two-K method, Hooper (1981), from memory",
    suctionInputs,
    suctionOutputs,
    runSuction
};
const Calculator suctionLeakCalculator {
    "suction-leak",
    "Air past a suction joint",
    "How much air a small hole lets in",
    "m = Cd A p₀/√(R T) √(2γ/(γ−1) (r^(2/γ) − r^((γ+1)/γ))), r ≥ 0.5283",
    "isentropic orifice, textbook",
    leakInputs,
    leakOutputs,
    runLeak
};
const Calculator airReleaseCalculator {
    "dissolved-air-release",
    "Air out of solution",
    "Gas that comes out where the suction is deep",
    "released = x αB (p_s − p)/p T/273.15;  carried = φ/(1 − φ) p_s/p",
    "Henry's law and Bunsen coefficient, textbook; 0.09 of mineral oil from memory",
    releaseInputs,
    releaseOutputs,
    runRelease
};
const Calculator bubbleRiseCalculator {
    "bubble-rise",
    "Bubbles in the sump",
    "Which bubbles rise out before the oil is drawn again",
    "U = (ρ − ρg) g d²/(18 μ), 12 mobile;  d_esc = √(18 μ h/((ρ − ρg) g t))",
    "Stokes; Hadamard–Rybczynski; settling-tank rule (Hazen)",
    bubbleInputs,
    bubbleOutputs,
    runBubble
};
const Calculator aeratedDeliveryCalculator { "aerated-delivery",
                                             "Pump with gas in its oil",
                                             "What gas at the inlet costs in delivery",
                                             "r = φ/(1 − φ) (p₀/p)^(1/n);  liquid = η Q (1 − φ_in)",
                                             "gas law, mass balance",
                                             deliveryInputs,
                                             deliveryOutputs,
                                             runDelivery };
const Calculator aeratedModulusCalculator { "bulk-modulus-aerated",
                                            "Stiffness of oil with gas",
                                            "How soft bubbles make the oil",
                                            "1/K = (1 − φ)/K_l + φ/(n p);  c = √(K/ρ)",
                                            "Wood (1930), A Textbook of Sound",
                                            modulusInputs,
                                            modulusOutputs,
                                            runModulus };
const Calculator aerationRiskCalculator {
    "aeration-risk",
    "Risk of air, seven ways",
    "States of the ways air gets in; never added up",
    "each quantity against its limits; overall the worst known",
    "limits own choice, no source",
    riskInputs,
    riskOutputs,
    runRisk
};

} // namespace mildpath
