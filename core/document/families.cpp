// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/families.h"

#include "circuit/elementtypes.h"
#include "document/document.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double mostItems = 64; ///< sizes of one family at one stop

using std::string_view;

// Strength: a gauge zeroed on the journal lets the micrometer's scale error drop out; two
// instruments keep it; blade and strip are read in steps; a feel is a band.
constexpr std::array<Method, 6> methodTable { {
    { "zeroed_bore_gauge", "bore gauge zeroed on the journal", "bore gauge", 5, 1.3,
      "usual for a 1 µm gauge, no source", false },
    { "two_instruments", "bore gauge and micrometer", "bore gauge and micrometer", 4, 2.0,
      "each of the two, usual, no source", false },
    { "dial_indicator", "dial indicator", "dial indicator", 5, 2.9,
      "0.01 mm divisions: step/(2√3), JCGM 100", false },
    { "feeler", "feeler blade", "feeler blades", 3, 7.2, "0.025 mm steps: step/(2√3), JCGM 100",
      false },
    { "plastic_strip", "plastic strip", "plastic strip", 2, 3.7,
      "12.7 µm chart steps: step/(2√3), JCGM 100", true },
    { "drop_feel", "rod drop test", "feel", 1, 5.8, "a band of ± 10 µm, common practice", true },
} };

constexpr std::array<DropFeel, 3> feels { {
    { "hangs", "hangs or wants a push", 0, 45 },
    { "smooth", "falls smoothly without dropping", 30, 50 },
    { "drops", "drops", 35, 1000 },
} };

constexpr std::array<string_view, 3> shellMethods { "zeroed_bore_gauge", "two_instruments",
                                                    "plastic_strip" };
constexpr std::array<string_view, 4> rodMethods { "zeroed_bore_gauge", "two_instruments",
                                                  "plastic_strip", "drop_feel" };
constexpr std::array<string_view, 2> bushMethods { "zeroed_bore_gauge", "two_instruments" };
constexpr std::array<string_view, 2> boreMethods { "two_instruments", "zeroed_bore_gauge" };
constexpr std::array<string_view, 2> floatMethods { "dial_indicator", "feeler" };
constexpr std::array<string_view, 1> dialMethods { "dial_indicator" };
constexpr std::array<string_view, 1> bladeMethods { "feeler" };
constexpr std::array<string_view, 2> faceMethods { "feeler", "plastic_strip" };
constexpr std::array<string_view, 2> lashMethods { "dial_indicator", "feeler" };

using enum PlanKind;
constexpr std::array<Family, 12> familyTable { {
    { "main", StopKind::Main, "Main bearings", "Mains", "diametral clearance", "Main",
      ElementKind::Bearing, "clearance_um", Shell, Summary::Upright, HousingPart::Block, true,
      false, "", shellMethods },
    { "big_end", StopKind::BigEnd, "Big-end bearings", "Big-ends", "diametral clearance", "Big-end",
      ElementKind::Bearing, "clearance_um", Shell, Summary::Upright, HousingPart::Rod, true, false,
      "", rodMethods },
    { "small_end", StopKind::SmallEnd, "Small-end bushes", "Small ends", "diametral clearance",
      "Small end", std::nullopt, "", Bush, Summary::Mean, HousingPart::Rod, false, false, "",
      bushMethods },
    { "cam_bearing", StopKind::CamBearing, "Cam bearings", "Cams", "diametral clearance", "Cam",
      ElementKind::Bearing, "clearance_um", Bush, Summary::Mean, HousingPart::Block, false, false,
      "", bushMethods },
    { "balance_shaft", StopKind::BalanceShaft, "Balance shaft bearings", "Balance",
      "diametral clearance", "Balance", ElementKind::Bearing, "clearance_um", Bush, Summary::Mean,
      HousingPart::Block, false, false, "", bushMethods },
    { "lifter", StopKind::Lifter, "Lifter bores", "Lifters", "diametral clearance", "Lifter",
      ElementKind::Annulus, "clearance_um", Single, Summary::Mean, HousingPart::Block, false, false,
      "", boreMethods },
    { "end_float", StopKind::Main, "Crank end float", "End float", "end float", "End float",
      std::nullopt, "", Single, Summary::Mean, HousingPart::None, false, false, "thrust_width_mm",
      floatMethods },
    { "run_out", StopKind::Main, "Crank run-out", "Run-out", "total run-out", "Run-out",
      std::nullopt, "", Single, Summary::Mean, HousingPart::None, false, true, "run_out_here",
      dialMethods },
    { "pump_tip", StopKind::Pump, "Pump, rotor tips", "Tips", "tip clearance", "Tips",
      ElementKind::Pump, "tip_clearance_um", Lobes, Summary::Widest, HousingPart::None, false,
      false, "", bladeMethods },
    { "pump_end", StopKind::Pump, "Pump, end clearance", "Ends", "end clearance", "End clearance",
      ElementKind::Pump, "end_clearance_um", Spots, Summary::Mean, HousingPart::None, false, false,
      "", faceMethods },
    { "pump_body", StopKind::Pump, "Pump, outer rotor in body", "Body", "diametral clearance",
      "Rotor in body", ElementKind::Pump, "body_clearance_um", Spots, Summary::Mean,
      HousingPart::None, false, false, "", bladeMethods },
    { "pump_backlash", StopKind::Pump, "Pump, drive backlash", "Backlash", "backlash", "Backlash",
      std::nullopt, "", Single, Summary::Mean, HousingPart::None, false, true, "", lashMethods },
} };

