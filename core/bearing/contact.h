// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "rules/rules.h"

#include <optional>

namespace mildpath {

/// How two surfaces run on each other.
enum class Regime { Boundary, Mixed, FullFilm };
/// λ below 1, 1 to 3, above 3; textbooks vary the upper one from 3 to 5.
Regime regimeOf(double filmParameter);
const char *regimeId(Regime regime); ///< "boundary", "mixed", "full_film"
const char *regimeWord(Regime regime); ///< "full film", for people

/// λ = h_min/√(Rq1² + Rq2²). Standard definition.
double filmParameter(double smallestFilm_m, double rq1_m, double rq2_m);

/// A line contact: a cam on its tappet, a gear tooth.
struct LineContact
{
    double viscosity_pa_s; ///< at the inlet, low shear
    double entrainment_m_s; ///< half the sum of both surface speeds, ≥ 0
    double radius1_m;
    std::optional<double> radius2_m {}; ///< absent: flat; negative: concave
    double load_n, length_m;
    double modulus1_pa = 206e9, modulus2_pa = 206e9;
    double poisson1 = 0.3, poisson2 = 0.3;
    double pressureViscosity_per_pa;
};
struct LineFilm
{
    double reducedRadius_m, reducedModulus_pa;
    double speed, material, load; ///< U, G, W
    double hertzHalfWidth_m, hertz_pa;
    double elastic_m, rigid_m;
    double smallest_m; ///< the larger of the two
};
/// Elastic film after Dowson and Higginson (1966) and rigid film after Martin; the larger counts.
///   h = 2.65 R U^0.7 G^0.54 W^−0.13;  h = 4.9 R U/W
/// Within 7 % of an own numerical solution over the change between them.
/// Errors: `radius_2_m` when 1/R ≤ 0. Source: from memory.
Result<LineFilm> lineContactFilm(const LineContact &contact);

/// Slope of viscosity by pressure of a mineral oil (1/Pa): (0.6 + 0.965 lg μ[mPa·s])·1e-8.
/// Source: Wooster's rule, from memory.
double pressureViscosity_per_pa(double viscosity_pa_s);

/// Film of a piston ring at mid-stroke, for its regime only:
///   1 µm √((μ U)/(0.1 Pa·m) · (0.2 MPa/p)); a tenth of it at the ends of the stroke.
/// Own choice, no source; never to be shown as a film.
double ringFilm_m(double viscosity_pa_s, double meanSpeed_m_s, double ringPressure_pa);

/// Friction along the curve of Stribeck by film parameter, for drawing a contact's place: 0.12
/// boundary, a valley of 0.002 near λ = 3, rising slowly beyond. Ranges common practice, no source.
double stribeckFriction(double filmParameter);

} // namespace mildpath
