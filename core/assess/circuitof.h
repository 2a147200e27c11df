// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/load.h"
#include "document/document.h"
#include "pump/relief.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct GaugedSize;
struct PartTemperatures;

/// The document's circuit with its parts at these temperatures: running clearances, what the feed
/// holes leave open, grooves, bevels, the relief's setting from its spring.
Circuit circuitOf(const Build &build, const std::vector<GaugedSize> &sizes,
                  const PartTemperatures &parts);

/// Where the pump's relief valves let their oil go.
enum class ReliefReturn { AsDrawn, Inlet, Sump, Unknown };
ReliefReturn reliefReturnOf(const Build &build);
/// As the circuit is drawn.
bool reliefToSump(const Build &build);
/// To the sump, or else to the pump's inlet.
void leadRelief(Circuit &circuit, bool toSump);

/// Oil enters the filter from its clean side: check valve and bypass stand the wrong way round.
void reverseFilter(const Build &build, Circuit &circuit);

/// A bearing's mean load: `still` at standstill and a rise with the square of the speed. An
/// indicator (bearing/load.h); a stop's own `load_n` takes its place.
struct BearingLoad
{
    std::string stop;
    double still_n, perKrpm2_n;
};
/// Of every main and big-end of which one is known, rods first.
/// @param peak_pa  of combustion
std::vector<BearingLoad> bearingLoads(const Build &build, double peak_pa);
/// Of combustion without load, and at full load: as entered, else by the kind of engine.
double idlePeak_pa(const Build &build);
double fullLoadPeakOf_pa(const Build &build);
/// Bore, stroke and masses as far as the document knows them; absent without a size.
std::optional<CrankTrain> crankTrainOf(const Build &build);

/// The relief's setting from spring and plunger; absent until they are measured.
std::optional<Result<ReliefSetting>> springSetting(const Stop &relief);

/// The drilling that feeds a main: the pipe of the stop that ends at its point.
const Element *feedDrilling(const Build &build, const Stop &main);
bool grooveEntered(const Stop &main);

/// Groove of a main's shell in degrees: as entered, or as the circuit has it.
double shellGroove_deg(const Build &build, const Stop &main);

/// Rotors longer by a factor, displacement with them; a relief spring stiffer by a pressure.
void lengthenRotors(Circuit &circuit, double factor);
void stiffenSpring(const Build &build, Circuit &circuit, double by_kpa);

/// The build with another relief spring, or with a longer pump section.
Build withStifferSpring(const Build &build, double by_kpa);
Build withLongerRotors(const Build &build, double factor);

} // namespace mildpath