constexpr std::array<NumberKey, 42> keyTable { {
    { "shell_wall_mm", "wall of one shell", std::nullopt, 0, 20, false, "main" },
    { "shell_wall_mm", "wall of one shell", std::nullopt, 0, 20, false, "big_end" },
    { "plug_bore_mm", "hole it closes", std::nullopt, 0, 100, true, "plug" },
    { "thrust_width_mm", "width between the thrust faces", std::nullopt, 0, 200, false, "main" },
    asYesNo({ "run_out_here", "run-out is taken at this main", std::nullopt, 0, 1, false, "main" }),
    { "block_hole_mm", "drilling in the block", std::nullopt, 0, 40, true, "main" },
    { "shell_hole_mm", "hole in the shell", std::nullopt, 0, 40, true, "main" },
    { "hole_offset_mm", "offset of the two holes", std::nullopt, 0, 60, false, "main" },
    { "groove_deg", "groove in the shell, degrees", std::nullopt, 0, 360, false, "main" },
    { "groove_depth_mm", "depth of the shell's groove", std::nullopt, 0, 10, true, "main" },
    { "journal_groove_depth_mm", "depth of the journal's groove", std::nullopt, 0, 10, true,
      "main" },
    { "journal_groove_width_mm", "width of the journal's groove; else as the shell's", std::nullopt,
      0, 60, true, "main" },
    asYesNo({ "journal_groove", "groove in the journal", std::nullopt, 0, 1, false, "main" }),
    asYesNo({ "cross_drilled", "journal drilled across", std::nullopt, 0, 1, false, "main" }),
    { "thrust_bevel_mm2", "oil bevel toward the thrust face, section", std::nullopt, 0, 20, false,
      "main" },
    { "items", "how many", std::nullopt, 1, 48, false, "small_end" },
    { "items", "how many", std::nullopt, 1, mostItems, false, "lifter" },
    { "load_n", "own steady load, instead of the mean-load model", std::nullopt, 0, 1e6, false,
      "main" },
    { "load_n", "own steady load, instead of the mean-load model", std::nullopt, 0, 1e6, false,
      "big_end" },
    { "returns", "return ports", std::nullopt, 1, 2, false, "tank" },
    { "stages", "scavenge stages", std::nullopt, 1, 8, false, "scavenge" },
    { "stage_cm3", "each sweeps, a turn of the crank", std::nullopt, 0, 500, true, "scavenge" },
    { "lobes", "lobes of the inner rotor", std::nullopt, 3, 12, false, "pump" },
    { "body_score_um", "deepest score in the body face", std::nullopt, 0, 2000, false, "pump" },
    { "cover_score_um", "deepest score in the cover", std::nullopt, 0, 2000, false, "pump" },
    { "cover_spare_um", "metal the cover can lose", std::nullopt, 0, 5000, false, "pump" },
    { "plunger_d_mm", "plunger diameter", std::nullopt, 0, 60, true, "relief" },
    { "spring_rate_n_per_mm", "spring rate", std::nullopt, 0, 200, true, "relief" },
    { "free_length_mm", "free length of the spring", std::nullopt, 0, 300, true, "relief" },
    { "fitted_length_mm", "fitted length, valve shut", std::nullopt, 0, 300, true, "relief" },
    { "shim_mm", "shim added", std::nullopt, 0, 30, false, "relief" },
    { "uncover_mm", "travel before the port opens", std::nullopt, 0, 30, false, "relief" },
    { "full_lift_mm", "further travel to fully open", std::nullopt, 0, 30, true, "relief" },
    { "solid_length_mm", "length coil on coil", std::nullopt, 0, 300, false, "relief" },
    { "oring_section_mm", "section of the pickup's O-ring", std::nullopt, 0, 20, true, "pickup" },
    { "gland_depth_mm", "depth of its gland", std::nullopt, 0, 20, true, "pickup" },
    { "gland_width_mm", "width of its groove", std::nullopt, 0, 30, true, "pickup" },
    { "oring_stretch", "stretch of the ring, fraction", std::nullopt, 0, 0.5, false, "pickup" },
    { "oring_set", "compression set of the ring, fraction", std::nullopt, 0, 1.5, false, "pickup" },
    { "pickup_bore_mm", "bore of the pickup tube", std::nullopt, 0, 80, true, "pickup" },
    { "pickup_mouth_mm", "diameter of the pickup's mouth", std::nullopt, 0, 200, true, "pickup" },
    { "pickup_gap_mm", "mouth to floor", std::nullopt, 0, 100, true, "pickup" },
} };

