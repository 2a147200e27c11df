// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/states.h"

#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "document/document.h"
#include "quantity/types.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <map>

namespace mildpath {
namespace {

constexpr std::array<StateKind, 13> kinds { {
    { "cold_idle", "Coldest start, idle", false, false },
    { "cold_2000", "Coldest start, fast", false, false },
    { "room_idle", "Workshop, idle", false, false },
    { "room_2000", "Workshop, fast", false, false },
    { "hot_idle", "Hot idle", true, false },
    { "hot_2000", "Hot, fast", true, false },
    { "hot_plus_idle", "Hotter, idle", true, false },
    { "high", "Hot, high speed", true, false },
    { "most", "Hot, highest speed", true, false },
    { "hot_plus_most", "Hotter, highest speed", true, false },
    { "cold_2000_shut", "Coldest start, relief stuck shut", false, true },
    { "room_2000_shut", "Workshop, relief stuck shut", false, true },
    { "most_shut", "Highest speed, relief stuck shut", true, true },
} };

constexpr double room_c = 20;
constexpr double shutBy_kpa = 9000; ///< a relief valve that does not open

struct Where
{
    double rpm, oil_c;
};
Where whereOf(std::string_view id, const Use &use)
{
    const double oil_c = id.starts_with("cold") ? use.coldestStart_c
        : id.starts_with("room")                ? room_c
        : id.starts_with("hot_plus")            ? use.hotOil_c + hotterBy_k
                                                : use.hotOil_c;
    const double rpm = id.find("idle") != id.npos ? use.hotIdle_rpm
        : id.find("2000") != id.npos              ? fast_rpm
        : id == "high"                            ? use.highSpeed_rpm
                                                  : use.most_rpm;
    return { rpm, oil_c };
}

/// The relief valves that guard the pump; a filter's bypass is another.
CircuitChange reliefShut(const Build &build)
{
    std::vector<std::string> valves;
    for (const Stop &s : build.engine.stops)
        if (s.kind == StopKind::Relief)
            valves.insert(valves.end(), s.elements.begin(), s.elements.end());
    return [valves](Circuit &circuit, Oil &) -> Result<void> {
        for (Element &e : circuit.elements)
            if (std::find(valves.begin(), valves.end(), e.id) != valves.end()
                && e.values.contains("crack_kpa")) {
                e.values["crack_kpa"] += shutBy_kpa;
                e.values["full_kpa"] += shutBy_kpa;
            }
        return {};
    };
}

/// Pressures at the parts that have limits.
class Parts
{
public:
    explicit Parts(const Build &build)
    {
        for (const Stop &s : build.engine.stops) {
            std::vector<const Element *> elements;
            for (const std::string &id : s.elements)
                if (const Element *e = build.circuit.find(id))
                    elements.push_back(e);
            if (elements.empty())
                continue;
            if (s.kind == StopKind::Pump) {
                m_pumpIn = elements.front()->from;
                m_pumpOut = elements.front()->to;
            }
            if (s.kind == StopKind::Filter && m_filterIn.empty()) {
                m_filterIn = elements.front()->from;
                for (const Element *e : elements)
                    if (e->kind == ElementKind::Media) {
                        m_elementIn = e->from;
                        m_elementOut = e->to;
                    }
            }
            if (s.kind == StopKind::Cooler && m_coolerIn.empty())
                m_coolerIn = elements.front()->from;
        }
    }

    void fill(OperatingState &s) const
    {
        const auto at = [&](const std::string &node) {
            const auto it = s.result.nodePressure_pa.find(node);
            return it == s.result.nodePressure_pa.end() ? 0.0 : it->second;
        };
        s.pumpOut_pa = at(m_pumpOut);
        s.filterIn_pa = at(m_filterIn);
        s.element_pa = m_elementIn.empty() ? 0 : at(m_elementIn) - at(m_elementOut);
        s.coolerIn_pa = m_coolerIn.empty() ? 0 : at(m_coolerIn);
        s.inletAbs_pa = at(m_pumpIn) + atmosphere_pa;
        s.lowestAbs_pa = atmosphere_pa;
        for (const auto &[node, pa] : s.result.nodePressure_pa)
            s.lowestAbs_pa = std::min(s.lowestAbs_pa, pa + atmosphere_pa);
        if (s.result.sweptFlow_m3_s > 0)
            s.fillShare = s.result.pumpFlow_m3_s / s.result.sweptFlow_m3_s;
    }

private:
    std::string m_pumpIn, m_pumpOut, m_filterIn, m_elementIn, m_elementOut, m_coolerIn;
};

} // namespace

std::span<const StateKind> stateKinds()
{
    return kinds;
}

std::vector<OperatingState> operatingStates(const Build &build,
                                            const std::vector<GaugedSize> &sizes,
                                            const Operating &solved,
                                            std::map<double, OperatingModel> models)
{
    const Parts parts(build);
    const CircuitChange shut = reliefShut(build);
    std::map<double, OperatingModel> shutModels;
    std::vector<OperatingState> out;
    for (const StateKind &kind : kinds) {
        const OperatingResult *before = kind.id == "hot_idle" ? &solved.hotIdle
            : kind.id == "high"                               ? &solved.highSpeed
            : kind.id == "most"                               ? &solved.mostSpeed
                                                              : nullptr;
        if (before) {
            OperatingState state { &kind, *before };
            parts.fill(state);
            out.push_back(std::move(state));
            continue;
        }
        const Where where = whereOf(kind.id, build.use);
        auto &among = kind.reliefShut ? shutModels : models;
        auto at = among.find(where.oil_c);
        if (at == among.end()) {
            auto made = OperatingModel::make(build, sizes, where.oil_c,
                                             kind.reliefShut ? shut : CircuitChange());
            if (!made)
                continue;
            at = among.emplace(where.oil_c, std::move(*made)).first;
        }
        // A range is wanted where the gauge is held against the user's minimum.
        const bool idle = kind.id.find("idle") != std::string_view::npos;
        using Detail = OperatingModel::Detail;
        const Detail detail = idle       ? Detail::Pressures
            : kind.id == "hot_plus_most" ? Detail::Films
                                         : Detail::Nodes;
        auto result = at->second.at(where.rpm, detail);
        if (!result)
            continue;
        OperatingState state { &kind, std::move(*result) };
        parts.fill(state);
        out.push_back(std::move(state));
    }
    return out;
}

const OperatingState *stateOf(const std::vector<OperatingState> &states, std::string_view id)
{
    for (const OperatingState &s : states)
        if (s.kind->id == id)
            return &s;
    return nullptr;
}

} // namespace mildpath
