// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/failure.h"

#include <array>

namespace mildpath {
namespace {

/// The last row is for what has none of its own.
constexpr std::array<SpreadRule, 26> rules { {
    { "failed", "Replace shells; journal measured and crack tested by a qualified shop",
      "The bearing itself, and whatever its journal and bore took", false, false, true,
      "shells, and what the journal needs" },
    { "crank", "Plugs out of the crank, every drilling brushed and flushed",
      "Metal is thrown outward in the drillings and packs behind their plugs", true, false, false,
      "crank plugs" },
    { "main", "Replace shells, feed drilling brushed", "Metal beds in the soft layer", false, false,
      true, "main shells" },
    { "big_end", "Replace shells", "Metal beds in the soft layer", false, false, true,
      "big-end shells" },
    { "small_end", "Clean and look", "Splash carries metal", true, true, true, "" },
    { "balance_shaft", "Replace shells, drilling brushed", "Metal beds in the soft layer", false,
      false, true, "balance shaft bearings" },
    { "cam_bearing", "Look at every bearing, clean, replace what is marked",
      "Metal beds in the soft layer", true, false, true, "" },
    { "gallery", "Plugs out, brushed until white, far end seen", "It lies in every dead end", true,
      false, false, "gallery plugs" },
    { "lifter", "Replace hydraulic lifters, or strip and clean every one; gallery brushed",
      "Their check valves keep what comes in", true, false, true, "" },
    { "rocker", "Strip and clean", "Bushes keep metal", true, false, true, "" },
    { "jet", "Blow and flush each, replace what stays doubtful", "A small hole keeps one chip",
      true, true, true, "" },
    { "chain", "Clean", "A small hole keeps one chip", true, true, true, "" },
    { "tensioner", "Strip and clean, or replace", "Its ratchet and check valve keep metal", true,
      false, true, "" },
    { "phaser", "Replace", "Cannot be taken apart and proven clean", false, false, true,
      "cam phasers" },
    { "solenoid", "Replace unless surely clean", "Their screens and spools keep metal", true, false,
      true, "" },
    { "turbo", "Flush bearing housing and lines; a qualified shop looks at the bearings",
      "Journal bearings run on the same oil", false, true, true, "" },
    { "pump", "Strip, clean, look at every face; replace if scored", "It lives before the filter",
      true, false, true, "" },
    { "relief", "Strip and clean bore, piston and seat",
      "It lives before the filter; one chip and the pressure is gone", true, false, true, "" },
    { "filter", "Replace; clean its head and bypass", "It is full of it", false, false, true,
      "oil filter" },
    { "cooler", "Replace", "Its passages cannot be seen or proven clean", false, false, true,
      "oil cooler" },
    { "line", "Replace hoses, flush rigid lines", "A hose keeps metal in its lining", false, true,
      true, "" },
    { "pickup", "Take the strainer apart or replace it; pan clean under every baffle, or replaced",
      "All of it fell into the pan first", true, false, true, "" },
    { "scavenge", "Strip and clean every stage; pan clean under every baffle, or replaced",
      "All of it fell into the pan first", true, false, true, "" },
    { "tank", "Open, clean inside and round the swirl plate", "It settles there", true, false, true,
      "" },
    { "head", "Caps out of the dead-end drillings before the tank, then brushed and flushed",
      "A dead end keeps it through any tank", true, false, false, "caps of the head's drillings" },
    { "passage", "Clean and prove", "The oil went through it", true, true, true, "" },
} };

} // namespace

std::span<const SpreadRule> spreadRules()
{
    return rules;
}

const SpreadRule &spreadRule(std::string_view kind)
{
    for (const SpreadRule &r : rules)
        if (r.kind == kind)
            return r;
    return rules.back();
}

bool settles(const SpreadRule &rule, std::string_view done)
{
    return (done == "cleaned" && rule.clean) || (done == "flushed" && rule.flush)
        || (done == "replaced" && rule.replace);
}

std::string_view magnetCaution()
{
    return "Bearing metal is not magnetic: a magnet proves nothing about it.";
}

} // namespace mildpath
