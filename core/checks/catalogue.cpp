// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/catalogue.h"

#include "evidence/checklog.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

// What must be true, its order and its weights: common practice, no source; minutes and classes are
// own choices. docs/theory/checks.md says how a row is read.
// clang-format off
constexpr auto table = std::to_array<CheckKind>({
    { "job", Stage::Strip, "E", Aspect::None, "Job, scope, engine number and people are named", "D", "c", "", 5, 0, CheckClass::Never, "NFRSBDO" },
    { "number", Stage::Strip, "E", Aspect::None, "Caps, rods, lifters marked for place and way round before they came off", "L", "", "job", 15, 0, CheckClass::One, "FR" },
    { "oldcut", Stage::Strip, "E", Aspect::None, "Old filter cut and read, old oil sampled", "L", "", "job", 15, 0, CheckClass::Open, "FRSDO" },
    { "sign", Stage::Strip, "sign", Aspect::Size, "The sign was looked for: absent, or mended", "L+", "R", "job", 4, 0, CheckClass::One, "FRs" },
    { "find", Stage::Strip, "find", Aspect::Clean, "What lay here is named, traced, settled; its passage proven since", "L+", "", "job", 8, 0, CheckClass::Two, "NFRSBDO" },
    { "cause", Stage::Strip, "failure", Aspect::None, "Why the bearing failed is known, and mended", "L", "", "sign* find* oldcut", 60, 0, CheckClass::Two, "F" },
    { "ask", Stage::Parts, "J", Aspect::None, "Sheet out: cuts, sizes, every plug of the part, proof wanted on return", "D", "c", "job number plugout", 15, 8, CheckClass::One, "NFRsD" },
    { "back", Stage::Parts, "J", Aspect::None, "Back, counted, checked against the sheet", "GP", "", "ask", 30, 0, CheckClass::One, "NFRsD" },
    { "crack", Stage::Parts, "X", Aspect::None, "Crank, rods straight and free of cracks", "P", "v", "back", 10, 0, CheckClass::Two, "NF" },
    { "hand", Stage::Parts, "B", Aspect::None, "In hand: right number, size, count (waits only when ordered)", "L", "c", "job shell", 5, 3, CheckClass::One, "NFRSBDO" },
    { "plugout", Stage::Clean, "G", Aspect::None, "Out, or left with a reason: blind, or seen behind and far from any cut", "D", "", "job", 12, 0, CheckClass::One, "NFrsbd" },
    { "clean", Stage::Clean, "P", Aspect::Clean, "Brushed white (flushed clear where no brush goes) with its plan's plugs out; far end seen", "L", "MFo", "plugout back", 5, 0, CheckClass::Two, "NFrsBd" },
    { "restr", Stage::Clean, "P", Aspect::Flow, "Restrictor, small screen: flushed both ways, bore read, in its place", "L", "MFXR", "clean", 6, 0, CheckClass::Two, "NFrs" },
    { "pocket", Stage::Clean, "P", Aspect::Clean, "Dead end opened or picked out, and looked into", "L+", "MF", "plugout back", 8, 0, CheckClass::Two, "NFrs" },
    { "newpart", Stage::Clean, "X", Aspect::Clean, "New cam, crank, pump, lifters, cooler: opened and proven clean", "L", "M", "hand", 10, 0, CheckClass::Two, "NFRSBD" },
    { "wash", Stage::Clean, "X", Aspect::Clean, "Pan under its baffles, covers, pump, pistons: washed, dry, covered", "L", "MFR", "back", 15, 0, CheckClass::One, "NFRsBd" },
    { "spread", Stage::Clean, "X", Aspect::Clean, "Since the failure clean and proven, flushed clear, or new (sealed parts, hoses: new, class !)", "C", "F", "clean* newpart wash", 5, 0, CheckClass::Two, "F" },
    { "drain", Stage::Clean, "E", Aspect::Flow, "Drain-backs, breather, oil-ring drains open", "L", "MF", "clean*", 10, 0, CheckClass::One, "NFR" },
    { "final", Stage::Clean, "X", Aspect::Clean, "Last wash, within its days of closing", "D", "MFod", "clean* clr* feed* camhole* lifclr* pocket* runout piston* spread wash", 60, 0, CheckClass::One, "NFR" },
    { "plugin", Stage::Clean, "G", Aspect::Flow, "In: right kind and bore, sealed as chosen; a hidden one before the one that hides it", "D", "X", "clean final", 6, 0, CheckClass::Never, "NFrsb" },
    { "plugseen", Stage::Clean, "G", Aspect::Flow, "Seen in its place before anything hid it", "W+", "X", "plugin", 1, 0, CheckClass::Never, "NFrsBd" },
    { "tools", Stage::Measure, "E", Aspect::None, "Each instrument set on a standard on every day it read, zero read again after", "G", "i", "job", 15, 0, CheckClass::One, "NFRs" },
    { "jrnl", Stage::Measure, "main rod", Aspect::Size, "Journal: size, taper, round, face", "G", "MRvi", "back tools", 5, 0, CheckClass::Two, "NFR" },
    { "bore", Stage::Measure, "main rod", Aspect::Size, "Housing bore without shells, cap at torque: size, round, in line", "GP", "MRvi", "back card tools", 8, 0, CheckClass::Two, "NF" },
    { "shell", Stage::Measure, "main rod", Aspect::Size, "Halves chosen for the clearance wanted; a clearance on target proves it as well", "C", "c", "jrnl bore crack cause", 3, 0, CheckClass::One, "NFR" },
    { "tang", Stage::Measure, "main rod", Aspect::Size, "Backs dry, notches clear, tangs home, ends level, each half on its side", "L", "X", "hand", 3, 0, CheckClass::One, "NFRs" },
    { "crush", Stage::Measure, "main rod", Aspect::Size, "Joint stands open before the last stage", "L", "R", "tang", 2, 0, CheckClass::One, "NFRs" },
    { "clr", Stage::Measure, "main rod", Aspect::Size, "Clearance inside its limits; cap at its last stage, loosened in reverse", "G", "MRvi", "crush card tools", 8, 0, CheckClass::Two, "NFRsB" },
    { "form", Stage::Measure, "main rod", Aspect::Size, "Taper, out-of-round inside their limits (asked where two stations or directions were read, or the maker gives a limit)", "C", "MRvi", "clr", 0, 0, CheckClass::Two, "NFRB" },
    { "bush", Stage::Measure, "bush", Aspect::Size, "Journal in bush inside its limits", "G", "MRvi", "back tools", 6, 0, CheckClass::One, "NFr" },
    { "lifclr", Stage::Measure, "lifter_each", Aspect::Size, "Each lifter bore inside its limits", "G", "MRi", "back tools", 2, 0, CheckClass::One, "NFr" },
    { "runout", Stage::Measure, "E", Aspect::Size, "Crank run-out inside its limit", "G", "MRv", "back tools", 10, 0, CheckClass::One, "NFR" },
    { "piston", Stage::Measure, "C", Aspect::Size, "Piston in bore, rings, gaps: inside limits cold, at the coldest start, hot", "G", "MR", "back tools", 12, 0, CheckClass::One, "NFR" },
    { "asked", Stage::Measure, "E", Aspect::Size, "Bore finish and weights are as asked", "GP", "MR", "back", 40, 0, CheckClass::Open, "NFR" },
    { "feed", Stage::Measure, "main", Aspect::Flow, "Shell's hole meets the drilling, edges broken: under 0.7 open look again; holds only where solved the bearing loses its need", "G", "MR", "tang", 4, 0, CheckClass::Two, "NFRs" },
    { "camhole", Stage::Measure, "cam", Aspect::Flow, "Holes meet their drillings, a timed one at its angle", "LG", "MR", "bush", 5, 0, CheckClass::Two, "NFr" },
    { "groove", Stage::Measure, "main", Aspect::Flow, "Grooves, cross drilling, bevel as written", "GL", "MR", "tang", 3, 0, CheckClass::One, "NFRs" },
    { "cold", Stage::Measure, "main rod bush", Aspect::Size, "At the coldest start clearance − U stays over the floor", "C", "c", "clr bush", 0, 0, CheckClass::Never, "NFRB" },
    { "heat", Stage::Measure, "main rod bush", Aspect::Size, "Hot, clearance + U inside the running limit; growth logged on the block or from the book, as chosen", "C", "c", "clr bush", 0, 0, CheckClass::Two, "NFRB" },
    { "float", Stage::Measure, "E", Aspect::Size, "End float (pried both ways), rods' side play inside limits", "G", "X", "torq*", 10, 0, CheckClass::Two, "NFRB" },
    { "card", Stage::Assemble, "T", Aspect::None, "Stages, angle, order, oil on threads: this engine's, source named", "P", "c", "job", 10, 0, CheckClass::Never, "NFRs" },
    { "bolts", Stage::Assemble, "T", Aspect::None, "New bolts where they stretch", "D", "X", "hand clr*", 3, 0, CheckClass::Two, "NFRs" },
    { "capway", Stage::Assemble, "main rod", Aspect::None, "Right cap, right way round", "W", "X", "tang", 1, 0, CheckClass::Two, "NFRs" },
    { "lube", Stage::Assemble, "main rod", Aspect::None, "Preservative off; shells, journals, thrust faces oiled", "D", "Xd14", "final", 2, 0, CheckClass::One, "NFRs" },
    { "thrust", Stage::Assemble, "thrust", Aspect::None, "Thrust halves in, grooves to the crank", "W", "X", "hand final", 4, 0, CheckClass::Never, "NFRs" },
    { "torq", Stage::Assemble, "T", Aspect::None, "Every bolt at its last stage, in order", "D", "X", "card bolts capway lube thrust* form* cold* heat* groove*", 15, 0, CheckClass::Never, "NFRsB" },
    { "turns", Stage::Assemble, "T", Aspect::Flow, "Crank turns freely after each main cap (a frame: once), before pistons; with pistons each rod adds about what the others added; by hand is enough, a figure is kept", "LG", "XM", "torq", 10, 0, CheckClass::Never, "NFRsB" },
    { "rearseal", Stage::Assemble, "X", Aspect::None, "Crank seals right way round, lips oiled", "L", "Xv", "torq*", 10, 0, CheckClass::One, "NFRs" },
    { "roll", Stage::Assemble, "X", Aspect::Size, "Rolling bearing washed, felt without oil, oiled", "L", "Xd30", "wash", 8, 0, CheckClass::Two, "NFRs" },
    { "cambed", Stage::Assemble, "cam", Aspect::Size, "Cam in, lobes and feet coated, end float felt", "D", "X", "camhole* bush* plugseen*", 20, 0, CheckClass::One, "NFrs" },
    { "lift", Stage::Assemble, "lifter_each", Aspect::None, "Each in its own bore, free; soaked or dry as chosen", "D", "X", "lifclr clean cambed*", 1, 0, CheckClass::One, "NFrs" },
    { "jets", Stage::Assemble, "jet", Aspect::Flow, "Each there, aimed, locked; tensioner's feed and vent open", "W", "X", "final restr", 4, 0, CheckClass::Two, "NFRs" },
    { "top", Stage::Assemble, "rocker", Aspect::Flow, "Shaft right way up over its feed, holes to the load", "L", "XR", "final", 10, 0, CheckClass::Two, "NFrs" },
    { "lash", Stage::Assemble, "lifter rocker", Aspect::None, "Lash or preload set", "G", "Xt", "lift* top*", 40, 0, CheckClass::One, "NFRs" },
    { "own", Stage::Assemble, "own", Aspect::None, "A check of one's own", "LP", "MXR", "", 5, 0, CheckClass::One, "NFRSBDO" },
    { "pflat", Stage::Suction, "pump", Aspect::Size, "Plates and flange flat, scores left no deeper than asked", "G", "MRv", "job", 15, 0, CheckClass::One, "NFRsBd" },
    { "ptip", Stage::Suction, "pump", Aspect::Size, "Tips and body: every lobe under its limit", "BG", "MR", "job", 8, 0, CheckClass::Two, "NFRsBd" },
    { "pend", Stage::Suction, "pump", Aspect::Size, "End clearance with cover wear and gasket: over binding, under its limit", "BG", "MR", "pflat", 8, 0, CheckClass::Two, "NFRsBd" },
    { "pport", Stage::Suction, "pump", Aspect::Flow, "Ports matched, no flash, edges broken", "L", "MR", "job", 20, 0, CheckClass::Open, "NFRBd" },
    { "rfree", Stage::Suction, "relief", Aspect::Flow, "Piston falls by its own weight, oiled", "L", "XMF", "wash", 3, 0, CheckClass::Two, "NFRsBd" },
    { "rseat", Stage::Suction, "relief", Aspect::Clean, "Seat whole and clean", "L", "XMF", "wash", 4, 0, CheckClass::Two, "NFRsBd" },
    { "rspring", Stage::Suction, "relief", Aspect::Size, "Spring and shims known: opening pressure", "GP", "R", "job", 5, 0, CheckClass::One, "NFRsBd" },
    { "pgask", Stage::Suction, "pump", Aspect::Size, "Gasket laid on the pump's own base, every port inside it", "W+", "X", "hand", 2, 0, CheckClass::Never, "NFRsBd" },
    { "pdrive", Stage::Suction, "pump", Aspect::Flow, "Fixed, drive home, backlash felt, turns by hand", "L", "X", "pgask ptip pend pport rfree rseat rspring wash", 6, 0, CheckClass::Two, "NFRsBd" },
    { "kring", Stage::Suction, "pickup", Aspect::Size, "New ring stands proud, squeeze in its range", "G", "X", "hand", 4, 0, CheckClass::Two, "NFRsBd" },
    { "klock", Stage::Suction, "pickup", Aspect::Size, "Bolts locked", "W", "X", "kring pdrive", 2, 0, CheckClass::Two, "NFRsBd" },
    { "kgap", Stage::Suction, "pickup", Aspect::Size, "Gap to the floor right for its form: open mouth, or boxed strainer that stands", "G", "XRv", "klock", 6, 0, CheckClass::Two, "NFRsBd" },
    { "panfit", Stage::Suction, "pickup", Aspect::Size, "Dry fit: pan sits unforced, clear of pickup, tray, rods", "L", "Rv", "kgap torq*", 10, 0, CheckClass::Two, "NFRsBd" },
    { "baffle", Stage::Suction, "pickup", Aspect::Flow, "Baffle, tray and their welds whole, or left out as chosen", "L+", "vt", "job", 5, 0, CheckClass::One, "NFRsBd" },
    { "ptight", Stage::Suction, "pickup", Aspect::Flow, "Suction side tested tight", "L", "X", "klock", 15, 0, CheckClass::Open, "NFRsBd" },
    { "pan", Stage::Suction, "pickup", Aspect::None, "Closed: rail flat, bead thin and even, end strips home, bolts in order", "D", "X", "panfit baffle wash* turns* float rearseal* jets* plugseen* drain roll idle need* speed* over crank* film*", 25, 0, CheckClass::Two, "NFRsBd" },
    { "lway", Stage::Filling, "L", Aspect::Flow, "Followed by hand, port to port: out leads to in", "L", "Xc", "job", 4, 0, CheckClass::Never, "NFRsBD" },
    { "lhose", Stage::Filling, "L", Aspect::Flow, "Made for its heat and pressure; before a pump, for vacuum", "PL", "R", "hand", 3, 0, CheckClass::Two, "NFRsBD" },
    { "lclean", Stage::Filling, "L", Aspect::Clean, "New or flushed clear from both ends", "L", "XF", "hand", 6, 0, CheckClass::Two, "NFRsBD" },
    { "blank", Stage::Filling, "E", Aspect::Flow, "Ports not used are capped, the old pump's on the block too", "W", "X", "job", 3, 0, CheckClass::Never, "NFRsBD" },
    { "tank", Stage::Filling, "tank", Aspect::Flow, "Level, swirl plate, vent right; stages free, screens in", "LG", "XF", "wash", 15, 0, CheckClass::One, "NFRsBD" },
    { "turbo", Stage::Filling, "turbo", Aspect::Clean, "Feed screen and drain clear, housing filled", "L", "XF", "lclean*", 10, 0, CheckClass::Two, "NFRsBD" },
    { "filt", Stage::Filling, "filter", Aspect::Flow, "Right one, way and bypass known, old gasket off", "L", "X", "hand", 4, 0, CheckClass::Two, "NFRsBDO" },
    { "gauge", Stage::Filling, "E", Aspect::Flow, "Gauge on the engine, last in the gallery; agrees with another", "G", "Xi", "job", 15, 0, CheckClass::One, "NFRBD" },
    { "oilok", Stage::Filling, "E", Aspect::None, "Oil is the one forecast: grade and spec read off the can", "L", "Rc", "hand", 2, 0, CheckClass::Two, "NFRsBDO" },
    { "oilin", Stage::Filling, "E", Aspect::Flow, "Quantity written, level seen in its window", "L", "Xd1", "oilok filt pan tank* lway* lclean* lhose* air lash*", 10, 0, CheckClass::Never, "NFRSBDO" },
    { "solved", Stage::Desk, "E", Aspect::Flow, "Solves on this engine's own pump, journals, relief", "C", "c", "job", 20, 0, CheckClass::Never, "NFRBD" },
    { "idle", Stage::Desk, "E", Aspect::Flow, "Hot idle at the gauge, low edge, over the floor", "C", "c", "solved clr* bush* pend", 0, 0, CheckClass::Two, "NFRBD" },
    { "need", Stage::Desk, "fed", Aspect::Flow, "Gets its need at hot idle", "C", "c", "solved clr* bush* pend", 0, 0, CheckClass::Never, "NFRBD" },
    { "speed", Stage::Desk, "fed E", Aspect::Flow, "Gets its need hot at the high and top speed, and at the coldest start", "C", "c", "solved clr* bush* pend", 0, 0, CheckClass::Never, "NFRBD" },
    { "over", Stage::Desk, "E", Aspect::Flow, "Cold and hot, filter, element and cooler stand the pressure, the relief valve working", "C", "c", "solved rspring", 0, 0, CheckClass::Never, "NFRBD" },
    { "crank", Stage::Desk, "rod", Aspect::Flow, "Fed through the crank up to top speed", "C", "c", "solved groove*", 0, 0, CheckClass::Never, "NFRB" },
    { "film", Stage::Desk, "main rod", Aspect::Flow, "Load within what its film bears", "C", "c", "solved clr", 0, 0, CheckClass::Two, "NFRB" },
    { "air", Stage::Desk, "E", Aspect::Flow, "Fill window, pickup in turns, cold suction: no air row holds (job S: where pan, baffle or pickup form changed)", "C", "c", "kring kgap", 5, 0, CheckClass::Two, "NFRsBD" },
    { "pick", Stage::Desk, "E", Aspect::None, "Open questions between schools, of rows that are asked, have their answers", "D", "c", "job", 10, 0, CheckClass::Open, "NFRSBD" },
    { "off", Stage::Prime, "E", Aspect::None, "Ignition and fuel off; drive turns the pump's way", "D", "Xd1", "oilin pick", 5, 0, CheckClass::Never, "NFRsBD" },
    { "press", Stage::Prime, "E", Aspect::Flow, "Pressure within the forecast time (job S: while cranking, before its time limit)", "G", "Xd3", "off plugseen* blank* gauge turbo", 15, 0, CheckClass::Never, "NFRsBD" },
    { "seelif", Stage::Prime, "lifter_each", Aspect::Flow, "Oil at every lifter", "L", "X", "press", 1, 0, CheckClass::Two, "NFRsBD" },
    { "seeroc", Stage::Prime, "rocker_each", Aspect::Flow, "Oil at every rocker", "L", "X", "press", 1, 0, CheckClass::Two, "NFRsBD" },
    { "seejet", Stage::Prime, "jet turbo", Aspect::Flow, "Oil at each jet, spray, turbo return that can be seen", "L", "X", "press", 3, 0, CheckClass::One, "NFRsBD" },
    { "dry", Stage::Prime, "E", Aspect::None, "No leak; level seen again", "L", "Xd1", "press", 5, 0, CheckClass::One, "NFRsBD" },
    { "watch", Stage::Start, "E", Aspect::None, "Extinguisher, person at the switch, exhaust led out, coolant in, mounts hold", "D", "d1", "dry seelif* seeroc*", 10, 0, CheckClass::Never, "NFRsBD" },
    { "fire", Stage::Start, "E", Aspect::Flow, "Over the floor within its seconds, else off", "G", "X", "watch oilin", 1, 0, CheckClass::Never, "NFRSBDO" },
    { "cidle", Stage::Start, "E", Aspect::Flow, "Cold idle in its band", "G", "X", "fire", 2, 0, CheckClass::One, "NFRSBD" },
    { "fast", Stage::Start, "E", Aspect::Flow, "At 2 000 in its band; under half its low edge is wrong", "G", "X", "cidle", 2, 0, CheckClass::Two, "NFRSBD" },
    { "warm", Stage::Start, "E", Aspect::None, "Oil brought to heat under watch, no load", "D", "X", "fast", 15, 0, CheckClass::One, "NFRSBD" },
    { "hidle", Stage::Start, "E", Aspect::Flow, "Hot idle in its band, over the floor", "G", "X", "warm", 2, 0, CheckClass::Two, "NFRSBD" },
    { "noise", Stage::Start, "E", Aspect::None, "Each noise written with when it is heard, and explained", "L", "t", "hidle", 5, 0, CheckClass::One, "NFRSBD" },
    { "leaks", Stage::Start, "E", Aspect::None, "Off; dry by lamp; level seen", "L", "X", "fire hidle", 10, 0, CheckClass::One, "NFRSBDO" },
    { "cut", Stage::After, "filter", Aspect::None, "Filter cut: pleats and can read beside this engine's others", "L+", "t", "leaks", 30, 0, CheckClass::One, "NFRsBD" },
    { "used", Stage::After, "E", Aspect::None, "Oil sample judged against the new oil's", "P", "", "leaks", 5, 10, CheckClass::Open, "NFR" },
    { "explain", Stage::After, "E", Aspect::None, "Each reading off its band has its reason", "D", "c", "hidle", 15, 0, CheckClass::One, "NFRSBD" },
    { "retorq", Stage::After, "T", Aspect::None, "Gone over once more where the maker asks", "D", "X", "leaks", 30, 0, CheckClass::One, "NFRs" },
    { "reopen", Stage::After, "main rod", Aspect::Size, "Opened and looked at, where a reading, find or noise asks", "L+", "t", "cut explain noise", 60, 0, CheckClass::Two, "NFRB" },
    { "again", Stage::After, "E", Aspect::None, "Next looks set in hours, km or days: first change, pan, baffle, ring", "D", "t", "cut leaks", 10, 0, CheckClass::One, "NFRSBDO" },
    { "sheet", Stage::After, "E", Aspect::None, "Handed over; what was struck out read aloud", "D", "c", "again explain reopen*", 15, 0, CheckClass::One, "NFRSBD" },
});
// clang-format on

