// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/plumbing.h"

#include "document/document.h"

#include <algorithm>
#include <array>
#include <set>

namespace mildpath {
namespace {

constexpr std::array<FilterBuild, 4> builds { {
    { "spin_on", "spin-on can", "ring of holes", "centre thread", true,
      "In by the ring of holes, whose rubber keeps it from draining; out by the centre" },
    { "cartridge", "cartridge, outside to inside", "outer chamber", "centre tube", true,
      "In around the pleats, through them, out by the centre tube" },
    { "inside_out", "cartridge, inside to outside", "outer chamber", "centre tube", false,
      "In by the centre tube, through the pleats, out around them" },
    { "arrow", "in-line, with an arrow", "tail of the arrow", "tip of the arrow", true,
      "The arrow on the body points the way of the oil" },
} };

class PortList
{
public:
    explicit PortList(const Build &build)
        : m_build(build)
    {
    }

    std::vector<Port> run()
    {
        const Stop *tank = m_build.engine.ofKind(StopKind::Tank);
        const Stop *filter = m_build.engine.ofKind(StopKind::Filter);
        const bool away = filter && filterIsAway(m_build);
        if (tank)
            drySump(*tank);
        else if (away)
            add("engine", "out", "oil out", Way::Out, Service::Pressure, PortNeed::Line,
                stopOf(StopKind::Pump));
        if (away)
            remote(*filter);
        if (const Stop *cooler = m_build.engine.ofKind(StopKind::Cooler); cooler && away) {
            add("cooler", "a", "one end", Way::Either, Service::Pressure, PortNeed::Line,
                cooler->id);
            add("cooler", "b", "other end", Way::Either, Service::Pressure, PortNeed::Line,
                cooler->id);
        }
        if (away)
            add("engine", "in", "oil in", Way::In, Service::Pressure, PortNeed::Line,
                stopOf(StopKind::Gallery));
        if (m_build.plumbing.oldPumpPort)
            add("engine", "old_pump", "old pump's port", Way::Out, Service::Pressure, PortNeed::Cap,
                stopOf(StopKind::Gallery));
        if (const Stop *turbo = m_build.engine.ofKind(StopKind::Turbo)) {
            const auto fitted = [&](const char *part, const char *port, const char *name, Way way,
                                    Service service) {
                add(part, port, name, way, service, PortNeed::Line, turbo->id);
            };
            fitted(fedAtFilter(*turbo) ? "filter" : "engine", "turbo_feed", "turbo feed", Way::Out,
                   Service::Pressure);
            fitted("turbo", "in", "oil in", Way::In, Service::Pressure);
            fitted("turbo", "drain", "drain", Way::Out, Service::Drain);
            fitted("engine", "turbo_drain", "turbo drain", Way::In, Service::Drain);
        }
        add("engine", "gauge", "gauge tap", Way::Out, Service::Gauge, PortNeed::Nothing,
            stopOf(StopKind::Gallery));
        if (filter) {
            add("filter", "gauge", "gauge tap", Way::Out, Service::Gauge, PortNeed::Nothing,
                filter->id);
            for (int i = 1; i <= std::clamp(m_build.plumbing.spares, 0, 4); ++i)
                add("filter", "spare_" + std::to_string(i), "spare port " + std::to_string(i),
                    Way::Out, Service::Pressure, PortNeed::LineOrCap, filter->id);
        }
        add("gauge", "in", "connection", Way::In, Service::Gauge, PortNeed::Nothing,
            stopOf(StopKind::Gallery));
        return std::move(m_out);
    }

private:
    /// Whether a turbocharger's oil leaves the way at the filter's clean side.
    bool fedAtFilter(const Stop &turbo) const
    {
        const Stop *filter = m_build.engine.ofKind(StopKind::Filter);
        const Element *feed
            = turbo.elements.empty() ? nullptr : m_build.circuit.find(turbo.elements.front());
        return filter && feed && !filter->points.empty()
            && feed->from == filter->points.back().node;
    }
    std::string stopOf(StopKind kind) const
    {
        const Stop *s = m_build.engine.ofKind(kind);
        return s ? s->id : "";
    }
    static std::string partName(const std::string &part)
    {
        static const std::map<std::string, std::string> names {
            { "engine", "Engine" },      { "filter", "Filter head" },      { "cooler", "Cooler" },
            { "tank", "Tank" },          { "pump", "Pressure stage" },     { "pan", "Pan" },
            { "turbo", "Turbocharger" }, { "scavenge", "Scavenge stage" }, { "gauge", "Gauge" },
        };
        return names.at(part);
    }
    void add(const std::string &part, const std::string &port, std::string name, Way way,
             Service service, PortNeed need, std::string stop)
    {
        m_out.push_back({ part + "." + port, part, partName(part), std::move(name), way, service,
                          need, std::move(stop) });
    }

