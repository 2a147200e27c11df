// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/faultplaces.h"

#include "document/dimensions.h"

#include <algorithm>

namespace mildpath {
namespace {

/// A drilling that only leads to a gauge: what follows it is a seep.
bool leadsToGauge(const Build &build, const Element &e)
{
    return std::any_of(build.circuit.taps.begin(), build.circuit.taps.end(),
                       [&](const auto &tap) { return tap.second == e.to; })
        && std::none_of(build.circuit.elements.begin(), build.circuit.elements.end(),
                        [&](const Element &o) {
                            return o.from == e.to
                                && !(o.kind == ElementKind::Orifice && o.value("d_mm") < 0.2);
                        });
}

} // namespace

std::vector<const Element *> narrowable(const Build &build, const Stop &stop)
{
    std::vector<const Element *> out;
    for (const std::string &id : stop.elements)
        if (const Element *e = build.circuit.find(id); e
            && (e->kind == ElementKind::Pipe || e->kind == ElementKind::Drilling
                || e->kind == ElementKind::Orifice || e->kind == ElementKind::Jet
                || e->kind == ElementKind::CrankDrilling
                || (e->kind == ElementKind::Check && stop.kind == StopKind::Tensioner))
            && !leadsToGauge(build, *e) && e->value("d_mm") >= 0.6
            && !(stop.kind == StopKind::Lifter && e->to == sumpNode)) // a lifter's own pushrod
            out.push_back(e);
    return out;
}

std::vector<const Element *> ofType(const Build &build, const Stop &stop, ElementKind kind)
{
    std::vector<const Element *> out;
    for (const std::string &id : stop.elements)
        if (const Element *e = build.circuit.find(id); e && e->kind == kind)
            out.push_back(e);
    return out;
}

std::vector<const Element *> jetsOf(const Build &build, const Stop &stop)
{
    std::vector<const Element *> out = ofType(build, stop, ElementKind::Jet);
    if (out.empty())
        for (const Element *e : ofType(build, stop, ElementKind::Orifice))
            if (e->to == sumpNode)
                out.push_back(e);
    return out;
}

const Element *lostJet(const Build &build, const Stop &stop, int item)
{
    const auto all = jetsOf(build, stop);
    const size_t i = item > 0 ? static_cast<size_t>(item) : all.size();
    return i >= 1 && i <= all.size() ? all[i - 1] : nullptr;
}

std::vector<PlugEnd> endsOf(const Build &build, const Stop &stop)
{
    if (stop.kind == StopKind::Plug) {
        if (stop.points.empty())
            return {};
        return { { stop.name, stop.points.front().node, plugBore_mm(build, stop).value_or(8) } };
    }
    std::vector<const Element *> pipes;
    for (const Element *e : narrowable(build, stop))
        if (e->kind != ElementKind::Orifice)
            pipes.push_back(e);
    if (pipes.empty())
        return {};
    const double bore = pipes.back()->value("d_mm");
    return { { "front", pipes.front()->to, bore }, { "rear", pipes.back()->to, bore } };
}

} // namespace mildpath
