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

// Priors: own choice, docs/theory/diagnosis.md.
const std::array<FaultKind, 33> kinds { {
    { "plug_missing",
      "plug missing",
      Measure::Plug_mm,
      1,
      { "plug", "gallery" },
      1,
      0.04,
      "",
      true,
      false,
      "Some engines hide a second plug behind the pressed one" },
    { "swarf",
      "swarf in the way",
      Measure::Shut,
      0.98, // prior: of each kind of stop
      { "gallery", "main", "big_end", "cam_bearing", "balance_shaft", "rocker", "lifter", "jet",
        "chain", "tensioner", "phaser", "turbo", "cooler", "line" },
      0.9,
      0.04,
      "",
      true,
      false,
      "" },
    { "feed_hole_covered",
      "feed hole covered",
      Measure::Covered,
      1,
      { "main" },
      0.5,
      0.07,
      "",
      true,
      false,
      "No gauge shows it; the rod behind it starves too" },
    { "shell_spun",
      "shell spun",
      Measure::Covered,
      1,
      { "main", "big_end" },
      0.98,
      0,
      "feed_hole_covered",
      true,
      false,
      "The gauge rises a little while the bearing starves" },
    { "bearing_worn",
      "this one worn",
      Measure::Wider_um,
      80,
      { "main", "big_end", "balance_shaft" },
      0.6,
      0,
      "",
      true,
      false,
      "" },
    { "mains_worn",
      "all mains worn",
      Measure::Wider_um,
      80,
      { "main" },
      0.6,
      0.08,
      "",
      true,
      true,
      "" },
    { "big_ends_worn",
      "all big-ends worn",
      Measure::Wider_um,
      80,
      { "big_end" },
      0.6,
      0.08,
      "",
      true,
      true,
      "" },
    { "cams_worn",
      "cam bearings worn",
      Measure::Wider_um,
      80,
      { "cam_bearing" },
      0.6,
      0.06,
      "",
      true,
      true,
      "" },
    { "lifter_bores_worn",
      "lifter bores worn",
      Measure::Wider_um,
      84,
      { "lifter" },
      0.6,
      0.05,
      "",
      true,
      true,
      "Bush the bores: what leaks there is not mended downstream" },
    { "pushrods_restricted",
      "pushrods restricted",
      Measure::Restrictor,
      1,
      { "lifter" },
      1,
      0.03,
      "",
      true,
      true,
      "Does nothing where the lifter already meters" },
    { "rockers_worn",
      "rocker bushes worn",
      Measure::Wider_um,
      100,
      { "rocker" },
      0.6,
      0.01,
      "",
      true,
      true,
      "" },
    { "jet_lost", "jet lost", Measure::Jet_mm, 4, { "jet" }, 1, 0.04, "", true, false, "" },
    { "relief_stuck_open",
      "relief stuck open",
      Measure::Open,
      0.1,
      { "relief" },
      0.5,
      0.08,
      "",
      true,
      false,
      "One chip beside the piston is enough" },
    { "relief_leaking",
      "relief not seating",
      Measure::Leaks,
      0.03,
      { "relief" },
      0.5,
      0.03,
      "",
      true,
      false,
      "" },
    { "relief_stuck_shut",
      "relief stuck shut",
      Measure::OnOff,
      0,
      { "relief" },
      1,
      0.03,
      "",
      true,
      false,
      "Cold and fast the pressure goes beyond what filter cans stand" },
    { "filter_clogged",
      "filter clogged",
      Measure::Decades,
      2.5,
      { "filter" },
      0.8,
      0.06,
      "",
      true,
      false,
      "" },
    { "bypass_stuck_open",
      "bypass stuck open",
      Measure::OnOff,
      0,
      { "filter" },
      1,
      0.01,
      "",
      true,
      false,
      "The oil goes past the pleats unfiltered and no gauge shows it" },
    { "bypass_stuck_shut",
      "bypass stuck shut",
      Measure::OnOff,
      0,
      { "filter" },
      1,
      0.01,
      "",
      true,
      false,
      "Harmless until the filter clogs or the oil is cold" },
    { "lines_swapped",
      "filter lines swapped",
      Measure::OnOff,
      0,
      { "filter" },
      1,
      0.01,
      "",
      true,
      false,
      "The check valve shuts: a gauge on the filter head reads well, the engine gets nothing" },
    { "drain_back_leaking",
      "drain-back valve leaking",
      Measure::OnOff,
      0,
      { "filter" },
      1,
      0.02,
      "",
      false,
      false,
      "The filter empties overnight; running pressure is as ever" },
    { "suction_air",
      "suction leak (O-ring or gasket)",
      Measure::Hole_mm,
      1.5,
      { "pickup" },
      0.5,
      0.06,
      "",
      true,
      false,
      "Worst cold, when the pump pulls hardest" },
    { "pickup_blocked",
      "pickup blocked",
      Measure::Shut,
      0.96,
      { "pickup" },
      0.7,
      0.02,
      "",
      true,
      false,
      "A pan pushed up, a rag, sealant on the strainer" },
    { "hose_collapsed",
      "suction hose folded",
      Measure::Shut,
      0.96,
      { "tank" },
      0.7,
      0.02,
      "",
      true,
      false,
      "It looks sound when one stops to look" },
    { "pickup_uncovers",
      "pickup uncovers",
      Measure::OnOff,
      0,
      { "pickup", "tank" },
      1,
      0.02,
      "",
      false,
      true,
      "" },
    { "low_fill",
      "too little oil",
      Measure::OnOff,
      0,
      { "pickup", "tank" },
      1,
      0.02,
      "",
      false,
      true,
      "" },
    { "overfill",
      "too much oil",
      Measure::OnOff,
      0,
      { "pickup", "tank" },
      1,
      0.02,
      "",
      false,
      true,
      "The crank whips it to foam" },
    { "pump_gasket",
      "pump gasket leaves a port open",
      Measure::Air,
      0.95,
      { "pump" },
      1,
      0.02,
      "",
      true,
      false,
      "It sucks air for ever, however long one cranks" },
    { "pump_worn",
      "pump worn",
      Measure::Wider_um,
      120,
      { "pump" },
      0.6,
      0.09,
      "",
      true,
      false,
      "" },
    { "external_line",
      "line from pump to gauge port",
      Measure::OnOff,
      0,
      { "pump" },
      1,
      0,
      "",
      true,
      false,
      "It raises the needle and hardly feeds the bearings" },
    { "oil_too_thin",
      "oil thinner than written",
      Measure::Thinner,
      0.5,
      { "pickup", "tank" },
      0.6,
      0.03,
      "",
      true,
      true,
      "The wrong grade, worn out, or fuel in it" },
    { "oil_too_thick",
      "oil thicker than written",
      Measure::Thicker,
      1,
      { "pickup", "tank" },
      0.6,
      0.02,
      "",
      true,
      true,
      "The wrong grade, or soot in it" },
    { "fuel_in_oil",
      "fuel in the oil",
      Measure::Petrol,
      0.15,
      { "pickup", "tank" },
      0.4,
      0.02,
      "",
      true,
      true,
      "Smell the stick; change the oil before anything else" },
    { "coolant_in_oil",
      "coolant in the oil",
      Measure::Coolant,
      0.3,
      { "pickup", "tank" },
      0.3,
      0.01,
      "",
      true,
      true,
      "Milky oil: stop, find the leak, change the oil" },
} };

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

