// SPDX-License-Identifier: GPL-3.0-or-later
#include "oil/viscosity.h"

#include "quantity/rounding.h"

#include <array>
#include <cmath>

namespace mildpath {

Result<WaltherLine> waltherLine(double kv40_mm2_s, double kv100_mm2_s)
{
    if (!(kv40_mm2_s >= 2) || !std::isfinite(kv40_mm2_s))
        return fail("kv40_mm2_s", "must be at least 2 mm2/s, is " + formatPlain(kv40_mm2_s, 3));
    if (!(kv100_mm2_s >= 1) || !std::isfinite(kv100_mm2_s))
        return fail("kv100_mm2_s", "must be at least 1 mm2/s, is " + formatPlain(kv100_mm2_s, 3));
    if (!(kv100_mm2_s < kv40_mm2_s))
        return fail("kv100_mm2_s",
                    "must be below the viscosity at 40 C (" + formatPlain(kv40_mm2_s, 3) + "), is "
                        + formatPlain(kv100_mm2_s, 3));
    const double w40 = std::log10(std::log10(kv40_mm2_s + 0.7));
    const double w100 = std::log10(std::log10(kv100_mm2_s + 0.7));
    const double t40 = std::log10(313.15);
    const double t100 = std::log10(373.15);
    const double b = (w40 - w100) / (t100 - t40);
    return WaltherLine { w40 + b * t40, b };
}

double kinematicViscosity_mm2_s(const WaltherLine &line, Celsius t)
{
    const double w = line.a - line.b * std::log10(kelvin(t).value);
    return std::pow(10.0, std::pow(10.0, w)) - 0.7;
}

double densityLinear_kg_m3(double rho15_kg_m3, Celsius t)
{
    return rho15_kg_m3 * (1 - 0.00070 * (t.value - 15));
}

double densityD1250_kg_m3(double rho15_kg_m3, Celsius t)
{
    const double alpha = 0.6278 / rho15_kg_m3;
    const double dt = t.value - 15;
    return rho15_kg_m3 * std::exp(-alpha * dt * (1 + 0.8 * alpha * dt));
}

OilState oilState(const WaltherLine &line, double rho15_kg_m3, Celsius t)
{
    const double rho = densityLinear_kg_m3(rho15_kg_m3, t);
    return { rho, kinematicViscosity_mm2_s(line, t) * 1e-6 * rho };
}

namespace {

/// One range of the standard's fit: L = a Y² + b Y + c, H = d Y² + e Y + f for Y from `from`.
struct IndexRange
{
    double from;
    double a, b, c, d, e, f;
};

constexpr std::array<IndexRange, 16> indexRanges { {
    { 2.0, 1.14673, 1.7576, -0.109, 0.84155, 1.5521, -0.077 },
    { 3.8, 3.38095, -15.4952, 33.196, 0.78571, 1.7929, -0.183 },
    { 4.4, 2.5000, -7.2143, 13.812, 0.82143, 1.5679, 0.119 },
    { 5.0, 0.10100, 16.6350, -45.469, 0.04985, 9.1613, -18.557 },
    { 6.4, 3.35714, -23.5643, 78.466, 0.22619, 7.7369, -16.656 },
    { 7.0, 0.01191, 21.4750, -72.870, 0.79762, -0.7321, 14.610 },
    { 7.7, 0.41858, 16.1558, -56.040, 0.05794, 10.5156, -28.240 },
    { 9.0, 0.88779, 7.5527, -16.600, 0.26665, 6.7015, -10.810 },
    { 12, 0.76720, 10.7972, -38.180, 0.20073, 8.4658, -22.490 },
    { 15, 0.97305, 5.3135, -2.200, 0.28889, 5.9741, -4.930 },
    { 18, 0.97256, 5.2500, -0.980, 0.24504, 7.4160, -16.730 },
    { 22, 0.91413, 7.4759, -21.820, 0.20323, 9.1267, -34.230 },
    { 28, 0.87031, 9.7157, -50.770, 0.18411, 10.1015, -46.750 },
    { 40, 0.84703, 12.6752, -133.310, 0.17029, 11.4866, -80.620 },
    { 55, 0.85921, 11.1009, -83.190, 0.16841, 11.8493, -96.947 },
    { 70, 0.8353, 14.67, -216, 0.1684, 11.85, -97 },
} };

} // namespace

Result<ViscosityIndex> viscosityIndex(double kv40_mm2_s, double kv100_mm2_s)
{
    const double y = kv100_mm2_s;
    if (!(y >= 2) || !std::isfinite(y))
        return fail("kv100_mm2_s", "the index is defined from 2 mm2/s up, is " + formatPlain(y, 3));
    if (!(y < kv40_mm2_s) || !std::isfinite(kv40_mm2_s))
        return fail("kv100_mm2_s",
                    "must be below the viscosity at 40 C (" + formatPlain(kv40_mm2_s, 3) + "), is "
                        + formatPlain(y, 3));
    const IndexRange *r = &indexRanges.front();
    for (const IndexRange &range : indexRanges)
        if (y >= range.from)
            r = &range;
    ViscosityIndex out {};
    out.l_mm2_s = (r->a * y + r->b) * y + r->c;
    out.h_mm2_s = (r->d * y + r->e) * y + r->f;
    out.procedureB = kv40_mm2_s < out.h_mm2_s;
    if (out.procedureB) {
        const double n = (std::log10(out.h_mm2_s) - std::log10(kv40_mm2_s)) / std::log10(y);
        out.index = (std::pow(10.0, n) - 1) / 0.00715 + 100;
    } else {
        out.index = 100 * (out.l_mm2_s - kv40_mm2_s) / (out.l_mm2_s - out.h_mm2_s);
    }
    return out;
}

} // namespace mildpath
