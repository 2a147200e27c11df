// SPDX-License-Identifier: GPL-3.0-or-later
#include "build/document.h"

#include "bearing/thermal.h"
#include "circuit/network.h"
#include "quantity/rounding.h"

#include <cmath>
#include <set>

namespace mildpath {
namespace {

class Checker
{
public:
    explicit Checker(const Build &build)
        : m_build(build)
    {
    }

    std::vector<Error> run()
    {
        if (m_build.name.empty())
            add("/name", "is empty");
        materials();
        circuit();
        stops();
        oilAndUse();
        limits();
        readings();
        proofs();
        return std::move(m_errors);
    }

private:
    void add(const std::string &place, std::string message)
    {
        m_errors.push_back({ place, std::move(message) });
    }

    void material(const std::string &key, const std::string &id)
    {
        if (findMaterial(id))
            return;
        std::string known;
        for (const Material &m : materialTable())
            known += (known.empty() ? "" : ", ") + std::string(m.id);
        add("/engine/materials/" + key, "unknown material \"" + id + "\"; known: " + known);
    }

    void materials()
    {
        material("block", m_build.engine.block);
        material("crank", m_build.engine.crank);
        material("rod", m_build.engine.rod);
        if (!m_build.engine.mainCap.empty())
            material("main_cap", m_build.engine.mainCap);
        const double f = m_build.engine.mainCapFraction;
        if (!(f >= 0 && f <= 1))
            add("/engine/materials/main_cap_fraction", "must be 0 to 1");
    }

    void circuit()
    {
        const auto network = Network::compile(m_build.circuit);
        if (!network) {
            add("/circuit" + network.error().place, network.error().message);
            return;
        }
        m_nodes.insert(network->nodes().begin(), network->nodes().end());
        if (!m_build.circuit.taps.contains(m_build.gaugeTap))
            add("/circuit/gauge_tap", "\"" + m_build.gaugeTap + "\" is not one of the taps");
    }

    void stops()
    {
        std::set<std::string> ids, owned;
        for (size_t i = 0; i < m_build.engine.stops.size(); ++i) {
            const Stop &s = m_build.engine.stops[i];
            const std::string place = "/engine/stops/" + std::to_string(i);
            if (!ids.insert(s.id).second)
                add(place + "/id", "\"" + s.id + "\" is used twice");
            const StopKind *kind = findStopKind(s.kind);
            if (!kind)
                add(place + "/kind", "unknown kind \"" + s.kind + "\"; known: " + stopKindNames());
            for (size_t p = 0; p < s.points.size() && !m_nodes.empty(); ++p)
                if (!m_nodes.contains(s.points[p].node))
                    add(place + "/points/" + std::to_string(p) + "/node",
                        "the circuit has no node \"" + s.points[p].node + "\"");
            for (size_t e = 0; e < s.elements.size(); ++e) {
                const std::string where = place + "/elements/" + std::to_string(e);
                if (!m_build.circuit.find(s.elements[e]))
                    add(where, "the circuit has no element \"" + s.elements[e] + "\"");
                else if (!owned.insert(s.elements[e]).second)
                    add(where, "\"" + s.elements[e] + "\" belongs to another stop already");
            }
            if (kind && kind->gauged)
                gaugedStop(s, place);
        }
        if (m_build.engine.stops.empty())
            add("/engine/stops", "is empty");
    }

    void gaugedStop(const Stop &s, const std::string &place)
    {
        if (!(s.journal_mm > 5 && s.journal_mm <= 500))
            add(place + "/journal_mm",
                "a bearing needs a journal of 5 to 500 mm, has " + formatPlain(s.journal_mm, 3));
        if (!(s.shellWall_mm >= 0 && s.shellWall_mm <= 20))
            add(place + "/shell_wall_mm", "must be 0 to 20 mm");
        int bearings = 0;
        for (const std::string &id : s.elements)
            if (const Element *e = m_build.circuit.find(id))
                bearings += e->type == "bearing";
        if (bearings != 1)
            add(place + "/elements", "a gauged bearing needs exactly one element of type bearing");
        if (s.points.size() != 1)
            add(place + "/points", "a gauged bearing needs exactly one point");
    }

