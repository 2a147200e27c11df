// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/rules.h"

#include <array>

namespace mildpath {
namespace {

const std::array<StopNeed, 7> needs { {
    { "main", 0, true },
    { "big_end", 0, true },
    { "cam_bearing", needCam_pa, false },
    { "lifter", needLifter_pa, false },
    { "tensioner", needTensioner_pa, false },
    { "phaser", needPhaser_pa, false },
    { "turbo", needTurboIdle_pa, false, needTurboSpeed_pa },
} };

constexpr std::array<std::string_view, 1> mainKinds { "main" };
constexpr std::array<std::string_view, 1> bigEndKinds { "big_end" };
constexpr std::array<std::string_view, 2> camKinds { "cam_bearing", "rocker" };
constexpr std::array<std::string_view, 1> lifterKinds { "lifter" };
constexpr std::array<std::string_view, 1> jetKinds { "jet" };
constexpr std::array<std::string_view, 2> chainKinds { "chain", "tensioner" };
constexpr std::array<std::string_view, 2> boostKinds { "phaser", "turbo" };
constexpr std::array<std::string_view, 1> balanceKinds { "balance_shaft" };

constexpr std::array<OilGroup, 8> groups { {
    { "mains", "mains", mainKinds },
    { "big_ends", "big-ends", bigEndKinds },
    { "cams", "cams and rockers", camKinds },
    { "lifters", "lifters", lifterKinds },
    { "jets", "cooling jets", jetKinds },
    { "chain", "chain oiling", chainKinds },
    { "balance", "balance shafts", balanceKinds },
    { "boost", "phasers and turbocharger", boostKinds },
} };

// All common practice, no source.
constexpr std::array<Check, 14> checkTable { {
    { "main_backs", "main", "size", "Shell backs and bores clean and dry",
      "Oil or dirt behind a shell closes the clearance there and keeps the heat in", false },
    { "main_tangs", "main", "size", "Tangs in their notches, grooved half where the hole is",
      "A shell the wrong way round covers its own feed", false },
    { "main_crush", "main", "size", "Crush felt: the joint stands open before the last stage",
      "Without crush the shell turns in its bore and shuts the feed", false },
    { "rod_backs", "big_end", "size", "Shell backs and bores clean and dry",
      "Oil or dirt behind a shell closes the clearance there and keeps the heat in", false },
    { "rod_tangs", "big_end", "size", "Tangs in their notches, on one side",
      "A shell that rides on its tang is tight at one edge", false },
    { "rod_caps", "big_end", "size", "Cap and rod of one number, the right way round",
      "Rod and cap were bored together; a turned cap is a step in the bore", false },
    { "rod_crush", "big_end", "size", "Crush felt: the joint stands open before the last stage",
      "Without crush the shell turns in its bore and shuts the feed", false },
    { "pump_gasket", "pump", "size", "Gasket laid on the pump's own base, ports open",
      "The gasket of a like pump leaves a port open to the air: the pump sucks air for ever",
      true },
    { "pump_ports", "pump", "size", "Ports matched, no flash, no sharp turn",
      "A step or flash in the suction port starves the pump at speed", false },
    { "pump_turns", "pump", "flow", "Oiled, turns by hand without a tight spot",
      "A tight spot is a high lobe or a chip", false },
    { "relief_free", "relief", "size", "Piston falls by its own weight, oiled",
      "One chip beside it and it stays open, or shut", false },
    { "relief_seat", "relief", "clean", "Seat clean and unbroken",
      "Pump and relief live before the filter", false },
    { "pan_rests", "pickup", "size", "Pan sits without being forced, pickup clear of it",
      "A pan pulled down by its bolts bends the pickup or shuts its mouth", false },
    { "pickup_locked", "pickup", "size", "Pickup bolts locked, new ring fitted",
      "A loose pickup sucks air; a used ring has taken its set", false },
} };

int severity(Mark mark)
{
    switch (mark) {
    case Mark::Hold:
        return 3;
    case Mark::LookAgain:
        return 2;
    case Mark::NotDone:
        return 1;
    case Mark::Proven:
        return 0;
    }
    return 0;
}

} // namespace

std::string_view markId(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return "proven";
    case Mark::LookAgain:
        return "look_again";
    case Mark::Hold:
        return "hold";
    case Mark::NotDone:
        return "not_done";
    }
    return "";
}

std::string_view markWord(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return "proven";
    case Mark::LookAgain:
        return "check again";
    case Mark::Hold:
        return "holds the start";
    case Mark::NotDone:
        return "not done";
    }
    return "";
}

const StopNeed *stopNeed(std::string_view stopKind)
{
    for (const StopNeed &n : needs)
        if (n.stopKind == stopKind)
            return &n;
    return nullptr;
}

double leastWanted_pa(const Use &use, double rpm)
{
    return (use.ruleBase_kpa + use.ruleRise_kpa_per_krpm * rpm / 1000) * 1e3;
}

std::span<const OilGroup> oilGroups()
{
    return groups;
}
std::span<const Check> checks()
{
    return checkTable;
}

const Check *findCheck(std::string_view id)
{
    for (const Check &c : checkTable)
        if (c.id == id)
            return &c;
    return nullptr;
}

Mark worse(Mark a, Mark b)
{
    return severity(a) >= severity(b) ? a : b;
}

} // namespace mildpath
