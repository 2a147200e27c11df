// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/faults.h"
#include "quantity/rounding.h"

#include "diagnose/faultplaces.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace mildpath {
namespace {

/// Names of the inline-four's table of reference faults: kind, and the element the fault sits at.
struct Alias
{
    std::string_view name, kind, element;
};
constexpr std::array<Alias, 18> aliases { {
    { "lifter_gallery_plug_missing", "plug_missing", "" },
    { "swarf_gallery_34", "swarf", "gallery_34" },
    { "main3_hole_half_covered", "feed_hole_covered", "main_feed_3" },
    { "relief_stuck_open", "relief_stuck_open", "" },
    { "relief_stuck_shut", "relief_stuck_shut", "" },
    { "suction_air", "suction_air", "" },
    { "pump_gasket_port_open", "pump_gasket", "" },
    { "filter_lines_swapped", "lines_swapped", "" },
    { "filter_clogged", "filter_clogged", "" },
    { "piston_jet_4_off", "jet_lost", "piston_jet_4" },
    { "main2_shell_spun", "shell_spun", "main_feed_2" },
    { "lifter_bores_worn", "lifter_bores_worn", "" },
    { "line_pump_to_rear_tap", "external_line", "" },
    { "pushrods_restricted", "pushrods_restricted", "" },
    { "mains_worn", "mains_worn", "" },
    { "big_ends_worn", "big_ends_worn", "" },
    { "cam_bearings_worn", "cams_worn", "" },
    { "pump_worn", "pump_worn", "" },
} };

} // namespace

bool happensAt(const FaultKind &kind, const Stop &stop)
{
    return std::find(kind.stopKinds.begin(), kind.stopKinds.end(), stop.kind)
        != kind.stopKinds.end();
}

std::vector<std::string> faultItems(const Build &build, const FaultKind &kind, const Stop &stop)
{
    std::vector<std::string> out;
    if (kind.id == "plug_missing" && stop.kind != StopKind::Plug)
        for (const PlugEnd &e : endsOf(build, stop))
            out.push_back(e.name + " end");
    const bool swarf = kind.id == "swarf";
    if (swarf || kind.id == "jet_lost")
        for (const Element *e : swarf ? narrowable(build, stop) : jetsOf(build, stop)) {
            std::string name = e->id;
            std::replace(name.begin(), name.end(), '_', ' ');
            out.push_back(std::move(name));
        }
    return out;
}

std::vector<Fault> faultsAt(const Build &build, const Stop &stop)
{
    std::vector<Fault> out;
    for (const FaultKind &k : faultKinds()) {
        Fault f { std::string(k.id), stop.id, 0, k.usual };
        if (happensAt(k, stop) && checkFaults(build, { f }))
            out.push_back(std::move(f));
    }
    return out;
}

namespace {

/// Where a fault of a kind sits when no stop is named: its first place; a missing plug at a plug.
const Stop *usualStop(const Build &build, const FaultKind &kind)
{
    for (const StopKind wanted : kind.stopKinds)
        if (const Stop *s = build.engine.ofKind(wanted))
            return s;
    return nullptr;
}

/// The stop an element belongs to, and which of the kind's items it is.
Result<Fault> atElement(const Build &build, const FaultKind &kind, std::string_view element)
{
    for (const Stop &stop : build.engine.stops) {
        if (std::find(stop.elements.begin(), stop.elements.end(), element) == stop.elements.end())
            continue;
        Fault out { std::string(kind.id), stop.id, 0, kind.usual };
        const bool swarf = kind.id == "swarf";
        if (swarf || kind.id == "jet_lost") {
            const auto all = swarf ? narrowable(build, stop) : jetsOf(build, stop);
            for (size_t i = 0; i < all.size(); ++i)
                if (all[i]->id == element)
                    out.item = static_cast<int>(i) + 1;
        }
        return out;
    }
    return fail("fault", "this engine has no element \"" + std::string(element) + "\"");
}

} // namespace

Result<Fault> parseFault(const Build &build, std::string_view text)
{
    const size_t equals = text.find('=');
    std::string_view name = text.substr(0, equals);
    std::optional<double> severity;
    if (equals != text.npos) {
        double value = 0;
        const std::string_view number = text.substr(equals + 1);
        const auto [end, code]
            = std::from_chars(number.data(), number.data() + number.size(), value);
        if (code != std::errc() || end != number.data() + number.size()
            || !(value >= 0 && value <= 1))
            return fail("fault",
                        "severity must be a number from 0 to 1, is \"" + std::string(number)
                            + "\"");
        severity = value;
    }
    const auto with = [&](Fault f) {
        f.severity = severity.value_or(f.severity);
        return f;
    };
    for (const Alias &a : aliases)
        if (a.name == name && !a.element.empty())
            return atElement(build, *findFaultKind(a.kind), a.element).map(with);
        else if (a.name == name)
            name = a.kind;
    const size_t at = name.find('@');
    const FaultKind *kind = findFaultKind(name.substr(0, at));
    if (!kind) {
        std::string known;
        for (const FaultKind &k : faultKinds())
            known += (known.empty() ? "" : ", ") + std::string(k.id);
        return fail("fault",
                    "there is no \"" + std::string(name.substr(0, at)) + "\"; there are: " + known);
    }
    Fault out { std::string(kind->id), "", 0, kind->usual };
    if (at == name.npos) {
        const Stop *stop = usualStop(build, *kind);
        if (!stop)
            return fail("fault", "this engine has no place for " + std::string(kind->id));
        out.stop = stop->id;
        return with(out);
    }
    std::string_view stop = name.substr(at + 1);
    if (const size_t dot = stop.find('.'); dot != stop.npos) {
        const std::string_view number = stop.substr(dot + 1);
        const auto [end, code]
            = std::from_chars(number.data(), number.data() + number.size(), out.item);
        stop = stop.substr(0, dot);
        if (code != std::errc() || end != number.data() + number.size() || out.item < 1)
            return fail("fault", "what follows the dot must be a number from 1");
    }
    out.stop = stop;
    if (auto ok = checkFaults(build, { with(out) }); !ok)
        return fail("fault", ok.error().message);
    return with(out);
}

