// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "circuit/hydraulics.h"
#include "pump/delivery.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr CalcInput discharge(std::string_view key, double fallback)
{
    return { .key = key,
             .meaning = "discharge coefficient",
             .unit = "",
             .required = false,
             .fallback = fallback,
             .least = 0,
             .most = 1,
             .aboveLeast = true };
}

constexpr CalcInput lawDensity = positive("rho_kg_m3", "density", "kg/m³");
constexpr CalcInput lawViscosity = positive("mu_pa_s", "dynamic viscosity", "Pa·s");
constexpr CalcInput anyDrop { .key = "dp_kpa", .meaning = "pressure difference", .unit = "kPa" };

CalcInput eccentricity(double fallback)
{
    return { .key = "ecc",
             .meaning = "eccentricity ratio",
             .unit = "",
             .required = false,
             .fallback = fallback,
             .least = 0,
             .most = 1 };
}

OilState oilOf(const CalcArguments &in)
{
    return { in.number("rho_kg_m3"), in.number("mu_pa_s") };
}

const std::array pipeInputs {
    positive("d_mm", "bore", "mm"),
    notNegative("l_mm", "length", "mm"),
    optional(notNegative("rough_um", "wall roughness", "µm"), 10),
    optional(notNegative("k", "loss coefficient of entry, exit, bends", ""), 0),
    CalcInput { .key = "flow_l_min", .meaning = "flow, either sign", .unit = "l/min" },
    lawDensity,
    lawViscosity,
};
constexpr std::array pipeOutputs {
    CalcOutput { "re", "Reynolds number", "" },
    CalcOutput { "friction_factor", "Darcy friction factor; null at zero flow", "" },
    CalcOutput { "velocity_m_s", "mean velocity", "m/s" },
    CalcOutput { "dp_friction_kpa", "drop by friction", "kPa" },
    CalcOutput { "dp_minor_kpa", "drop by entry, exit, bends", "kPa" },
    CalcOutput { "dp_kpa", "drop in all", "kPa" },
};

Result<Json> pipeDrop(const CalcArguments &in)
{
    const Conduit p { in.mm("d_mm"), in.mm("l_mm"), in.um("rough_um"), in.number("k") };
    if (p.roughness_m > 0.05 * p.diameter_m)
        return fail("rough_um", "must be at most 0.05 of the bore");
    const PassageDrop d = passageDrop(p, in.number("flow_l_min") / litresPerMinute, oilOf(in));
    return Json { { "re", d.reynolds },
                  { "friction_factor", d.reynolds > 0 ? Json(d.friction) : Json() },
                  { "velocity_m_s", d.velocity_m_s },
                  { "dp_friction_kpa", d.friction_pa / 1e3 },
                  { "dp_minor_kpa", d.minor_pa / 1e3 },
                  { "dp_kpa", d.total_pa() / 1e3 } };
}

const std::array orificeInputs {
    positive("d_mm", "hole", "mm"),
    optional(notNegative("l_mm", "length of the hole", "mm"), 0),
    discharge("cd", 0.7),
    anyDrop,
    lawDensity,
    lawViscosity,
};
constexpr std::array orificeOutputs {
    CalcOutput { "flow_l_min", "flow", "l/min" },
    CalcOutput { "re", "Reynolds number", "" },
    CalcOutput { "cd_effective", "discharge coefficient as it turns out; 0 at no pressure", "" },
};

Result<Json> orificeFlow(const CalcArguments &in)
{
    const double d = in.mm("d_mm"), dp = in.kpa("dp_kpa");
    const OilState oil = oilOf(in);
    const HoleCoefficients k = holeCoefficients(d, in.mm("l_mm"), in.number("cd"), oil);
    const double q = quadraticFlow(k.a, k.b, dp).flow_m3_s;
    const double area = pi / 4 * d * d;
    const double ideal = area * std::sqrt(2 * std::abs(dp) / oil.density_kg_m3);
    return Json { { "flow_l_min", q * litresPerMinute },
                  { "re", oil.density_kg_m3 * std::abs(q) / area * d / oil.dynamicViscosity_pa_s },
                  { "cd_effective", ideal > 0 ? std::abs(q) / ideal : 0.0 } };
}

