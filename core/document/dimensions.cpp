// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/dimensions.h"

#include "circuit/elementtypes.h"
#include "document/passageedit.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 2> radii { "r_in_mm", "r_out_mm" };
constexpr double sameSize_mm = 0.005;

/// Journal of the bearing fed from a node.
double journalAt_mm(const Circuit &circuit, const std::string &node)
{
    for (const Element &e : circuit.elements)
        if (isBearing(e) && e.from == node)
            return e.value("d_mm");
    return 0;
}

Element filled(const Build &build, Element element)
{
    if (element.kind == ElementKind::CrankDrilling)
        for (const std::string_view key : radii)
            if (!element.values.contains(std::string(key)))
                if (const auto r = journalRadius_mm(build, element, key))
                    element.values[std::string(key)] = *r;
    return element;
}

const Plug *ledgerPlug(const Build &build, const Stop &stop)
{
    const auto it
        = std::ranges::find_if(build.plugs, [&](const Plug &p) { return p.stop == stop.id; });
    return it == build.plugs.end() ? nullptr : &*it;
}

void settleRadii(Build &build)
{
    for (Element &e : build.circuit.elements)
        for (const std::string_view key : radii) {
            const auto it = e.values.find(std::string(key));
            if (e.kind != ElementKind::CrankDrilling || it == e.values.end())
                continue;
            const auto follows = journalRadius_mm(build, e, key);
            if (follows && std::abs(*follows - it->second) < sameSize_mm)
                e.values.erase(it);
            else if (follows)
                build.twoValues.push_back({ e.id, std::string(key), *follows });
        }
}

void settlePlugs(Build &build)
{
    for (Stop &stop : build.engine.stops) {
        const auto own = stop.values.find("plug_bore_mm");
        if (stop.kind != StopKind::Plug || own == stop.values.end())
            continue;
        for (Plug &p : build.plugs) {
            if (p.stop != stop.id)
                continue;
            // What was reckoned with counts; the ledger's figure is asked about.
            const double counted = own->second, other = p.d_mm;
            stop.values.erase(own);
            p.d_mm = counted;
            if (std::abs(other - counted) >= sameSize_mm)
                build.twoValues.push_back({ p.id, "plug_bore_mm", other });
            break;
        }
    }
}

void settleDisplacement(Build &build)
{
    Engine &e = build.engine;
    if (!(e.bore_mm > 0 && e.stroke_mm > 0) || !(e.displacement_l > 0))
        return;
    const double other = std::exchange(e.displacement_l, 0), follows = displacement_l(e);
    if (std::abs(other - follows) > 0.02 * follows)
        build.twoValues.push_back({ "engine", "displacement_l", other });
}

/// Passages as the circuit would draw them tell which of the ledger's are elements of it.
void settlePassages(Build &build)
{
    constexpr double rounding_mm = 0.26; // passages were drawn to half a millimetre
    const PassageSet usual = usualPassages(build);
    for (Passage &p : build.passages) {
        const Passage *known = findPassage(usual.passages, p.id);
        if (!p.elements.empty() || !known || known->elements.empty())
            continue;
        p.elements = known->elements;
        if (std::abs(p.d_mm - known->d_mm) > rounding_mm)
            build.twoValues.push_back({ p.elements.front(), "d_mm", p.d_mm });
    }
    followCircuit(build);
}

} // namespace

void followCircuit(Build &build)
{
    for (Passage &p : build.passages) {
        if (p.elements.empty())
            continue;
        std::erase_if(p.elements, [&](const std::string &id) { return !build.circuit.find(id); });
        if (!p.elements.empty())
            p.d_mm = build.circuit.find(p.elements.front())->value("d_mm");
    }
}

double displacement_l(const Engine &e)
{
    if (!(e.bore_mm > 0 && e.stroke_mm > 0))
        return e.displacement_l;
    return roundedToStep(pi / 4 * e.bore_mm * e.bore_mm * e.stroke_mm * e.cylinders * 1e-6, 0.001);
}

double stroke_mm(const Engine &e)
{
    return e.stroke_mm > 0 ? e.stroke_mm : e.bore_mm;
}

std::optional<double> plugBore_mm(const Build &build, const Stop &stop)
{
    if (const Plug *p = ledgerPlug(build, stop))
        return p->d_mm;
    return stop.has("plug_bore_mm") ? std::optional(stop.value("plug_bore_mm")) : std::nullopt;
}

std::optional<double> journalRadius_mm(const Build &build, const Element &drilling,
                                       std::string_view key)
{
    const bool in = key == radii[0];
    const double journal = journalAt_mm(build.circuit, in ? drilling.from : drilling.to);
    const double throw_mm = in ? 0 : stroke_mm(build.engine) / 2;
    if (!(journal > 0) || !(in || throw_mm > 0))
        return std::nullopt;
    return throw_mm + journal / 2;
}

Circuit wholeCircuit(const Build &build)
{
    Circuit out = build.circuit;
    for (Element &e : out.elements)
        if (e.kind == ElementKind::CrankDrilling)
            e = filled(build, std::move(e));
    return out;
}

Result<void> checkElementOf(const Build &build, const Element &element)
{
    return checkElement(filled(build, element));
}

void settleOlder(Build &build)
{
    settleRadii(build);
    settlePlugs(build);
    settleDisplacement(build);
    settlePassages(build);
}

} // namespace mildpath
