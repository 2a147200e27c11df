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
            add("engine", "out", "oil out", Way::Out, Service::Pressure, true,
                stopOf(StopKind::Pump));
        if (away)
            remote(*filter);
        if (const Stop *cooler = m_build.engine.ofKind(StopKind::Cooler); cooler && away) {
            add("cooler", "a", "one end", Way::Either, Service::Pressure, true, cooler->id);
            add("cooler", "b", "other end", Way::Either, Service::Pressure, true, cooler->id);
        }
        if (away)
            add("engine", "in", "oil in", Way::In, Service::Pressure, true,
                stopOf(StopKind::Gallery));
        if (const Stop *turbo = m_build.engine.ofKind(StopKind::Turbo)) {
            add("engine", "turbo_feed", "turbo feed", Way::Out, Service::Pressure, true, turbo->id);
            add("turbo", "in", "oil in", Way::In, Service::Pressure, true, turbo->id);
            add("turbo", "drain", "drain", Way::Out, Service::Drain, true, turbo->id);
            add("engine", "turbo_drain", "turbo drain", Way::In, Service::Drain, true, turbo->id);
        }
        add("engine", "gauge", "gauge tap", Way::Out, Service::Gauge, false,
            stopOf(StopKind::Gallery));
        if (filter)
            add("filter", "gauge", "gauge tap", Way::Out, Service::Gauge, false, filter->id);
        add("gauge", "in", "connection", Way::In, Service::Gauge, false, stopOf(StopKind::Gallery));
        return std::move(m_out);
    }

private:
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
             Service service, bool required, std::string stop)
    {
        m_out.push_back({ part + "." + port, part, partName(part), std::move(name), way, service,
                          required, std::move(stop) });
    }

    void drySump(const Stop &tank)
    {
        const Stop *scavenge = m_build.engine.ofKind(StopKind::Scavenge);
        const std::string at = scavenge ? scavenge->id : tank.id;
        const int stages
            = scavenge ? std::clamp(static_cast<int>(scavenge->value("stages", 1)), 1, 12) : 1;
        for (int i = 1; i <= stages; ++i) {
            const std::string n = std::to_string(i), word = stages > 1 ? " " + n : "";
            add("pan", "out_" + n, "pickup" + word, Way::Out, Service::Scavenge, true, at);
            add("scavenge", "in_" + n, "in" + word, Way::In, Service::Scavenge, true, at);
        }
        add("scavenge", "out", "out", Way::Out, Service::Scavenge, true, at);
        add("tank", "in", "return", Way::In, Service::Scavenge, true, tank.id);
        add("tank", "out", "to the pump", Way::Out, Service::Suction, true, tank.id);
        add("pump", "in", "in", Way::In, Service::Suction, true, stopOf(StopKind::Pump));
        add("pump", "out", "out", Way::Out, Service::Pressure, true, stopOf(StopKind::Pump));
    }

    void remote(const Stop &filter)
    {
        const FilterBuild &b = filterBuild(m_build.plumbing.filterBuild);
        add("filter", "rim", std::string(b.rim), b.rimIn ? Way::In : Way::Out, Service::Pressure,
            true, filter.id);
        add("filter", "centre", std::string(b.centre), b.rimIn ? Way::Out : Way::In,
            Service::Pressure, true, filter.id);
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
    return std::any_of(ports.begin(), ports.end(), [](const Port &p) { return p.required; });
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
                  [&](const std::string &id) { return !findPort(ports, id); });
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
        if (!findPort(ports, p.capped[i]))
            errors.push_back({ place + "/capped/" + std::to_string(i),
                               "there is no port \"" + p.capped[i] + "\"" });
}

} // namespace mildpath
