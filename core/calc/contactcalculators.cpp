// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/contact.h"
#include "calc/inputs.h"
#include "oil/blending.h"
#include "oil/fallingball.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array filmParameterInputs {
    notNegative("h_min_um", "smallest film", "µm"),
    notNegative("rq_1_um", "roughness Rq of one surface (Rpq when plateau-finished)", "µm"),
    notNegative("rq_2_um", "of the other", "µm"),
};
constexpr std::array filmParameterOutputs {
    CalcOutput { "combined_rq_um", "both together", "µm" },
    CalcOutput { "film_parameter", "λ", "" },
    CalcOutput { "regime", "boundary, mixed or full_film", "" },
};

Result<Json> runFilmParameter(const CalcArguments &in)
{
    const double rq1 = in.um("rq_1_um"), rq2 = in.um("rq_2_um");
    if (rq1 == 0 && rq2 == 0)
        return fail("rq_1_um", "one of the surfaces must have a roughness");
    const double lambda = filmParameter(in.um("h_min_um"), rq1, rq2);
    return Json { { "combined_rq_um", std::hypot(rq1, rq2) * 1e6 },
                  { "film_parameter", lambda },
                  { "regime", regimeId(regimeOf(lambda)) } };
}

constexpr CalcInput modulus(std::string_view key)
{
    return optional(positive(key, "elastic modulus", "Pa"), 206e9);
}
constexpr CalcInput poisson(std::string_view key)
{
    return within(optional(positive(key, "Poisson's ratio", ""), 0.3), 0, 0.5);
}

constexpr std::array lineInputs {
    positive("viscosity_pa_s", "at the inlet, low shear", "Pa·s"),
    notNegative("entrainment_speed_m_s", "half the sum of both surface speeds", "m/s"),
    positive("radius_1_m", "radius of one side", "m"),
    CalcInput { .key = "radius_2_m",
                .meaning = "of the other: absent flat, negative concave",
                .unit = "m",
                .required = false },
    positive("load_n", "load", "N"),
    positive("contact_length_m", "length of the contact", "m"),
    modulus("e_1_pa"),
    modulus("e_2_pa"),
    poisson("poisson_1"),
    poisson("poisson_2"),
    positive("pressure_viscosity_per_pa", "slope of viscosity by pressure", "1/Pa"),
    optional(notNegative("rq_1_um", "roughness Rq of one surface", "µm")),
    optional(notNegative("rq_2_um", "of the other", "µm")),
};
constexpr std::array lineOutputs {
    CalcOutput { "reduced_radius_m", "1/(1/r1 + 1/r2)", "m" },
    CalcOutput { "reduced_modulus_pa", "E'", "Pa" },
    CalcOutput { "speed_parameter", "U", "" },
    CalcOutput { "material_parameter", "G", "" },
    CalcOutput { "load_parameter", "W", "" },
    CalcOutput { "hertz_half_width_um", "half width of the contact", "µm" },
    CalcOutput { "hertz_pressure_pa", "highest pressure of the contact", "Pa" },
    CalcOutput { "h_elastic_um", "film with the surfaces giving way", "µm" },
    CalcOutput { "h_rigid_um", "film between rigid surfaces", "µm" },
    CalcOutput { "h_min_um", "the larger of the two", "µm" },
    CalcOutput { "film_parameter", "λ, with both roughnesses", "" },
    CalcOutput { "regime", "boundary, mixed or full_film", "" },
};