    void oilAndUse()
    {
        const Oil &o = m_build.oil.oil;
        if (const auto line = waltherLine(o.kv40_mm2_s, o.kv100_mm2_s); !line)
            add("/oil/" + line.error().place, line.error().message);
        if (!(o.rho15_kg_m3 >= 600 && o.rho15_kg_m3 <= 1200))
            add("/oil/rho15_kg_m3", "must be 600 to 1200, is " + formatPlain(o.rho15_kg_m3, 1));
        for (const UseKey &key : useKeys()) {
            const double v = m_build.use.*key.member;
            if (!(v >= key.least && v <= key.most))
                add("/use/" + std::string(key.key),
                    "must be " + formatPlain(key.least, 0) + " to " + formatPlain(key.most, 0)
                        + ", is " + formatPlain(v, 1));
        }
        if (!(m_build.use.most_rpm > m_build.use.hotIdle_rpm))
            add("/use/most_rpm", "must be above hot_idle_rpm");
    }

    void limits()
    {
        for (const auto &[kind, l] : m_build.limits) {
            const std::string place = "/limits/" + kind;
            if (!(l.min_um >= 0 && l.max_um <= mostClearanceReading_um))
                add(place, "limits must lie within 0 to 1000 um");
            if (!(l.min_um < l.max_um))
                add(place + "/max_um",
                    "must be above min_um (" + formatPlain(l.min_um, 1) + "), is "
                        + formatPlain(l.max_um, 1));
            if (l.target_um && !(*l.target_um > 0 && *l.target_um <= mostClearanceReading_um))
                add(place + "/target_um", "must be above 0 and at most 1000 um");
        }
    }

    void readings()
    {
        std::set<std::string> ids;
        for (size_t i = 0; i < m_build.readings.size(); ++i) {
            const Reading &r = m_build.readings[i];
            const std::string place = "/readings/" + std::to_string(i);
            const Stop *stop = m_build.engine.find(r.stop);
            const StopKind *kind = stop ? findStopKind(stop->kind) : nullptr;
            if (!stop)
                add(place + "/stop", "there is no stop \"" + r.stop + "\"");
            else if (kind && !kind->gauged)
                add(place + "/stop", "\"" + r.stop + "\" is not gauged for clearance");
            if (!r.replaces.empty() && !ids.contains(r.replaces))
                add(place + "/replaces", "there is no earlier reading \"" + r.replaces + "\"");
            if (!ids.insert(r.id).second)
                add(place + "/id", "\"" + r.id + "\" is used twice");
            if (r.value_um && !(*r.value_um > 0 && *r.value_um <= mostClearanceReading_um))
                add(place + "/value_um",
                    "must be above 0 and at most 1000 um, is " + formatPlain(*r.value_um, 1));
            if (!(r.u_um >= 0 && r.u_um <= 100))
                add(place + "/u_um", "must be 0 to 100 um");
            if (!(r.station >= 1 && r.station <= 9))
                add(place + "/station", "must be 1 to 9");
            for (const auto &[key, t] : { std::pair("housing_temp_c", r.housing_c),
                                          std::pair("journal_temp_c", r.journal_c) })
                if (!(t >= -40 && t <= 200))
                    add(place + "/" + key, "must be -40 to 200 C, is " + formatPlain(t, 1));
        }
    }

    void proofs()
    {
        std::set<std::string> ids;
        for (size_t i = 0; i < m_build.proofs.size(); ++i) {
            const Proof &p = m_build.proofs[i];
            const std::string place = "/proofs/" + std::to_string(i);
            if (!ids.insert(p.id).second)
                add(place + "/id", "\"" + p.id + "\" is used twice");
            if (!m_build.engine.find(p.stop))
                add(place + "/stop", "there is no stop \"" + p.stop + "\"");
            if (p.aspect != "size" && p.aspect != "clean" && p.aspect != "flow")
                add(place + "/aspect", "must be size, clean or flow, is \"" + p.aspect + "\"");
            if (p.verdict != "proven" && p.verdict != "look_again" && p.verdict != "hold")
                add(place + "/verdict",
                    "must be proven, look_again or hold, is \"" + p.verdict + "\"");
        }
    }

    const Build &m_build;
    std::set<std::string> m_nodes;
    std::vector<Error> m_errors;
};

} // namespace

std::vector<Error> validateBuild(const Build &build)
{
    return Checker(build).run();
}

} // namespace mildpath
