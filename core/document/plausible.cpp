// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/plausible.h"

#include "circuit/elementtypes.h"
#include "document/dimensions.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// The stop an element belongs to; null for none.
const Stop *ownerOf(const Build &build, const std::string &element)
{
    for (const Stop &s : build.engine.stops)
        if (std::ranges::find(s.elements, element) != s.elements.end())
            return &s;
    return nullptr;
}

Phrase ofPump(const Build &build, Element pump, const std::string &key, double value)
{
    static constexpr std::array<std::string_view, 5> moving { "rotor_length_mm", "eccentricity_mm",
                                                              "inner_tip_mm", "drive_ratio",
                                                              "displacement_m3" };
    if (std::ranges::find(moving, key) == moving.end())
        return {};
    pump.values[key] = value;
    const double turn_cm3 = pumpDisplacement_m3(pump) * 1e6 * pump.value("drive_ratio");
    const double usual_cm3 = displacement_l(build.engine) * 1e3 * plausiblePumpShare;
    if (!(usual_cm3 > 0)
        || (turn_cm3 < usual_cm3 * displacementApart && turn_cm3 > usual_cm3 / displacementApart))
        return {};
    return { "unlikely.pump",
             "the pump would move {0} a turn of the crank, {1} is usual for such an engine",
             { asVolume(turn_cm3 / 1e3, 4), asVolume(usual_cm3 / 1e3, 4) } };
}

/// What the oil comes to through a drilling: the narrowest bearing at its end.
Phrase ofBore(const Build &build, const Element &e, double value)
{
    for (const Element &film : build.circuit.elements) {
        if (!isBearing(film) || (film.from != e.to && film.from != e.from))
            continue;
        if (film.from == e.to && value >= film.value("width_mm"))
            return { "unlikely.bore",
                     "a bore of {0} is wider than the bearing of {1} it leads to",
                     { asLength(value), asLength(film.value("width_mm")) } };
        if (e.kind == ElementKind::CrankDrilling && value >= film.value("d_mm") / 2)
            return { "unlikely.drilling",
                     "a bore of {0} leaves nothing of a journal of {1}",
                     { asLength(value), asLength(film.value("d_mm")) } };
    }
    return {};
}

Phrase ofElement(const Build &build, const Element &e, const std::string &key, double value)
{
    if (e.kind == ElementKind::Pump)
        return ofPump(build, e, key, value);
    const Stop *stop = ownerOf(build, e.id);
    if (e.kind == ElementKind::Relief && key == "crack_kpa" && stop
        && stop->kind == StopKind::Relief && value * 1e3 > filterHold_pa)
        return { "unlikely.relief",
                 "filter cans do not stand {0}",
                 { asPressure(value * 1e3, 1) } };
    if (isBearing(e) && key == "speed_ratio" && value > plausibleSpeedRatio)
        return { "unlikely.speed",
                 "a bearing that turns {0} times as fast as the crank: is that so?",
                 { asNumber(value, 1) } };
    if (isBearing(e) && key == "d_mm" && build.engine.bore_mm > 0 && value > build.engine.bore_mm)
        return { "unlikely.journal",
                 "a journal of {0} is wider than the cylinder's bore of {1}",
                 { asLength(value), asLength(build.engine.bore_mm) } };
    const bool bore = e.kind == ElementKind::Pipe || e.kind == ElementKind::Drilling
        || e.kind == ElementKind::Orifice || e.kind == ElementKind::CrankDrilling;
    return bore && key == "d_mm" ? ofBore(build, e, value) : Phrase();
}

Phrase ofLimit(const Build &build, const std::string &at, const std::string &key, double value)
{
    if (value > 0 && value < 1)
        return { "unlikely.limit", "{0}: were millimetres meant?", { asClearance(value) } };
    const std::string base = at.substr(0, at.rfind('/') + 1);
    const auto least = engineValue(build, base + "min_um"),
               most = engineValue(build, base + "max_um");
    if (key == "target_um" && least && most && (value < *least || value > *most))
        return { "unlikely.target",
                 "the target lies outside the limits of {0}",
                 { QuantityRange { asLimit(*least), asLimit(*most) } } };
    const auto target = engineValue(build, base + "target_um");
    if (target && ((key == "min_um" && value > *target) || (key == "max_um" && value < *target)))
        return { "unlikely.limits",
                 "the target of {0} would lie outside the limits",
                 { asLimit(*target) } };
    return {};
}

} // namespace

Phrase whyUnlikely(const Build &build, const std::string &at, double value)
{
    const auto slash = at.find('/'), last = at.rfind('/');
    if (slash == std::string::npos || last == slash)
        return {};
    const std::string part = at.substr(0, slash), key = at.substr(last + 1);
    const std::string owner = at.substr(slash + 1, last - slash - 1);
    if (part == "limits")
        return ofLimit(build, at, key, value);
    if (part == "circuit")
        if (const Element *e = build.circuit.find(owner))
            return ofElement(build, *e, key, value);
    if (part == "stops" && key == "shell_wall_mm")
        if (const Stop *s = build.engine.find(owner))
            if (const double journal = journalOf_mm(build, *s);
                journal > 0 && value > plausibleWallShare * journal)
                return { "unlikely.wall",
                         "a wall of {0} for a journal of {1}: half shells are thinner",
                         { asLength(value), asLength(journal) } };
    return {};
}

} // namespace mildpath
