// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/document.h"

#include "bearing/infrared.h"
#include "bearing/thermal.h"
#include "quantity/json.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

constexpr std::array<HeatKey, 12> keysOfHeat { {
    { "housing_below_oil_k", "housing below the oil, settled", "K", &Heat::housingBelowOil_k, -40,
      80 },
    { "cap_below_oil_k", "cap or girdle below the oil, settled", "K", &Heat::capBelowOil_k, -40,
      80 },
    { "journal_below_oil_k", "journal below the oil, settled", "K", &Heat::journalBelowOil_k, -40,
      80 },
    { "block_end_c", "what the coolant makes of the block", "°C", &Heat::blockEnd_c, 30, 150 },
    { "oil_at_idle_s", "oil, time constant at idle", "s", &Heat::oilAtIdle_s, 10, 7200 },
    { "oil_at_speed_s", "oil, time constant at 3 000 rev/min", "s", &Heat::oilAtSpeed_s, 10, 7200 },
    { "block_at_idle_s", "block, time constant at idle", "s", &Heat::blockAtIdle_s, 10, 7200 },
    { "block_at_speed_s", "block, time constant at 3 000 rev/min", "s", &Heat::blockAtSpeed_s, 10,
      7200 },
    { "journal_lag_s", "journal and rods behind the oil", "s", &Heat::journalLag_s, 0, 3600 },
    { "cap_lag_s", "cap or girdle behind the oil", "s", &Heat::capLag_s, 0, 3600 },
    { "surroundings_c", "surroundings of the infrared thermometer", "°C", &Heat::surroundings_c,
      -40, 60 },
    { "instrument_emissivity", "emissivity the thermometer is set to", "",
      &Heat::instrumentEmissivity, 0.05, 1 },
} };

class HeatChecker
{
public:
    HeatChecker(const Build &build, std::vector<Error> &errors)
        : m_build(build)
        , m_errors(errors)
    {
    }

    void run()
    {
        for (const HeatKey &key : keysOfHeat)
            range("/heat/" + std::string(key.key), m_build.heat.*key.member, key.least, key.most,
                  key.unit);
        for (const auto &[id, e] : m_build.expansions)
            expansion(id, e);
        std::set<std::string> ids;
        for (size_t i = 0; i < m_build.heatPoints.size(); ++i) {
            const HeatPoint &p = m_build.heatPoints[i];
            const std::string place = "/heat_points/" + std::to_string(i);
            if (!p.replaces.empty() && !ids.contains(p.replaces))
                add(place + "/replaces", "there is no earlier point \"" + p.replaces + "\"");
            if (!ids.insert(p.id).second)
                add(place + "/id", "\"" + p.id + "\" is used twice");
            point(p, place);
        }
    }

private:
    void add(const std::string &place, std::string message)
    {
        m_errors.push_back({ place, std::move(message) });
    }

    void range(const std::string &place, double v, double least, double most, std::string_view unit)
    {
        if (v >= least && v <= most)
            return;
        const int decimals = most <= 1 ? 2 : 0;
        add(place,
            "must be " + formatPlain(least, decimals) + " to " + formatPlain(most, decimals)
                + (unit.empty() ? "" : " " + std::string(unit)) + ", is " + formatPlain(v, 2));
    }

    void expansion(const std::string &id, const OwnExpansion &e)
    {
        const std::string place = "/expansions/" + id;
        if (id != mainHousing && !findMaterial(id))
            add(place, "there is no material \"" + id + "\"");
        if (!(e.per_k > 0 && e.per_k <= 60e-6))
            add(place + "/per_k",
                "must be above 0 and at most 60e-6 per kelvin, is " + formatPlain(e.per_k * 1e6, 2)
                    + "e-6");
        if (!(e.u_per_k >= 0 && e.u_per_k <= 20e-6))
            add(place + "/u_per_k", "must be 0 to 20e-6 per kelvin");
    }

    void point(const HeatPoint &p, const std::string &place)
    {
        if (const Stop *stop = m_build.engine.find(p.stop); !stop || stop->kind != "main")
            add(place + "/stop", "there is no main bearing \"" + p.stop + "\"");
        if (p.spots_c.size() > 12)
            add(place + "/spots_c", "must be 12 at most");
        for (size_t k = 0; k < p.spots_c.size(); ++k)
            range(place + "/spots_c/" + std::to_string(k), p.spots_c[k], -60, 250, "°C");
        if (!findSurface(p.surface)) {
            std::string known;
            for (const SpotSurface &s : surfaces())
                known += (known.empty() ? "" : ", ") + std::string(s.id);
            add(place + "/surface", "unknown surface \"" + p.surface + "\"; known: " + known);
        }
        if (p.reading_um)
            range(place + "/reading_um", *p.reading_um, -mostClearanceReading_um,
                  mostClearanceReading_um, "µm");
        range(place + "/u_um", p.u_um, 0, 100, "µm");
        range(place + "/zero_temp_c", p.zero_c, -40, 200, "°C");
        range(place + "/instrument_emissivity", p.instrumentEmissivity, 0.05, 1, "");
        range(place + "/surroundings_c", p.surroundings_c, -40, 60, "°C");
    }

    const Build &m_build;
    std::vector<Error> &m_errors;
};

} // namespace

std::span<const HeatKey> heatKeys()
{
    return keysOfHeat;
}

