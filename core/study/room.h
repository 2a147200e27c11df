// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/growth.h"
#include "assess/progress.h"
#include "assess/rules.h"
#include "assess/sizes.h"
#include "rules/rules.h"

namespace mildpath {

// The heat compromise: which cold clearances both turn at the coldest start and keep pressure hot.

/// Where the question is asked; the document's own values unless somebody tries others.
struct RoomConditions
{
    double coldestStart_c;
    double hotOil_c;
    double idle_rpm;
    double pumpSection = 1; ///< width of the rotors, as a factor
    bool operator==(const RoomConditions &) const = default;
};
RoomConditions conditionsOf(const Build &build);

/// One oil of the map.
struct RoomRow
{
    std::string grade;
    Oil oil {};
    bool fitted = false; ///< the oil of the document
    std::vector<double> gauge_pa; ///< per column, hot idle
    std::vector<double> ratio; ///< of the weakest stop to its need
};

/// Hot idle over cold clearance and oil. Every bearing of the family is moved alike: a column is
/// their mean.
struct RoomMap
{
    std::string family;
    RoomConditions conditions {};
    double floor_pa = 0; ///< asked at the gauge
    double least_um = 0; ///< below, the tightest closes past the floor, cold or hot
    double here_um = 0; ///< mean of this build
    double hereU_um = 0; ///< expanded, k = 2; half the limits where it is assumed
    bool hereMeasured = false;
    int hereRow = -1; ///< the fitted oil
    std::vector<double> cold_um; ///< columns, ascending
    std::vector<RoomRow> rows; ///< thinnest first

    /// Clearances at which a row passes through a pressure at the gauge; linear between columns.
    std::vector<double> crossings_um(const RoomRow &row, double gauge_pa) const;
    /// Most clearance at which gauge and weakest stop still have what they need; the last column if
    /// all do, absent if none does.
    std::optional<double> most_um(const RoomRow &row) const;
};

/// Computed with the circuit's own solver, columns shared out to the machine's cores.
/// @param columns   2 and up, over 20 µm below the limits to 30 µm above
/// @param progress  counts points; a cancel makes it end with the error place `cancelled`
/// Errors: as Network::solve; `family` where no bearing of it is known.
Result<RoomMap> roomMap(const Build &build, const std::vector<GaugedSize> &sizes,
                        const std::string &family, const RoomConditions &conditions, int columns,
                        Progress *progress = nullptr);

/// What ends the room to choose.
enum class RoomBound {
    Floor, ///< tight: the coldest clearance allowed
    MakerLeast, ///< tight: the limits
    Pressure, ///< the gauge at hot idle
    Need, ///< what the weakest stop needs at hot idle
    Maker, ///< the limits, cold
    Film, ///< films at full load, at high and highest speed
    Noise, ///< wide bearings begin to be heard
    Search, ///< nothing up to mostRoom_um
};
const char *roomBoundId(RoomBound bound); ///< "pressure"
Phrase roomBoundName(RoomBound bound); ///< "hot idle's pressure"

/// Mean cold clearance where something ends; absent where it does not within mostRoom_um, or is not
/// known.
struct RoomEdge
{
    RoomBound bound;
    std::optional<double> um;
    bool tight() const { return bound <= RoomBound::MakerLeast; }
};

/// A way to more room.
struct RoomLever
{
    Phrase name;
    double least_um, most_um; ///< the room with it
    double opens_um; ///< more than now; negative: less
    double idleChange; ///< of hot idle at the gauge, as a share
    Phrase remark;
    bool idle = false; ///< changes nothing; `remark` says why
};

/// Room for the fitted oil: what is left of cold clearances between the nearest edges.
struct Room
{
    std::string family;
    double here_um = 0;
    std::vector<RoomEdge> edges; ///< each of RoomBound but Search, in their order
    /// Where the likely gauge's low end meets the user's minimum; absent as an edge is.
    std::optional<double> pressureLow_um;
    double least_um = 0; ///< the wider of the tight edges
    /// The nearest of the wide ones; at most mostRoom_um, 0 where no clearance will do.
    double most_um = 0;
    RoomBound leastBy = RoomBound::Floor, mostBy = RoomBound::Search;
    double hotCeiling_um = 0; ///< the same most, running
    double hot_um = 0; ///< this build, running
    double gauge_pa = 0; ///< hot idle
    std::optional<double> turnsDownTo_c; ///< where the tightest reaches the floor on cooling
    std::optional<double> preheat_c; ///< needed before the coldest start
    std::vector<RoomLever> levers;
    double width_um() const { return most_um - least_um; }
    bool inside() const { return here_um >= least_um && here_um <= most_um; }
    /// No room at all holds; outside it, this build is to be checked again.
    Mark mark() const;
    /// How it turns cold: needing preheat, or less than the least, holds.
    Mark coldMark() const;
};

/// Errors: as roomMap().
Result<Room> roomOf(const Build &build, const std::vector<GaugedSize> &sizes,
                    const std::string &family, const RoomConditions &conditions);

/// A moment between a cold start and a hot engine.
struct WarmUpPoint
{
    double time_s;
    PartTemperatures parts;
    double mains_um, bigEnds_um; ///< running means
    double gauge_pa;
    double weakest_pa;
    double weakestRatio;
    std::string weakestName;
    bool reliefOpen;
};
struct WarmUpRun
{
    double rpm;
    std::vector<WarmUpPoint> points;

