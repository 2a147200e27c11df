// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/thermal.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array<Material, 8> materials { {
    { "grey_iron", "grey iron", 10.5e-6, 10.0e-6, 12.0e-6 },
    { "nodular_iron", "nodular iron", 11.5e-6, 10.5e-6, 12.5e-6 },
    { "crank_steel", "crank or forged steel", 11.7e-6, 11.0e-6, 12.5e-6, false },
    { "cast_aluminium", "cast aluminium-silicon", 21.5e-6, 20.5e-6, 22.5e-6 },
    { "hypereutectic_aluminium", "hypereutectic aluminium-silicon", 18.5e-6, 17.0e-6, 20.0e-6 },
    { "billet_aluminium", "wrought or billet aluminium", 23.4e-6, 22.5e-6, 24.0e-6 },
    { "cast_magnesium", "cast magnesium", 26.0e-6, 25.0e-6, 27.0e-6 },
    { "titanium", "titanium alloy", 8.8e-6, 8.4e-6, 9.4e-6, false },
} };

} // namespace

std::span<const Material> materialTable()
{
    return materials;
}

const Material *findMaterial(std::string_view id)
{
    for (const Material &m : materials)
        if (m.id == id)
            return &m;
    return nullptr;
}

ThermalClearance thermalClearance(const ThermalBearing &b)
{
    const double housingBore = b.journalDiameter_m + b.cold.value_m + 2 * b.shellWall_m;
    const double dtHousing = b.housing.value - 20;
    const double freeStrain = b.housingExpansion_per_k * dtHousing;
    double strain = freeStrain;
    ThermalClearance out {};
    if (b.cap) {
        const double capStrain = b.cap->expansion_per_k * (b.cap->t.value - 20);
        strain = (1 - b.cap->fraction) * freeStrain + b.cap->fraction * capStrain;
        out.hybridSpread_m = housingBore * std::abs(freeStrain - capStrain);
    }
    out.boreGrowth_m
        = housingBore * strain - 2 * b.shellWall_m * b.shellExpansion_per_k * dtHousing;
    out.journalGrowth_m = b.journalDiameter_m * b.journalExpansion_per_k * (b.journal.value - 20);
    out.change_m = out.boreGrowth_m - out.journalGrowth_m;
    out.clearance = { b.cold.value_m + out.change_m };
    out.shellInterferenceLoss_m = housingBore * (strain - b.shellExpansion_per_k * dtHousing);
    return out;
}

ColdLock coldLock(DiametralClearance cold, double journalDiameter_m, double housingExpansion_per_k,
                  double journalExpansion_per_k, DiametralClearance floor)
{
    const double rate = journalDiameter_m * (housingExpansion_per_k - journalExpansion_per_k);
    if (rate == 0)
        return { ColdLock::On::Never, std::nullopt };
    const double t = 20 - (cold.value_m - floor.value_m) / rate;
    if (!(t >= -273.15 && t <= 400))
        return { ColdLock::On::Never, std::nullopt };
    return { rate > 0 ? ColdLock::On::Cooling : ColdLock::On::Heating, t };
}

ClearanceWindow clearanceWindow(const WindowBounds &b, double journalDiameter_m,
                                double housingExpansion_per_k, double journalExpansion_per_k)
{
    const double rate = journalDiameter_m * (housingExpansion_per_k - journalExpansion_per_k);
    const double cold = rate * (b.coldestStart.value - 20);
    const double hot = journalDiameter_m
        * (housingExpansion_per_k * (b.hotHousing.value - 20)
           - journalExpansion_per_k * (b.hotJournal.value - 20));
    ClearanceWindow out;
    out.least = { std::max(b.least.value_m, b.floor.value_m - cold) };
    out.most = { std::min(b.most.value_m, b.ceiling.value_m - hot) };
    if (out.feasible()) {
        out.choose = DiametralClearance { (out.least.value_m + out.most.value_m) / 2 };
        out.preheat_c = b.coldestStart.value;
        return out;
    }
    // Warming first opens the bearing only where the housing outgrows the journal.
    if (out.most.value_m >= b.least.value_m && rate > 0)
        out.preheat_c = 20 + (b.floor.value_m - out.most.value_m) / rate;
    if (out.least.value_m <= b.most.value_m) {
        out.ceilingNeeded = DiametralClearance { out.least.value_m + hot };
        out.viscosityRatio = std::pow(out.ceilingNeeded->value_m / b.ceiling.value_m, 3);
    }
    return out;
}

DiametralClearance clearanceAtOneTemperature(DiametralClearance cold, double journalDiameter_m,
                                             double housingExpansion_per_k,
                                             double journalExpansion_per_k, Celsius t)
{
    return { cold.value_m
             + journalDiameter_m * (housingExpansion_per_k - journalExpansion_per_k)
                 * (t.value - 20) };
}

double endFloatChange_m(double thrustWidth_m, double housingExpansion_per_k, Celsius housing,
                        double journalExpansion_per_k, Celsius journal)
{
    return thrustWidth_m
        * (journalExpansion_per_k * (journal.value - 20)
           - housingExpansion_per_k * (housing.value - 20));
}

} // namespace mildpath
