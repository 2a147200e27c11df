// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/lines.h"

#include "assess/rules.h"

#include <algorithm>
#include <map>
#include <set>

namespace mildpath {
namespace {

constexpr const char *swappedReason
    = "The filter's check valve shuts against the flow: a gauge on the filter head still shows "
      "pressure, the engine gets none";

class LineJudge
{
public:
    explicit LineJudge(const Build &build)
        : m_build(build)
    {
        m_out.ports = portsOf(build);
        m_out.written = !build.plumbing.lines.empty() || !build.plumbing.capped.empty();
        for (const ExternalLine &l : build.plumbing.lines) {
            m_out.looked += !l.by.empty() || !l.at.empty();
            const Port *a = findPort(m_out.ports, l.from), *b = findPort(m_out.ports, l.to);
            if (a && b)
                m_joined.push_back({ &l, a, b });
        }
    }

    LinesReport run()
    {
        if (!m_out.written)
            return std::move(m_out);
        m_out.trace = traceLines();
        for (const Joint &j : m_joined)
            joint(j);
        swapped();
        openPorts();
        twice();
        way();
        std::stable_sort(m_out.faults.begin(), m_out.faults.end(),
                         [](const LineFault &a, const LineFault &b) {
                             return (a.mark == Mark::Hold) > (b.mark == Mark::Hold);
                         });
        return std::move(m_out);
    }

private:
    struct Joint
    {
        const ExternalLine *line;
        const Port *a, *b;
    };

    static std::string name(const Port &p) { return p.partName + ", " + p.name; }
    void add(const char *id, Mark mark, std::vector<std::string> ports, const std::string &stop,
             std::string text, std::string reason, std::string action)
    {
        m_out.faults.push_back({ id, mark, std::move(ports), stop, std::move(text),
                                 std::move(reason), std::move(action) });
    }

    const Port *otherEnd(const std::string &port) const
    {
        for (const Joint &j : m_joined) {
            if (j.a->id == port)
                return j.b;
            if (j.b->id == port)
                return j.a;
        }
        return nullptr;
    }

public:
    /// The way the pump's oil takes, through parts that have an other side.
    LineTrace traceLines() const
    {
        const Port *at = findPort(m_out.ports, "pump.out");
        if (!at)
            at = findPort(m_out.ports, "engine.out");
        std::set<std::string> met;
        LineTrace t;
        while (at && met.insert(at->id).second) {
            t.ports.push_back(at->id);
            const Port *to = otherEnd(at->id);
            if (!to || !met.insert(to->id).second)
                return t;
            t.ports.push_back(to->id);
            if (to->id == "engine.in") {
                t.reachesEngine = true;
                return t;
            }
            if (to->part == "filter" && to->service == Service::Pressure) {
                t.throughFilter = true;
                t.filterReversed = to->way == Way::Out;
                at = findPort(m_out.ports, to->id == "filter.rim" ? "filter.centre" : "filter.rim");
            } else if (to->part == "cooler") {
                at = findPort(m_out.ports, to->id == "cooler.a" ? "cooler.b" : "cooler.a");
            } else {
                return t;
            }
        }
        return t;
    }

private:
    bool bothSwapped() const { return m_out.trace.filterReversed && m_out.trace.reachesEngine; }

