// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "quantity/types.h"
#include "sump/gas.h"
#include "sump/priming.h"
#include "sump/threads.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array passageInputs {
    length("diameter_mm", "bore"),
    length("length_mm", "length"),
    CalcInput { .key = "count",
                .meaning = "how many alike",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .required = false,
                .fallback = 1,
                .least = 1,
                .most = 10000 },
};
constexpr std::array volumeInputs {
    CalcInput { .key = "passages",
                .meaning = "to be filled",
                .unit = "",
                .kind = CalcKind::List,
                .items = passageInputs },
    optional(notNegative("filter_l", "filter", "l"), 0),
    within(optional(notNegative("filter_prefill", "share of it filled by hand", ""), 0), 0, 1),
    optional(notNegative("cooler_l", "cooler", "l"), 0),
    optional(notNegative("other_l", "anything else", "l"), 0),
};
constexpr std::array volumeOutputs {
    CalcOutput { "passage_volume_l", "in the passages", "l" },
    CalcOutput { "filter_to_fill_l", "left to fill in the filter", "l" },
    CalcOutput { "volume_l", "in all", "l" },
};

Result<Json> runVolume(const CalcArguments &in)
{
    double passages = 0;
    for (const CalcArguments &p : in.list("passages"))
        passages += pi * p.mm("diameter_mm") * p.mm("diameter_mm") / 4 * p.mm("length_mm")
            * p.number("count");
    const double filter = in.number("filter_l") * (1 - in.number("filter_prefill"));
    return Json { { "passage_volume_l", passages * 1e3 },
                  { "filter_to_fill_l", filter },
                  { "volume_l",
                    passages * 1e3 + filter + in.number("cooler_l") + in.number("other_l") } };
}

constexpr CalcInput displacement = positive("displacement_cm3_rev", "of the pump", "cm³/rev");
constexpr CalcInput speed = positive("rpm", "of the pump", "rev/min");

double swept_m3_s(const CalcArguments &in)
{
    return in.number("displacement_cm3_rev") * 1e-6 * in.number("rpm") / 60;
}

constexpr std::array liftInputs {
    displacement,
    speed,
    positive("slip_l_min", "the pump's slip with oil", "l/min"),
    positive("slip_pressure_kpa", "at this pressure across it", "kPa"),
    positive("slip_viscosity_pa_s", "with oil so thick", "Pa·s"),
    optional(positive("gas_viscosity_pa_s", "of air", "Pa·s"), airViscosity_pa_s),
    optional(positive("density_kg_m3", "of the oil", "kg/m³"), 870),
    optional(either("lift_mm", "pump over the oil", "mm")),
};
constexpr std::array liftOutputs {
    CalcOutput { "slip_geometry_m3", "k of Q = k dp/μ", "m³" },
    CalcOutput { "dry_suction_kpa", "a dry pump can pull", "kPa" },
    CalcOutput { "dry_lift_mm", "and so lift", "mm" },
    CalcOutput { "viscosity_ratio", "oil over air", "" },
    CalcOutput { "self_primes_dry", "over the lift there is", "" },
};

Result<Json> runLift(const CalcArguments &in)
{
    const double mu = in.number("slip_viscosity_pa_s"), gas = in.number("gas_viscosity_pa_s");
    const DryLift d = dryLift(swept_m3_s(in), in.l_min("slip_l_min"), in.kpa("slip_pressure_kpa"),
                              mu, gas, in.number("density_kg_m3"));
    return Json { { "slip_geometry_m3", d.slipGeometry_m3 },
                  { "dry_suction_kpa", d.suction_pa / 1e3 },
                  { "dry_lift_mm", d.lift_m * 1e3 },
                  { "viscosity_ratio", mu / gas },
                  { "self_primes_dry",
                    in.has("lift_mm") ? Json(d.lift_m > in.mm("lift_mm")) : Json() } };
}

constexpr std::array timeInputs {
    notNegative("volume_l", "to fill behind the pump", "l"),
    displacement,
    speed,
    within(optional(positive("volumetric_efficiency", "", ""), 0.85), 0, 1),
    optional(notNegative("suction_volume_l", "air before the pump", "l"), 0),
    optional(notNegative("lift_mm", "pump over the oil", "mm"), 0),
    optional(positive("dry_lift_mm", "a dry pump can lift; left out: enough", "mm")),
    within(optional(positive("uncertainty_factor", "of the band", ""), 2), 1, 100),
    within(optional(positive("safety_factor", "to the stop", ""), 2), 1, 100),
    optional(positive("burst_s", "one burst of the starter", "s"), 10),
};
constexpr std::array timeOutputs {
    CalcOutput { "primes", "the oil is lifted at all", "" },
    CalcOutput { "suction_time_s", "until it reaches the pump", "s" },
    CalcOutput { "fill_time_s", "to fill what lies behind", "s" },
    CalcOutput { "time_s", "to pressure", "s" },
    CalcOutput { "time_low_s", "at the quickest", "s" },
    CalcOutput { "time_high_s", "at the slowest", "s" },
    CalcOutput { "stop_s", "no pressure by then: stop and look", "s" },
    CalcOutput { "bursts", "of the starter to there", "" },
};

