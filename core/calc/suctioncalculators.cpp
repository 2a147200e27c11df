// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "circuit/hydraulics.h"
#include "circuit/timedfeed.h"
#include "pump/delivery.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr CalcInput oilDensity = positive("rho_kg_m3", "density", "kg/m³");
constexpr CalcInput oilViscosity = positive("mu_pa_s", "dynamic viscosity", "Pa·s");
constexpr CalcInput coefficient(std::string_view key, std::string_view meaning, double fallback)
{
    CalcInput in = within(optional(notNegative(key, meaning, ""), fallback), 0, 1);
    in.aboveLeast = true;
    return in;
}

constexpr std::array inletInputs {
    notNegative("flow_l_min", "oil the pump takes", "l/min"),
    positive("screen_d_mm", "strainer, as one hole", "mm"),
    coefficient("screen_cd", "its discharge coefficient", 0.65),
    positive("tube_d_mm", "pickup tube", "mm"),
    notNegative("tube_l_mm", "its length", "mm"),
    optional(notNegative("tube_k", "loss of its entry, bends and exit", ""), 1.6),
    optional(notNegative("rough_um", "wall roughness", "µm"), 10),
    CalcInput { .key = "lift_mm",
                .meaning = "pump above the oil's level; negative below",
                .unit = "mm",
                .required = false,
                .fallback = 0 },
    oilDensity,
    oilViscosity,
    optional(positive("atm_kpa", "pressure on the oil, absolute", "kPa"), 101.325),
    optional(
        notNegative("release_pressure_abs_kpa", "absolute pressure at which air comes out", "kPa"),
        30),
    optional(notNegative("air_hole_mm", "hole on the suction side", "mm"), 0),
    optional(notNegative("port_mm2", "the pump's inlet port; 0: not counted", "mm²"), 0),
    optional(notNegative("port_length_mm", "its length; as wide as it is unless given", "mm")),
    coefficient("port_cd", "the port's discharge coefficient", 0.6),
};
constexpr std::array inletOutputs {
    CalcOutput { "screen_drop_kpa", "over the strainer", "kPa" },
    CalcOutput { "tube_drop_kpa", "in the tube", "kPa" },
    CalcOutput { "lift_kpa", "for lifting it", "kPa" },
    CalcOutput { "inlet_abs_kpa", "at the pump, absolute", "kPa" },
    CalcOutput { "port_drop_kpa", "loss at the pump's port", "kPa" },
    CalcOutput { "margin_kpa", "above air release; negative: cannot be drawn", "kPa" },
    CalcOutput { "air_flow_l_min", "air drawn in, at inlet pressure", "l/min" },
    CalcOutput { "air_fraction", "of what the pump takes", "" },
};

Result<Json> runInlet(const CalcArguments &in)
{
    const OilState oil { in.number("rho_kg_m3"), in.number("mu_pa_s") };
    const double q = in.number("flow_l_min") / litresPerMinute;
    const double atmosphere = in.kpa("atm_kpa"), d = in.mm("tube_d_mm");
    if (!(in.um("rough_um") <= 0.05 * d))
        return fail("rough_um", "must be at most 0.05 of the tube's bore");
    const HoleCoefficients k
        = holeCoefficients(in.mm("screen_d_mm"), 0, in.number("screen_cd"), oil);
    const double screen = k.a * q * q + k.b * q;
    const double tube
        = passageDrop({ d, in.mm("tube_l_mm"), in.um("rough_um"), in.number("tube_k") }, q, oil)
              .total_pa();
    const double lift = oil.density_kg_m3 * gravity_m_s2 * in.mm("lift_mm");
    double port = 0;
    if (const double area_mm2 = in.number("port_mm2"); area_mm2 > 0) {
        // A hole of its area, as long as it is wide unless said.
        const double wide_mm = std::sqrt(4 * area_mm2 / pi);
        const HoleCoefficients loss = holeCoefficients(
            wide_mm * 1e-3, in.optionalNumber("port_length_mm").value_or(wide_mm) * 1e-3,
            in.number("port_cd"), oil);
        port = loss.a * q * q + loss.b * q;
    }
    const double inlet = atmosphere - screen - tube - lift;
    const double air
        = suctionAir_m3_s(in.mm("air_hole_mm"), { inlet }, AbsolutePressure { atmosphere });
    return Json { { "screen_drop_kpa", screen / 1e3 },
                  { "tube_drop_kpa", tube / 1e3 },
                  { "lift_kpa", lift / 1e3 },
                  { "inlet_abs_kpa", inlet / 1e3 },
                  { "port_drop_kpa", port / 1e3 },
                  { "margin_kpa", (inlet - port - in.kpa("release_pressure_abs_kpa")) / 1e3 },
                  { "air_flow_l_min", air * litresPerMinute },
                  { "air_fraction", air > 0 ? air / (air + q) : 0 } };
}

