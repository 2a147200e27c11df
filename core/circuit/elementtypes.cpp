// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/elementtypes.h"

#include "quantity/json.h"
#include "quantity/rounding.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::nullopt_t required = std::nullopt;

constexpr NumberKey untyped(NumberKey key)
{
    key.typed = false;
    return key;
}

constexpr std::array<NumberKey, 4> commonKeys { {
    { "count", "identical elements side by side", 1.0, 0, 1000, true },
    { "duty", "share of a turn it is open", 1.0, 0, 1 },
    { "dt_k", "own oil above the sump's temperature", 0.0, -100, 200 },
    untyped({ "flow_factor", "what it passes over what its law says", 1.0, 0, 1000 }),
} };

constexpr std::array<NumberKey, 4> pipeKeys { {
    { "d_mm", "bore", required, 0, 1000, true },
    { "l_mm", "length", required, 0, 1e5, true },
    untyped({ "rough_um", "wall roughness", 10.0, 0, 5000 }),
    { "k", "loss coefficient of entry, exit, bends", 1.5, 0, 1e6 },
} };

constexpr std::array<NumberKey, 3> orificeKeys { {
    { "d_mm", "hole", required, 0, 1000, true },
    { "l_mm", "length of the hole", 0.0, 0, 1e4 },
    untyped({ "cd", "discharge coefficient", 0.7, 0, 1, true }),
} };

constexpr std::array<NumberKey, 4> annulusKeys { {
    { "d_mm", "diameter", required, 0, 1000, true },
    untyped({ "clearance_um", "diametral clearance", required, 0, 5000 }),
    { "l_mm", "length", required, 0, 1e4, true },
    { "ecc", "eccentricity ratio", 0.0, 0, 1 },
} };

constexpr std::array<NumberKey, 10> bearingKeys { {
    { "d_mm", "journal diameter", required, 0, 1000, true },
    { "width_mm", "bearing width", required, 0, 1000, true },
    { "groove_width_mm", "oil groove width", 0.0, 0, 1000 },
    { "groove_deg", "oil groove extent; 0: a single hole", 360.0, 0, 360 },
    { "hole_mm", "feed hole where there is no groove", 5.0, 0, 100, true },
    untyped({ "clearance_um", "diametral clearance", required, 0, 5000 }),
    untyped({ "growth_um_per_k", "growth of that clearance with the sump's temperature", 0.0, -50,
              50 }),
    { "ecc", "eccentricity ratio", 0.6, 0, 1 },
    { "speed_flow", "share of the flow carried out by rotation", 0.0, 0, 1 },
    { "speed_ratio", "speed against the crankshaft's", 1.0, 0, 100 },
} };

constexpr std::array<NumberKey, 14> filmBearingKeys { {
    { "d_mm", "journal diameter", required, 0, 1000, true },
    { "width_mm", "bearing width", required, 0, 1000, true },
    { "groove_width_mm", "oil groove width", 0.0, 0, 1000 },
    { "groove_deg", "oil groove extent, up to 300 or 360; 0: a single hole", 360.0, 0, 360 },
    { "hole_mm", "feed hole where there is no groove", 5.0, 0, 100, true },
    asYesNo({ "hole_in_journal", "the feed hole turns with the journal", 0.0, 0, 1 }),
    { "feed_from_load_deg", "middle of groove or hole, from the load", 180.0, -360, 360 },
    untyped({ "clearance_um", "diametral clearance", required, 0, 5000 }),
    untyped({ "growth_um_per_k", "growth of that clearance with the sump's temperature", 0.0, -50,
              50 }),
    untyped({ "film_growth_um_per_k",
              "growth of that clearance with the film's warmth above its oil", 0.0, -50, 50 }),
    untyped({ "load_n", "steady load at standstill", 0.0, 0, 1e7 }),
    untyped({ "load_n_per_krpm2", "further load, growing with the square of speed", 0.0, 0, 1e6 }),
    { "speed_ratio", "speed against the crankshaft's", 1.0, 0, 100, true },
    untyped({ "form_factor", "leak of the real shell over that of a round one", 1.0, 0.2, 10 }),
} };

