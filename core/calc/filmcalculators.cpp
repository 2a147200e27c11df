// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "bearing/film.h"
#include "bearing/warmfilm.h"
#include "calc/inputs.h"
#include "oil/shear.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array filmInputs {
    length("journal_diameter_mm", "journal diameter"),
    length("length_mm", "length of the bearing"),
    positive("diametral_clearance_um", "diametral clearance, running", "µm"),
    positive("viscosity_pa_s", "dynamic viscosity in the film", "Pa·s"),
    positive("speed_rpm", "speed", "rev/min"),
    optional(positive("load_n", "steady load; this or the eccentricity", "N")),
    CalcInput { .key = "eccentricity_ratio",
                .meaning = "eccentricity over radial clearance",
                .unit = "",
                .required = false,
                .least = 0,
                .most = 0.99,
                .aboveLeast = true },
    optional(positive("hths_pa_s", "high-shear viscosity at 150 °C: the oil thins", "Pa·s")),
    optional(positive("low_shear_150_pa_s", "viscosity at 150 °C without shear; with it", "Pa·s")),
};
constexpr std::array filmOutputs {
    CalcOutput { "eccentricity_ratio", "eccentricity over radial clearance", "" },
    CalcOutput { "sommerfeld_number", "(r/c)² mu N/P", "" },
    CalcOutput { "min_film_um", "smallest film", "µm" },
    CalcOutput { "attitude_deg", "from the load to the smallest film", "°" },
    CalcOutput { "friction_variable", "(r/c) f", "" },
    CalcOutput { "friction_coefficient", "f", "" },
    CalcOutput { "power_w", "loss in the film", "W" },
    CalcOutput { "petroff_power_w", "loss of a centred journal", "W" },
    CalcOutput { "inflow_variable", "Q/(r c N L)", "" },
    CalcOutput { "inflow_l_min", "oil the film draws in", "l/min" },
    CalcOutput { "side_flow_ratio", "share that leaves at the sides", "" },
    CalcOutput { "side_flow_l_min", "oil that leaves at the sides", "l/min" },
    CalcOutput { "mean_pressure_kpa", "load over projected area", "kPa" },
    CalcOutput { "max_pressure_kpa", "peak of the film", "kPa" },
    CalcOutput { "pressure_ratio", "mean over peak", "" },
    CalcOutput { "load_n", "load carried", "N" },
    CalcOutput { "film_viscosity_pa_s", "viscosity of the film at its shear", "Pa·s" },
    CalcOutput { "film_shear_rate_per_s", "U/min(c, 1.193 c (1 − ε)^¾)", "1/s" },
};

/// What thins the oil; absent: nothing was said of it.
Result<std::optional<ShearThinning>> thinningOf(const CalcArguments &in)
{
    const auto high = in.optionalNumber("hths_pa_s"), low = in.optionalNumber("low_shear_150_pa_s");
    if (high.has_value() != low.has_value())
        return fail(high ? "low_shear_150_pa_s" : "hths_pa_s", "give both viscosities at 150 °C");
    if (!high)
        return std::nullopt;
    const auto law = shearThinning(*low, *high);
    if (!law)
        return tl::unexpected(law.error());
    return *law;
}

double filmShearRate(const LoadedBearing &b, double eccentricity)
{
    return filmShearRate_per_s(2 * pi * b.speed_rpm / 60 * b.journalDiameter_m / 2,
                               b.clearance.value_m / 2, eccentricity);
}

/// The film under its load with the viscosity its own shear leaves: each round leaves at most an
/// eighth of the one before.
Result<FilmSolution> shearedFilm(LoadedBearing &b, const ShearThinning &law)
{
    const double still = b.viscosity_pa_s;
    Result<FilmSolution> film = filmUnderLoad(b);
    for (int rounds = 0; film && rounds < 12; ++rounds) {
        const double thinned = law.viscosity_pa_s(still, filmShearRate(b, film->eccentricityRatio));
        if (std::abs(thinned - b.viscosity_pa_s) < 1e-6 * still)
            break;
        b.viscosity_pa_s = thinned;
        film = filmUnderLoad(b);
    }
    return film;
}