constexpr auto stageTable = std::to_array<AboutStage>({
    { "Strip", "marking paint, bags, camera", "Engine held before its mounts come off; hot oil." },
    { "Shop and parts", "", "Critical cutting and crack tests belong to a qualified shop." },
    { "Clean and plugs", "brushes by bore, solvent, lint-free cloth, covers, sealant, new plugs",
      "Compressed air drives grit into eyes and skin; no flame near solvent; gloves." },
    { "Measure", "standards, strip, feeler blades, dry cloth, test bolts",
      "The crank is not turned while a strip lies in it." },
    { "Assemble", "assembly lubricant, new bolts, marker, seals",
      "Hands clear of a crank that can roll." },
    { "Pump, pickup, pan", "fine abrasive, flat plate, gasket, ring, locker, sealant",
      "Metal dust: wash after dressing." },
    { "Lines, filter, oil", "caps, hose, filter, oil and one filter's worth",
      "Oily rags away from heat." },
    { "Desk", "", "" },
    { "Prime", "drill and shaft, spare oil, lamp",
      "A drill kicks; hair, sleeves and leads clear of the shaft." },
    { "Start", "extinguisher, second person, doors open",
      "Fire, exhaust gas, burns, belts: someone else at the switch." },
    { "After", "cutter, tray, sample bottle", "Sharp cans and hot oil; waste as local rules say." },
});