Result<Json> runLine(const CalcArguments &in)
{
    const auto second = in.optionalNumber("radius_2_m");
    if (second && *second == 0)
        return fail("radius_2_m", "must not be 0; absent means flat");
    const auto f
        = lineContactFilm({ .viscosity_pa_s = in.number("viscosity_pa_s"),
                            .entrainment_m_s = in.number("entrainment_speed_m_s"),
                            .radius1_m = in.number("radius_1_m"),
                            .radius2_m = second,
                            .load_n = in.number("load_n"),
                            .length_m = in.number("contact_length_m"),
                            .modulus1_pa = in.number("e_1_pa"),
                            .modulus2_pa = in.number("e_2_pa"),
                            .poisson1 = in.number("poisson_1"),
                            .poisson2 = in.number("poisson_2"),
                            .pressureViscosity_per_pa = in.number("pressure_viscosity_per_pa") });
    if (!f)
        return tl::unexpected(f.error());
    Json out = { { "reduced_radius_m", f->reducedRadius_m },
                 { "reduced_modulus_pa", f->reducedModulus_pa },
                 { "speed_parameter", f->speed },
                 { "material_parameter", f->material },
                 { "load_parameter", f->load },
                 { "hertz_half_width_um", f->hertzHalfWidth_m * 1e6 },
                 { "hertz_pressure_pa", f->hertz_pa },
                 { "h_elastic_um", f->elastic_m * 1e6 },
                 { "h_rigid_um", f->rigid_m * 1e6 },
                 { "h_min_um", f->smallest_m * 1e6 } };
    const auto rq1 = in.optionalNumber("rq_1_um"), rq2 = in.optionalNumber("rq_2_um");
    if (rq1 && rq2 && *rq1 + *rq2 > 0) {
        const double lambda = filmParameter(f->smallest_m, *rq1 * 1e-6, *rq2 * 1e-6);
        out["film_parameter"] = lambda;
        out["regime"] = regimeId(regimeOf(lambda));
    }
    return out;
}

constexpr std::array ballInputs {
    positive("time_reference_s", "fall in the known oil", "s"),
    positive("time_unknown_s", "fall in the unknown oil", "s"),
    positive("density_reference_kg_m3", "density of the known oil", "kg/m³"),
    positive("density_unknown_kg_m3", "density of the unknown oil", "kg/m³"),
    optional(positive("ball_density_kg_m3", "density of the ball", "kg/m³"), 7800),
    positive("viscosity_reference_pa_s", "viscosity of the known oil then", "Pa·s"),
    positive("ball_diameter_m", "ball", "m"),
    positive("glass_diameter_m", "bore of the glass", "m"),
    positive("fall_height_m", "height timed", "m"),
};
constexpr std::array ballOutputs {
    CalcOutput { "time_ratio", "unknown over known", "" },
    CalcOutput { "buoyancy_factor", "what the densities change of it", "" },
    CalcOutput { "viscosity_ratio", "unknown over known", "" },
    CalcOutput { "viscosity_unknown_pa_s", "of the unknown oil", "Pa·s" },
    CalcOutput { "wall_factor", "Faxén: what the glass's wall holds back", "" },
    CalcOutput { "predicted_reference_time_s", "of the known oil: checks the rig", "s" },
    CalcOutput { "reynolds_reference", "in the known oil", "" },
    CalcOutput { "reynolds_unknown", "in the unknown oil", "" },
    CalcOutput { "creeping_flow", "both slow enough: the ratio is good to about 2 %", "" },
};

Result<Json> runBall(const CalcArguments &in)
{
    const auto r = fallingBall({ .referenceTime_s = in.number("time_reference_s"),
                                 .unknownTime_s = in.number("time_unknown_s"),
                                 .referenceDensity_kg_m3 = in.number("density_reference_kg_m3"),
                                 .unknownDensity_kg_m3 = in.number("density_unknown_kg_m3"),
                                 .ballDensity_kg_m3 = in.number("ball_density_kg_m3"),
                                 .referenceViscosity_pa_s = in.number("viscosity_reference_pa_s"),
                                 .ball_m = in.number("ball_diameter_m"),
                                 .glass_m = in.number("glass_diameter_m"),
                                 .fall_m = in.number("fall_height_m") });
    if (!r)
        return tl::unexpected(r.error());
    return Json { { "time_ratio", r->timeRatio },
                  { "buoyancy_factor", r->buoyancy },
                  { "viscosity_ratio", r->viscosityRatio },
                  { "viscosity_unknown_pa_s", r->viscosity_pa_s },
                  { "wall_factor", r->wallFactor },
                  { "predicted_reference_time_s", r->predictedReferenceTime_s },
                  { "reynolds_reference", r->reynoldsReference },
                  { "reynolds_unknown", r->reynoldsUnknown },
                  { "creeping_flow", r->creeping } };
}