    void drySump(const Stop &tank)
    {
        const Stop *scavenge = m_build.engine.ofKind(StopKind::Scavenge);
        const std::string at = scavenge ? scavenge->id : tank.id;
        const int stages
            = scavenge ? std::clamp(static_cast<int>(scavenge->value("stages", 1)), 1, 12) : 1;
        for (int i = 1; i <= stages; ++i) {
            const std::string n = std::to_string(i), word = stages > 1 ? " " + n : "";
            add("pan", "out_" + n, "pickup" + word, Way::Out, Service::Scavenge, PortNeed::Line,
                at);
            add("scavenge", "in_" + n, "in" + word, Way::In, Service::Scavenge, PortNeed::Line, at);
        }
        // One pipe brings all stages' oil back, or each of two its own; what is not used is
        // plugged.
        const bool two = tank.value("returns", 1) > 1;
        const PortNeed need = two ? PortNeed::LineOrCap : PortNeed::Line;
        for (int i = 1; i <= (two ? 2 : 1); ++i) {
            const std::string tail = i > 1 ? "_2" : "", word = two ? " " + std::to_string(i) : "";
            add("scavenge", "out" + tail, "out" + word, Way::Out, Service::Scavenge, need, at);
            add("tank", "in" + tail, "return" + word, Way::In, Service::Scavenge, need, tank.id);
        }
        add("tank", "out", "to the pump", Way::Out, Service::Suction, PortNeed::Line, tank.id);
        add("pump", "in", "in", Way::In, Service::Suction, PortNeed::Line, stopOf(StopKind::Pump));
        add("pump", "out", "out", Way::Out, Service::Pressure, PortNeed::Line,
            stopOf(StopKind::Pump));
    }

    void remote(const Stop &filter)
    {
        const FilterBuild &b = filterBuild(m_build.plumbing.filterBuild);
        add("filter", "rim", std::string(b.rim), b.rimIn ? Way::In : Way::Out, Service::Pressure,
            PortNeed::Line, filter.id);
        add("filter", "centre", std::string(b.centre), b.rimIn ? Way::Out : Way::In,
            Service::Pressure, PortNeed::Line, filter.id);
    }

