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
    { "main", "main", "Main bearings", "Mains", "diametral clearance", "Main", "bearing",
      "clearance_um", Shell, Summary::Upright, HousingPart::Block, true, false, "", shellMethods },
    { "big_end", "big_end", "Big-end bearings", "Big-ends", "diametral clearance", "Big-end",
      "bearing", "clearance_um", Shell, Summary::Upright, HousingPart::Rod, true, false, "",
      rodMethods },
    { "small_end", "small_end", "Small-end bushes", "Small ends", "diametral clearance",
      "Small end", "", "", Bush, Summary::Mean, HousingPart::Rod, false, false, "", bushMethods },
    { "cam_bearing", "cam_bearing", "Cam bearings", "Cams", "diametral clearance", "Cam", "bearing",
      "clearance_um", Bush, Summary::Mean, HousingPart::Block, false, false, "", bushMethods },
    { "balance_shaft", "balance_shaft", "Balance shaft bearings", "Balance", "diametral clearance",
      "Balance", "bearing", "clearance_um", Bush, Summary::Mean, HousingPart::Block, false, false,
      "", bushMethods },
    { "lifter", "lifter", "Lifter bores", "Lifters", "diametral clearance", "Lifter", "annulus",
      "clearance_um", Single, Summary::Mean, HousingPart::Block, false, false, "", boreMethods },
    { "end_float", "main", "Crank end float", "End float", "end float", "End float", "", "", Single,
      Summary::Mean, HousingPart::None, false, false, "thrust_width_mm", floatMethods },
    { "run_out", "main", "Crank run-out", "Run-out", "total run-out", "Run-out", "", "", Single,
      Summary::Mean, HousingPart::None, false, true, "run_out_here", dialMethods },
    { "pump_tip", "pump", "Pump, rotor tips", "Tips", "tip clearance", "Tips", "pump",
      "tip_clearance_um", Lobes, Summary::Widest, HousingPart::None, false, false, "",
      bladeMethods },
    { "pump_end", "pump", "Pump, end clearance", "Ends", "end clearance", "End clearance", "pump",
      "end_clearance_um", Spots, Summary::Mean, HousingPart::None, false, false, "", faceMethods },
    { "pump_body", "pump", "Pump, outer rotor in body", "Body", "diametral clearance",
      "Rotor in body", "pump", "body_clearance_um", Spots, Summary::Mean, HousingPart::None, false,
      false, "", bladeMethods },
    { "pump_backlash", "pump", "Pump, drive backlash", "Backlash", "backlash", "Backlash", "", "",
      Single, Summary::Mean, HousingPart::None, false, true, "", lashMethods },
} };

constexpr std::array<StopKey, 35> keyTable { {
    { "thrust_width_mm", "main", "width between the thrust faces", 0, 200 },
    { "run_out_here", "main", "run-out is taken at this main", 0, 1 },
    { "block_hole_mm", "main", "drilling in the block", 0, 40, true },
    { "shell_hole_mm", "main", "hole in the shell", 0, 40, true },
    { "hole_offset_mm", "main", "offset of the two holes", 0, 60 },
    { "groove_deg", "main", "groove in the shell, degrees", 0, 360 },
    { "journal_groove", "main", "groove in the journal (1: yes)", 0, 1 },
    { "cross_drilled", "main", "journal drilled across (1: yes)", 0, 1 },
    { "thrust_bevel_mm2", "main", "oil bevel toward the thrust face, section", 0, 20 },
    { "items", "small_end", "how many", 1, 48 },
    { "items", "lifter", "how many", 1, mostItems },
    { "load_n", "main", "own steady load, instead of the mean-load model", 0, 1e6 },
    { "load_n", "big_end", "own steady load, instead of the mean-load model", 0, 1e6 },
    { "stages", "scavenge", "scavenge stages", 1, 8 },
    { "stage_cm3", "scavenge", "each sweeps, a turn of the crank", 0, 500, true },
    { "lobes", "pump", "lobes of the inner rotor", 3, 12 },
    { "body_score_um", "pump", "deepest score in the body face", 0, 2000 },
    { "cover_score_um", "pump", "deepest score in the cover", 0, 2000 },
    { "cover_spare_um", "pump", "metal the cover can lose", 0, 5000 },
    { "plunger_d_mm", "relief", "plunger diameter", 0, 60, true },
    { "spring_rate_n_per_mm", "relief", "spring rate", 0, 200, true },
    { "free_length_mm", "relief", "free length of the spring", 0, 300, true },
    { "fitted_length_mm", "relief", "fitted length, valve shut", 0, 300, true },
    { "shim_mm", "relief", "shim added", 0, 30 },
    { "uncover_mm", "relief", "travel before the port opens", 0, 30 },
    { "full_lift_mm", "relief", "further travel to fully open", 0, 30, true },
    { "solid_length_mm", "relief", "length coil on coil", 0, 300 },
    { "oring_section_mm", "pickup", "section of the pickup's O-ring", 0, 20, true },
    { "gland_depth_mm", "pickup", "depth of its gland", 0, 20, true },
    { "gland_width_mm", "pickup", "width of its groove", 0, 30, true },
    { "oring_stretch", "pickup", "stretch of the ring, fraction", 0, 0.5 },
    { "oring_set", "pickup", "compression set of the ring, fraction", 0, 1.5 },
    { "pickup_bore_mm", "pickup", "bore of the pickup tube", 0, 80, true },
    { "pickup_mouth_mm", "pickup", "diameter of the pickup's mouth", 0, 200, true },
    { "pickup_gap_mm", "pickup", "mouth to floor", 0, 100, true },
} };

/// How many of a family a stop holds: its circuit elements, or a count it states.
std::vector<std::string> elementsOf(const Build &build, const Stop &stop, const Family &family)
{
    std::vector<std::string> out;
    if (!family.elementType.empty())
        for (const std::string &id : stop.elements)
            if (const Element *e = build.circuit.find(id); e
                && (e->type == family.elementType
                    || (family.elementType == "bearing" && isBearing(*e))))
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
                else if (family.stopKind != family.id && family.stopKind != "small_end")
                    name = std::string(family.itemName);
                out.push_back({ &family, &stop, item, std::move(name), elements[i] });
            }
        }
    return out;
}

std::span<const StopKey> stopKeys()
{
    return keyTable;
}

const StopKey *findStopKey(string_view stopKind, string_view key)
{
    const auto it = std::find_if(keyTable.begin(), keyTable.end(), [&](const StopKey &k) {
        return k.stopKind == stopKind && k.key == key;
    });
    return it == keyTable.end() ? nullptr : &*it;
}

} // namespace mildpath