constexpr std::array<NumberKey, 14> crankDrillingKeys { {
    { "d_mm", "bore", required, 0, 100, true },
    { "l_mm", "length", required, 0, 1e4, true },
    untyped({ "rough_um", "wall roughness", 10.0, 0, 5000 }),
    { "k", "loss coefficient of entry, exit, bends", 1.5, 0, 1e6 },
    untyped({ "r_in_mm", "radius where the oil enters", required, 0, 1000 }),
    untyped({ "r_out_mm", "radius where the oil leaves", required, 0, 1000 }),
    { "closest_mm",
      "nearest the drilling comes to the crank axis (0.6 of r_in_mm unless given; 0 across)", 0.0,
      0, 1000 },
    untyped({ "window_share", "share of a turn a mouth meets oil; absent: the older law by duty",
              1.0, 0, 1 }),
    untyped({ "mouths", "mouths in the main journal", 1.0, 1, 2 }),
    untyped({ "open_mean", "overlap of the holes over the bore's area, mean over the window", 1.0,
              0, 1, true }),
    untyped({ "slot_width_mm", "groove the oil comes along, width", 0.0, 0, 1e4 }),
    untyped({ "slot_depth_mm", "that groove's depth", 0.0, 0, 1e4 }),
    untyped({ "slot_length_mm", "way along that groove", 0.0, 0, 1e4 }),
    untyped({ "keep_kpa", "least pressure kept at the innermost place", 0.0, -71.3, 200 }),
} };

constexpr std::array<NumberKey, 1> mediaKeys { {
    untyped({ "permeance_m3", "permeability × area / thickness", required, 0, 1, true }),
} };

constexpr std::array<NumberKey, 6> checkKeys { {
    { "d_mm", "hole", required, 0, 1000, true },
    { "l_mm", "length of the hole", 0.0, 0, 1e4 },
    untyped({ "cd", "discharge coefficient", 0.7, 0, 1, true }),
    { "open_kpa", "pressure at which it begins to open", required, -1e5, 1e5 },
    { "open_width_kpa", "further pressure until it is open", 20.0, 0, 1e5, true },
    untyped({ "leak", "share of the hole that stays open when shut", 1e-5, 0, 1, true }),
} };

constexpr std::array<NumberKey, 6> thermostatKeys { {
    { "d_mm", "hole when open", required, 0, 1000, true },
    { "l_mm", "length of the hole", 0.0, 0, 1e4 },
    untyped({ "cd", "discharge coefficient", 0.7, 0, 1, true }),
    { "open_c", "oil temperature at which it begins to open", required, -40, 200 },
    { "full_c", "oil temperature at which it is open", required, -40, 200 },
    untyped({ "leak", "share of the hole that stays open when shut", 1e-3, 0, 1, true }),
} };

constexpr std::array<NumberKey, 5> reliefKeys { {
    { "crack_kpa", "pressure at which it begins to open", required, 0, 1e5, true },
    { "full_kpa", "pressure at which it is fully open", required, 0, 1e5, true },
    { "full_area_mm2", "area when fully open", required, 0, 1e5, true },
    untyped({ "cd", "discharge coefficient", 0.7, 0, 1, true }),
    untyped(
        { "stuck_open_fraction", "jammed at this opening (not jammed unless given)", -1.0, 0, 1 }),
} };