/// Calls for each word between blanks.
template <class Do> void eachWord(std::string_view words, Do what)
{
    while (!words.empty()) {
        const size_t end = std::min(words.find(' '), words.size());
        if (end > 0)
            what(words.substr(0, end));
        words.remove_prefix(std::min(end + 1, words.size()));
    }
}

} // namespace

bool hasWord(std::string_view words, std::string_view word)
{
    bool found = false;
    eachWord(words, [&](std::string_view one) { found = found || one == word; });
    return found;
}

std::span<const CheckKind> checkKinds()
{
    return table;
}

size_t rowOf(const CheckKind &kind)
{
    const CheckKind *row = kind.id == ownKind ? findCheckKind(ownKind) : &kind;
    return static_cast<size_t>(row - table.data());
}

const CheckKind *findCheckKind(std::string_view id)
{
    const auto at
        = std::find_if(table.begin(), table.end(), [&](const CheckKind &k) { return k.id == id; });
    return at == table.end() ? nullptr : &*at;
}

std::optional<Stage> stageOf(std::string_view word)
{
    const auto words = stageWords();
    const auto at = std::ranges::find(words, word);
    return at == words.end() ? std::nullopt : std::optional(static_cast<Stage>(at - words.begin()));
}

const AboutStage &aboutStage(Stage stage)
{
    return stageTable[static_cast<size_t>(stage)];
}

