// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/flowevidence.h"

#include "circuit/need.h"

#include "diagnose/diagnosis.h"
#include "document/logbook.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// One outlet that was looked at.
struct Watched
{
    std::string node;
    double need_pa;
    std::string saw;
    size_t condition;
};

Condition conditionOf(const Build &build, const FlowSeen &f)
{
    Condition out { build.use.hotIdle_rpm, f.oil_c.value_or(build.heat.surroundings_c) };
    if (f.means == "drill") {
        out.rpm = *build.start.value("drill_rpm");
        out.byDrill = true;
    } else if (f.means == "starter") {
        out.rpm = *build.start.value("starter_rpm");
    }
    return out;
}

} // namespace

const Element *pumpOf(const Build &build)
{
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::Pump)
            return &e;
    return nullptr;
}

std::vector<const FlowSeen *> pumpedFlows(const Build &build)
{
    std::vector<const FlowSeen *> out;
    for (const FlowSeen *f : standing(build.flows)) {
        const Stop *s = build.engine.find(f->stop);
        if (f->means == "pressure_pot" || !s || s->kind != StopKind::Lifter || s->points.size() < 2)
            continue;
        // The last look at an outlet stands.
        std::erase_if(out, [&](const FlowSeen *earlier) {
            return earlier->stop == f->stop && (f->outlet == 0 || earlier->outlet == f->outlet);
        });
        out.push_back(f);
    }
    return out;
}

double sightChance(std::string_view saw, double ofNeed)
{
    const auto soft = [](double x) { return 1 / (1 + std::exp(-x / softness)); };
    const double comes = soft(ofNeed - comesFrom), none = soft(noneBelow - ofNeed);
    const double p = saw == "flows" ? comes : saw == "dry" ? none : std::max(0.0, 1 - comes - none);
    return lookMistakes + (1 - 3 * lookMistakes) * p;
}

Result<std::vector<double>> flowLogs(const Build &build, const std::vector<GaugedSize> &sizes,
                                     const std::vector<Guess> &guesses,
                                     const std::vector<const FlowSeen *> &flows, Progress *progress)
{
    std::vector<double> out(guesses.size(), 0.0);
    std::vector<Condition> conditions;
    std::vector<Watched> watched;
    Build tapped = build;
    tapped.circuit.taps.clear();
    for (const FlowSeen *f : flows) {
        const Condition c = conditionOf(build, *f);
        const auto at = std::find(conditions.begin(), conditions.end(), c);
        const auto index = static_cast<size_t>(at - conditions.begin());
        if (at == conditions.end())
            conditions.push_back(c);
        const Stop *s = build.engine.find(f->stop);
        const StopNeed *need = stopNeed(s->kind);
        for (size_t i = 0; need && i < s->points.size(); ++i)
            if (f->outlet == 0 || static_cast<size_t>(f->outlet) == i + 1) {
                watched.push_back({ s->points[i].node, need->idle_pa, f->saw, index });
                tapped.circuit.taps[s->points[i].node] = s->points[i].node;
            }
    }
    if (watched.empty())
        return out;
    const auto signatures = Signatures::make(tapped, sizes, guesses, conditions, progress);
    if (!signatures)
        return tl::unexpected(signatures.error());
    const auto &taps = signatures->taps();
    for (size_t g = 0; g < guesses.size(); ++g)
        for (const Watched &w : watched) {
            const auto tap
                = static_cast<size_t>(std::find(taps.begin(), taps.end(), w.node) - taps.begin());
            const double p = signatures->at(g, w.condition, tap);
            if (!std::isnan(p))
                out[g] += together * std::log(sightChance(w.saw, p / w.need_pa));
        }
    return out;
}

} // namespace mildpath
