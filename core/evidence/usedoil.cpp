// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/usedoil.h"

#include <boost/math/statistics/univariate_statistics.hpp>

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace mildpath {
namespace {

constexpr std::array oilElements {
    OilElement { "Fe", "iron", "bores, crank, cam and tappets, gears, pump", "", true, false },
    OilElement { "Cr", "chromium", "rings, some valve stems", "", true, false },
    OilElement { "Al", "aluminium", "pistons, aluminium bearings, cases, thrust plates", "", true,
                 false },
    OilElement { "Cu", "copper", "bearings; bushes, oil-cooler core", "anti-oxidant of some oils",
                 true, true },
    OilElement { "Pb", "lead", "bearings", "", true, true },
    OilElement { "Sn", "tin", "bearings", "", true, true },
    OilElement { "Ni", "nickel", "valve stems and guides, plated barriers of bearings", "", true,
                 false },
    OilElement { "Ag", "silver", "plated layers of bearings", "", true, false },
    OilElement { "Mo", "molybdenum", "rings", "friction modifier", true, false },
    OilElement { "Ti", "titanium", "valves, retainers, rods", "", true, false },
    OilElement { "Si", "silicon", "dirt, sealant, new gaskets", "anti-foam", true, false },
    OilElement { "Na", "sodium", "coolant", "detergent of some oils", true, false },
    OilElement { "K", "potassium", "coolant", "", true, false },
    OilElement { "B", "boron", "coolant", "dispersant, anti-wear", true, false },
    OilElement { "P", "phosphorus", "", "anti-wear", false, false },
    OilElement { "Zn", "zinc", "", "anti-wear", false, false },
    OilElement { "Ca", "calcium", "", "detergent", false, false },
    OilElement { "Mg", "magnesium", "", "detergent", false, false },
};

} // namespace

std::span<const OilElement> knownOilElements()
{
    return oilElements;
}

const OilElement *findOilElement(std::string_view symbol)
{
    for (const OilElement &k : oilElements)
        if (k.symbol == symbol)
            return &k;
    return nullptr;
}

WearRate wearRate(const WearInput &in)
{
    const double x = in.added_kg / in.sump_kg;
    const double f = x > 0 ? -x / std::expm1(-x) : 1;
    WearRate out;
    out.net_mg_kg = in.element_mg_kg - in.baseline_mg_kg;
    out.gain_mg_kg = (out.net_mg_kg - (in.start_mg_kg - in.baseline_mg_kg) * std::exp(-x)) * f;
    out.mass_mg = out.gain_mg_kg * in.sump_kg;
    out.rate_mg_h = out.mass_mg / in.hours_h;
    out.per100h_mg_kg = 100 * out.gain_mg_kg / in.hours_h;
    out.belowBaseline = out.net_mg_kg < 0;
    return out;
}

OwnPattern ownPattern(std::span<const double> earlier, double per100h_mg_kg, double hours_h)
{
    OwnPattern out;
    namespace statistics = boost::math::statistics;
    std::vector<double> values(earlier.begin(), earlier.end());
    out.median = statistics::median(values);
    for (double &v : values)
        v = std::abs(v - out.median);
    // The median twice: the library's own median deviation (1.74) forgets the centre where the
    // count is even.
    out.scale = std::max(
        { 1.4826 * statistics::median(values), 0.1 * std::abs(out.median), 100 / hours_h });
    if (earlier.size() >= leastHistory)
        out.z = (per100h_mg_kg - out.median) / out.scale;
    return out;
}

} // namespace mildpath