    void joint(const Joint &j)
    {
        const std::vector<std::string> ports { j.a->id, j.b->id };
        const std::string pair = name(*j.a) + " to " + name(*j.b);
        const std::string &stop = j.b->stop.empty() ? j.a->stop : j.b->stop;
        if (j.a->service == Service::Gauge || j.b->service == Service::Gauge) {
            gauge(j, ports);
            return;
        }
        const bool filter = j.a->part == "filter" || j.b->part == "filter";
        const bool twoOuts = j.a->way == Way::Out && j.b->way == Way::Out;
        const bool twoIns = j.a->way == Way::In && j.b->way == Way::In;
        if ((twoOuts || twoIns) && filter && bothSwapped())
            return; // said once, of both lines
        if (twoOuts)
            add("out_to_out", Mark::Hold, ports, stop, "Out to out: " + pair,
                filter ? swappedReason : "Nothing flows between two outlets",
                "Out of one part goes into the next: move one end");
        if (twoIns)
            add("in_to_in", Mark::Hold, ports, stop, "In to in: " + pair,
                "Neither end gives oil, and what should feed them goes nowhere",
                "Out of one part goes into the next: move one end");
        if (twoOuts || twoIns)
            return;
        if (j.a->service != j.b->service) {
            const bool dry = j.a->service == Service::Scavenge || j.b->service == Service::Scavenge;
            add("wrong_stage", Mark::Hold, ports, stop,
                (dry ? "Scavenge and pressure swapped: " : "Wrong service: ") + pair,
                dry ? "A scavenge stage brings foam and no pressure; a pressure stage on the pan "
                      "sucks air"
                    : std::string(serviceWord(j.a->service)) + " joined to "
                        + std::string(serviceWord(j.b->service)),
                "Tank to pressure in, pressure out to filter and engine; pan to scavenge in, "
                "scavenge out to tank");
            return;
        }
        if (j.a->service == Service::Suction || j.a->service == Service::Scavenge)
            vacuum(j, ports);
    }

    void vacuum(const Joint &j, const std::vector<std::string> &ports)
    {
        // What comes back from the scavenge pump stands under pressure, what goes to it under
        // vacuum.
        if (j.a->part == "tank" && j.a->way == Way::In)
            return;
        if (j.b->part == "tank" && j.b->way == Way::In)
            return;
        if (j.line->rating == "suction")
            return;
        const bool scavenge = j.a->service == Service::Scavenge;
        const std::string what = name(*j.a) + " to " + name(*j.b);
        if (j.line->rating.empty())
            add("vacuum_unknown", Mark::LookAgain, ports, j.b->stop,
                "Suction hose, rating not known: " + what,
                "A hose that does not stand vacuum folds when the oil is cold",
                "Read what is printed on it, or look for the wire inside");
        else
            add("no_vacuum", scavenge ? Mark::LookAgain : Mark::Hold, ports, j.b->stop,
                "Suction hose not made for vacuum: " + what,
                scavenge ? "It folds, and the pan fills"
                         : "It folds when the oil is cold or the engine fast: the pump starves "
                           "and the hose looks sound when one stops to look",
                "A hose with a wire inside, made for suction");
    }

    void gauge(const Joint &j, const std::vector<std::string> &ports)
    {
        const bool atGauge = j.a->part == "gauge" || j.b->part == "gauge";
        if (!atGauge || j.a->service != j.b->service) {
            add("wrong_stage", Mark::Hold, ports, j.b->stop,
                "Gauge line joined to a line for oil: " + name(*j.a) + " to " + name(*j.b),
                "A gauge passes no oil: what hangs behind it gets none",
                "Gauge taps go to the gauge and nowhere else");
            return;
        }
        if (j.a->id == "filter.gauge" || j.b->id == "filter.gauge")
            onFilter(ports);
    }

    void onFilter(const std::vector<std::string> &ports)
    {
        const Stop *filter = m_build.engine.ofKind(StopKind::Filter);
        add("gauge_on_filter", Mark::LookAgain, ports, filter ? filter->id : "",
            "The gauge sits on the filter head",
            "There it shows pressure even when the engine gets none",
            "Put the gauge on the engine, at the far end of the main gallery");
    }

    void swapped()
    {
        if (!bothSwapped())
            return;
        const FilterBuild &b = filterBuild(m_build.plumbing.filterBuild);
        const Stop *filter = m_build.engine.ofKind(StopKind::Filter);
        add("lines_swapped", Mark::Hold, { "filter.rim", "filter.centre" },
            filter ? filter->id : "", "The filter's two lines are swapped",
            std::string(swappedReason) + ". " + std::string(b.why),
            "Swap the lines at the filter: oil goes in by the "
                + std::string(b.rimIn ? b.rim : b.centre));
    }