Result<Json> runFilm(const CalcArguments &in)
{
    const auto load = in.optionalNumber("load_n");
    const auto eccentricity = in.optionalNumber("eccentricity_ratio");
    if (load.has_value() == eccentricity.has_value())
        return fail("load_n", "give either load_n or eccentricity_ratio");
    LoadedBearing b { .journalDiameter_m = in.mm("journal_diameter_mm"),
                      .length_m = in.mm("length_mm"),
                      .clearance = { in.um("diametral_clearance_um") },
                      .viscosity_pa_s = in.number("viscosity_pa_s"),
                      .speed_rpm = in.number("speed_rpm"),
                      .load_n = load.value_or(1) };
    const auto law = thinningOf(in);
    if (!law)
        return tl::unexpected(law.error());
    FilmSolution film {};
    if (load) {
        const auto found = *law ? shearedFilm(b, **law) : filmUnderLoad(b);
        if (!found)
            return tl::unexpected(found.error());
        film = *found;
    } else {
        film = solveFilm(*eccentricity, b.length_m / b.journalDiameter_m);
        if (*law)
            b.viscosity_pa_s
                = (*law)->viscosity_pa_s(b.viscosity_pa_s, filmShearRate(b, *eccentricity));
        b.load_n = sommerfeldNumber(b) / film.sommerfeld; // of 1 N
    }
    const double r = b.journalDiameter_m / 2, c = b.clearance.value_m / 2, n = b.speed_rpm / 60;
    const double omega = 2 * pi * n;
    const double friction = film.frictionVariable * c / r;
    const double inflow = film.inflowVariable * r * c * n * b.length_m * litresPerMinute;
    const double mean = b.load_n / (b.journalDiameter_m * b.length_m);
    return Json { { "eccentricity_ratio", film.eccentricityRatio },
                  { "sommerfeld_number", film.sommerfeld },
                  { "min_film_um", c * (1 - film.eccentricityRatio) * 1e6 },
                  { "attitude_deg", film.attitude_rad * 180 / pi },
                  { "friction_variable", film.frictionVariable },
                  { "friction_coefficient", friction },
                  { "power_w", friction * b.load_n * omega * r },
                  { "petroff_power_w",
                    2 * pi * b.viscosity_pa_s * omega * omega * r * r * r * b.length_m / c },
                  { "inflow_variable", film.inflowVariable },
                  { "inflow_l_min", inflow },
                  { "side_flow_ratio", film.sideFlowRatio },
                  { "side_flow_l_min", inflow * film.sideFlowRatio },
                  { "mean_pressure_kpa", mean / 1e3 },
                  { "max_pressure_kpa", mean / film.pressureRatio / 1e3 },
                  { "pressure_ratio", film.pressureRatio },
                  { "load_n", b.load_n },
                  { "film_viscosity_pa_s", b.viscosity_pa_s },
                  { "film_shear_rate_per_s", filmShearRate(b, film.eccentricityRatio) } };
}

} // namespace

const Calculator bearingFilmCalculator {
    "bearing-film",
    "Film of a plain bearing",
    "Smallest film, friction and flow of a steadily loaded journal bearing",
    "d/dθ(H³ dp/dθ) + (D/L)² d/dz(H³ dp/dz) = dH/dθ,  H = 1 + ε cos θ;  S = (r/c)² mu N/P",
    "A. A. Raimondi, J. Boyd, A solution for the finite journal bearing, ASLE Trans. 1, 1958; "
    "0.05 ≤ L/D ≤ 5, C/D ≤ 0.02, laminar, steady load: engine loads make it an indicator",
    filmInputs,
    filmOutputs,
    runFilm
};

} // namespace mildpath