/// Of every stop oil is led to: what it needs, where that is not what its kind usually does.
constexpr std::array<NumberKey, 2> needTable { {
    { "need_idle_kpa", "pressure it needs at hot idle; 0: none, on purpose", std::nullopt, 0,
      2000 },
    { "need_most_kpa", "pressure it needs at the highest speed", std::nullopt, 0, 2000 },
} };

/// How many of a family a stop holds: its circuit elements, or a count it states.
std::vector<std::string> elementsOf(const Build &build, const Stop &stop, const Family &family)
{
    std::vector<std::string> out;
    if (family.element)
        for (const std::string &id : stop.elements)
            if (const Element *e = build.circuit.find(id); e
                && (e->kind == *family.element
                    || (*family.element == ElementKind::Bearing && isBearing(*e))))
                out.push_back(id);
    if (out.empty())
        // A count out of range is refused where stops are checked; it must not be built before.
        out.resize(static_cast<size_t>(std::max(1.0, std::min(mostItems, stop.value("items", 1)))));
    return out;
}

} // namespace

std::span<const Method> methods()
{
    return methodTable;
}

const Method *findMethod(string_view id)
{
    const auto it = std::find_if(methodTable.begin(), methodTable.end(),
                                 [&](const Method &m) { return m.id == id; });
    return it == methodTable.end() ? nullptr : &*it;
}

std::span<const DropFeel> dropFeels()
{
    return feels;
}

const DropFeel *findDropFeel(string_view id)
{
    const auto it
        = std::find_if(feels.begin(), feels.end(), [&](const DropFeel &f) { return f.id == id; });
    return it == feels.end() ? nullptr : &*it;
}

std::span<const Family> families()
{
    return familyTable;
}

const Family *findFamily(string_view id)
{
    const auto it = std::find_if(familyTable.begin(), familyTable.end(),
                                 [&](const Family &f) { return f.id == id; });
    return it == familyTable.end() ? nullptr : &*it;
}

std::vector<ReadingPosition> readingPlan(const Family &family, const Stop &stop)
{
    std::vector<ReadingPosition> out;
    switch (family.plan) {
    case Shell:
        // Upright first, because that makes the clearance; then the two flanks.
        for (const int station : { 1, 2 })
            for (const auto &[angle, name] :
                 { std::pair(90.0, "A upright"), std::pair(60.0, "B +30°"),
                   std::pair(120.0, "C −30°") })
                out.push_back({ station, angle, name });
        break;
    case Bush:
    case Spots:
        for (const int station : { 1, 2 })
            out.push_back({ station, 90, stationName(family, station) });
        break;
    case Single:
        out.push_back({ 1, 90, std::string(family.quantity) });
        break;
    case Lobes:
        for (int lobe = 1; lobe <= static_cast<int>(stop.value("lobes", 4)); ++lobe)
            out.push_back({ lobe, 90, stationName(family, lobe) });
        break;
    }
    return out;
}

std::string stationName(const Family &family, int station)
{
    if (family.plan == Lobes)
        return "lobe " + std::to_string(station);
    if (family.plan == Spots)
        return station == 1 ? "drive side" : "far side";
    if (family.plan == Single)
        return std::string(family.quantity);
    return station == 1 ? "front" : "rear";
}

std::vector<SizeItem> sizeItems(const Build &build)
{
    std::vector<SizeItem> out;
    for (const Family &family : familyTable)
        for (const Stop &stop : build.engine.stops) {
            if (stop.kind != family.stopKind
                || (!family.needsKey.empty() && !(stop.value(std::string(family.needsKey)) > 0)))
                continue;
            const auto elements = elementsOf(build, stop, family);
            for (size_t i = 0; i < elements.size(); ++i) {
                const int item = static_cast<int>(i) + 1;
                std::string name = stop.name;
                if (elements.size() > 1)
                    name = stop.points.size() == elements.size()
                        ? stop.points[i].name
                        : std::string(family.itemName) + " " + std::to_string(item);
                else if (wordOf(family.stopKind) != family.id
                         && family.stopKind != StopKind::SmallEnd)
                    name = std::string(family.itemName);
                out.push_back({ &family, &stop, item, std::move(name), elements[i] });
            }
        }
    return out;
}

std::span<const NumberKey> stopKeys()
{
    return keyTable;
}

const NumberKey *findStopKey(StopKind stopKind, string_view key)
{
    if (const NumberKey *own = findKey(keyTable, wordOf(stopKind), key))
        return own;
    return findKey(needTable, key);
}

} // namespace mildpath
