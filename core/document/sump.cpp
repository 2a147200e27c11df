// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/sump.h"

#include "document/document.h"
#include "quantity/overloaded.h"
#include "quantity/rounding.h"
#include "sump/gas.h"
#include "sump/section.h"
#include "sump/windage.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array groups {
    SumpGroup { "oil", "Oil", false },
    SumpGroup { "pan", "Pan and pickup", false },
    SumpGroup { "crank", "What the crank sweeps", false },
    SumpGroup { "baffle", "Baffle round the pickup", false },
    SumpGroup { "marks", "Stick and drain", false },
    SumpGroup { "heads", "Held up in the engine", false },
    SumpGroup { "suction", "Suction and gas", false },
    SumpGroup { "tank", "Tank and hose", true },
};

const std::array keys {
    SumpKey { "fill_l", "oil", "oil poured in", "l", 0.1, 500 },
    SumpKey { "fill_c", "oil", "when it was poured in", "°C", -40, 120, 20, commonPractice },
    SumpKey { "static_holdup_l", "oil", "never back at rest: filter, cooler, locked passages", "l",
              0, 100 },
    SumpKey { "displaced_l", "oil", "displaced by what hangs in the oil", "l", 0, 50, 0,
              assumption },

    SumpKey { "pan_length_mm", "pan", "inside length", "mm", 20, 5000 },
    SumpKey { "pan_width_mm", "pan", "inside width", "mm", 20, 3000 },
    SumpKey { "pickup_along_mm", "pan", "pickup, along the engine", "mm", -5000, 5000 },
    SumpKey { "pickup_across_mm", "pan", "pickup, across", "mm", -3000, 3000 },
    SumpKey { "rail_mm", "pan", "rail over the lowest point", "mm", 1, 2000 },

    SumpKey { "crank_across_mm", "crank", "crank centre, across", "mm", -3000, 3000 },
    SumpKey { "crank_z_mm", "crank", "crank centre over the lowest point", "mm", 1, 3000 },
    SumpKey { "sweep_radius_mm", "crank", "radius swept: counterweights or big ends, the larger",
              "mm", 5, 1000 },
    SumpKey { "crank_from_mm", "crank", "first throw, along", "mm", -5000, 5000 },
    SumpKey { "crank_to_mm", "crank", "last throw, along", "mm", -5000, 5000 },
    SumpKey { "shaft_across_mm", "crank", "another shaft's centre, across", "mm", -3000, 3000 },
    SumpKey { "shaft_z_mm", "crank", "another shaft's centre, up", "mm", 1, 3000 },
    SumpKey { "shaft_radius_mm", "crank", "radius it sweeps", "mm", 5, 1000 },
    SumpKey { "tray_open_share", "crank", "open share of a windage tray; 1: none", "", 0, 1, 1,
              assumption },
    SumpKey { "coupling", "crank", "of the crank's speed that the air takes up", "", 0, 1,
              windCoupling, assumption },
    SumpKey { "ripple_mm", "crank", "waves that are there anyway", "mm", 0, 200,
              usualRipple_m * 1e3, assumption },

    SumpKey { "compartment_area_mm2", "baffle",
              "floor walled off round the pickup; none: no baffle", "mm²", 100, 2e6 },
    SumpKey { "baffle_opening_mm2", "baffle", "opening of its doors or holes", "mm²", 0, 2e5 },
    SumpKey { "return_share", "baffle", "of the return that falls straight into it", "", 0, 1, 0,
              assumption },
    SumpKey { "baffle_z_mm", "baffle", "its plate over the lowest point", "mm", 0, 2000 },

    SumpKey { "stick_low_mm", "marks", "low mark of the stick", "mm", 0, 2000 },
    SumpKey { "stick_high_mm", "marks", "high mark of the stick", "mm", 0, 2000 },
    SumpKey { "drain_lip_mm", "marks", "lip of the drain", "mm", 0, 500 },
    SumpKey { "bench_level_mm", "marks", "level seen in the bare pan with the fill", "mm", 0,
              2000 },

    SumpKey { "pool_area_mm2", "heads", "floor of all heads that oil stands on", "mm²", 100, 5e6 },
    SumpKey { "drain_hole_mm", "heads", "drain-back hole", "mm", 1, 100 },
    SumpKey { "drain_holes", "heads", "how many there are", "", 1, 200 },
    SumpKey { "drain_length_mm", "heads", "length of each", "mm", 0, 2000, 0, assumption },
    SumpKey { "drain_drop_mm", "heads", "further fall of a passage that runs full", "mm", 0, 2000,
              0, assumption },
    SumpKey { "head_flow_l_min", "heads", "oil to the heads; empty: of the circuit", "l/min", 0,
              200 },
    SumpKey { "crankcase_kpa", "heads", "pressure in the crankcase (blow-by)", "kPa", 0, 50 },
    SumpKey { "wall_area_m2", "heads", "walls wetted by oil running down", "m²", 0, 20 },
    SumpKey { "wall_width_m", "heads", "width it runs over", "m", 0.05, 20, 1, assumption },
    SumpKey { "in_flight_l", "heads", "in the air as spray; no model", "l", 0, 20, 0, assumption },

    SumpKey { "pump_inlet_z_mm", "suction", "pump inlet over the lowest point", "mm", -2000, 3000 },
    SumpKey { "joint_z_mm", "suction", "pickup joint over the lowest point", "mm", -500, 3000 },
    SumpKey { "leak_mm2", "suction", "hole on the suction side; 0: tested tight", "mm²", 0, 200 },
    SumpKey { "bunsen", "suction", "air dissolved per volume and atmosphere", "", 0, 0.5,
              usualBunsen, "from memory" },
    SumpKey { "release_share", "suction", "of it that comes out; 1 is the upper bound", "", 0, 1, 1,
              assumption },

    SumpKey { "tank_diameter_mm", "tank", "inside diameter", "mm", 20, 2000 },
    SumpKey { "tank_height_mm", "tank", "outlet to the return's mouth", "mm", 20, 3000 },
    SumpKey { "tank_over_pump_mm", "tank", "outlet over the pump's inlet", "mm", -3000, 3000 },
    SumpKey { "tank_outlet_mm", "tank", "bore of its outlet", "mm", 3, 200 },
    SumpKey { "return_bore_mm", "tank", "bore of its return", "mm", 3, 200 },
    SumpKey { "swirl_share", "tank", "of the return's speed that the oil turns with", "", 0, 1, 0.5,
              assumption },
    SumpKey { "held_dry_l", "tank", "in engine, pan and lines when it runs", "l", 0, 100 },
    SumpKey { "hose_bore_mm", "tank", "suction hose, bore", "mm", 3, 200 },
    SumpKey { "hose_wall_mm", "tank", "its wall", "mm", 0.2, 50 },
    SumpKey { "hose_mpa", "tank", "its wall's modulus, hot", "MPa", 0.5, 5000, 5, assumption },
};

