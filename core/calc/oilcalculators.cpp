// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "oil/blending.h"
#include "oil/grades.h"
#include "oil/shear.h"
#include "oil/viscosity.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr CalcInput kv40 { .key = "kv40_mm2_s",
                           .meaning = "kinematic viscosity at 40 °C",
                           .unit = "mm²/s",
                           .least = 0,
                           .aboveLeast = true };
constexpr CalcInput kv100 { .key = "kv100_mm2_s",
                            .meaning = "kinematic viscosity at 100 °C",
                            .unit = "mm²/s",
                            .least = 0,
                            .aboveLeast = true };

constexpr std::array viscosityAtInputs {
    kv40,
    kv100,
    CalcInput { .key = "temperature_c",
                .meaning = "oil temperature",
                .unit = "°C",
                .least = -60,
                .most = 300 },
    CalcInput { .key = "density_15_kg_m3",
                .meaning = "density at 15 °C",
                .unit = "kg/m³",
                .required = false,
                .fallback = 870,
                .least = 600,
                .most = 1200 },
};
constexpr std::array viscosityAtOutputs {
    CalcOutput { "walther_a", "intercept of the double-log line", "" },
    CalcOutput { "walther_b", "slope of the double-log line", "" },
    CalcOutput { "kinematic_viscosity_mm2_s", "kinematic viscosity", "mm²/s" },
    CalcOutput { "density_kg_m3", "density", "kg/m³" },
    CalcOutput { "dynamic_viscosity_pa_s", "dynamic viscosity", "Pa·s" },
    CalcOutput { "extrapolated", "outside 0 to 150 °C or below 2 mm²/s", "" },
};

Result<Json> viscosityAt(const CalcArguments &in)
{
    const auto line = waltherLine(in.number("kv40_mm2_s"), in.number("kv100_mm2_s"));
    if (!line)
        return tl::unexpected(line.error());
    const Celsius t { in.number("temperature_c") };
    const double nu = kinematicViscosity_mm2_s(*line, t);
    const double rho = densityD1250_kg_m3(in.number("density_15_kg_m3"), t);
    return Json { { "walther_a", line->a },
                  { "walther_b", line->b },
                  { "kinematic_viscosity_mm2_s", nu },
                  { "density_kg_m3", rho },
                  { "dynamic_viscosity_pa_s", nu * 1e-6 * rho },
                  { "extrapolated", t.value < 0 || t.value > 150 || nu < 2 } };
}

constexpr std::array viscosityIndexInputs { kv40, kv100 };
constexpr std::array viscosityIndexOutputs {
    CalcOutput { "l_mm2_s", "viscosity at 40 °C of the reference oil of index 0", "mm²/s" },
    CalcOutput { "h_mm2_s", "viscosity at 40 °C of the reference oil of index 100", "mm²/s" },
    CalcOutput { "procedure", "a: up to 100, b: above", "" },
    CalcOutput { "viscosity_index", "viscosity index", "" },
    CalcOutput { "viscosity_index_rounded", "as it is quoted", "" },
};

Result<Json> runViscosityIndex(const CalcArguments &in)
{
    const auto vi = viscosityIndex(in.number("kv40_mm2_s"), in.number("kv100_mm2_s"));
    if (!vi)
        return tl::unexpected(vi.error());
    return Json { { "l_mm2_s", vi->l_mm2_s },
                  { "h_mm2_s", vi->h_mm2_s },
                  { "procedure", vi->procedureB ? "b" : "a" },
                  { "viscosity_index", vi->index },
                  { "viscosity_index_rounded", std::floor(vi->index + 0.5) } };
}

