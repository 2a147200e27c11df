// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"

#include <optional>
#include <span>
#include <string_view>

namespace mildpath {

/// Expansion of a material, 20–100 °C.
struct Material
{
    std::string_view id; ///< as in a build file
    std::string_view name;
    double expansion_per_k;
    double low_per_k, high_per_k; ///< range met in practice
    bool forBlocks = true; ///< blocks are made of it
};

/// Source of all rows: engineering handbooks, from memory.
std::span<const Material> materialTable();
/// @return null for an unknown id.
const Material *findMaterial(std::string_view id);

/// A cap or girdle of another material than the block.
struct CapShare
{
    double expansion_per_k;
    Celsius t;
    double fraction = 0.5; ///< share of the bore's growth, 0…1; half-and-half is 0.5
};

/// A bearing's parts as far as growth is concerned.
struct ThermalBearing
{
    DiametralClearance cold; ///< at 20 °C
    double journalDiameter_m;
    double shellWall_m = 0; ///< 0: unknown; then understated hot, overstated cold by 2 t (αh−αs) ΔT
    double shellExpansion_per_k = 11.7e-6;
    double housingExpansion_per_k;
    Celsius housing;
    double journalExpansion_per_k;
    Celsius journal;
    std::optional<CapShare> cap; ///< hybrid housing
};

struct ThermalClearance
{
    DiametralClearance clearance; ///< at the given temperatures; negative is interference
    double change_m;
    double boreGrowth_m;
    double journalGrowth_m;
    double hybridSpread_m; ///< the hybrid bore goes out of round by up to this
    double shellInterferenceLoss_m; ///< diametral; compare with the installed crush
};

/// Diametral clearance with parts at temperature, free expansion.
///   C = C0 + Dh e_h − 2 t a_s (Th − 20) − Dj a_j (Tj − 20),  Dh = Dj + C0 + 2 t
///   e_h = a_h ΔTh, or (1 − f) a_h ΔTh + f a_c ΔTc with a cap of another material
/// The hybrid result is the mean; treat it as ± spread/2 (engineering estimate, not established).
/// Source: standard linear-expansion result; docs/theory/clearance.md.
ThermalClearance thermalClearance(const ThermalBearing &bearing);

/// What heat adds to the crank's end float (m); negative: it closes.
///   change = w (a_j (Tj − 20) − a_h (Th − 20))
/// @param thrustWidth_m  between the thrust faces of the housing
/// Source: standard linear-expansion result.
double endFloatChange_m(double thrustWidth_m, double housingExpansion_per_k, Celsius housing,
                        double journalExpansion_per_k, Celsius journal);

/// When block and crank stand at one temperature.
struct ColdLock
{
    enum class On { Cooling, Heating, Never } on;
    std::optional<double> temperature_c; ///< where the clearance reaches the floor
};

/// T = 20 − (C0 − floor)/(D (a_h − a_j)); never when the two expand alike, or when that lies
/// outside −273.15…400 °C. Source: standard linear-expansion result.
ColdLock coldLock(DiametralClearance cold, double journalDiameter_m, double housingExpansion_per_k,
                  double journalExpansion_per_k, DiametralClearance floor);

/// Where cold and hot pull a cold clearance to.
struct WindowBounds
{
    DiametralClearance least, most; ///< that the parts allow, at 20 °C
    DiametralClearance floor; ///< least accepted at the coldest start
    DiametralClearance ceiling; ///< most accepted hot
    Celsius coldestStart, hotHousing, hotJournal;
};

struct ClearanceWindow
{
    DiametralClearance least, most; ///< at 20 °C
    std::optional<DiametralClearance> choose; ///< the middle, where there is room
    /// Warm block and crank to this: the coldest start itself where there is room; absent where
    /// no preheat helps.
    std::optional<double> preheat_c;
    /// Hot clearance to accept instead, where that would help, and the viscosity (or pump flow) it
    /// asks for at the same pressure, as a ratio: (ceiling needed/ceiling)³.
    std::optional<DiametralClearance> ceilingNeeded;
    std::optional<double> viscosityRatio;
    double width_m() const { return most.value_m - least.value_m; }
    bool feasible() const { return width_m() >= 0; }
};

/// The compromise between turning cold and keeping pressure hot.
///   g_s = D (a_h − a_j)(Ts − 20);  g_h = D (a_h (Th − 20) − a_j (Tj − 20))
///   C0 from max(least, floor − g_s) to min(most, ceiling − g_h)
/// Source: standard linear-expansion result; flow ∝ C³ for the viscosity ratio.
ClearanceWindow clearanceWindow(const WindowBounds &bounds, double journalDiameter_m,
                                double housingExpansion_per_k, double journalExpansion_per_k);

/// Clearance with block and crank both at t: C0 + D (a_h − a_j)(t − 20). The plain form, without
/// the shell's wall.
DiametralClearance clearanceAtOneTemperature(DiametralClearance cold, double journalDiameter_m,
                                             double housingExpansion_per_k,
                                             double journalExpansion_per_k, Celsius t);

} // namespace mildpath