constexpr CalcInput airFuel(std::string_view key, std::string_view meaning)
{
    CalcInput in = positive(key, meaning, "");
    in.most = 50;
    return in;
}
constexpr CalcInput lambdaOf(std::string_view key)
{
    return within(optional(notNegative(key, "air over what burns all of it", ""), 1), 0.3, 3);
}
constexpr std::array massInputs {
    airFuel("stoich_afr_1", "air to fuel 1 by mass, all burnt"),
    airFuel("stoich_afr_2", "air to fuel 2"),
    lambdaOf("lambda_1"),
    lambdaOf("lambda_2"),
    optional(positive("density_1_kg_m3", "density of fuel 1", "kg/m³")),
    optional(positive("density_2_kg_m3", "density of fuel 2", "kg/m³")),
};
constexpr std::array massOutputs {
    CalcOutput { "mass_ratio", "fuel 2 per fuel 1, equal air", "" },
    CalcOutput { "volume_ratio", "by volume, with both densities", "" },
};

Result<Json> runMass(const CalcArguments &in)
{
    const double ratio = fuelMassRatio(in.number("stoich_afr_1"), in.number("lambda_1"),
                                       in.number("stoich_afr_2"), in.number("lambda_2"));
    Json out = Json::object();
    out["mass_ratio"] = ratio;
    const auto d1 = in.optionalNumber("density_1_kg_m3"), d2 = in.optionalNumber("density_2_kg_m3");
    if (d1 && d2)
        out["volume_ratio"] = ratio * *d1 / *d2;
    return out;
}

} // namespace

const Calculator filmParameterCalculator {
    "film-parameter",
    "Film against roughness",
    "Whether two surfaces touch, mix or float",
    "λ = h_min/√(Rq1² + Rq2²);  below 1 boundary, to 3 mixed, above full film",
    "standard definition; textbooks vary the upper limit from 3 to 5",
    filmParameterInputs,
    filmParameterOutputs,
    runFilmParameter
};

const Calculator lineContactCalculator {
    "line-contact-film",
    "Film of a line contact",
    "Oil between a cam and its tappet, or two gear teeth",
    "elastic 2.65 R U^0.7 G^0.54 W^−0.13;  rigid 4.9 R U/W;  the larger counts",
    "D. Dowson, G. R. Higginson, Elasto-hydrodynamic Lubrication, 1966; Martin; from memory. "
    "Within "
    "7 % of an own numerical solution",
    lineInputs,
    lineOutputs,
    runLine
};

const Calculator fallingBallCalculator {
    "falling-ball-ratio",
    "Two glasses, two balls",
    "Viscosity of an unknown oil from a race against a known one",
    "μ2/μ1 = (t2/t1)(ρb − ρ2)/(ρb − ρ1);  wall K = 1 − 2.104 x + 2.09 x³ − 0.95 x⁵",
    "Stokes and Faxén, textbook; the wall drops out of the ratio",
    ballInputs,
    ballOutputs,
    runBall
};

const Calculator fuelMassCalculator { "fuel-mass-ratio",
                                      "Fuel for the same air",
                                      "How much more of another fuel an engine burns",
                                      "(AFR1 λ1)/(AFR2 λ2)",
                                      "stoichiometry, textbook",
                                      massInputs,
                                      massOutputs,
                                      runMass };

} // namespace mildpath