constexpr std::array<NumberKey, 19> pumpKeys { {
    untyped({ "displacement_m3", "displacement per pump turn; 0: what the rotors' sizes give", 0.0,
              0, 1 }),
    { "drive_ratio", "pump speed against the crankshaft's", 1.0, 0, 100, true },
    { "rotor_length_mm", "rotor length", required, 0, 1000, true },
    { "eccentricity_mm", "rotor eccentricity", 0.0, 0, 100 },
    { "inner_tip_mm", "inner rotor over its tips", 0.0, 0, 1000 },
    untyped({ "tip_clearance_um", "rotor tip clearance", required, 0, 5000 }),
    untyped({ "end_clearance_um", "rotor end clearance", required, 0, 5000 }),
    untyped({ "body_clearance_um", "outer rotor to body, diametral", required, 0, 5000 }),
    { "tip_land_mm", "land of a rotor tip", required, 0, 1000, true },
    { "end_path_width_mm", "leak path over the ends, width", required, 0, 1e4, true },
    { "end_path_length_mm", "leak path over the ends, length", required, 0, 1e4, true },
    { "body_path_length_mm", "leak path round the body, length", required, 0, 1e4, true },
    { "inlet_port_mm2", "inlet port area; 0: no limit", 0.0, 0, 1e5 },
    untyped({ "inlet_port_cd", "inlet port discharge coefficient", 0.6, 0, 1, true }),
    untyped({ "inlet_port_length_mm", "its length; 0: no viscous loss is counted", 0.0, 0, 1000 }),
    untyped({ "release_pressure_abs_kpa", "absolute pressure at which air comes out", 30.0, 0,
              101.325 }),
    untyped({ "entrained_air", "share of air in the oil it takes in", 0.0, 0, 0.5 }),
    untyped({ "suction_air_hole_mm", "hole on the suction side", 0.0, 0, 100 }),
    untyped({ "suction_air_fraction", "share of air forced (from the hole unless given)", -1.0, 0,
              0.95 }),
} };

constexpr std::array<ElementType, 13> types { {
    { ElementKind::Pipe, "pipe or drilling", pipeKeys, makePipe },
    { ElementKind::Drilling, "pipe or drilling", pipeKeys, makePipe },
    { ElementKind::Orifice, "hole, jet or restrictor", orificeKeys, makeOrifice },
    { ElementKind::Annulus, "leak round a lifter, a rocker, a shaft", annulusKeys, makeAnnulus },
    { ElementKind::Bearing, "journal bearing", bearingKeys, makeBearing },
    { ElementKind::FilmBearing, "journal bearing by its film", filmBearingKeys, makeFilmBearing },
    { ElementKind::CrankDrilling, "drilling through the crank", crankDrillingKeys,
      makeCrankDrilling },
    { ElementKind::Media, "filter medium", mediaKeys, makeMedia },
    { ElementKind::Check, "check valve", checkKeys, makeCheck },
    { ElementKind::Jet, "jet with an opening pressure", checkKeys, makeCheck },
    { ElementKind::Thermostat, "thermostat", thermostatKeys, makeThermostat },
    { ElementKind::Relief, "relief or bypass valve", reliefKeys, makeRelief },
    { ElementKind::Pump, "pressure pump", pumpKeys, makePump },
} };
static_assert(
    [] {
        for (size_t i = 0; i < types.size(); ++i)
            if (types[i].kind != static_cast<ElementKind>(i))
                return false;
        return true;
    }(),
    "a row for each kind, in their order");

std::string rangeText(const NumberKey &key)
{
    std::string low = formatPlain(key.least, 3);
    std::string high = formatPlain(key.most, 3);
    const auto trim = [](std::string &s) {
        while (s.find('.') != std::string::npos && (s.back() == '0' || s.back() == '.')) {
            const bool point = s.back() == '.';
            s.pop_back();
            if (point)
                break;
        }
    };
    trim(low);
    trim(high);
    return (key.aboveLeast ? "above " : "at least ") + low + " and at most " + high;
}

Result<void> checkKey(const Element &e, const NumberKey &key)
{
    const auto it = e.values.find(std::string(key.key));
    if (it == e.values.end()) {
        if (!key.usual)
            return fail(std::string(key.key), "is missing (" + std::string(key.meaning) + ")");
        return {};
    }
    const double v = it->second;
    if (!key.allows(v))
        return fail(std::string(key.key), "must be " + rangeText(key) + ", is " + Json(v).dump());
    return {};
}