constexpr std::array gradeInputs {
    kv100,
    CalcInput { .key = "hths_pa_s",
                .meaning = "viscosity at 150 °C and 1e6 1/s",
                .unit = "Pa·s",
                .required = false,
                .least = 0,
                .aboveLeast = true },
    CalcInput { .key = "winter_grade",
                .meaning = "winter grade on the can",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "0W|5W|10W|15W|20W|25W" },
};
constexpr std::array gradeOutputs {
    CalcOutput { "engine_candidates", "engine grades whose window holds this viscosity", "" },
    CalcOutput { "engine_grade", "the highest whose high-shear minimum is met", "" },
    CalcOutput { "hths_minimum_pa_s", "high-shear minimum of that grade", "Pa·s" },
    CalcOutput { "hths_checked", "whether a high-shear viscosity was given", "" },
    CalcOutput { "gear_grade", "grade on the gear scale, for comparison only", "" },
    CalcOutput { "winter_minimum_met", "minimum at 100 °C of the winter grade, if one was given",
                 "" },
};

Result<Json> runGrade(const CalcArguments &in)
{
    const auto winter = in.has("winter_grade") ? std::optional<std::string>(in.text("winter_grade"))
                                               : std::nullopt;
    const auto g = gradeOf(in.number("kv100_mm2_s"), in.optionalNumber("hths_pa_s"), winter);
    if (!g)
        return tl::unexpected(g.error());
    Json out = { { "engine_candidates", g->engineCandidates },
                 { "engine_grade", orNull(g->engineGrade) },
                 { "hths_minimum_pa_s", orNull(g->hthsMinimum_pa_s) },
                 { "hths_checked", g->hthsChecked },
                 { "gear_grade", orNull(g->gearGrade) } };
    if (g->winterMinimumMet)
        out["winter_minimum_met"] = *g->winterMinimumMet;
    return out;
}

constexpr std::array dilutionInputs {
    positive("oil_kinematic_viscosity_mm2_s", "oil", "mm²/s"),
    CalcInput { .key = "fuel_kinematic_viscosity_mm2_s",
                .meaning = "fuel at the same temperature",
                .unit = "mm²/s",
                .least = 0.2,
                .aboveLeast = true },
    within(notNegative("fuel_mass_fraction", "fuel by mass", ""), 0, 0.5),
};
constexpr std::array dilutionOutputs {
    CalcOutput { "vbn_oil", "blending index of the oil", "" },
    CalcOutput { "vbn_fuel", "of the fuel", "" },
    CalcOutput { "vbn_blend", "of the blend", "" },
    CalcOutput { "blend_kinematic_viscosity_mm2_s", "of the blend", "mm²/s" },
    CalcOutput { "viscosity_loss_fraction", "of the oil's viscosity", "" },
};

Result<Json> runDilution(const CalcArguments &in)
{
    const double oil = in.number("oil_kinematic_viscosity_mm2_s");
    const double fuel = in.number("fuel_kinematic_viscosity_mm2_s");
    if (!(fuel < oil))
        return fail("fuel_kinematic_viscosity_mm2_s", "must be below the oil's");
    const FuelBlend b = fuelBlend(oil, fuel, in.number("fuel_mass_fraction"));
    return Json { { "vbn_oil", b.oilIndex },
                  { "vbn_fuel", b.fuelIndex },
                  { "vbn_blend", b.blendIndex },
                  { "blend_kinematic_viscosity_mm2_s", b.kv_mm2_s },
                  { "viscosity_loss_fraction", b.loss } };
}

constexpr std::array shearInputs {
    positive("kv40_mm2_s", "kinematic viscosity at 40 °C", "mm²/s"),
    positive("kv100_mm2_s", "kinematic viscosity at 100 °C", "mm²/s"),
    within(optional(notNegative("density_15_kg_m3", "density at 15 °C", "kg/m³"), 870), 600, 1200),
    positive("hths_pa_s", "high-shear viscosity at 150 °C, 1e6 1/s", "Pa·s"),
    within(temperature("temperature_c", "temperature"), -60, 300),
    positive("shear_rate_per_s", "surface speed over film", "1/s"),
    optional(positive("cross_exponent", "m, an assumption", ""), 1),
    CalcInput { .key = "second_newtonian_ratio",
                .meaning = "r, an assumption",
                .unit = "",
                .required = false,
                .fallback = 0.5,
                .least = 0,
                .most = 1,
                .aboveLeast = true },
};
constexpr std::array shearOutputs {
    CalcOutput { "low_shear_viscosity_pa_s", "without shear, at the temperature", "Pa·s" },
    CalcOutput { "hths_ratio", "high-shear over low-shear at 150 °C", "" },
    CalcOutput { "newtonian", "does not thin", "" },
    CalcOutput { "critical_stress_pa", "where thinning is half done", "Pa" },
    CalcOutput { "critical_shear_rate_per_s", "at the temperature; null if Newtonian", "1/s" },
    CalcOutput { "viscosity_pa_s", "at that shear rate", "Pa·s" },
};

