// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/infrared.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double secondRadiation_umk = 14387.77;

/// Share of a black body's radiation below the wavelength: series of Planck's integral.
double shareBelow(double umk)
{
    const double z = secondRadiation_umk / umk;
    double sum = 0;
    for (int n = 1; n < 200; ++n) {
        const double term = std::exp(-n * z) / n
            * (z * z * z + 3 * z * z / n + 6 * z / (n * n) + 6.0 / (n * n * n));
        sum += term;
        if (term < 1e-17 * sum)
            break;
    }
    return 15 / std::pow(pi, 4) * sum;
}

double exitance(InfraredBand band, double t_k)
{
    return band == InfraredBand::Total ? std::pow(t_k, 4) : bandExitance_k4({ t_k });
}

double exitanceSlope(InfraredBand band, double t_k)
{
    if (band == InfraredBand::Total)
        return 4 * std::pow(t_k, 3);
    constexpr double step = 0.01;
    return (exitance(band, t_k + step) - exitance(band, t_k - step)) / (2 * step);
}

constexpr std::array<SpotSurface, 6> table { {
    { "contact", "contact", 1, 1, 1 },
    { "dull", "dull spot", 0.95, 0.8, 0.95 },
    { "oil_film", "oil film", 0.5, 0.3, 0.8 },
    { "cast_aluminium", "cast alloy", 0.2, 0.1, 0.3 },
    { "bare_steel", "bare steel", 0.2, 0.1, 0.3 },
    { "machined_aluminium", "bare alloy", 0.07, 0.04, 0.1 },
} };

} // namespace

double bandExitance_k4(Kelvin t)
{
    return std::pow(t.value, 4) * (shareBelow(14 * t.value) - shareBelow(8 * t.value));
}

Result<InfraredTemperature> trueTemperature(const InfraredReading &r)
{
    const double ambient = kelvin(r.surroundings).value, read = kelvin(r.reading).value;
    const double factor = r.instrumentEmissivity / r.emissivity;
    const double own = exitance(r.band, ambient);
    const double wanted = own + factor * (exitance(r.band, read) - own);
    const auto none = [] {
        return fail("reading_c",
                    "lies so far below the surroundings that no spot of this "
                    "emissivity would read so little");
    };
    if (!(wanted > 0))
        return none();
    double t = std::pow(wanted, 0.25);
    if (r.band != InfraredBand::Total) {
        const auto miss = [&](double k) { return exitance(r.band, k) - wanted; };
        constexpr double coldest = 60, hottest = 20000;
        if (miss(coldest) > 0 || miss(hottest) < 0)
            return none();
        std::uintmax_t most = 100;
        const auto [low, high] = boost::math::tools::toms748_solve(
            miss, coldest, hottest, boost::math::tools::eps_tolerance<double>(46), most);
        t = (low + high) / 2;
    }
    const double slope = exitanceSlope(r.band, t);
    InfraredTemperature out {};
    out.temperature = { t - 273.15 };
    out.correction_k = t - read;
    out.amplification = factor * exitanceSlope(r.band, read) / slope;
    out.u_k = std::abs(wanted - own) / slope / r.emissivity * r.emissivityU;
    out.usable = out.amplification <= mostInfraredAmplification;
    return out;
}

std::span<const SpotSurface> surfaces()
{
    return table;
}

const SpotSurface *findSurface(std::string_view id)
{
    for (const SpotSurface &s : table)
        if (s.id == id)
            return &s;
    return nullptr;
}

} // namespace mildpath