std::string percent(double share)
{
    return formatPlain(100 * share, 0) + " %";
}

} // namespace

bool happensAt(const FaultKind &kind, const Stop &stop)
{
    return std::find(kind.stopKinds.begin(), kind.stopKinds.end(), stop.kind)
        != kind.stopKinds.end();
}

std::span<const FaultKind> faultKinds()
{
    return kinds;
}

const FaultKind *findFaultKind(std::string_view id)
{
    const auto it
        = std::find_if(kinds.begin(), kinds.end(), [&](const FaultKind &k) { return k.id == id; });
    return it == kinds.end() ? nullptr : &*it;
}

std::vector<std::string> faultItems(const Build &build, const FaultKind &kind, const Stop &stop)
{
    std::vector<std::string> out;
    if (kind.id == "plug_missing" && stop.kind != "plug")
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
    for (const FaultKind &k : kinds) {
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
    for (const std::string_view wanted : kind.stopKinds)
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
        for (const FaultKind &k : kinds)
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
        || (stop->kind == "plug" && kind->id == "plug_missing"
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

std::string severityText(const Build &build, const Fault &fault)
{
    const FaultKind *kind = findFaultKind(fault.kind);
    if (!kind)
        return "";
    const double a = kind->amount(fault.severity);
    const auto mm = [](double v) { return formatPlain(v, 1) + " mm"; };
    switch (kind->measure) {
    case Measure::OnOff:
    case Measure::Restrictor:
        return "";
    case Measure::Wider_um:
        return "+" + formatPlain(a, 0) + " µm";
    case Measure::Shut:
        return percent(a) + " shut";
    case Measure::Covered:
        return percent(a) + " covered";
    case Measure::Open:
        return percent(a) + " open";
    case Measure::Leaks:
        return formatPlain(100 * a, 1) + " % leaks";
    case Measure::Plug_mm: {
        const Stop *stop = build.engine.find(fault.stop);
        const auto ends = stop ? endsOf(build, *stop) : std::vector<PlugEnd> {};
        return ends.empty() ? percent(a) : mm(ends.back().bore_mm * a) + " open";
    }
    case Measure::Hole_mm:
        return mm(a) + " hole";
    case Measure::Jet_mm: {
        const Stop *stop = build.engine.find(fault.stop);
        const Element *jet = stop ? lostJet(build, *stop, fault.item) : nullptr;
        return jet ? mm(lostJetBore_mm(*jet, *kind, fault.severity)) + " hole" : "";
    }
    case Measure::Decades:
        return "1/" + formatPlain(std::pow(10, a), 0) + " of its flow";
    case Measure::Air:
        return percent(a) + " air";
    case Measure::Thinner:
        return percent(a) + " thinner";
    case Measure::Thicker:
        return percent(a) + " thicker";
    case Measure::Petrol:
        return percent(a) + " petrol";
    case Measure::Coolant:
        return percent(a) + " coolant";
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
    if (stop && stop->kind == "plug" && !stop->points.empty()) {
        const std::string &node = stop->points.front().node;
        for (const Stop &s : build.engine.stops)
            for (const StopPoint &p : s.points)
                if (s.kind != "plug" && p.node == node)
                    stop = &s;
    }
    if (stop)
        out.push_back(stop->kind + "_" + fault.kind);
    return out;
}

} // namespace mildpath