constexpr std::array<std::string_view, 3> words { "none", "suspected", "confirmed" };

Profile metres(const std::vector<PanPoint> &points)
{
    Profile out;
    for (const PanPoint &p : points)
        out.push_back({ p.x_mm * 1e-3, p.z_mm * 1e-3 });
    return out;
}

class SumpChecker
{
public:
    SumpChecker(const Build &build, std::vector<Error> &errors)
        : m_sump(build.sump)
        , m_errors(errors)
    {
    }

    void run()
    {
        checkValues(m_sump.values, keys, "/sump/values", m_errors);
        for (const auto &[key, word] :
             { std::pair("coolant", &m_sump.coolant), std::pair("fuel", &m_sump.fuel) })
            if (!word->empty() && std::find(words.begin(), words.end(), *word) == words.end())
                add(key, "must be none, suspected or confirmed, is \"" + *word + "\"");
        section(PanWay::Along, "along_mm", "pickup_along_mm");
        section(PanWay::Across, "across_mm", "pickup_across_mm");
        crank();
        const auto low = m_sump.own("stick_low_mm"), high = m_sump.own("stick_high_mm");
        if (low && high && !(*low < *high))
            add("values/stick_high_mm", "must be above the low mark");
        const auto fill = m_sump.own("fill_l"), held = m_sump.own("static_holdup_l");
        if (fill && held && *held > *fill)
            add("values/static_holdup_l", "is more than was poured in");
    }

private:
    void add(const std::string &key, Phrase message)
    {
        m_errors.push_back({ "/sump/" + key, std::move(message) });
    }