const std::array annulusInputs {
    positive("d_mm", "diameter", "mm"),
    notNegative("clearance_um", "diametral clearance", "µm"),
    positive("l_mm", "length", "mm"),
    eccentricity(0),
    anyDrop,
    lawViscosity,
};
constexpr std::array annulusOutputs {
    CalcOutput { "flow_l_min", "leak", "l/min" },
    CalcOutput { "eccentricity_factor", "leak against a centred annulus", "" },
};

Result<Json> annulusLeak(const CalcArguments &in)
{
    const double g = annulusConductance_m3_s_pa(
        in.mm("d_mm"), radial(DiametralClearance { in.um("clearance_um") }), in.mm("l_mm"),
        in.number("ecc"), in.number("mu_pa_s"));
    return Json { { "flow_l_min", g * in.kpa("dp_kpa") * litresPerMinute },
                  { "eccentricity_factor", eccentricityFactor(in.number("ecc")) } };
}

const std::array bearingInputs {
    positive("d_mm", "journal diameter", "mm"),
    positive("width_mm", "bearing width", "mm"),
    optional(notNegative("groove_width_mm", "oil groove width", "mm"), 0),
    CalcInput { .key = "groove_deg",
                .meaning = "oil groove extent; 0: a single hole",
                .unit = "°",
                .required = false,
                .fallback = 360,
                .least = 0,
                .most = 360 },
    optional(positive("hole_mm", "feed hole where there is no groove", "mm"), 5),
    notNegative("clearance_um", "diametral clearance, hot", "µm"),
    eccentricity(0.6),
    anyDrop,
    lawViscosity,
    optional(notNegative("rpm", "journal speed", "rev/min"), 0),
    CalcInput { .key = "speed_flow",
                .meaning = "share of the flow carried out by rotation",
                .unit = "",
                .required = false,
                .fallback = 0,
                .least = 0,
                .most = 1 },
};
constexpr std::array bearingOutputs {
    CalcOutput { "pressure_flow_l_min", "flow driven by the feed pressure", "l/min" },
    CalcOutput { "speed_flow_l_min", "flow carried out by rotation", "l/min" },
    CalcOutput { "flow_l_min", "both", "l/min" },
};

Result<Json> bearingLeak(const CalcArguments &in)
{
    const BearingLeakGeometry b {
        .diameter_m = in.mm("d_mm"),
        .width_m = in.mm("width_mm"),
        .grooveWidth_m = in.mm("groove_width_mm"),
        .groove_deg = in.number("groove_deg"),
        .hole_m = in.mm("hole_mm"),
        .eccentricity = in.number("ecc"),
        .speedFlow = in.number("speed_flow"),
    };
    if (!(b.grooveWidth_m < b.width_m))
        return fail("groove_width_mm", "must be narrower than the bearing");
    if (b.groove_deg == 0 && !(b.hole_m < b.width_m))
        return fail("hole_mm", "must be smaller than the bearing's width");
    const RadialClearance c = radial(DiametralClearance { in.um("clearance_um") });
    const double dp = in.kpa("dp_kpa");
    const double pressure = bearingConductance_m3_s_pa(b, c, in.number("mu_pa_s")) * dp;
    const double rotation = bearingRotationFlow_m3_s(b, c, radPerSecond(in.number("rpm")))
        * std::tanh(dp / rotationFade_pa);
    return Json { { "pressure_flow_l_min", pressure * litresPerMinute },
                  { "speed_flow_l_min", rotation * litresPerMinute },
                  { "flow_l_min", (pressure + rotation) * litresPerMinute } };
}

const std::array crankInputs {
    notNegative("rpm", "crankshaft speed", "rev/min"),
    positive("r_in_mm", "radius where the oil enters", "mm"),
    positive("r_out_mm", "radius where the oil leaves", "mm"),
    CalcInput { .key = "closest_mm",
                .meaning = "nearest the drilling comes to the axis (0.6 r_in)",
                .unit = "mm",
                .required = false,
                .least = 0 },
    lawDensity,
};
constexpr std::array crankOutputs {
    CalcOutput { "head_kpa", "pressure of the oil column", "kPa" },
    CalcOutput { "supply_needed_kpa", "without this at the main the column breaks", "kPa" },
};

