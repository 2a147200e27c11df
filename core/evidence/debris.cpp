// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/debris.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 5> sizes { "speck", "grit", "flake", "curl", "lump" };
constexpr std::array<std::string_view, 5> colours { "copper", "bright", "grey", "black", "brown" };
constexpr std::array<std::string_view, 3> hardnesses { "hard", "soft", "pliable" };

constexpr std::array<SignKind, 9> signs { {
    { "baffle_tabs", StopKind::Pickup, "Cracked baffle tabs or bends",
      "The baffle shakes loose; a tab ends in the pickup",
      "Wash, weld and relieve it, wash again; or leave it out and keep the level high: say which",
      true },
    { "oring_flat", StopKind::Pickup, "Flattened O-ring",
      "The ring has taken its set: the pump sucks air past it", "New ring, squeeze measured",
      true },
    { "pan_rail", StopKind::Pickup, "Warped pan rail", "Drawn down it bends the pickup or leaks",
      "True the rail; the pan must sit unforced", false },
    { "pump_plates", StopKind::Pump, "Scored pump plates",
      "Grit went through before the filter; the end clearance is larger in the scores",
      "Measure the scores, then weigh dressing against clearance", false },
    { "relief_score", StopKind::Relief, "Scored relief bore or piston",
      "One chip beside it and the pressure is gone", "Polish or replace, piston must fall free",
      true },
    { "big_end_streaks", StopKind::BigEnd, "Black streaks on the shells",
      "A film near its limit, not yet contact",
      "Look at its clearance, feed and oil before it is "
      "built again",
      false },
    { "big_end_worn", StopKind::BigEnd, "Worn shells, copper showing",
      "Contact: metal went with the oil",
      "New shells, journal measured; follow where the metal "
      "went",
      true },
    { "main_worn", StopKind::Main, "Worn shells, copper showing",
      "Contact: metal went with the oil",
      "New shells, journal measured; follow where the metal "
      "went",
      true },
    { "filter_flat", StopKind::Filter, "Pleats collapsed or the bypass scored",
      "Oil went round the element: what followed was not filtered",
      "Take what lies behind the filter as dirty", true },
} };

bool is(const std::string &word, const char *wanted)
{
    return word == wanted;
}

} // namespace

std::span<const std::string_view> debrisSizes()
{
    return sizes;
}
std::span<const std::string_view> debrisColours()
{
    return colours;
}
std::span<const std::string_view> debrisHardnesses()
{
    return hardnesses;
}

std::vector<DebrisGuess> guessDebris(const DebrisFind &f)
{
    std::vector<DebrisGuess> out;
    const bool magnetic = is(f.magnetic, "yes"), notMagnetic = is(f.magnetic, "no");
    if (is(f.colour, "copper") && !magnetic)
        out.push_back({ "copper underlayer of a bearing",
                        "copper colour comes from beneath a bearing's running layer", true, true });
    if (magnetic)
        out.push_back({ "iron or steel", "a magnet takes it; swarf when curled, wear when fine",
                        false, true });
    if (is(f.colour, "bright") && !magnetic && !is(f.hardness, "pliable")) {
        out.push_back({ is(f.size, "curl") ? "light-alloy swarf" : "alloy or bearing overlay",
                        notMagnetic ? "bright, and a magnet does not take it"
                                    : "bright; try a magnet to tell it from steel",
                        true, true });
    }
    if (is(f.colour, "black") && is(f.hardness, "hard") && notMagnetic)
        out.push_back({ "plastic of a chain guide", "black, hard, and a magnet does not take it",
                        false, true });
    if (is(f.hardness, "pliable") && (is(f.colour, "grey") || is(f.colour, "black")))
        out.push_back({ "old sealant", "grey or black and pliable", false, false });
    if (is(f.hardness, "pliable") && is(f.colour, "brown"))
        out.push_back({ "oil coke or varnish", "brown and pliable", false, false });
    if (is(f.size, "grit") && !is(f.hardness, "soft") && !is(f.hardness, "pliable") && !magnetic
        && (is(f.colour, "grey") || is(f.colour, "brown")))
        out.push_back({ "casting sand or blasting grit",
                        "hard grains, and a magnet does not take them", false, true });
    if (is(f.colour, "grey") && !magnetic && !is(f.hardness, "pliable") && !is(f.size, "grit"))
        out.push_back({ "bearing overlay or alloy",
                        "grey, and a magnet does not take it; bearing "
                        "metal is not magnetic",
                        true, true });
    return out;
}

std::span<const SignKind> signKinds()
{
    return signs;
}

const SignKind *findSignKind(std::string_view id)
{
    for (const SignKind &s : signs)
        if (s.id == id)
            return &s;
    return nullptr;
}

const Sign *standingSign(const SharedList<Sign> &signs, std::string_view stop,
                         std::string_view sign)
{
    const Sign *last = nullptr;
    for (const Sign *s : standing(signs))
        if (s->stop == stop && s->sign == sign)
            last = s;
    return last;
}

} // namespace mildpath