    void section(PanWay way, const std::string &key, const char *pickup)
    {
        const auto &points = m_sump.section(way);
        if (points.empty())
            return;
        const Profile profile = metres(points);
        if (const auto ok = checkProfile(profile); !ok) {
            add(ok.error().place.empty() ? key : key + "/" + ok.error().place, ok.error().message);
            return;
        }
        double lowest = 1e9;
        for (const PanPoint &p : points)
            lowest = std::min(lowest, p.z_mm);
        if (std::abs(lowest) > 1e-6)
            add(key,
                { "sump.lowest",
                  "its lowest point must stand at height 0, stands at {0}",
                  { asLength(lowest) } });
        if (const auto x = m_sump.own(pickup))
            if (const auto floor = floorAt_m(profile, *x * 1e-3); !floor)
                add(std::string("values/") + pickup,
                    { "sump.outside", "the pickup lies outside the pan: {0}", { asLength(*x) } });
    }

    /// A swept circle that reaches under the floor is a slip of the pen.
    void crank()
    {
        const std::array<std::array<const char *, 3>, 2> circles {
            { { "crank_across_mm", "crank_z_mm", "sweep_radius_mm" },
              { "shaft_across_mm", "shaft_z_mm", "shaft_radius_mm" } }
        };
        const Profile across = metres(m_sump.across);
        for (const auto &[xKey, zKey, rKey] : circles) {
            const auto x = m_sump.own(xKey), z = m_sump.own(zKey), r = m_sump.own(rKey);
            if (!z || !r)
                continue;
            const auto floor
                = across.empty() ? std::optional(0.0) : floorAt_m(across, x.value_or(0) * 1e-3);
            if (floor && *z - *r < *floor * 1e3)
                add(std::string("values/") + zKey,
                    { "sump.under",
                      "what it sweeps reaches under the floor of the pan: {0}",
                      { asLength(*z - *r) } });
        }
    }

    const Sump &m_sump;
    std::vector<Error> &m_errors;
};

/// Pairs of numbers, two members of T each way.
} // namespace

std::optional<double> Sump::own(std::string_view key) const
{
    return ownValue(values, key);
}

std::optional<double> Sump::value(std::string_view key) const
{
    return valueOf(values, keys, key);
}

std::optional<double> Sump::metres(std::string_view key) const
{
    const auto v = value(key);
    return v ? std::optional(*v * 1e-3) : std::nullopt;
}

std::span<const SumpKey> sumpKeys()
{
    return keys;
}

const SumpKey *findSumpKey(std::string_view key)
{
    return findValueKey(keys, key);
}

std::span<const SumpGroup> sumpGroups()
{
    return groups;
}

std::span<const std::string_view> foreignWords()
{
    return words;
}

Result<Build> applySumpEdit(Build build, const SumpEdit &edit)
{
    Sump &s = build.sump;
    const Result<void> ok
        = std::visit(Overloaded {
                         [&](const SetPan &e) -> Result<void> {
                             s.along = e.along;
                             s.across = e.across;
                             s.benchFill = e.benchFill;
                             s.shape = e.shape;
                             for (const auto &[key, value] : e.values)
                                 s.values[key] = value;
                             return {};
                         },
                         [&](const SetSumpValue &e) -> Result<void> {
                             return setValue(s.values, keys, "sump", e.key, e.value);
                         },
                         [&](const SetForeign &e) -> Result<void> {
                             (e.fuel ? s.fuel : s.coolant) = e.word;
                             return {};
                         },
                     },
                     edit);
    if (!ok)
        return tl::unexpected(ok.error());
    return build;
}

Phrase describeSumpEdit(const SumpEdit &edit)
{
    const auto words = Overloaded {
        [](const SetPan &e) {
            for (const PanShape &s : panShapes())
                if (s.id == e.shape)
                    return "pan " + std::string(s.name);
            return std::string(e.benchFill.empty() ? "section of the pan"
                                                   : "pan from litres and heights");
        },
        [](const SetSumpValue &e) { return describeValue(keys, e.key, e.value); },
        [](const SetForeign &e) {
            return std::string(e.fuel ? "fuel" : "coolant")
                + " in the oil: " + (e.word.empty() ? "not said" : e.word);
        },
    };
    return std::visit([&](const auto &e) { return Phrase(words(e)); }, edit);
}

void checkSump(const Build &build, std::vector<Error> &errors)
{
    SumpChecker(build, errors).run();
}

} // namespace mildpath