Result<Json> crankHead(const CalcArguments &in)
{
    const double rIn = in.mm("r_in_mm"), rOut = in.mm("r_out_mm");
    const double closest = in.optionalNumber("closest_mm").value_or(closestShare * rIn * 1e3) / 1e3;
    if (closest > std::min(rIn, rOut))
        return fail("closest_mm", "must be at most the smaller of r_in_mm and r_out_mm");
    const double rho = in.number("rho_kg_m3"), w = radPerSecond(in.number("rpm"));
    return Json { { "head_kpa", crankColumn_pa(rho, w, rIn, rOut) / 1e3 },
                  { "supply_needed_kpa", crankSupplyNeeded_pa(rho, w, rIn, closest) / 1e3 } };
}

const std::array pumpInputs {
    positive("displacement_m3", "displacement per pump turn", "m³"),
    notNegative("rpm", "crankshaft speed", "rev/min"),
    optional(positive("drive_ratio", "pump speed against the crankshaft's", ""), 1),
    positive("rotor_length_mm", "rotor length", "mm"),
    notNegative("tip_clearance_um", "rotor tip clearance", "µm"),
    notNegative("end_clearance_um", "rotor end clearance, total", "µm"),
    notNegative("body_clearance_um", "outer rotor to body, diametral", "µm"),
    positive("tip_land_mm", "land of a rotor tip", "mm"),
    positive("end_path_width_mm", "leak path over the ends, width", "mm"),
    positive("end_path_length_mm", "leak path over the ends, length", "mm"),
    positive("body_path_length_mm", "leak path round the body, length", "mm"),
    notNegative("dp_kpa", "pressure across the pump", "kPa"),
    lawViscosity,
    optional(lawDensity, 850),
    optional(notNegative("inlet_port_mm2", "inlet port area; 0: no limit", "mm²"), 0),
    discharge("inlet_port_cd", 0.6),
    optional(positive("inlet_abs_kpa", "inlet pressure, absolute", "kPa"), 101.325),
    optional(
        notNegative("release_pressure_abs_kpa", "absolute pressure at which air comes out", "kPa"),
        30),
};
constexpr std::array pumpOutputs {
    CalcOutput { "theoretical_l_min", "displacement × speed", "l/min" },
    CalcOutput { "filled_l_min", "what the chambers take in", "l/min" },
    CalcOutput { "leak_tip_l_min", "slip at the tips", "l/min" },
    CalcOutput { "leak_end_l_min", "slip over the ends", "l/min" },
    CalcOutput { "leak_body_l_min", "slip round the body", "l/min" },
    CalcOutput { "delivery_l_min", "delivered", "l/min" },
    CalcOutput { "volumetric_efficiency", "delivered over theoretical; 0 at rest", "" },
};

Result<Json> pumpDelivery(const CalcArguments &in)
{
    const PumpGeometry g {
        .displacement_m3 = in.number("displacement_m3"),
        .rotorLength_m = in.mm("rotor_length_mm"),
        .tipClearance_m = in.um("tip_clearance_um"),
        .endClearance_m = in.um("end_clearance_um"),
        .bodyClearance_m = in.um("body_clearance_um"),
        .tipLand_m = in.mm("tip_land_mm"),
        .endPathWidth_m = in.mm("end_path_width_mm"),
        .endPathLength_m = in.mm("end_path_length_mm"),
        .bodyPathLength_m = in.mm("body_path_length_mm"),
    };
    const PumpInlet inlet { in.number("inlet_port_mm2") * 1e-6,
                            in.number("inlet_port_cd"),
                            { in.kpa("release_pressure_abs_kpa") } };
    const double swept = g.displacement_m3 * in.number("rpm") / 60 * in.number("drive_ratio");
    const double filled
        = pumpFill_m3_s(swept, inlet, { in.kpa("inlet_abs_kpa") }, in.number("rho_kg_m3")).value;
    const PumpLeaks leaks = pumpLeaks(g, in.number("mu_pa_s"));
    const double dp = in.kpa("dp_kpa");
    const double delivered = std::max(0.0, filled - leaks.total_m3_s_pa() * dp);
    return Json { { "theoretical_l_min", swept * litresPerMinute },
                  { "filled_l_min", filled * litresPerMinute },
                  { "leak_tip_l_min", leaks.tip_m3_s_pa * dp * litresPerMinute },
                  { "leak_end_l_min", leaks.end_m3_s_pa * dp * litresPerMinute },
                  { "leak_body_l_min", leaks.body_m3_s_pa * dp * litresPerMinute },
                  { "delivery_l_min", delivered * litresPerMinute },
                  { "volumetric_efficiency", swept > 0 ? delivered / swept : 0.0 } };
}