CheckGate CheckKind::gate() const
{
    if (id == "watch" || stage == Stage::Prime)
        return CheckGate::Fire;
    return stage == Stage::Start ? CheckGate::Load
        : stage == Stage::After  ? CheckGate::Handover
                                 : CheckGate::Turn;
}

bool CheckKind::asked(char job, bool touched) const
{
    return jobs.find(job) != jobs.npos
        || (touched && jobs.find(static_cast<char>(job - 'A' + 'a')) != jobs.npos);
}

std::vector<CheckKind::After> CheckKind::comesAfter() const
{
    std::vector<After> out;
    eachWord(after, [&](std::string_view word) {
        const bool all = word.ends_with('*');
        out.push_back({ findCheckKind(all ? word.substr(0, word.size() - 1) : word), all });
    });
    return out;
}

std::vector<std::string_view> CheckKind::placeWords() const
{
    std::vector<std::string_view> out;
    eachWord(at, [&](std::string_view word) { out.push_back(word); });
    return out;
}

Phrase provenWhen(const CheckKind &kind)
{
    struct Way
    {
        char letter;
        std::string_view words;
    };
    static constexpr std::array<Way, 7> ways { {
        { 'G', "a figure with its uncertainty" },
        { 'B', "a blade that goes and one that does not" },
        { 'L', "looked at" },
        { 'W', "looked at by another than who did it; alone: with a photo" },
        { 'D', "said by whoever did it" },
        { 'P', "a paper that says so" },
        { 'C', "computed from what is proven" },
    } };
    std::vector<Phrase> parts;
    for (const Way &w : ways)
        if (kind.by.find(w.letter) != kind.by.npos)
            parts.emplace_back(w.words);
    Phrase out = joinedBy(parts, "{*|, or }");
    if (kind.by.find('+') != kind.by.npos)
        out = { "check.photo", "{0}; a photo is wanted", { out } };
    return out;
}

bool CheckKind::isSpoiltBy(char event) const
{
    return spoiltBy.find(event) != spoiltBy.npos;
}

std::optional<int> CheckKind::freshDays() const
{
    const size_t at_ = spoiltBy.find('d');
    if (at_ == spoiltBy.npos)
        return std::nullopt;
    int days = 0;
    for (size_t i = at_ + 1; i < spoiltBy.size() && spoiltBy[i] >= '0' && spoiltBy[i] <= '9'; ++i)
        days = 10 * days + (spoiltBy[i] - '0');
    return days;
}

} // namespace mildpath
