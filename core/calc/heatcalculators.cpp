// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/heatedblock.h"
#include "bearing/infrared.h"
#include "bearing/thermal.h"
#include "calc/inputs.h"

#include <array>

namespace mildpath {
namespace {

constexpr CalcInput anyClearance(std::string_view key, std::string_view meaning)
{
    return { .key = key, .meaning = meaning, .unit = "µm" };
}

constexpr std::array heatedInputs {
    optional(
        anyClearance("reading_um", "what the gauge reads in the warm bore; this or the other")),
    optional(anyClearance("running_clearance_um", "running clearance whose reading is asked")),
    length("journal_diameter_mm", "journal diameter"),
    expansion("journal_alpha_per_k", "expansion of the journal"),
    temperature("block_temp_c", "temperature of the block when gauged"),
    optional(temperature("zero_temp_c", "temperature of the journal when the gauge was zeroed"),
             20),
    optional(temperature("running_journal_temp_c", "running journal (the block's unless given)")),
    optional(temperature("running_housing_temp_c", "running housing (the block's unless given)")),
    optional(expansion("housing_alpha_per_k",
                       "expansion of the housing: needed when it runs at another temperature")),
};
constexpr std::array heatedOutputs {
    CalcOutput { "reading_um", "what the gauge reads", "µm" },
    CalcOutput { "running_clearance_um", "diametral clearance with the journal warm too", "µm" },
    CalcOutput { "overstatement_um", "by which the reading is larger for the journal being cold",
                 "µm" },
    CalcOutput { "clearance_20c_um", "with everything at 20 °C", "µm" },
};

Result<Json> runHeatedBlock(const CalcArguments &in)
{
    const auto reading = in.optionalNumber("reading_um");
    const auto running = in.optionalNumber("running_clearance_um");
    if (reading.has_value() == running.has_value())
        return fail("reading_um", "give either reading_um or running_clearance_um");
    const double block_c = in.number("block_temp_c");
    HeatedBlock test {
        .journalDiameter_m = in.mm("journal_diameter_mm"),
        .journalExpansion_per_k = in.number("journal_alpha_per_k"),
        .zero = { in.number("zero_temp_c") },
        .block = { block_c },
        .runningJournal = { in.optionalNumber("running_journal_temp_c").value_or(block_c) },
        .runningHousing = { in.optionalNumber("running_housing_temp_c").value_or(block_c) },
        .housingExpansion_per_k = in.optionalNumber("housing_alpha_per_k"),
    };
    if (test.runningHousing.value != block_c && !test.housingExpansion_per_k)
        return fail("housing_alpha_per_k",
                    "is needed when running_housing_temp_c differs from block_temp_c");
    const DiametralClearance read = reading ? DiametralClearance { *reading * 1e-6 }
                                            : readingFromRunning(test, { *running * 1e-6 });
    Json out = { { "reading_um", read.value_m * 1e6 },
                 { "running_clearance_um", runningFromReading(test, read).value_m * 1e6 },
                 { "overstatement_um", overstatement_m(test) * 1e6 } };
    if (test.housingExpansion_per_k)
        out["clearance_20c_um"] = at20FromReading(test, read).value_m * 1e6;
    return out;
}

constexpr std::array fitInputs {
    length("bore_diameter_mm", "bore whose growth is read"),
    CalcInput { .key = "temps_c",
                .meaning = "temperatures of the housing, two at least that differ",
                .unit = "°C",
                .kind = CalcKind::Numbers,
                .least = -80,
                .most = 350 },
    CalcInput { .key = "readings_um",
                .meaning = "what the gauge read there",
                .unit = "µm",
                .kind = CalcKind::Numbers },
    optional(notNegative("reading_u_um", "standard uncertainty of a reading", "µm"), 0),
    optional(notNegative("temp_u_k", "standard uncertainty of a temperature", "K"), 0),
    CalcInput { .key = "journal",
                .meaning = "whether the gauge was zeroed cold or on a journal as warm as the block",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "cold|with_block" },
    optional(expansion("journal_alpha_per_k", "expansion of a journal that warms with the block")),
};
constexpr std::array fitOutputs {
    CalcOutput { "alpha_per_k", "expansion of the housing, effective", "1/K" },
    CalcOutput { "alpha_u_per_k", "its standard uncertainty", "1/K" },
    CalcOutput { "clearance_20c_um", "what would be read at 20 °C", "µm" },
    CalcOutput { "clearance_20c_u_um", "its standard uncertainty", "µm" },
    CalcOutput { "residual_sd_um", "scatter of the readings about the line", "µm" },
    CalcOutput { "slope_um_per_k", "growth of the reading", "µm/K" },
    CalcOutput { "n", "points", "" },
};

Result<Json> runExpansionFit(const CalcArguments &in)
{
    std::vector<double> temps = in.numbers("temps_c"), readings = in.numbers("readings_um");
    for (double &r : readings)
        r *= 1e-6;
    const bool withBlock = in.text("journal") == "with_block";
    const auto journal = in.optionalNumber("journal_alpha_per_k");
    if (withBlock && !journal)
        return fail("journal_alpha_per_k", "is needed when the journal warms with the block");
    const auto fit = fitExpansion(
        in.mm("bore_diameter_mm"), temps, readings, in.um("reading_u_um"), in.number("temp_u_k"),
        withBlock ? GaugedJournal::WithBlock : GaugedJournal::Cold, journal.value_or(0));
    if (!fit)
        return tl::unexpected(fit.error());
    return Json { { "alpha_per_k", fit->expansion_per_k },
                  { "alpha_u_per_k", orNull(fit->expansionU_per_k) },
                  { "clearance_20c_um", fit->at20_m * 1e6 },
                  { "clearance_20c_u_um", orNull(fit->at20U_m, 1e6) },
                  { "residual_sd_um", orNull(fit->residualSd_m, 1e6) },
                  { "slope_um_per_k", fit->slope_m_per_k * 1e6 },
                  { "n", temps.size() } };
}

constexpr std::array windowInputs {
    notNegative("lo_um", "least cold clearance the parts allow", "µm"),
    notNegative("hi_um", "most cold clearance the parts allow", "µm"),
    length("journal_diameter_mm", "journal diameter"),
    expansion("housing_alpha_per_k", "expansion of the housing"),
    expansion("journal_alpha_per_k", "expansion of the journal"),
    notNegative("floor_um", "least clearance accepted at the coldest start", "µm"),
    positive("ceiling_um", "most clearance accepted hot", "µm"),
    temperature("start_temp_c", "coldest start"),
    temperature("hot_housing_temp_c", "housing, hot"),
    temperature("hot_journal_temp_c", "journal, hot"),
};
constexpr std::array windowOutputs {
    CalcOutput { "c0_min_um", "least diametral clearance at 20 °C", "µm" },
    CalcOutput { "c0_max_um", "most diametral clearance at 20 °C", "µm" },
    CalcOutput { "window_um", "room between them; negative: none", "µm" },
    CalcOutput { "feasible", "whether there is room", "" },
    CalcOutput { "c0_um", "the middle of the room", "µm" },
    CalcOutput { "preheat_temp_c", "warm block and crank to this before starting", "°C" },
    CalcOutput { "ceiling_needed_um", "hot clearance to accept instead", "µm" },
    CalcOutput { "viscosity_ratio_needed", "viscosity or pump flow that takes at equal pressure",
                 "" },
};

Result<Json> runClearanceWindow(const CalcArguments &in)
{
    if (in.number("hi_um") < in.number("lo_um"))
        return fail("hi_um", "must not be below lo_um");
    const ClearanceWindow w
        = clearanceWindow({ { in.um("lo_um") },
                            { in.um("hi_um") },
                            { in.um("floor_um") },
                            { in.um("ceiling_um") },
                            { in.number("start_temp_c") },
                            { in.number("hot_housing_temp_c") },
                            { in.number("hot_journal_temp_c") } },
                          in.mm("journal_diameter_mm"), in.number("housing_alpha_per_k"),
                          in.number("journal_alpha_per_k"));
    const auto um = [](const std::optional<DiametralClearance> &c) {
        return c ? Json(c->value_m * 1e6) : Json();
    };
    return Json { { "c0_min_um", um(w.least) },
                  { "c0_max_um", um(w.most) },
                  { "window_um", w.width_m() * 1e6 },
                  { "feasible", w.feasible() },
                  { "c0_um", um(w.choose) },
                  { "preheat_temp_c", orNull(w.preheat_c) },
                  { "ceiling_needed_um", um(w.ceilingNeeded) },
                  { "viscosity_ratio_needed", orNull(w.viscosityRatio) } };
}

constexpr CalcInput emissivityOf(std::string_view key, std::string_view meaning)
{
    return {
        .key = key, .meaning = meaning, .unit = "", .least = 0, .most = 1, .aboveLeast = true
    };
}

constexpr std::array emissivityInputs {
    temperature("reading_c", "what the infrared thermometer reads"),
    temperature("ambient_c", "surroundings and instrument"),
    emissivityOf("emissivity", "of the spot"),
    optional(emissivityOf("instrument_emissivity", "what the instrument is set to"), 0.95),
    optional(notNegative("emissivity_u", "standard uncertainty of the spot's emissivity", ""), 0),
    CalcInput { .key = "method",
                .meaning = "wavelengths the instrument answers to",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "total|band_8_14" },
};
constexpr std::array emissivityOutputs {
    CalcOutput { "temp_c", "temperature of the spot", "°C" },
    CalcOutput { "correction_k", "true less read", "K" },
    CalcOutput { "amplification", "kelvin of the answer per kelvin read", "" },
    CalcOutput { "temp_u_k", "standard uncertainty from the emissivity's", "K" },
    CalcOutput { "plausible", "amplification 2 at most; beyond it paint the spot or use a probe",
                 "" },
};

Result<Json> runEmissivity(const CalcArguments &in)
{
    const auto t = trueTemperature({ .reading = { in.number("reading_c") },
                                     .surroundings = { in.number("ambient_c") },
                                     .emissivity = in.number("emissivity"),
                                     .instrumentEmissivity = in.number("instrument_emissivity"),
                                     .emissivityU = in.number("emissivity_u"),
                                     .band = in.text("method") == "band_8_14"
                                         ? InfraredBand::Micrometres8To14
                                         : InfraredBand::Total });
    if (!t)
        return tl::unexpected(t.error());
    return Json { { "temp_c", t->temperature.value },
                  { "correction_k", t->correction_k },
                  { "amplification", t->amplification },
                  { "temp_u_k", t->u_k },
                  { "plausible", t->usable } };
}

} // namespace

const Calculator heatedBlockCalculator {
    "heated-block-test",
    "Heated-block test",
    "What a gauge zeroed on a cold journal reads in a warm block, and what the engine then runs "
    "with",
    "C = reading + D αh (Th run − T block) − D αj (Tj run − T zero)",
    "standard linear-expansion result, first order in D",
    heatedInputs,
    heatedOutputs,
    runHeatedBlock
};

const Calculator expansionFitCalculator {
    "expansion-fit",
    "Expansion from readings",
    "The effective expansion of a housing from gauge readings at several temperatures",
    "reading = A + B (T − 20);  α = B/D, or B/D + αj with a warm journal;  u(B) = s/√Sxx,  "
    "u(A) = s √(1/n + x̄²/Sxx)",
    "ordinary least squares, standard textbook result; for few points multiply u by Student's t",
    fitInputs,
    fitOutputs,
    runExpansionFit
};

const Calculator clearanceWindowCalculator {
    "clearance-window",
    "Room between cold and hot",
    "Which cold clearances both turn at the coldest start and keep oil pressure hot",
    "C0 from max(lo, F − gs) to min(hi, K − gh);  gs = D (αh − αj)(Ts − 20);  "
    "gh = D (αh (Th − 20) − αj (Tj − 20));  viscosity × (K'/K)³",
    "standard linear-expansion result; flow ∝ C³",
    windowInputs,
    windowOutputs,
    runClearanceWindow
};

const Calculator emissivityCalculator {
    "emissivity-correction",
    "Infrared on bright metal",
    "The true temperature behind an infrared reading, and whether the correction can be trusted",
    "T⁴ = Ta⁴ + (es/e)(Tr⁴ − Ta⁴), or the same with Planck's exitance between 8 and 14 µm",
    "standard textbook result; usable to an amplification of 2 (own choice)",
    emissivityInputs,
    emissivityOutputs,
    runEmissivity
};

} // namespace mildpath
