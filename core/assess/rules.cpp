// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/rules.h"

#include "circuit/need.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array mainKinds { StopKind::Main };
constexpr std::array bigEndKinds { StopKind::BigEnd };
constexpr std::array camKinds { StopKind::CamBearing, StopKind::Rocker };
constexpr std::array lifterKinds { StopKind::Lifter };
constexpr std::array jetKinds { StopKind::Jet };
constexpr std::array chainKinds { StopKind::Chain, StopKind::Tensioner };
constexpr std::array boostKinds { StopKind::Phaser, StopKind::Turbo };
constexpr std::array balanceKinds { StopKind::BalanceShaft, StopKind::Idler };

constexpr std::array<OilGroup, 8> groups { {
    { "mains", "mains", mainKinds },
    { "big_ends", "big-ends", bigEndKinds },
    { "cams", "cams and rockers", camKinds },
    { "lifters", "lifters", lifterKinds },
    { "jets", "cooling jets", jetKinds },
    { "chain", "chain oiling", chainKinds },
    { "balance", "balance and idler shafts", balanceKinds },
    { "boost", "phasers and turbocharger", boostKinds },
} };

// All common practice, no source.
constexpr std::array<TickKind, 14> checkTable { {
    { "main_backs", "tang", StopKind::Main, "size", "Shell backs and bores clean and dry",
      "Oil or dirt behind a shell closes the clearance there and keeps the heat in" },
    { "main_tangs", "tang", StopKind::Main, "size",
      "Tangs in their notches, grooved half where the hole is",
      "A shell the wrong way round covers its own feed" },
    { "main_crush", "crush", StopKind::Main, "size",
      "Crush felt: the joint stands open before the last stage",
      "Without crush the shell turns in its bore and shuts the feed" },
    { "rod_backs", "tang", StopKind::BigEnd, "size", "Shell backs and bores clean and dry",
      "Oil or dirt behind a shell closes the clearance there and keeps the heat in" },
    { "rod_tangs", "tang", StopKind::BigEnd, "size", "Tangs in their notches, on one side",
      "A shell that rides on its tang is tight at one edge" },
    { "rod_caps", "capway", StopKind::BigEnd, "size",
      "Cap and rod of one number, the right way round",
      "Rod and cap were bored together; a turned cap is a step in the bore" },
    { "rod_crush", "crush", StopKind::BigEnd, "size",
      "Crush felt: the joint stands open before the last stage",
      "Without crush the shell turns in its bore and shuts the feed" },
    { "pump_gasket", "pgask", StopKind::Pump, "size",
      "Gasket laid on the pump's own base, ports open",
      "The gasket of a like pump leaves a port open to the air: the pump sucks air for ever" },
    { "pump_ports", "pport", StopKind::Pump, "size", "Ports matched, no flash, no sharp turn",
      "A step or flash in the suction port starves the pump at speed" },
    { "pump_turns", "pdrive", StopKind::Pump, "flow", "Oiled, turns by hand without a tight spot",
      "A tight spot is a high lobe or a chip" },
    { "relief_free", "rfree", StopKind::Relief, "size", "Piston falls by its own weight, oiled",
      "One chip beside it and it stays open, or shut" },
    { "relief_seat", "rseat", StopKind::Relief, "clean", "Seat clean and unbroken",
      "Pump and relief live before the filter" },
    { "pan_rests", "panfit", StopKind::Pickup, "size",
      "Pan sits without being forced, pickup clear of it",
      "A pan pulled down by its bolts bends the pickup or shuts its mouth" },
    { "pickup_locked", "klock", StopKind::Pickup, "size", "Pickup bolts locked, new ring fitted",
      "A loose pickup sucks air; a used ring has taken its set" },
} };

int severity(Mark mark)
{
    switch (mark) {
    case Mark::Hold:
        return 5;
    case Mark::LookAgain:
        return 4;
    case Mark::NotDone:
        return 3;
    case Mark::SignedOff:
        return 2;
    case Mark::Assumed:
        return 1;
    case Mark::Proven:
        return 0;
    case Mark::NotAsked:
        return -1;
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
    case Mark::SignedOff:
        return "signed_off";
    case Mark::Assumed:
        return "assumed";
    case Mark::NotAsked:
        return "not_asked";
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
    case Mark::SignedOff:
        return "signed off";
    case Mark::Assumed:
        return "good on assumed sizes";
    case Mark::NotAsked:
        return "not asked";
    }
    return "";
}

double leastWanted_pa(const Use &use, double rpm)
{
    return gaugeNeedAt_pa(use.ruleBase_kpa * 1e3, use.ruleRise_kpa_per_krpm, rpm);
}

std::span<const OilGroup> oilGroups()
{
    return groups;
}
std::span<const TickKind> tickKinds()
{
    return checkTable;
}

const TickKind *findTickKind(std::string_view id)
{
    for (const TickKind &c : checkTable)
        if (c.id == id)
            return &c;
    return nullptr;
}

Mark worse(Mark a, Mark b)
{
    return severity(a) >= severity(b) ? a : b;
}

} // namespace mildpath
