// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/clearance.h"
#include "bearing/thermal.h"
#include "calc/inputs.h"

#include <array>

namespace mildpath {
namespace {

constexpr CalcInput optionalUncertainty(std::string_view key, std::string_view meaning)
{
    return {
        .key = key, .meaning = meaning, .unit = "µm", .required = false, .fallback = 0, .least = 0
    };
}

constexpr std::array diameterInputs {
    CalcInput { .key = "method",
                .meaning = "how it was gauged",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "two_instruments|zeroed_gauge" },
    optional(length("bore_mm", "bore inside the fitted shells (two instruments)")),
    optional(CalcInput {
        .key = "gauge_reading_um", .meaning = "bore gauge reading (zeroed gauge)", .unit = "µm" }),
    length("journal_mm", "journal diameter (nominal, with a zeroed gauge)"),
    optionalUncertainty("bore_uncertainty_um", "uncertainty of the bore (two instruments)"),
    optionalUncertainty("journal_uncertainty_um", "uncertainty of the journal (two instruments)"),
    optionalUncertainty("gauge_uncertainty_um", "uncertainty of the gauge (zeroed gauge)"),
    optionalUncertainty("zero_uncertainty_um", "uncertainty of its zero (zeroed gauge)"),
    optional(temperature("bore_temp_c", "temperature of the housing"), 20),
    optional(temperature("journal_temp_c", "temperature of the journal"), 20),
    optional(expansion("bore_alpha_per_k", "expansion of the housing"), 11.5e-6),
    optional(expansion("journal_alpha_per_k", "expansion of the journal"), 11.7e-6),
    CalcInput { .key = "temp_uncertainty_k",
                .meaning = "standard uncertainty of each temperature",
                .unit = "K",
                .required = false,
                .fallback = 0,
                .least = 0 },
    CalcInput { .key = "uncertainty_kind",
                .meaning = "how the uncertainties are stated",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "standard|expanded|limits|resolution" },
};
constexpr std::array diameterOutputs {
    CalcOutput { "clearance_um", "diametral clearance at 20 °C", "µm" },
    CalcOutput { "standard_uncertainty_um", "standard uncertainty", "µm" },
    CalcOutput { "expanded_uncertainty_um", "expanded uncertainty, k = 2", "µm" },
    CalcOutput { "low_um", "clearance less expanded uncertainty", "µm" },
    CalcOutput { "high_um", "clearance plus expanded uncertainty", "µm" },
    CalcOutput { "clearance_ratio", "clearance over journal diameter", "" },
    CalcOutput { "bore_20c_mm", "bore at 20 °C", "mm" },
    CalcOutput { "journal_20c_mm", "journal at 20 °C", "mm" },
};

UncertaintyKind uncertaintyKind(const std::string &name)
{
    if (name == "expanded")
        return UncertaintyKind::Expanded;
    if (name == "limits")
        return UncertaintyKind::Limits;
    return name == "resolution" ? UncertaintyKind::Resolution : UncertaintyKind::Standard;
}

/// Keys of the method that was not chosen would be without effect; say so instead.
Result<void> checkMethodKeys(const CalcArguments &in, bool zeroed)
{
    const std::string_view needed = zeroed ? "gauge_reading_um" : "bore_mm";
    if (!in.has(needed))
        return fail(std::string(needed),
                    "is missing with method "
                        + std::string(zeroed ? "zeroed_gauge" : "two_instruments"));
    for (const std::string_view key : zeroed
             ? std::array { "bore_mm", "bore_uncertainty_um", "journal_uncertainty_um" }
             : std::array { "gauge_reading_um", "gauge_uncertainty_um", "zero_uncertainty_um" })
        if (in.has(key))
            return fail(std::string(key), "belongs to the other method");
    return {};
}

Result<Json> clearanceFromDiameters(const CalcArguments &in)
{
    const bool zeroed = in.text("method") == "zeroed_gauge";
    if (auto ok = checkMethodKeys(in, zeroed); !ok)
        return tl::unexpected(ok.error());
    const UncertaintyKind kind = uncertaintyKind(in.text("uncertainty_kind"));
    const auto u = [&](std::string_view key) { return standardUncertainty(in.um(key), kind); };
    const PartsWhileGauging parts {
        .bore = { in.number("bore_temp_c") },
        .journal = { in.number("journal_temp_c") },
        .boreExpansion_per_k = in.number("bore_alpha_per_k"),
        .journalExpansion_per_k = in.number("journal_alpha_per_k"),
        .temperatureUncertainty_k = in.number("temp_uncertainty_k"),
    };
    const ClearanceAt20 c = zeroed
        ? clearanceFromZeroedGauge(in.um("gauge_reading_um"), in.mm("journal_mm"),
                                   u("gauge_uncertainty_um"), u("zero_uncertainty_um"), parts)
        : clearanceFromTwoInstruments(in.mm("bore_mm"), in.mm("journal_mm"),
                                      u("bore_uncertainty_um"), u("journal_uncertainty_um"), parts);
    const double value = c.clearance.value_m;
    const double expanded = 2 * c.standardUncertainty_m;
    return Json { { "clearance_um", value * 1e6 },
                  { "standard_uncertainty_um", c.standardUncertainty_m * 1e6 },
                  { "expanded_uncertainty_um", expanded * 1e6 },
                  { "low_um", (value - expanded) * 1e6 },
                  { "high_um", (value + expanded) * 1e6 },
                  { "clearance_ratio", value / c.journal20_m },
                  { "bore_20c_mm", c.bore20_m * 1e3 },
                  { "journal_20c_mm", c.journal20_m * 1e3 } };
}

constexpr std::array boreReadingItems {
    CalcInput { .key = "angle_deg",
                .meaning = "angle from the parting line",
                .unit = "°",
                .least = -360,
                .most = 360 },
    CalcInput { .key = "station",
                .meaning = "axial station from the front",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .required = false,
                .fallback = 1,
                .least = 1,
                .most = 100 },
    length("diameter_mm", "diameter"),
};
constexpr std::array boreFormInputs {
    CalcInput { .key = "readings",
                .meaning = "diameters by position",
                .unit = "",
                .kind = CalcKind::List,
                .items = boreReadingItems },
    CalcInput { .key = "min_angle_from_joint_deg",
                .meaning = "nearer the parting line than this does not count",
                .unit = "°",
                .required = false,
                .fallback = 60,
                .least = 0,
                .most = 90 },
};
constexpr std::array boreFormOutputs {
    CalcOutput { "counted", "readings that count", "" },
    CalcOutput { "diameter_mm", "mean of the counted readings", "mm" },
    CalcOutput { "min_diameter_mm", "smallest counted diameter, for the film", "mm" },
    CalcOutput { "out_of_round_um", "largest difference within one station", "µm" },
    CalcOutput { "taper_um", "largest difference between stations at one angle", "µm" },
};

Result<Json> runBoreForm(const CalcArguments &in)
{
    std::vector<PositionReading> readings;
    for (const CalcArguments &r : in.list("readings"))
        readings.push_back(
            { r.number("angle_deg"), static_cast<int>(r.number("station")), r.mm("diameter_mm") });
    const auto form = boreForm(readings, in.number("min_angle_from_joint_deg"));
    if (!form)
        return tl::unexpected(form.error());
    return Json { { "counted", form->counted },
                  { "diameter_mm", form->countedMean_m * 1e3 },
                  { "min_diameter_mm", form->smallest_m * 1e3 },
                  { "out_of_round_um", form->outOfRound_m * 1e6 },
                  { "taper_um", form->taper_m * 1e6 } };
}

constexpr std::array stripItems {
    CalcInput {
        .key = "clearance_um", .meaning = "read from the strip's chart", .unit = "µm", .least = 0 },
    CalcInput { .key = "over_oil_hole",
                .meaning = "the strip lay over a hole or groove",
                .unit = "",
                .kind = CalcKind::Boolean,
                .required = false },
};
constexpr std::array stripInputs {
    CalcInput { .key = "readings",
                .meaning = "widths along the strips",
                .unit = "",
                .kind = CalcKind::List,
                .items = stripItems },
    CalcInput { .key = "step_um",
                .meaning = "step of the chart",
                .unit = "µm",
                .least = 0,
                .aboveLeast = true },
};
constexpr std::array stripOutputs {
    CalcOutput { "clearance_um", "smallest usable reading", "µm" },
    CalcOutput { "low_um", "less half a step", "µm" },
    CalcOutput { "high_um", "plus half a step", "µm" },
    CalcOutput { "standard_uncertainty_um", "step/(2√3)", "µm" },
    CalcOutput { "taper_um", "largest less smallest", "µm" },
    CalcOutput { "used", "readings used", "" },
};

Result<Json> stripGauge(const CalcArguments &in)
{
    std::vector<StripReading> readings;
    for (const CalcArguments &r : in.list("readings"))
        readings.push_back({ { r.um("clearance_um") }, r.boolean("over_oil_hole") });
    const auto s = stripClearance(readings, in.um("step_um"));
    if (!s)
        return tl::unexpected(s.error());
    return Json { { "clearance_um", s->clearance.value_m * 1e6 },
                  { "low_um", s->low_m * 1e6 },
                  { "high_um", s->high_m * 1e6 },
                  { "standard_uncertainty_um", s->standardUncertainty_m * 1e6 },
                  { "taper_um", s->taper_m * 1e6 },
                  { "used", s->used } };
}

constexpr std::array thermalInputs {
    CalcInput {
        .key = "cold_clearance_um", .meaning = "diametral clearance at 20 °C", .unit = "µm" },
    length("journal_diameter_mm", "journal diameter"),
    expansion("housing_alpha_per_k", "expansion of the housing"),
    temperature("housing_temp_c", "temperature of the housing"),
    expansion("journal_alpha_per_k", "expansion of the journal"),
    temperature("journal_temp_c", "temperature of the journal"),
    CalcInput { .key = "shell_wall_mm",
                .meaning = "wall of one shell; 0: not known",
                .unit = "mm",
                .required = false,
                .fallback = 0,
                .least = 0,
                .most = 100 },
    optional(expansion("shell_alpha_per_k", "expansion of the shell's steel back"), 11.7e-6),
    optional(expansion("cap_alpha_per_k", "expansion of a cap of another material")),
    optional(temperature("cap_temp_c", "temperature of the cap (the housing's unless given)")),
    CalcInput { .key = "cap_fraction",
                .meaning = "share of the cap in the bore's growth",
                .unit = "",
                .required = false,
                .fallback = 0.5,
                .least = 0,
                .most = 1 },
};
constexpr std::array thermalOutputs {
    CalcOutput { "clearance_um", "diametral clearance at temperature", "µm" },
    CalcOutput { "change_um", "change from 20 °C", "µm" },
    CalcOutput { "bore_growth_um", "growth of the bore inside the shells", "µm" },
    CalcOutput { "journal_growth_um", "growth of the journal", "µm" },
    CalcOutput { "hybrid_spread_um", "out-of-round a cap of another material may cause", "µm" },
    CalcOutput { "shell_interference_loss_um", "loss of the shell's press fit, diametral", "µm" },
};

Result<Json> runThermalClearance(const CalcArguments &in)
{
    ThermalBearing b { .cold = { in.um("cold_clearance_um") },
                       .journalDiameter_m = in.mm("journal_diameter_mm"),
                       .shellWall_m = in.mm("shell_wall_mm"),
                       .shellExpansion_per_k = in.number("shell_alpha_per_k"),
                       .housingExpansion_per_k = in.number("housing_alpha_per_k"),
                       .housing = { in.number("housing_temp_c") },
                       .journalExpansion_per_k = in.number("journal_alpha_per_k"),
                       .journal = { in.number("journal_temp_c") },
                       .cap = {} };
    if (const auto alpha = in.optionalNumber("cap_alpha_per_k"))
        b.cap = CapShare { *alpha,
                           { in.optionalNumber("cap_temp_c").value_or(b.housing.value) },
                           in.number("cap_fraction") };
    const ThermalClearance c = thermalClearance(b);
    return Json { { "clearance_um", c.clearance.value_m * 1e6 },
                  { "change_um", c.change_m * 1e6 },
                  { "bore_growth_um", c.boreGrowth_m * 1e6 },
                  { "journal_growth_um", c.journalGrowth_m * 1e6 },
                  { "hybrid_spread_um", c.hybridSpread_m * 1e6 },
                  { "shell_interference_loss_um", c.shellInterferenceLoss_m * 1e6 } };
}

constexpr std::array coldLockInputs {
    CalcInput {
        .key = "cold_clearance_um", .meaning = "diametral clearance at 20 °C", .unit = "µm" },
    length("journal_diameter_mm", "journal diameter"),
    expansion("housing_alpha_per_k", "expansion of the housing"),
    expansion("journal_alpha_per_k", "expansion of the journal"),
    CalcInput { .key = "floor_um",
                .meaning = "least clearance one accepts",
                .unit = "µm",
                .required = false,
                .fallback = 0,
                .least = 0 },
    optional(temperature("start_temp_c", "coldest start")),
};
constexpr std::array coldLockOutputs {
    CalcOutput { "lock_temp_c", "where the clearance reaches the floor", "°C" },
    CalcOutput { "locks_on", "cooling, heating or never", "" },
    CalcOutput { "clearance_at_start_um", "diametral clearance at the coldest start", "µm" },
    CalcOutput { "preheat_needed", "whether the start lies beyond the floor", "" },
    CalcOutput { "preheat_temp_c", "warm block and crank to this", "°C" },
};

Result<Json> runColdLock(const CalcArguments &in)
{
    const DiametralClearance cold { in.um("cold_clearance_um") };
    const double d = in.mm("journal_diameter_mm");
    const double ah = in.number("housing_alpha_per_k"), aj = in.number("journal_alpha_per_k");
    const ColdLock lock = coldLock(cold, d, ah, aj, { in.um("floor_um") });
    Json out = { { "lock_temp_c", lock.temperature_c ? Json(*lock.temperature_c) : Json() },
                 { "locks_on",
                   lock.on == ColdLock::On::Cooling       ? "cooling"
                       : lock.on == ColdLock::On::Heating ? "heating"
                                                          : "never" } };
    if (const auto start = in.optionalNumber("start_temp_c")) {
        const DiametralClearance c = clearanceAtOneTemperature(cold, d, ah, aj, { *start });
        const bool needed = lock.on == ColdLock::On::Cooling && *start < *lock.temperature_c;
        out["clearance_at_start_um"] = c.value_m * 1e6;
        out["preheat_needed"] = needed;
        out["preheat_temp_c"] = needed ? *lock.temperature_c : *start;
    }
    return out;
}

constexpr std::array endFloatInputs {
    positive("end_float_um", "end float at 20 °C", "µm"),
    length("thrust_width_mm", "width between the thrust faces"),
    expansion("housing_alpha_per_k", "expansion of the housing"),
    temperature("housing_temp_c", "temperature of the housing"),
    expansion("journal_alpha_per_k", "expansion of the crank"),
    temperature("journal_temp_c", "temperature of the crank"),
};
constexpr std::array endFloatOutputs {
    CalcOutput { "hot_end_float_um", "end float at temperature", "µm" },
    CalcOutput { "change_um", "what heat made of it", "µm" },
};

Result<Json> runEndFloat(const CalcArguments &in)
{
    const double change = endFloatChange_m(
        in.mm("thrust_width_mm"), in.number("housing_alpha_per_k"), { in.number("housing_temp_c") },
        in.number("journal_alpha_per_k"), { in.number("journal_temp_c") });
    return Json { { "hot_end_float_um", in.number("end_float_um") + change * 1e6 },
                  { "change_um", change * 1e6 } };
}

} // namespace

const Calculator endFloatCalculator {
    "end-float",
    "End float at temperature",
    "In an alloy block the end float shrinks while the radial clearance grows",
    "hot = float + w (αj (Tj − 20) − αh (Th − 20))",
    "standard linear-expansion result",
    endFloatInputs,
    endFloatOutputs,
    runEndFloat
};

const Calculator clearanceFromDiametersCalculator {
    "clearance-from-diameters",
    "Clearance from bore and journal",
    "Diametral clearance at 20 °C with its uncertainty, by two instruments or a zeroed bore gauge",
    "C = Db/(1 + αb (Tb − 20)) − Dj/(1 + αj (Tj − 20));  u² = ub² + uj² + thermal parts",
    "JCGM 100 (GUM) 2008, eq. 10; ISO 1 reference temperature",
    diameterInputs,
    diameterOutputs,
    clearanceFromDiameters
};

const Calculator boreFormCalculator {
    "bore-form",
    "Form of a bore",
    "Mean, taper and out-of-round of the readings that lie far enough from the parting line",
    "out-of-round = max − min in one station; taper = max − min over stations at one angle",
    "common practice, no source; shells thin toward the joint",
    boreFormInputs,
    boreFormOutputs,
    runBoreForm
};

const Calculator stripGaugeCalculator {
    "strip-gauge-clearance",
    "Clearance by plastic strip",
    "A check of the clearance, never a replacement for gauge or micrometer",
    "smallest usable reading ± step/2;  u = step/(2√3)",
    "common practice, no source; uncertainty after JCGM 100 (GUM) 2008, 4.3.7",
    stripInputs,
    stripOutputs,
    stripGauge
};

const Calculator thermalClearanceCalculator {
    "thermal-clearance",
    "Clearance at temperature",
    "What heat makes of a cold clearance, with shells and caps of another material",
    "C = C0 + Dh e − 2 t αs (Th − 20) − Dj αj (Tj − 20);  Dh = Dj + C0 + 2 t;  "
    "e = αh (Th − 20), with a cap (1 − f) αh ΔTh + f αc ΔTc",
    "standard linear-expansion result; the mean for caps of another material is an engineering "
    "estimate",
    thermalInputs,
    thermalOutputs,
    runThermalClearance
};

const Calculator coldLockCalculator {
    "cold-lock-temperature",
    "Where cold closes a bearing",
    "The temperature at which the clearance reaches a floor, block and crank alike",
    "T = 20 − (C0 − floor)/(D (αh − αj));  C(T) = C0 + D (αh − αj)(T − 20)",
    "standard linear-expansion result",
    coldLockInputs,
    coldLockOutputs,
    runColdLock
};

} // namespace mildpath
