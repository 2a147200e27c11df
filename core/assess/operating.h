// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "circuit/change.h"
#include "circuit/turned.h"
#include "circuit/warning.h"
#include "document/document.h"
#include "quantity/result.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct GaugedSize;

/// A value with the range nine builds in ten would fall in: measuring and assumed values to first
/// order, and the model's own 6 %.
struct LikelyPressure
{
    double value_pa = 0;
    double low_pa = 0, high_pa = 0;
};

/// Verdict on a pressure against the least that is asked of it: below it holds the start; a likely
/// range that reaches below it wants another look.
Mark markAgainst(const LikelyPressure &pressure, double least_pa);

/// A share of what the pump sweeps.
struct OilShare
{
    std::string id, name;
    double flow_m3_s = 0;
    double ofSwept = 0; ///< 0…1
};

/// A point of a stop at an operating point.
struct PointPressure
{
    std::string stop;
    std::string name; ///< "Lifter 8"
    std::string node;
    double pressure_pa = 0; ///< at its feed, without the crank's oil column
    double column_pa = 0; ///< that column
    double need_pa = 0; ///< 0: none
    bool needByFlow = false; ///< what brings its film its least share of oil: judged of warm oil
    double flow_m3_s = 0; ///< what the stop takes here
    double needFlow_m3_s = 0; ///< 0: any
    /// Of a big-end: what the crank's drilling passes, over what its film would take with the whole
    /// column behind it; 1 where no drilling feeds it.
    double fedShare = 1;
    double ratio() const { return need_pa > 0 ? pressure_pa / need_pa : 0; }
};

/// A bearing's film at an operating point: an indicator under a mean load.
struct BearingFilm
{
    std::string stop, family, name, element;
    double load_n = 0;
    double eccentricityRatio = 0;
    double smallest_m = 0;
    double film_c = 0; ///< effective
    double outlet_c = 0;
    double flow_m3_s = 0;
    double loss_w = 0;
    double peak_pa = 0;
    bool carried = true; ///< false: more load than a film can bear

    /// The same with the engine at full load; not at idle, nor without a size to reckon with.
    struct AtFullLoad
    {
        double load_n = 0;
        double smallest_m = 0;
        double film_c = 0;
        bool carried = true;
    };
    std::optional<AtFullLoad> loaded {};
};

/// Everything about one speed and oil temperature.
struct OperatingResult
{
    double rpm = 0, oil_c = 0;
    bool pumpAlone = false; ///< the crank rests: the speed is that which would turn the pump so
    LikelyPressure gauge;
    std::vector<PointPressure> points; ///< in oil order
    int weakest = -1; ///< index of the lowest ratio; −1 when nothing has a need
    LikelyPressure weakestPressure;
    std::vector<OilShare> shares; ///< outlets, relief, slip; sums to the swept flow
    double pumpFlow_m3_s = 0, sweptFlow_m3_s = 0, reliefFlow_m3_s = 0;
    double slip_m3_s = 0; ///< back through the pump's clearances
    /// Share of the big-ends in what mains and big-ends take together.
    double bigEndsOfCrank() const;
    bool reliefOpen() const { return reliefFlow_m3_s > reliefOpenShare * pumpFlow_m3_s; }
    std::map<std::string, double> nodePressure_pa;
    std::map<std::string, double> elementFlow_m3_s;
    std::vector<BearingFilm> films; ///< in oil order; with Detail::Everything
    /// Largest feed a crank drilling needs at its main, and how far its own main is from it (the
    /// worst ratio); 0 without crank drillings.
    double crankNeed_pa = 0, crankRatio = 0;
    /// The big-end least well fed; empty without crank drillings.
    const PointPressure *leastFed() const;
    std::vector<Warning> warnings;
};

/// What the pump takes (W): outlet pressure × swept flow / pumpEfficiency; 0 without a pump's
/// outlet. @param result  with Detail::Everything
double pumpPower_w(const Build &build, const OperatingResult &result);

/// The pump's inlet at an operating point.
struct SuctionPoint
{
    double rpm, oil_c;
    double inlet_pa; ///< gauge
};

/// The engine where it is judged. `unsolved`: the circuit has no solution, and nothing else here or
/// in the forecast is filled.
struct Operating
{
    OperatingResult hotIdle;
    OperatingResult highSpeed;
    OperatingResult mostSpeed; ///< hot oil at the highest speed
    /// At the pump's inlet where suction is deepest; the relief's oil goes to the sump as long as
    /// nobody knows. Empty without a pump.
    std::vector<SuctionPoint> suction;
    std::optional<Error> unsolved {};
};

/// Hot idle of a build that is not assessed: sizes as they are, nothing beside. For a build shown
/// before it is made. Errors: as Network::solve.
Result<OperatingResult> hotIdleAlone(const Build &build);
/// Gauge and points at hot idle with other cold values of some sizes (index into assessment.sizes →
/// µm): for "if it were at target". Errors: as Network::solve.
Result<OperatingResult> hotIdleWith(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const std::map<size_t, double> &cold_um);

/// Any speed and oil temperature, for the sliders.
Result<OperatingResult> assessAt(const Build &build, const std::vector<GaugedSize> &sizes,
                                 const Turned &turned, double oil_c,
                                 const CircuitChange &change = {});

/// How the pump is turned when priming. Without a pump: nothing turns.
struct PrimeTurn
{
    bool drill = true; ///< else the starter
    double shaft_rpm = 0; ///< of the pump
    double crank_rpm = 0; ///< the speed of the crank that turns the pump so
    Turned turned() const { return { crank_rpm, drill }; }
};
PrimeTurn primeTurn(const Build &build);
/// Of the pump's shaft to the crank; 0 without a pump.
double pumpDriveRatio(const Build &build);
/// The engine at a speed of its crank; or its pump at one of the pump's shaft, by a drill.
Turned turnedAt(const Build &build, double rpm, bool byDrill);
/// Neither drilled nor turned by the starter.
bool wasRunning(const Build &build, const GaugeReading &reading);
/// "800 rev/min"; "drill at 250 rev/min".
Phrase turnedText(const Build &build, const OperatingResult &result);
/// Oil and engine when priming: as entered, else as the workshop is (°C).
double primeOil_c(const Build &build);

} // namespace mildpath
