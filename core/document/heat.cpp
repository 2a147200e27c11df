// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/document.h"

#include "bearing/infrared.h"
#include "bearing/thermal.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

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
        checkRanges(recordType<Heat>(), &m_build.heat, "/heat", m_errors);
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
    void add(const std::string &place, Phrase message)
    {
        m_errors.push_back({ place, std::move(message) });
    }

    void range(const std::string &place, double v, double least, double most, std::string_view unit)
    {
        if (v >= least && v <= most)
            return;
        add(place, mustBe(least, most, v, unit));
    }

    void expansion(const std::string &id, const OwnExpansion &e)
    {
        const std::string place = "/expansions/" + id;
        if (id != mainHousing && !findMaterial(id))
            add(place, "there is no material \"" + id + "\"");
        if (!(e.per_k > 0 && e.per_k <= 60e-6))
            add(place + "/per_k",
                { "heat.expansion",
                  "must be above 0 and at most {0}, is {1}",
                  { Quantity { 60e-6, Shows::Expansion },
                    Quantity { e.per_k, Shows::Expansion } } });
        if (!(e.u_per_k >= 0 && e.u_per_k <= 20e-6))
            add(place + "/u_per_k",
                { "heat.expansion_u",
                  "must be {0}",
                  { QuantityRange { { 0, Shows::Expansion }, { 20e-6, Shows::Expansion } } } });
    }

    void point(const HeatPoint &p, const std::string &place)
    {
        if (const Stop *stop = m_build.engine.find(p.stop); !stop || stop->kind != StopKind::Main)
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

void checkHeat(const Build &build, std::vector<Error> &errors)
{
    HeatChecker(build, errors).run();
}

} // namespace mildpath