const std::array reliefInputs {
    positive("crack_kpa", "pressure at which it begins to open", "kPa"),
    positive("full_kpa", "pressure at which it is fully open", "kPa"),
    positive("full_area_mm2", "area when fully open", "mm²"),
    discharge("cd", 0.7),
    anyDrop,
    lawDensity,
    lawViscosity,
};
constexpr std::array reliefOutputs {
    CalcOutput { "open_fraction", "share of the full area", "" },
    CalcOutput { "area_mm2", "open area", "mm²" },
    CalcOutput { "flow_l_min", "flow", "l/min" },
};

/// A spring-loaded valve between its cracking and its full-open pressure.
struct Valve
{
    double crack_pa, full_pa, fullArea_m2, discharge;

    double opening(double dp_pa) const { return valveOpenShare(dp_pa, crack_pa, full_pa).value; }
    double flow_m3_s(double dp_pa, const OilState &oil) const
    {
        const HoleCoefficients k
            = holeCoefficients(2 * std::sqrt(fullArea_m2 / pi), 0, discharge, oil);
        return opening(dp_pa) * quadraticFlow(k.a, k.b, dp_pa).flow_m3_s;
    }
};

Result<Json> reliefFlow(const CalcArguments &in)
{
    const Valve v { in.kpa("crack_kpa"), in.kpa("full_kpa"), in.number("full_area_mm2") * 1e-6,
                    in.number("cd") };
    if (!(v.full_pa > v.crack_pa))
        return fail("full_kpa", "must be above crack_kpa");
    const double open = v.opening(in.kpa("dp_kpa"));
    return Json { { "open_fraction", open },
                  { "area_mm2", open * v.fullArea_m2 * 1e6 },
                  { "flow_l_min", v.flow_m3_s(in.kpa("dp_kpa"), oilOf(in)) * litresPerMinute } };
}

const std::array filterInputs {
    notNegative("flow_l_min", "flow through the filter", "l/min"),
    positive("permeance_m3", "permeability × area / thickness", "m³"),
    lawViscosity,
    lawDensity,
    positive("bypass_crack_kpa", "bypass begins to open", "kPa"),
    positive("bypass_full_kpa", "bypass fully open", "kPa"),
    positive("bypass_full_area_mm2", "bypass area when fully open", "mm²"),
    discharge("bypass_cd", 0.65),
};
constexpr std::array filterOutputs {
    CalcOutput { "dp_kpa", "drop over medium and bypass", "kPa" },
    CalcOutput { "media_flow_l_min", "through the medium", "l/min" },
    CalcOutput { "bypass_flow_l_min", "past it", "l/min" },
    CalcOutput { "bypass_share", "share that is not filtered", "" },
};

Result<Json> filterDrop(const CalcArguments &in)
{
    const Valve bypass { in.kpa("bypass_crack_kpa"), in.kpa("bypass_full_kpa"),
                         in.number("bypass_full_area_mm2") * 1e-6, in.number("bypass_cd") };
    if (!(bypass.full_pa > bypass.crack_pa))
        return fail("bypass_full_kpa", "must be above bypass_crack_kpa");
    const double flow = in.number("flow_l_min") / litresPerMinute;
    const OilState oil = oilOf(in);
    const double conductance = in.number("permeance_m3") / oil.dynamicViscosity_pa_s;
    const auto excess
        = [&](double dp) { return conductance * dp + bypass.flow_m3_s(dp, oil) - flow; };
    double dp = 0;
    if (!std::isfinite(flow / conductance))
        return fail("permeance_m3", "is so small for this flow and oil that the drop is no number");
    // The medium alone would need `most`, so the root lies below; toms748 keeps the bracket.
    const double most = flow / conductance * (1 + 1e-12);
    if (!std::isfinite(excess(most)))
        return fail("bypass_full_area_mm2", "is so small that its flow is no number");
    if (flow > 0) {
        std::uintmax_t evaluations = 200;
        const auto bracket = boost::math::tools::toms748_solve(
            excess, 0.0, most, boost::math::tools::eps_tolerance<double>(50), evaluations);
        dp = (bracket.first + bracket.second) / 2;
    }
    const double past = bypass.flow_m3_s(dp, oil);
    return Json { { "dp_kpa", dp / 1e3 },
                  { "media_flow_l_min", conductance * dp * litresPerMinute },
                  { "bypass_flow_l_min", past * litresPerMinute },
                  { "bypass_share", flow > 0 ? past / flow : 0.0 } };
}

} // namespace