Result<void> checkTogether(const Element &e)
{
    if (e.kind == ElementKind::Relief && !(e.value("full_kpa") > e.value("crack_kpa")))
        return fail("full_kpa",
                    "must be above crack_kpa (" + Json(e.value("crack_kpa")).dump() + "), is "
                        + Json(e.value("full_kpa")).dump());
    if (e.kind == ElementKind::Thermostat && !(e.value("full_c") > e.value("open_c")))
        return fail("full_c", "must be above open_c");
    if (e.kind == ElementKind::Pump && e.value("eccentricity_mm") > 0
        && !(e.value("inner_tip_mm") > 2 * e.value("eccentricity_mm")))
        return fail("inner_tip_mm",
                    "must be more than two eccentricities, "
                        + Json(2 * e.value("eccentricity_mm")).dump() + ", is "
                        + Json(e.value("inner_tip_mm")).dump());
    if (e.kind == ElementKind::Pump && pumpDisplacement_m3(e) <= 0)
        return fail(
            "displacement_m3",
            "is missing (displacement per pump turn), and the rotors' sizes do not give it");
    if (e.kind == ElementKind::CrankDrilling && e.values.contains("closest_mm")
        && e.value("closest_mm") > e.value("r_in_mm"))
        return fail("closest_mm",
                    "must be at most r_in_mm (" + Json(e.value("r_in_mm")).dump() + "), is "
                        + Json(e.value("closest_mm")).dump());
    const bool bearing = isBearing(e);
    if (bearing && !(e.value("groove_width_mm") < e.value("width_mm")))
        return fail("groove_width_mm",
                    "must be narrower than the bearing (" + Json(e.value("width_mm")).dump()
                        + "), is " + Json(e.value("groove_width_mm")).dump());
    const double most = e.kind == ElementKind::FilmBearing ? 0.8 : 1;
    if (bearing && e.value("groove_deg") == 0 && !(e.value("hole_mm") < most * e.value("width_mm")))
        return fail("hole_mm",
                    most < 1 ? "must be smaller than 0.8 of the bearing's width"
                             : "must be smaller than the bearing's width");
    if (const double deg = e.value("groove_deg");
        e.kind == ElementKind::FilmBearing && deg > 300 && deg < 360)
        return fail("groove_deg", "must be at most 300, or 360 for a full groove");
    if ((e.kind == ElementKind::Pipe || e.kind == ElementKind::Drilling
         || e.kind == ElementKind::CrankDrilling)
        && !(e.value("rough_um") * 1e-3 <= 0.05 * e.value("d_mm")))
        return fail("rough_um", "must be at most 0.05 of the bore");
    return {};
}

} // namespace

bool isBearing(const Element &e)
{
    return e.kind == ElementKind::Bearing || e.kind == ElementKind::FilmBearing;
}

std::span<const ElementType> elementTypes()
{
    return types;
}

double rotorsDisplacement_m3(const Element &pump)
{
    return rotorsDisplacement_m3(ElementValues(pump, pumpKeys));
}

double pumpDisplacement_m3(const Element &pump)
{
    return pumpDisplacement_m3(ElementValues(pump, pumpKeys));
}

std::unique_ptr<Law> makeLaw(const Element &element)
{
    const ElementType &type = elementType(element.kind);
    return type.make(ElementValues(element, type.keys));
}

const ElementType &elementType(ElementKind kind)
{
    return types[static_cast<size_t>(kind)];
}

std::span<const NumberKey> commonElementKeys()
{
    return commonKeys;
}

std::string elementTypeNames()
{
    std::string out;
    for (const ElementType &t : types)
        out += (out.empty() ? "" : ", ") + std::string(wordOf(t.kind));
    return out;
}

Result<void> checkElement(const Element &e)
{
    for (const NumberKey &key : elementType(e.kind).keys)
        if (auto r = checkKey(e, key); !r)
            return r;
    for (const NumberKey &key : commonKeys)
        if (auto r = checkKey(e, key); !r)
            return r;
    return checkTogether(e);
}

const NumberKey *findElementKey(ElementKind kind, std::string_view key)
{
    for (const NumberKey &k : elementType(kind).keys)
        if (k.key == key)
            return &k;
    for (const NumberKey &k : commonKeys)
        if (k.key == key)
            return &k;
    return nullptr;
}

} // namespace mildpath
