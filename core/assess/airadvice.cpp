// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/air.h"

#include "assess/figuremarks.h"
#include "document/logbook.h"
#include "rules/rules.h"
#include "sump/gas.h"

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
    const Stop *filter = build.engine.ofKind("filter");
    if (!filter)
        return out;
    std::set<std::string> own(filter->elements.begin(), filter->elements.end());
    std::vector<std::string> next;
    for (const std::string &id : filter->elements)
        if (const Element *e = build.circuit.find(id); e && e->type == "media")
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

SenderPlace panPlace(const Build &build, const Assessment &a)
{
    const bool tank = build.engine.ofKind("tank") != nullptr;
    const Stop *stop = build.engine.ofKind(tank ? "tank" : "pickup");
    SenderPlace p { stop ? stop->id : "",
                    tank ? "tank, low at the side" : "bowl of the pan, at the side", Mark::Proven };
    p.idle_m3_s = a.hotIdle.pumpFlow_m3_s - a.hotIdle.reliefFlow_m3_s;
    p.fast_m3_s = a.highSpeed.pumpFlow_m3_s - a.highSpeed.reliefFlow_m3_s;
    p.why = "all the oil passes; over the settled dirt, under the lowest running level";
    const AirLevel *running = a.air.level("running");
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

std::optional<FillAdvice> fillAdvice(std::optional<double> fill_l, const AirReport &air)
{
    if (!fill_l || !air.window)
        return std::nullopt;
    const double m3 = *fill_l * 1e-3;
    const FillWindow &w = *air.window;
    const auto litres = [](double v) { return asVolume(v * 1e3); };
    if (!w.feasible())
        return FillAdvice { Mark::LookAgain,
                            { "fill.none",
                              "No fill level works: {0} requires {1}, {2} allows {3}. Another pan, "
                              "pickup or use",
                              { air.leastName, litres(w.least_m3), air.mostName,
                                litres(w.most_m3) } } };
    if (m3 < w.least_m3)
        return FillAdvice { Mark::LookAgain,
                            { "fill.more",
                              "{0} more: {1} requires {2}",
                              { litres(w.least_m3 - m3), air.leastName, litres(w.least_m3) } } };
    if (m3 > w.most_m3)
        return FillAdvice { Mark::LookAgain,
                            { "fill.less",
                              "{0} less: {1} allows {2}",
                              { litres(m3 - w.most_m3), air.mostName, litres(w.most_m3) } } };
    return FillAdvice { Mark::Proven,
                        { "fill.fine",
                          "Fill is fine: {0} above minimum, {1} below maximum",
                          { litres(m3 - w.least_m3), litres(w.most_m3 - m3) } } };
}

Mark markOf(const AirReport &air)
{
    if (const AirRow *leads = air.leading())
        return markOf(air, *leads);
    return doneMark(std::none_of(air.rows.begin(), air.rows.end(),
                                 [](const AirRow &row) { return row.state == AirState::Unknown; }));
}

Mark markOf(const AirCase &c, bool gapKnown)
{
    if (!gapKnown)
        return Mark::NotDone;
    switch (uncoveringState(c.submergence_m, c.wanted.dip_m, c.wanted.required_m)) {
    case AirState::Low:
        return c.clearance_m < c.wind.allowance_m ? Mark::LookAgain : Mark::Proven;
    case AirState::Watch:
        return Mark::LookAgain;
    default:
        // On the level it holds the start; in a turn it wants another look.
        return c.accel_g == 0 ? Mark::Hold : Mark::LookAgain;
    }
}

Mark markOf(const AirReport &air, const AirRow &row)
{
    switch (row.state) {
    case AirState::Low:
        return Mark::Proven;
    case AirState::Watch:
        return Mark::LookAgain;
    case AirState::Unknown:
        return Mark::NotDone;
    case AirState::High:
        break;
    }
    const auto under = [&](const char *id) {
        const AirCase *c = air.find(id);
        return c && c->clearance_m < 0;
    };
    const bool dips = row.id == "windage" && (under("running") || under("idle"));
    const bool bare = row.id == "vortex"; // on the level
    return dips || bare || row.contribution == "coolant" || row.id == "gasket" ? Mark::Hold
                                                                               : Mark::LookAgain;
}

std::vector<Finding> airFindings(const Build &build, const AirReport &air)
{
    std::vector<Finding> out;
    const Stop *stop = build.engine.ofKind(build.engine.ofKind("tank") ? "tank" : "pickup");
    const std::string at = stop ? stop->id : "";
    const auto add = [&](const std::string &id, Mark mark, Phrase text, Phrase action) {
        out.push_back({ "air_" + id + (at.empty() ? "" : "@" + at), mark, at, std::move(text),
                        std::move(action) });
    };
    if (air.problem && air.problem->place.ends_with("fill_l") && build.sump.own("fill_l"))
        add("overflow", Mark::Hold, { "", "The pan overflows: {0}", { air.problem->message } },
            "Look at the fill and the section");
    for (const AirRow &r : air.rows) {
        // Ring and gasket are judged where they are fitted.
        if (r.state != AirState::High || r.id == "oring" || r.id == "gasket")
            continue;
        add(r.id, markOf(air, r), named(r.name, joinedBy({ r.quantity, r.reason }, "{*|; }")),
            r.remedy);
    }
    if (const auto advice = fillAdvice(build.sump.own("fill_l"), air);
        advice && advice->mark != Mark::Proven)
        add("fill", advice->mark, "Fill outside its window", advice->text);
    return out;
}

CircuitChange withGas(double share)
{
    return [share](Circuit &circuit, Oil &) -> Result<void> {
        if (!(share >= 0 && share <= mostGasShare))
            return fail("share", "must be 0 to " + formatPlain(mostGasShare, 1));
        for (Element &e : circuit.elements)
            if (e.type == "pump") {
                e.values["suction_air_fraction"] = share;
                return {};
            }
        return fail("pump", "there is no pump");
    };
}

Result<GasEffect> gasEffect(const Build &build, const Assessment &a, double share)
{
    auto with = OperatingModel::make(build, a.sizes, build.use.hotOil_c, withGas(share));
    if (!with)
        return tl::unexpected(with.error());
    const auto fast = with->at(build.use.highSpeed_rpm);
    if (!fast)
        return tl::unexpected(fast.error());
    const auto idle = with->at(build.use.hotIdle_rpm);
    if (!idle)
        return tl::unexpected(idle.error());
    GasEffect out {
        share, a.hotIdle.gauge, idle->gauge, a.highSpeed.gauge, fast->gauge, 0, 0, 1, 1
    };
    out.flowBefore_m3_s = a.highSpeed.pumpFlow_m3_s;
    out.flowAfter_m3_s = fast->pumpFlow_m3_s;
    const AbsolutePressure inlet { atmosphere_pa }, gauge { atmosphere_pa + fast->gauge.value_pa };
    const double rho = build.oil.oil.rho15_kg_m3, hot = build.use.hotOil_c;
    out.stiffness = aeratedOil(share, inlet, 1, oilModulus_pa, rho, hot).modulus_pa / oilModulus_pa;
    out.stiffnessAtGauge
        = aeratedOil(shareAt(share, inlet, gauge), gauge, 1, oilModulus_pa, rho, hot).modulus_pa
        / oilModulus_pa;
    return out;
}

std::vector<SenderPlace> senderPlaces(const Build &build, const Assessment &a)
{
    std::vector<SenderPlace> out;
    if (a.unsolved || a.forecast.empty())
        return out;
    out.push_back(panPlace(build, a));
    const std::set<std::string> clean = cleanNodes(build);
    for (const auto &[tap, node] : build.circuit.taps) {
        SenderPlace p { stopAt(build, node), tapName(build, tap), Mark::Proven };
        p.idle_m3_s = flowAt(build, a.hotIdle, node);
        p.fast_m3_s = flowAt(build, a.highSpeed, node);
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
