// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/sump.h"

#include "document/document.h"
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
    NumberKey { "fill_l", "oil poured in", std::nullopt, 0.1, 500, false, "oil" },
    NumberKey { "fill_c", "when it was poured in", 20, -40, 120, false, "oil", commonPractice },
    NumberKey { "static_holdup_l", "never back at rest: filter, cooler, locked passages",
                std::nullopt, 0, 100, false, "oil" },
    NumberKey { "displaced_l", "displaced by what hangs in the oil", 0, 0, 50, false, "oil",
                assumption },

    NumberKey { "pan_length_mm", "inside length", std::nullopt, 20, 5000, false, "pan" },
    NumberKey { "pan_width_mm", "inside width", std::nullopt, 20, 3000, false, "pan" },
    NumberKey { "pickup_along_mm", "pickup, along the engine", std::nullopt, -5000, 5000, false,
                "pan" },
    NumberKey { "pickup_across_mm", "pickup, across", std::nullopt, -3000, 3000, false, "pan" },
    NumberKey { "rail_mm", "rail over the lowest point", std::nullopt, 1, 2000, false, "pan" },

    NumberKey { "crank_across_mm", "crank centre, across", std::nullopt, -3000, 3000, false,
                "crank" },
    NumberKey { "crank_z_mm", "crank centre over the lowest point", std::nullopt, 1, 3000, false,
                "crank" },
    NumberKey { "sweep_radius_mm", "radius swept: counterweights or big ends, the larger",
                std::nullopt, 5, 1000, false, "crank" },
    NumberKey { "crank_from_mm", "first throw, along", std::nullopt, -5000, 5000, false, "crank" },
    NumberKey { "crank_to_mm", "last throw, along", std::nullopt, -5000, 5000, false, "crank" },
    NumberKey { "shaft_across_mm", "another shaft's centre, across", std::nullopt, -3000, 3000,
                false, "crank" },
    NumberKey { "shaft_z_mm", "another shaft's centre, up", std::nullopt, 1, 3000, false, "crank" },
    NumberKey { "shaft_radius_mm", "radius it sweeps", std::nullopt, 5, 1000, false, "crank" },
    NumberKey { "tray_open_share", "open share of a windage tray; 1: none", 1, 0, 1, false, "crank",
                assumption },
    NumberKey { "coupling", "of the crank's speed that the air takes up", windCoupling, 0, 1, false,
                "crank", assumption },
    NumberKey { "ripple_mm", "waves that are there anyway", usualRipple_m * 1e3, 0, 200, false,
                "crank", assumption },

    NumberKey { "compartment_area_mm2", "floor walled off round the pickup; none: no baffle",
                std::nullopt, 100, 2e6, false, "baffle" },
    NumberKey { "baffle_opening_mm2", "opening of its doors or holes", std::nullopt, 0, 2e5, false,
                "baffle" },
    NumberKey { "return_share", "of the return that falls straight into it", 0, 0, 1, false,
                "baffle", assumption },
    NumberKey { "baffle_z_mm", "its plate over the lowest point", std::nullopt, 0, 2000, false,
                "baffle" },

    NumberKey { "stick_low_mm", "low mark of the stick", std::nullopt, 0, 2000, false, "marks" },
    NumberKey { "stick_high_mm", "high mark of the stick", std::nullopt, 0, 2000, false, "marks" },
    NumberKey { "drain_lip_mm", "lip of the drain", std::nullopt, 0, 500, false, "marks" },
    NumberKey { "bench_level_mm", "level seen in the bare pan with the fill", std::nullopt, 0, 2000,
                false, "marks" },

    NumberKey { "pool_area_mm2", "floor of all heads that oil stands on", std::nullopt, 100, 5e6,
                false, "heads" },
    NumberKey { "drain_hole_mm", "drain-back hole", std::nullopt, 1, 100, false, "heads" },
    NumberKey { "drain_holes", "how many there are", std::nullopt, 1, 200, false, "heads" },
    NumberKey { "drain_length_mm", "length of each", 0, 0, 2000, false, "heads", assumption },
    NumberKey { "drain_drop_mm", "further fall of a passage that runs full", 0, 0, 2000, false,
                "heads", assumption },
    NumberKey { "head_flow_l_min", "oil to the heads; empty: of the circuit", std::nullopt, 0, 200,
                false, "heads" },
    NumberKey { "crankcase_kpa", "pressure in the crankcase (blow-by)", std::nullopt, 0, 50, false,
                "heads" },
    NumberKey { "wall_area_m2", "walls wetted by oil running down", std::nullopt, 0, 20, false,
                "heads" },
    NumberKey { "wall_width_m", "width it runs over", 1, 0.05, 20, false, "heads", assumption },
    NumberKey { "in_flight_l", "in the air as spray; no model", 0, 0, 20, false, "heads",
                assumption },

    NumberKey { "pump_inlet_z_mm", "pump inlet over the lowest point", std::nullopt, -2000, 3000,
                false, "suction" },
    NumberKey { "joint_z_mm", "pickup joint over the lowest point", std::nullopt, -500, 3000, false,
                "suction" },
    NumberKey { "leak_mm2", "hole on the suction side; 0: tested tight", std::nullopt, 0, 200,
                false, "suction" },
    NumberKey { "bunsen", "air dissolved per volume and atmosphere", usualBunsen, 0, 0.5, false,
                "suction", "from memory" },
    NumberKey { "release_share", "of it that comes out; 1 is the upper bound", 1, 0, 1, false,
                "suction", assumption },

    NumberKey { "tank_diameter_mm", "inside diameter", std::nullopt, 20, 2000, false, "tank" },
    NumberKey { "tank_height_mm", "outlet to the return's mouth", std::nullopt, 20, 3000, false,
                "tank" },
    NumberKey { "tank_over_pump_mm", "outlet over the pump's inlet", std::nullopt, -3000, 3000,
                false, "tank" },
    NumberKey { "tank_outlet_mm", "bore of its outlet", std::nullopt, 3, 200, false, "tank" },
    NumberKey { "return_bore_mm", "bore of its return", std::nullopt, 3, 200, false, "tank" },
    NumberKey { "swirl_share", "of the return's speed that the oil turns with", 0.5, 0, 1, false,
                "tank", assumption },
    NumberKey { "held_dry_l", "in engine, pan and lines when it runs", std::nullopt, 0, 100, false,
                "tank" },
    NumberKey { "hose_bore_mm", "suction hose, bore", std::nullopt, 3, 200, false, "tank" },
    NumberKey { "hose_wall_mm", "its wall", std::nullopt, 0.2, 50, false, "tank" },
    NumberKey { "hose_mpa", "its wall's modulus, hot", 5, 0.5, 5000, false, "tank", assumption },
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

std::span<const NumberKey> sumpKeys()
{
    return keys;
}

const NumberKey *findSumpKey(std::string_view key)
{
    return findKey(keys, key);
}

std::span<const SumpGroup> sumpGroups()
{
    return groups;
}

std::span<const std::string_view> foreignWords()
{
    return words;
}

void checkSump(const Build &build, std::vector<Error> &errors)
{
    SumpChecker(build, errors).run();
}

} // namespace mildpath
