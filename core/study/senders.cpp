// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/senders.h"

#include "document/logbook.h"
#include "quantity/types.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

/// Least flow past a temperature sender that brings it the oil's warmth. Own choice.
constexpr double senderFlow_m3_s = 0.5 / litresPerMinute;

/// Nodes behind the filter: everything its clean side feeds.
std::set<std::string> cleanNodes(const Build &build)
{
    std::set<std::string> out;
    const Stop *filter = build.engine.ofKind(StopKind::Filter);
    if (!filter)
        return out;
    std::set<std::string> own(filter->elements.begin(), filter->elements.end());
    std::vector<std::string> next;
    for (const std::string &id : filter->elements)
        if (const Element *e = build.circuit.find(id); e && e->kind == ElementKind::Media)
            next.push_back(e->to);
    while (!next.empty()) {
        const std::string node = next.back();
        next.pop_back();
        if (node == sumpNode || !out.insert(node).second)
            continue;
        for (const Element &e : build.circuit.elements)
            if (e.from == node && !own.contains(e.id))
                next.push_back(e.to);
    }
    return out;
}

double flowAt(const Build &build, const OperatingResult &at, const std::string &node)
{
    // What comes in goes out: half of all that moves at the node.
    double sum = 0;
    for (const Element &e : build.circuit.elements)
        if (e.from == node || e.to == node)
            if (const auto it = at.elementFlow_m3_s.find(e.id); it != at.elementFlow_m3_s.end())
                sum += std::abs(it->second);
    return sum / 2;
}

std::string stopAt(const Build &build, const std::string &node)
{
    for (const Stop &s : build.engine.stops)
        for (const std::string &id : s.elements)
            if (const Element *e = build.circuit.find(id); e && (e->to == node || e->from == node))
                return s.id;
    return {};
}

SenderPlace panPlace(const Build &build, const Operating &now, const AirReport &air)
{
    const bool tank = build.engine.ofKind(StopKind::Tank) != nullptr;
    const Stop *stop = build.engine.ofKind(tank ? StopKind::Tank : StopKind::Pickup);
    SenderPlace p { stop ? stop->id : "",
                    tank ? "tank, low at the side" : "bowl of the pan, at the side", Mark::Proven };
    p.idle_m3_s = now.hotIdle.pumpFlow_m3_s - now.hotIdle.reliefFlow_m3_s;
    p.fast_m3_s = now.highSpeed.pumpFlow_m3_s - now.highSpeed.reliefFlow_m3_s;
    p.why = "all the oil passes; over the settled dirt, under the lowest running level";
    const AirLevel *running = air.level("running");
    if (const auto lip = build.sump.own("drain_lip_mm"); !tank && running) {
        const double from = lip.value_or(0) + 15, to = running->level_m * 1e3 - 15;
        append(
            p.why,
            { "sender.height", "{0} up", { QuantityRange { asLength(from, 0), asLength(to, 0) } } },
            "{*|: }");
        if (to <= from) {
            p.mark = Mark::LookAgain;
            p.why = "too little oil to keep a sender covered";
        }
    }
    return p;
}

} // namespace

std::vector<SenderPlace> senderPlaces(const Build &build, const Operating &now,
                                      const AirReport &air)
{
    std::vector<SenderPlace> out;
    if (now.unsolved)
        return out;
    out.push_back(panPlace(build, now, air));
    const std::set<std::string> clean = cleanNodes(build);
    for (const auto &[tap, node] : build.circuit.taps) {
        SenderPlace p { stopAt(build, node), tapName(build, tap), Mark::Proven };
        p.idle_m3_s = flowAt(build, now.hotIdle, node);
        p.fast_m3_s = flowAt(build, now.highSpeed, node);
        p.filtered = clean.contains(node);
        if (p.idle_m3_s < senderFlow_m3_s) {
            p.mark = Mark::LookAgain;
            p.why = "next to no oil passes: it reads the metal, and late; good for pressure";
        } else if (!p.filtered) {
            p.mark = Mark::LookAgain;
            p.why = "oil passes, but before the filter: chips can lodge behind a probe";
        } else {
            p.why = "filtered oil passes at every speed; the probe must not block the passage";
        }
        out.push_back(std::move(p));
    }
    return out;
}

} // namespace mildpath