constexpr std::array timedInputs {
    positive("journal_d_mm", "cam journal", "mm"),
    positive("cam_hole_mm", "hole in the journal", "mm"),
    positive("bearing_hole_mm", "hole in its bearing", "mm"),
    CalcInput { .key = "alignments_per_rev",
                .meaning = "how often they meet in a turn",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .required = false,
                .fallback = 1,
                .least = 1,
                .most = 1000 },
    optional(notNegative("l_mm", "length of the smaller hole", "mm"), 0),
    coefficient("cd", "discharge coefficient", 0.7),
    notNegative("dp_kpa", "pressure across", "kPa"),
    oilDensity,
    oilViscosity,
};
constexpr std::array timedOutputs {
    CalcOutput { "open_share_of_rev", "share of a turn they overlap", "" },
    CalcOutput { "mean_area_mm2", "open area, mean over a turn", "mm²" },
    CalcOutput { "duty", "of the smaller hole's area", "" },
    CalcOutput { "flow_open_l_min", "while open", "l/min" },
    CalcOutput { "flow_mean_l_min", "mean over a turn", "l/min" },
};

Result<Json> runTimed(const CalcArguments &in)
{
    const auto t = timedFeed(in.mm("journal_d_mm"), in.mm("cam_hole_mm"), in.mm("bearing_hole_mm"),
                             static_cast<int>(in.number("alignments_per_rev")));
    if (!t)
        return tl::unexpected(t.error());
    const double smaller = std::min(in.mm("cam_hole_mm"), in.mm("bearing_hole_mm"));
    const HoleCoefficients k = holeCoefficients(smaller, in.mm("l_mm"), in.number("cd"),
                                                { in.number("rho_kg_m3"), in.number("mu_pa_s") });
    const double open = quadraticFlow(k.a, k.b, in.kpa("dp_kpa")).flow_m3_s * litresPerMinute;
    return Json { { "open_share_of_rev", t->openShare },
                  { "mean_area_mm2", t->meanArea_m2 * 1e6 },
                  { "duty", t->duty },
                  { "flow_open_l_min", open },
                  { "flow_mean_l_min", t->duty * open } };
}

} // namespace

const Calculator inletPressureCalculator {
    "inlet-pressure",
    "Pressure at the pump's inlet",
    "Whether oil reaches the pump, and how much air comes with it",
    "p_in = p_atm − strainer − tube − ρ g lift;  air 0.6 A √(2 (p_atm − p_in)/1.2) p_atm/p_in",
    "laws of the circuit's hole and pipe; orifice equation for the air, textbook; air release at "
    "30 "
    "kPa absolute is a model choice, no source",
    inletInputs,
    inletOutputs,
    runInlet
};

const Calculator timedFeedCalculator {
    "cam-timed-feed",
    "Feed timed by a camshaft",
    "Oil through two holes that meet for a part of the turn",
    "share n (d1 + d2)/(π D);  mean area n/(π D) ∫ 4 √(r1² − y²) √(r2² − y²) dy",
    "geometry; equal holes give 16 r³ n/(3 π D). Holds while the volume behind smooths the pulses",
    timedInputs,
    timedOutputs,
    runTimed
};

} // namespace mildpath