    /// The moment its weakest stop is least well supplied.
    const WarmUpPoint &weakest() const;
};
/// At steady speed from the coldest start on. Errors: as Network::solve.
Result<WarmUpRun> warmUpRun(const Build &build, const std::vector<GaugedSize> &sizes, double rpm,
                            std::span<const double> times_s);

/// The crank's oil at one temperature, everything settled.
struct CrankOil
{
    double oil_c;
    double mains_um, bigEnds_um; ///< running means
    double bigEndsShare; ///< of what mains and big-ends take together
    double gauge_pa;
};
/// Errors: as Network::solve.
Result<std::vector<CrankOil>> crankOilOver(const Build &build, const std::vector<GaugedSize> &sizes,
                                           double rpm, std::span<const double> oil_c);

/// The big-ends' share of the crank's oil: to be checked again where hot leaves less than
/// crankShareKept of the cold share.
Mark crankOilMark(const CrankOil &cold, const CrankOil &hot);

/// Smallest films at hot idle, an indicator: the films of the circuit under mean loads.
struct HotFilm
{
    double mains_um, bigEnds_um; ///< of the bearing least well off
    double mainsAtCeiling_um; ///< with all mains moved by this
};
/// @param moved_um  by how much the mains may open, for mainsAtCeiling_um
/// Errors: `engine` without loads to reckon with; as Network::solve.
Result<HotFilm> hotFilm(const Build &build, const std::vector<GaugedSize> &sizes,
                        const RoomConditions &conditions, double moved_um);

/// The build under these conditions.
Build underConditions(const Build &build, const RoomConditions &conditions);

/// What ends the room where bearings are tight.
std::vector<RoomEdge> tightEdges(const Build &build, const std::vector<GaugedSize> &sizes,
                                 const std::string &family);

/// Mean of a family's known sizes with parts at these temperatures (µm); absent without one.
std::optional<double> meanOf(const std::vector<GaugedSize> &sizes, std::string_view family,
                             const PartTemperatures &parts);

/// What is asked of a family under given conditions.
struct RoomStudy
{
    Result<Room> room;
    std::vector<CrankOil> crankOil; ///< at 20 °C and hot; empty without a solution
    std::optional<HotFilm> film; ///< mains moved to the most there is room for
};
RoomStudy studyRoom(const Build &build, const std::vector<GaugedSize> &sizes,
                    const std::string &family, const RoomConditions &conditions);

/// A warm-up is followed for so long.
inline constexpr double warmUpLasts_s = 1800;
/// The warm-up at hot idle and at another speed.
struct WarmUps
{
    Result<WarmUpRun> idle, fast;
};
/// @param points  moments, close together at first
WarmUps warmUps(const Build &build, const std::vector<GaugedSize> &sizes, double rpm, int points);

} // namespace mildpath
