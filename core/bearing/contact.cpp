// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/contact.h"

#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

Regime regimeOf(double lambda)
{
    return lambda < 1 ? Regime::Boundary : lambda <= 3 ? Regime::Mixed : Regime::FullFilm;
}

const char *regimeId(Regime r)
{
    return r == Regime::Boundary ? "boundary" : r == Regime::Mixed ? "mixed" : "full_film";
}

const char *regimeWord(Regime r)
{
    return r == Regime::Boundary ? "boundary" : r == Regime::Mixed ? "mixed" : "full film";
}

double filmParameter(double smallestFilm_m, double rq1_m, double rq2_m)
{
    return smallestFilm_m / std::hypot(rq1_m, rq2_m);
}

Result<LineFilm> lineContactFilm(const LineContact &c)
{
    const double curvature = 1 / c.radius1_m + (c.radius2_m ? 1 / *c.radius2_m : 0);
    if (!(curvature > 0))
        return fail("radius_2_m", "the concave side must be flatter than the other is round");
    LineFilm out {};
    out.reducedRadius_m = 1 / curvature;
    out.reducedModulus_pa = 2
        / ((1 - c.poisson1 * c.poisson1) / c.modulus1_pa
           + (1 - c.poisson2 * c.poisson2) / c.modulus2_pa);
    const double R = out.reducedRadius_m, E = out.reducedModulus_pa;
    const double perLength = c.load_n / c.length_m;
    out.speed = c.viscosity_pa_s * c.entrainment_m_s / (E * R);
    out.material = c.pressureViscosity_per_pa * E;
    out.load = perLength / (E * R);
    out.hertzHalfWidth_m = std::sqrt(8 * perLength * R / (pi * E));
    out.hertz_pa = 2 * perLength / (pi * out.hertzHalfWidth_m);
    out.elastic_m = 2.65 * R * std::pow(out.speed, 0.7) * std::pow(out.material, 0.54)
        * std::pow(out.load, -0.13);
    out.rigid_m = 4.9 * R * out.speed / out.load;
    out.smallest_m = std::max(out.elastic_m, out.rigid_m);
    return out;
}

double pressureViscosity_per_pa(double viscosity_pa_s)
{
    return (0.6 + 0.965 * std::log10(viscosity_pa_s * 1e3)) * 1e-8;
}

double ringFilm_m(double viscosity_pa_s, double meanSpeed_m_s, double ringPressure_pa)
{
    return 1e-6 * std::sqrt(viscosity_pa_s * meanSpeed_m_s / 0.1 * 0.2e6 / ringPressure_pa);
}

double stribeckFriction(double lambda)
{
    // Asperities carry less and less as λ grows; the oil's own drag rises behind.
    const double asperities = 0.118 / (1 + std::pow(lambda / 1.15, 4));
    const double drag = 0.002 * std::pow(std::max(lambda, 1e-6) / 3, 0.5);
    return asperities + drag;
}

} // namespace mildpath