Result<Json> runShear(const CalcArguments &in)
{
    const auto line = waltherLine(in.number("kv40_mm2_s"), in.number("kv100_mm2_s"));
    if (!line)
        return tl::unexpected(line.error());
    const auto low = [&](double t) {
        return kinematicViscosity_mm2_s(*line, { t }) * 1e-6
            * densityD1250_kg_m3(in.number("density_15_kg_m3"), { t });
    };
    const auto curve = shearThinning(low(150), in.number("hths_pa_s"), in.number("cross_exponent"),
                                     in.number("second_newtonian_ratio"));
    if (!curve)
        return tl::unexpected(curve.error());
    const double mu0 = low(in.number("temperature_c"));
    const auto unless = [&](double v) { return curve->newtonian ? Json() : Json(v); };
    return Json { { "low_shear_viscosity_pa_s", mu0 },
                  { "hths_ratio", curve->ratio },
                  { "newtonian", curve->newtonian },
                  { "critical_stress_pa", unless(curve->criticalStress_pa) },
                  { "critical_shear_rate_per_s", unless(curve->criticalRate_per_s(mu0)) },
                  { "viscosity_pa_s", curve->viscosity_pa_s(mu0, in.number("shear_rate_per_s")) } };
}

} // namespace

const Calculator fuelDilutionCalculator {
    "fuel-dilution",
    "Fuel in the oil",
    "What petrol in the oil does to its viscosity; not for methanol",
    "VBN = 14.534 ln(ln(nu + 0.8)) + 10.975, mixed by mass",
    "Refutas, from memory; ASTM D7152's own route differs by under 1 %",
    dilutionInputs,
    dilutionOutputs,
    runDilution
};

const Calculator highShearCalculator {
    "high-shear-viscosity",
    "Viscosity under shear",
    "How thin a multigrade becomes in a bearing, for the moment",
    "mu = mu0 [r + (1 − r)/(1 + (γ/γc)^m)], pinned at 150 °C and 1e6 1/s",
    "Cross model, standard form; m and r are assumptions. Above 3e6 1/s extrapolated",
    shearInputs,
    shearOutputs,
    runShear
};

const Calculator viscosityAtCalculator {
    "viscosity-at",
    "Viscosity at a temperature",
    "How thick an oil is at a temperature, from its data sheet",
    "log10(log10(nu + 0.7)) = A − B log10 T;  rho = rho15 exp(−α dT (1 + 0.8 α dT));  mu = nu rho",
    "ASTM D341 short form (Walther) and ASTM D1250 lubricating-oil group, from memory",
    viscosityAtInputs,
    viscosityAtOutputs,
    viscosityAt
};

const Calculator viscosityIndexCalculator {
    "viscosity-index",
    "Viscosity index",
    "How little an oil thins with heat: higher is steadier",
    "A: 100 (L − U)/(L − H);  B: (10^N − 1)/0.00715 + 100, N = (log10 H − log10 U)/log10 Y",
    "ASTM D2270, quadratic fits of its table, from memory; its two worked examples are reproduced",
    viscosityIndexInputs,
    viscosityIndexOutputs,
    runViscosityIndex
};

const Calculator gradeCalculator {
    "grade",
    "Grade by viscosity",
    "Where an oil stands on the engine scale and, for comparison only, on the gear scale",
    "windows of kinematic viscosity at 100 °C; high-shear minimum decides between overlapping ones",
    "SAE J300 (2015 values) and SAE J306 (2019 values), from memory",
    gradeInputs,
    gradeOutputs,
    runGrade
};

} // namespace mildpath