const Calculator pipeDropCalculator {
    "pipe-drop",
    "Pressure lost in a passage",
    "What a drilling or hose costs at a flow",
    "dp = (ρ v²/2)(f L/D + K), f by Churchill; 64/Re below Re 500",
    "Churchill (1977), Chemical Engineering 84(24), from memory; Darcy–Weisbach, textbook",
    pipeInputs,
    pipeOutputs,
    pipeDrop
};

const Calculator orificeFlowCalculator {
    "orifice-flow",
    "Flow through a hole",
    "What a jet or restrictor passes, thin or thick oil",
    "|dp| = a Q² + b Q, a = ρ/(2 Cd² A²), b = μ (24/d³ + 128 l/(π d⁴))",
    "Sampson (1891) with Dagan, Weinbaum, Pfeffer (1982), from memory",
    orificeInputs,
    orificeOutputs,
    orificeFlow
};

const Calculator annulusLeakCalculator { "annulus-leak",
                                         "Leak round a plunger",
                                         "Lifter in its bore, rocker on its shaft",
                                         "Q = π d c³ (1 + 1.5 ε²) dp/(12 μ l), c radial",
                                         "thin annulus, laminar, textbook",
                                         annulusInputs,
                                         annulusOutputs,
                                         annulusLeak };

const Calculator bearingLeakCalculator {
    "network-bearing-leak",
    "Oil a bearing lets out",
    "The bearing's law in the circuit",
    "groove: (deg/360) π r c³ (1 + 1.5 ε²) dp/(3 μ l); hole: π c³ (1 + 1.5 ε²) dp/(6 μ ln(2 W/(π "
    "r))); "
    "rotation: ω r c L ε tanh(dp/20 kPa)",
    "thin annulus and short-bearing side flow (Ocvirk), textbook; hole by images, own derivation",
    bearingInputs,
    bearingOutputs,
    bearingLeak
};

const Calculator crankHeadCalculator {
    "crank-drilling-head",
    "Oil column in the crank",
    "What the turning crank adds at the big-end, and what it asks of the main",
    "head = ρ ω² (r_out² − r_in²)/2;  needed = ρ ω² (r_in² − r_close²)/2",
    "rotating fluid column, textbook",
    crankInputs,
    crankOutputs,
    crankHead
};

const Calculator pumpDeliveryCalculator {
    "pump-delivery",
    "What the pump delivers",
    "Displacement less slip through tip, end and body clearances",
    "Q = fill − (Gt + Ge + Gb) dp;  tip 2 b h³/(12 μ L), end 2 w (h/2)³/(12 μ L), body 2 b "
    "(h/2)³/(12 μ L)",
    "plane Poiseuille flow, textbook; inlet blend: model choice, no source",
    pumpInputs,
    pumpOutputs,
    pumpDelivery
};

const Calculator reliefFlowCalculator {
    "relief-flow",
    "What the relief valve passes",
    "How far it is open at a pressure, and how much it lets past",
    "Q = s · orifice(full area), s = 1e-6 + (1 − 1e-6) R((dp − crack)/(full − crack))",
    "orifice as in orifice-flow; smooth opening R: own choice",
    reliefInputs,
    reliefOutputs,
    reliefFlow
};

const Calculator filterDropCalculator { "filter-drop",
                                        "Pressure lost in the filter",
                                        "Medium and bypass side by side at a flow",
                                        "G dp/μ + bypass(dp) = Q",
                                        "Darcy's law, textbook; bypass as in relief-flow",
                                        filterInputs,
                                        filterOutputs,
                                        filterDrop };

} // namespace mildpath
