// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/rules.h"

#include <array>

namespace mildpath {
namespace {

const std::array<StopNeed, 7> needs { {
    { StopKind::Main, 0, true },
    { StopKind::BigEnd, 0, true },
    { StopKind::CamBearing, needCam_pa, false },
    { StopKind::Lifter, needLifter_pa, false },
    { StopKind::Tensioner, needTensioner_pa, false },
    { StopKind::Phaser, needPhaser_pa, false },
    { StopKind::Turbo, needTurboIdle_pa, false, needTurboSpeed_pa },
} };

constexpr std::array mainKinds { StopKind::Main };
constexpr std::array bigEndKinds { StopKind::BigEnd };
constexpr std::array camKinds { StopKind::CamBearing, StopKind::Rocker };
constexpr std::array lifterKinds { StopKind::Lifter };
constexpr std::array jetKinds { StopKind::Jet };
constexpr std::array chainKinds { StopKind::Chain, StopKind::Tensioner };
constexpr std::array boostKinds { StopKind::Phaser, StopKind::Turbo };
constexpr std::array balanceKinds { StopKind::BalanceShaft };

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
    { "main_backs", StopKind::Main, "size", "Shell backs and bores clean and dry",
      "Oil or dirt behind a shell closes the clearance there and keeps the heat in", false },
    { "main_tangs", StopKind::Main, "size",
      "Tangs in their notches, grooved half where the hole is",
      "A shell the wrong way round covers its own feed", false },
    { "main_crush", StopKind::Main, "size",
      "Crush felt: the joint stands open before the last stage",
      "Without crush the shell turns in its bore and shuts the feed", false },
    { "rod_backs", StopKind::BigEnd, "size", "Shell backs and bores clean and dry",
      "Oil or dirt behind a shell closes the clearance there and keeps the heat in", false },
    { "rod_tangs", StopKind::BigEnd, "size", "Tangs in their notches, on one side",
      "A shell that rides on its tang is tight at one edge", false },
    { "rod_caps", StopKind::BigEnd, "size", "Cap and rod of one number, the right way round",
      "Rod and cap were bored together; a turned cap is a step in the bore", false },
    { "rod_crush", StopKind::BigEnd, "size",
      "Crush felt: the joint stands open before the last stage",
      "Without crush the shell turns in its bore and shuts the feed", false },
    { "pump_gasket", StopKind::Pump, "size", "Gasket laid on the pump's own base, ports open",
      "The gasket of a like pump leaves a port open to the air: the pump sucks air for ever",
      true },
    { "pump_ports", StopKind::Pump, "size", "Ports matched, no flash, no sharp turn",
      "A step or flash in the suction port starves the pump at speed", false },
    { "pump_turns", StopKind::Pump, "flow", "Oiled, turns by hand without a tight spot",
      "A tight spot is a high lobe or a chip", false },
    { "relief_free", StopKind::Relief, "size", "Piston falls by its own weight, oiled",
      "One chip beside it and it stays open, or shut", false },
    { "relief_seat", StopKind::Relief, "clean", "Seat clean and unbroken",
      "Pump and relief live before the filter", false },
    { "pan_rests", StopKind::Pickup, "size", "Pan sits without being forced, pickup clear of it",
      "A pan pulled down by its bolts bends the pickup or shuts its mouth", false },
    { "pickup_locked", StopKind::Pickup, "size", "Pickup bolts locked, new ring fitted",
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

const StopNeed *stopNeed(StopKind stopKind)
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