std::string faultId(const Fault &fault)
{
    return fault.kind + "@" + fault.stop + (fault.item > 0 ? "." + std::to_string(fault.item) : "");
}

std::string faultName(const Build &build, const Fault &fault)
{
    const FaultKind *kind = findFaultKind(fault.kind);
    const Stop *stop = build.engine.find(fault.stop);
    if (!kind || !stop)
        return faultId(fault);
    const auto items = faultItems(build, *kind, *stop);
    const std::string item = fault.item > 0 && static_cast<size_t>(fault.item) <= items.size()
        ? items[static_cast<size_t>(fault.item) - 1]
        : "";
    std::string name(kind->name);
    if (kind->wholeFamily
        || (stop->kind == StopKind::Plug && kind->id == "plug_missing"
            && stop->name.find("plug") != std::string::npos)) {
        if (kind->wholeFamily) {
            name[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(name[0])));
            return name;
        }
        return stop->name + " missing";
    }
    return (item.empty() ? stop->name
                         : (kind->id == "plug_missing" ? stop->name + ", " + item : item))
        + ": " + name;
}

double FaultKind::amount(double severity) const
{
    switch (measure) {
    case Measure::Plug_mm:
    case Measure::Hole_mm:
        return most * std::sqrt(severity);
    case Measure::Covered:
        return std::min(most * severity, 1 - leastOpenFeed);
    default:
        return most * severity;
    }
}

Phrase severityText(const Build &build, const Fault &fault)
{
    const FaultKind *kind = findFaultKind(fault.kind);
    if (!kind)
        return "";
    const double a = kind->amount(fault.severity);
    const auto percent
        = [&](std::string_view pattern) { return Phrase("", pattern, { asShare(a) }); };
    const auto length
        = [](std::string_view pattern, double mm) { return Phrase("", pattern, { asLength(mm) }); };
    switch (kind->measure) {
    case Measure::OnOff:
    case Measure::Restrictor:
        return "";
    case Measure::Wider_um:
        return { "", "{0}", { asChange(asWholeClearance(a)) } };
    case Measure::Shut:
        return percent("{0} shut");
    case Measure::Covered:
        return percent("{0} covered");
    case Measure::Open:
        return percent("{0} open");
    case Measure::Leaks:
        return { "", "{0} leaks", { asShare(a, 1) } };
    case Measure::Plug_mm: {
        const Stop *stop = build.engine.find(fault.stop);
        const auto ends = stop ? endsOf(build, *stop) : std::vector<PlugEnd> {};
        return ends.empty() ? percent("{0}") : length("{0} open", ends.back().bore_mm * a);
    }
    case Measure::Hole_mm:
        return length("{0} hole", a);
    case Measure::Jet_mm: {
        const Stop *stop = build.engine.find(fault.stop);
        const Element *jet = stop ? lostJet(build, *stop, fault.item) : nullptr;
        return jet ? length("{0} hole", lostJetBore_mm(*jet, *kind, fault.severity)) : Phrase();
    }
    case Measure::Decades:
        return { "fault.flow", "1/{0} of its flow", { asNumber(std::pow(10, a), 0) } };
    case Measure::Air:
        return percent("{0} air");
    case Measure::Thinner:
        return percent("{0} thinner");
    case Measure::Thicker:
        return percent("{0} thicker");
    case Measure::Petrol:
        return percent("{0} petrol");
    case Measure::Coolant:
        return percent("{0} coolant");
    }
    return "";
}

std::vector<std::string> faultWords(const Build &build, const Fault &fault)
{
    std::vector<std::string> out { fault.kind };
    // A relief that does not seat is heard and looked for like one held open; oil with fuel in it
    // like thin oil.
    if (fault.kind == "relief_leaking")
        out.push_back("relief_stuck_open");
    if (fault.kind == "fuel_in_oil")
        out.push_back("oil_too_thin");
    const Stop *stop = build.engine.find(fault.stop);
    if (stop && stop->kind == StopKind::Plug && !stop->points.empty()) {
        const std::string &node = stop->points.front().node;
        for (const Stop &s : build.engine.stops)
            for (const StopPoint &p : s.points)
                if (s.kind != StopKind::Plug && p.node == node)
                    stop = &s;
    }
    if (stop)
        out.push_back(std::string(wordOf(stop->kind)) + "_" + fault.kind);
    return out;
}

} // namespace mildpath
