// SPDX-License-Identifier: GPL-3.0-or-later
#include "build/document.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <set>

namespace mildpath {
namespace {

constexpr std::array<StopKind, 14> kinds { {
    { "pickup", "Sump and pickup", 0, false },
    { "pump", "Pump", 0, false },
    { "relief", "Relief valve", 1, false },
    { "filter", "Filter", 0, false },
    { "gallery", "Galleries", 0, false },
    { "main", "Main bearings", 1, true },
    { "big_end", "Big-end bearings", 2, true },
    { "cam_bearing", "Cam bearings", 1, false },
    { "rocker", "Rockers", 2, false },
    { "lifter", "Lifters", 1, false },
    { "jet", "Cooling jets", 1, false },
    { "chain", "Chain oiling", 1, false },
    { "tensioner", "Chain tensioner", 1, false },
    { "plug", "Plugs", 1, false },
} };

constexpr std::array<UseKey, 7> keysOfUse { {
    { "coldest_start_c", "coldest start", "°C", &Use::coldestStart_c, -60, 60 },
    { "hot_oil_c", "hot oil", "°C", &Use::hotOil_c, 60, 150 },
    { "hot_idle_rpm", "hot idle speed", "rev/min", &Use::hotIdle_rpm, 200, 3000 },
    { "high_speed_rpm", "higher speed shown", "rev/min", &Use::highSpeed_rpm, 500, 15000 },
    { "most_rpm", "highest speed", "rev/min", &Use::most_rpm, 1000, 15000 },
    { "hot_idle_floor_kpa", "least pressure wanted at hot idle", "kPa", &Use::hotIdleFloor_kpa, 0,
      1000 },
    { "coldest_clearance_floor_um", "least clearance at the coldest start", "µm",
      &Use::coldestClearanceFloor_um, 0, 200 },
} };

/// Ids already used by records of one kind, however they look.
template <class Record>
std::string nextId(const std::vector<Record> &records, const std::string &prefix)
{
    size_t number = records.size() + 1;
    const auto used = [&](const std::string &id) {
        return std::any_of(records.begin(), records.end(),
                           [&](const Record &r) { return r.id == id; });
    };
    while (used(prefix + std::to_string(number)))
        ++number;
    return prefix + std::to_string(number);
}

} // namespace

const StopKind *findStopKind(std::string_view id)
{
    for (const StopKind &k : kinds)
        if (k.id == id)
            return &k;
    return nullptr;
}

std::string stopKindNames()
{
    std::string out;
    for (const StopKind &k : kinds)
        out += (out.empty() ? "" : ", ") + std::string(k.id);
    return out;
}

std::span<const UseKey> useKeys()
{
    return keysOfUse;
}

const Stop *Engine::find(std::string_view id) const
{
    for (const Stop &s : stops)
        if (s.id == id)
            return &s;
    return nullptr;
}

std::vector<const Reading *> standingReadings(const Build &build, std::string_view stop)
{
    std::set<std::string_view> struck;
    for (const Reading &r : build.readings)
        if (!r.replaces.empty())
            struck.insert(r.replaces);
    std::vector<const Reading *> out;
    for (const Reading &r : build.readings)
        if (r.stop == stop && r.value_um && !struck.contains(r.id))
            out.push_back(&r);
    return out;
}

const Reading *readingAt(const Build &build, std::string_view stop, int station, double angle_deg)
{
    const Reading *last = nullptr;
    for (const Reading *r : standingReadings(build, stop))
        if (r->station == station && r->angle_deg == angle_deg)
            last = r;
    return last;
}

const Proof *standingProof(const Build &build, std::string_view stop, std::string_view aspect)
{
    const Proof *last = nullptr;
    for (const Proof &p : build.proofs)
        if (p.stop == stop && p.aspect == aspect)
            last = &p;
    return last;
}

std::string nextReadingId(const Build &build)
{
    return nextId(build.readings, "r");
}
std::string nextProofId(const Build &build)
{
    return nextId(build.proofs, "p");
}

} // namespace mildpath