    const Build &m_build;
    std::vector<Port> m_out;
};

std::string freeLineId(const Plumbing &plumbing)
{
    for (size_t n = plumbing.lines.size() + 1;; ++n) {
        const std::string id = "l" + std::to_string(n);
        if (std::none_of(plumbing.lines.begin(), plumbing.lines.end(),
                         [&](const ExternalLine &l) { return l.id == id; }))
            return id;
    }
}

Result<void> checkLine(const std::vector<Port> &ports, const ExternalLine &line)
{
    for (const std::string &end : { line.from, line.to })
        if (!findPort(ports, end))
            return fail(end == line.from ? "from" : "to", "there is no port \"" + end + "\"");
    if (line.from == line.to)
        return fail("to", "a line cannot end where it begins");
    if (!line.rating.empty() && line.rating != "pressure" && line.rating != "suction")
        return fail("rating", "must be pressure or suction, is \"" + line.rating + "\"");
    if (!(line.bore_mm >= 0 && line.bore_mm <= 100))
        return fail("bore_mm", "must be 0 to 100");
    return {};
}

} // namespace

Result<void> putLine(Build &build, ExternalLine line)
{
    if (auto ok = checkLine(portsOf(build), line); !ok)
        return ok;
    if (line.id.empty())
        line.id = freeLineId(build.plumbing);
    auto &lines = build.plumbing.lines;
    const auto it = std::find_if(lines.begin(), lines.end(),
                                 [&](const ExternalLine &l) { return l.id == line.id; });
    if (it == lines.end())
        lines.push_back(std::move(line));
    else
        *it = std::move(line);
    return {};
}

std::string portName(const Build &build, const std::string &id)
{
    const auto ports = portsOf(build);
    const Port *p = findPort(ports, id);
    return p ? p->partName + ", " + p->name : id;
}

const PortCap *Plumbing::capOf(std::string_view port) const
{
    const auto it = std::find_if(capped.begin(), capped.end(),
                                 [&](const PortCap &c) { return c.port == port; });
    return it == capped.end() ? nullptr : &*it;
}

std::vector<PortCap> usualCaps(const Build &build)
{
    std::vector<PortCap> out;
    for (const Port &p : portsOf(build))
        if (p.need == PortNeed::Cap)
            out.push_back({ p.id, {}, {} });
    return out;
}

std::span<const FilterBuild> filterBuilds()
{
    return builds;
}

const FilterBuild &filterBuild(std::string_view id)
{
    for (const FilterBuild &b : builds)
        if (b.id == id)
            return b;
    return builds.front();
}

std::string_view serviceWord(Service service)
{
    switch (service) {
    case Service::Pressure:
        return "pressure";
    case Service::Suction:
        return "suction";
    case Service::Scavenge:
        return "scavenge";
    case Service::Drain:
        return "drain";
    case Service::Gauge:
        return "gauge";
    }
    return "";
}

bool filterIsAway(const Build &build)
{
    return build.plumbing.remoteFilter || build.engine.ofKind(StopKind::Tank)
        || build.engine.ofKind(StopKind::Line);
}

std::vector<Port> portsOf(const Build &build)
{
    return PortList(build).run();
}

const Port *findPort(const std::vector<Port> &ports, std::string_view id)
{
    const auto it
        = std::find_if(ports.begin(), ports.end(), [&](const Port &p) { return p.id == id; });
    return it == ports.end() ? nullptr : &*it;
}

bool hasLines(const Build &build)
{
    const auto ports = portsOf(build);
    return std::any_of(ports.begin(), ports.end(),
                       [](const Port &p) { return p.need != PortNeed::Nothing; });
}

std::vector<ExternalLine> usualLines(const Build &build)
{
    std::vector<ExternalLine> out;
    const auto ports = portsOf(build);
    const auto join = [&](const std::string &from, const std::string &to) {
        const Port *a = findPort(ports, from), *b = findPort(ports, to);
        if (!a || !b)
            return;
        ExternalLine line;
        line.id = "l" + std::to_string(out.size() + 1);
        line.from = from;
        line.to = to;
        if (a->service == Service::Suction || a->part == "pan")
            line.rating = "suction";
        else if (a->service == Service::Pressure || a->part == "scavenge")
            line.rating = "pressure";
        out.push_back(std::move(line));
    };
    for (const Port &p : ports)
        if (p.part == "pan")
            join(p.id, "scavenge.in_" + p.id.substr(p.id.rfind('_') + 1));
    join("scavenge.out", "tank.in");
    join("scavenge.out_2", "tank.in_2");
    join("tank.out", "pump.in");
    const bool rimIn = filterBuild(build.plumbing.filterBuild).rimIn;
    const std::string in = rimIn ? "filter.rim" : "filter.centre";
    const std::string clean = rimIn ? "filter.centre" : "filter.rim";
    join("pump.out", in);
    if (!findPort(ports, "pump.out"))
        join("engine.out", in);
    if (findPort(ports, "cooler.a")) {
        join(clean, "cooler.a");
        join("cooler.b", "engine.in");
    } else {
        join(clean, "engine.in");
    }
    join("engine.turbo_feed", "turbo.in");
    join("filter.turbo_feed", "turbo.in");
    join("turbo.drain", "engine.turbo_drain");
    join("engine.gauge", "gauge.in");
    return out;
}

void dropLooseLines(Build &build)
{
    const auto ports = portsOf(build);
    std::erase_if(build.plumbing.lines,
                  [&](const ExternalLine &l) { return !checkLine(ports, l); });
    std::erase_if(build.plumbing.capped,
                  [&](const PortCap &c) { return !findPort(ports, c.port); });
}

void checkPlumbing(const Build &build, std::vector<Error> &errors)
{
    const std::string place = "/plumbing";
    const Plumbing &p = build.plumbing;
    if (filterBuild(p.filterBuild).id != p.filterBuild)
        errors.push_back(
            { place + "/filter_build", "there is no filter \"" + p.filterBuild + "\"" });
    const auto ports = portsOf(build);
    std::set<std::string_view> ids;
    for (size_t i = 0; i < p.lines.size(); ++i) {
        const std::string at = place + "/lines/" + std::to_string(i);
        if (p.lines[i].id.empty() || !ids.insert(p.lines[i].id).second)
            errors.push_back({ at + "/id", "is empty or used twice" });
        if (const auto ok = checkLine(ports, p.lines[i]); !ok)
            errors.push_back({ at + "/" + ok.error().place, ok.error().message });
    }
    for (size_t i = 0; i < p.capped.size(); ++i)
        if (!findPort(ports, p.capped[i].port))
            errors.push_back({ place + "/capped/" + std::to_string(i) + "/port",
                               "there is no port \"" + p.capped[i].port + "\"" });
    if (p.oldPumpPort && !build.engine.ofKind(StopKind::Tank))
        errors.push_back(
            { place + "/old_pump_port", "an engine with its pump in place has no port to spare" });
}

} // namespace mildpath