    void openPorts()
    {
        for (const Port &p : m_out.ports) {
            const bool shut = m_build.plumbing.capOf(p.id) != nullptr;
            const bool joined = otherEnd(p.id) != nullptr;
            if (p.need == PortNeed::Cap && joined)
                add("line_on_cap", Mark::Hold, { p.id }, p.stop,
                    "A line where a cap belongs: " + name(p),
                    "The block's passages still lead here: its oil goes past the new pump",
                    "Take the line off, cap the port");
            else if (shut && (p.need == PortNeed::Line || joined))
                add("capped", Mark::Hold, { p.id }, p.stop, "Capped: " + name(p),
                    "A forgotten cap stops the oil as surely as a missing line",
                    joined ? "Take the cap out from under the line"
                           : "Take the cap off, fit the line");
            else if (!shut && !joined && (p.need == PortNeed::Cap || p.need == PortNeed::LineOrCap))
                add("open_port", Mark::Hold, { p.id }, p.stop, "Not capped: " + name(p),
                    p.way == Way::Out ? "Oil stands behind it and would run out there"
                                      : "What the stages bring up would come out there",
                    p.need == PortNeed::Cap ? "Cap it, and look that it is tight"
                                            : "Cap it, or fit its line");
            else if (!shut && !joined && p.need == PortNeed::Line)
                add("open_port", Mark::Hold, { p.id }, p.stop, "No line at: " + name(p),
                    p.way == Way::Out ? "Oil would run out there" : "Nothing comes in there",
                    "Fit the line");
        }
    }

    void twice()
    {
        std::map<std::string, std::vector<const ExternalLine *>> at;
        for (const Joint &j : m_joined) {
            at[j.a->id].push_back(j.line);
            at[j.b->id].push_back(j.line);
        }
        for (const auto &[port, lines] : at)
            if (lines.size() > 1) {
                const Port &p = *findPort(m_out.ports, port);
                add("port_twice", Mark::Hold, { port }, p.stop, "Two lines at: " + name(p),
                    "One port takes one line", "Look again and take the wrong one off the list");
            }
    }

    void way()
    {
        const LineTrace &t = m_out.trace;
        if (t.ports.empty() || !findPort(m_out.ports, "engine.in"))
            return;
        if (t.reachesEngine && !t.throughFilter)
            add("no_filter", Mark::Hold, { "engine.in" }, "", "The lines lead past the filter",
                "Every chip of the pump goes straight to the bearings",
                "Pump out to filter in, filter out to engine in");
        // Where a line is missing or wrong that has been said; a closed ring has not.
        const bool said = std::any_of(m_out.faults.begin(), m_out.faults.end(),
                                      [](const LineFault &f) { return f.mark == Mark::Hold; });
        if (!t.reachesEngine && !said)
            add("no_way", Mark::Hold, { "engine.in" }, "",
                "The pump's oil does not reach the engine",
                "Followed port by port from the pump, the lines do not lead to the engine",
                "Follow each line with the hand, end to end");
    }

    const Build &m_build;
    LinesReport m_out;
    std::vector<Joint> m_joined;
};

} // namespace

LinesReport judgeLines(const Build &build)
{
    return LineJudge(build).run();
}

bool filterReversed(const Build &build)
{
    if (build.plumbing.lines.empty())
        return false;
    const LineTrace t = LineJudge(build).traceLines();
    return t.filterReversed && t.reachesEngine;
}

Mark markOf(const LinesReport &report, const ExternalLine &line)
{
    const Mark seen = line.by.empty() && line.at.empty() ? Mark::NotDone : Mark::Proven;
    return portMark(report, line.to, portMark(report, line.from, seen));
}

Mark portMark(const LinesReport &report, std::string_view port, Mark otherwise)
{
    for (const LineFault &f : report.faults)
        if (std::find(f.ports.begin(), f.ports.end(), port) != f.ports.end())
            otherwise = worse(f.mark, otherwise);
    return otherwise;
}

bool gaugeOnFilterHead(const Build &build)
{
    const auto tap = build.circuit.taps.find(build.gaugeTap);
    const Stop *filter = build.engine.ofKind(StopKind::Filter);
    if (tap == build.circuit.taps.end() || !filter)
        return false;
    for (const std::string &id : filter->elements)
        if (const Element *e = build.circuit.find(id); e && e->kind == ElementKind::Check)
            return e->from == tap->second;
    return false;
}

} // namespace mildpath