std::optional<Expansion> expansionOf(const Build &build, std::string_view material)
{
    if (const auto own = build.expansions.find(std::string(material));
        own != build.expansions.end())
        return Expansion { own->second.per_k, own->second.u_per_k, own->second.source, true };
    if (const Material *m = findMaterial(material))
        return Expansion { m->expansion_per_k, (m->high_per_k - m->low_per_k) / std::sqrt(12.0),
                           "handbook, from memory", false };
    return std::nullopt;
}

std::vector<const HeatPoint *> standingHeatPoints(const Build &build, std::string_view stop)
{
    std::set<std::string_view> struck;
    for (const HeatPoint &p : build.heatPoints)
        if (!p.replaces.empty())
            struck.insert(p.replaces);
    std::vector<const HeatPoint *> out;
    for (const HeatPoint &p : build.heatPoints)
        if (p.stop == stop && !p.takenBack && !struck.contains(p.id))
            out.push_back(&p);
    return out;
}

Result<void> addHeatPoint(Build &build, HeatPoint point)
{
    point.id = nextHeatPointId(build);
    if (point.replaces.empty()) {
        build.heatPoints.push_back(std::move(point));
        return {};
    }
    const auto standing = standingHeatPoints(build, point.stop);
    const bool stands = std::any_of(standing.begin(), standing.end(),
                                    [&](const HeatPoint *p) { return p->id == point.replaces; });
    const auto former
        = std::find_if(build.heatPoints.begin(), build.heatPoints.end(),
                       [&](const HeatPoint &p) { return stands && p.id == point.replaces; });
    if (former == build.heatPoints.end())
        return fail("replaces", "there is no such point in the log");
    if (former->reading_um) {
        build.heatPoints.push_back(std::move(point));
    } else if (point.takenBack) {
        build.heatPoints.eraseIf([&](const HeatPoint &p) { return p.id == point.replaces; });
    } else {
        // Nothing was measured yet: the point is still being written.
        point.id = former->id;
        point.replaces = former->replaces;
        build.heatPoints[static_cast<size_t>(former - build.heatPoints.begin())] = std::move(point);
    }
    return {};
}

Heat heatFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Heat h;
    for (const HeatKey &key : keysOfHeat)
        h.*key.member = in.number(std::string(key.key), h.*key.member);
    h.extra = in.leftOver();
    return h;
}

Json heatToJson(const Heat &h)
{
    Json out = Json::object();
    for (const HeatKey &key : keysOfHeat)
        out[std::string(key.key)] = h.*key.member;
    out.update(h.extra.json());
    return out;
}

HeatPoint heatPointFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    HeatPoint p;
    p.id = in.text("id");
    p.stop = in.text("stop");
    const Json &spots = in.array("spots_c");
    for (size_t i = 0; i < spots.size(); ++i) {
        if (spots[i].is_number())
            p.spots_c.push_back(spots[i].get<double>());
        else
            in.error("spots_c/" + std::to_string(i), "must be a number");
    }
    p.surface = in.text("surface", p.surface);
    p.instrumentEmissivity = in.number("instrument_emissivity", p.instrumentEmissivity);
    p.surroundings_c = in.number("surroundings_c", p.surroundings_c);
    p.reading_um = in.optionalNumber("reading_um");
    p.u_um = in.number("u_um", p.u_um);
    p.zero_c = in.number("zero_temp_c", p.zero_c);
    p.journalWithBlock = in.boolean("journal_with_block", false);
    p.takenBack = in.boolean("taken_back", false);
    p.instrument = in.text("instrument", "");
    p.by = in.text("by", "");
    p.at = in.text("at", "");
    p.replaces = in.text("replaces", "");
    p.extra = in.leftOver();
    return p;
}

Json heatPointToJson(const HeatPoint &p)
{
    Json out = { { "id", p.id },
                 { "stop", p.stop },
                 { "spots_c", p.spots_c },
                 { "surface", p.surface },
                 { "instrument_emissivity", p.instrumentEmissivity },
                 { "surroundings_c", p.surroundings_c },
                 { "reading_um", p.reading_um ? Json(*p.reading_um) : Json() },
                 { "u_um", p.u_um },
                 { "zero_temp_c", p.zero_c } };
    if (p.journalWithBlock)
        out["journal_with_block"] = true;
    if (p.takenBack)
        out["taken_back"] = true;
    out["instrument"] = p.instrument;
    out["by"] = p.by;
    out["at"] = p.at;
    if (!p.replaces.empty())
        out["replaces"] = p.replaces;
    out.update(p.extra.json());
    return out;
}

OwnExpansion ownExpansionFromJson(const Json &json, const std::string &place,
                                  std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    OwnExpansion e;
    e.per_k = in.number("per_k");
    e.u_per_k = in.number("u_per_k", 0);
    e.source = in.text("source", "");
    e.by = in.text("by", "");
    e.at = in.text("at", "");
    e.extra = in.leftOver();
    return e;
}

Json ownExpansionToJson(const OwnExpansion &e)
{
    Json out = { { "per_k", e.per_k },
                 { "u_per_k", e.u_per_k },
                 { "source", e.source },
                 { "by", e.by },
                 { "at", e.at } };
    out.update(e.extra.json());
    return out;
}

void checkHeat(const Build &build, std::vector<Error> &errors)
{
    HeatChecker(build, errors).run();
}

} // namespace mildpath