Result<Json> runTime(const CalcArguments &in)
{
    const auto lift = in.optionalNumber("dry_lift_mm");
    const PrimeTime t = primeTime({ .volume_m3 = in.litres("volume_l"),
                                    .swept_m3_s = swept_m3_s(in),
                                    .efficiency = in.number("volumetric_efficiency"),
                                    .suction_m3 = in.litres("suction_volume_l"),
                                    .lift_m = in.mm("lift_mm"),
                                    .dryLift_m = lift ? std::optional(*lift * 1e-3) : std::nullopt,
                                    .uncertainty = in.number("uncertainty_factor"),
                                    .safety = in.number("safety_factor"),
                                    .burst_s = in.number("burst_s") });
    return Json {
        { "primes", t.time_s.has_value() }, { "suction_time_s", orNull(t.suction_s) },
        { "fill_time_s", t.fill_s },        { "time_s", orNull(t.time_s) },
        { "time_low_s", orNull(t.low_s) },  { "time_high_s", orNull(t.high_s) },
        { "stop_s", orNull(t.stop_s) },     { "bursts", t.bursts ? Json(*t.bursts) : Json() }
    };
}

constexpr CalcInput threadName(std::string_view key, std::string_view meaning)
{
    return { .key = key, .meaning = meaning, .unit = "", .kind = CalcKind::Text };
}
constexpr std::array threadInputs {
    threadName("male", "thread of the sender: \"1/8 NPT\", \"R 1/8\", \"G 1/8\", \"M10x1\" …"),
    threadName("female", "thread of the hole"),
};
constexpr std::array threadOutputs {
    CalcOutput { "match", "match, engages_different_seal or mismatch", "" },
    CalcOutput { "deceptive", "begins to screw in all the same", "" },
    CalcOutput { "major_difference_mm", "major diameter, male minus female", "mm" },
    CalcOutput { "pitch_difference_mm", "pitch", "mm" },
    CalcOutput { "flank_difference_deg", "flank angle", "°" },
};

Result<Json> runThread(const CalcArguments &in)
{
    const Thread *found[2] {};
    const char *keys[] = { "male", "female" };
    for (size_t i = 0; i < 2; ++i) {
        found[i] = findThread(in.text(keys[i]));
        if (!found[i]) {
            std::string known;
            for (const Thread &t : threads())
                known += (known.empty() ? "" : ", ") + std::string(t.name);
            return fail(keys[i], "\"" + in.text(keys[i]) + "\" is not known; known: " + known);
        }
    }
    const ThreadMatch m = matchThreads(*found[0], *found[1]);
    return Json { { "match", m.match },
                  { "deceptive", m.deceptive },
                  { "major_difference_mm", m.major_mm },
                  { "pitch_difference_mm", m.pitch_mm },
                  { "flank_difference_deg", m.flank_deg } };
}

} // namespace

const Calculator primeVolumeCalculator { "prime-volume",
                                         "Oil to fill a dry engine",
                                         "How much has to go in before there is pressure",
                                         "Σ π d²/4 L n + filter (1 − prefill) + cooler + other",
                                         "geometry",
                                         volumeInputs,
                                         volumeOutputs,
                                         runVolume };
const Calculator primeLiftCalculator {
    "prime-lift",
    "What a dry pump lifts",
    "Whether a pump draws oil up through its own air",
    "k = Q_slip μ/dp;  dp_dry = D n μ_air/k;  lift = dp/(ρ g)",
    "own derivation, no source; good to a factor of two or three",
    liftInputs,
    liftOutputs,
    runLift
};
const Calculator primeTimeCalculator { "prime-time",
                                       "Time to pressure",
                                       "When pressure should come, and when to stop and look",
                                       "t = V_s/(D n) (z_max/z)(−ln(1 − z/z_max)) + V/(η D n)",
                                       "mass balance; band and stop factors own choice",
                                       timeInputs,
                                       timeOutputs,
                                       runTime };
const Calculator senderThreadCalculator {
    "sender-thread",
    "Thread of a sender",
    "Whether a sender fits its hole, or only seems to",
    "difference of major diameter, pitch and flank",
    "ISO 7-1, ISO 228-1, ASME B1.20.1, ISO 261, all from memory; 0.6 mm own choice",
    threadInputs,
    threadOutputs,
    runThread
};

} // namespace mildpath
