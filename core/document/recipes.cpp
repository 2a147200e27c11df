// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/recipes.h"

#include "circuit/elementtypes.h"
#include "quantity/rounding.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

struct KindRecipe
{
    StopKind kind;
    StopForm form;
    std::string_view name;
};

constexpr std::array<KindRecipe, 23> recipes { {
    { StopKind::Tank, StopForm::Fixed, "Oil tank" },
    { StopKind::Pickup, StopForm::Fixed, "Sump & pickup" },
    { StopKind::Scavenge, StopForm::Bare, "Scavenge stages" },
    { StopKind::Pump, StopForm::Fixed, "Pump" },
    { StopKind::Relief, StopForm::Fixed, "Relief valve" },
    { StopKind::Line, StopForm::Inline, "External line" },
    { StopKind::Cooler, StopForm::Inline, "Oil cooler" },
    { StopKind::Filter, StopForm::Inline, "Filter" },
    { StopKind::Gallery, StopForm::Fixed, "Main gallery" },
    { StopKind::Main, StopForm::Fixed, "Main" },
    { StopKind::BigEnd, StopForm::Fixed, "Big-end" },
    { StopKind::SmallEnd, StopForm::Bare, "Small ends" },
    { StopKind::BalanceShaft, StopForm::Branch, "Balance shaft" },
    { StopKind::Idler, StopForm::Branch, "Idler" },
    { StopKind::CamBearing, StopForm::Branch, "Cam bearing" },
    { StopKind::Rocker, StopForm::Branch, "Rocker shaft" },
    { StopKind::Lifter, StopForm::Branch, "Lifters" },
    { StopKind::Jet, StopForm::Branch, "Cooling jets" },
    { StopKind::Chain, StopForm::Branch, "Chain jet" },
    { StopKind::Tensioner, StopForm::Branch, "Tensioner" },
    { StopKind::Phaser, StopForm::Branch, "Cam phaser" },
    { StopKind::Turbo, StopForm::Branch, "Turbocharger" },
    { StopKind::Plug, StopForm::Bare, "Plug" },
} };

const KindRecipe *recipeOf(StopKind kind)
{
    for (const KindRecipe &r : recipes)
        if (r.kind == kind)
            return &r;
    return nullptr;
}

} // namespace

RecipeScale scaleOf(const Build &build)
{
    RecipeScale out;
    const Engine &e = build.engine;
    if (e.bore_mm > 0)
        out.bore = e.bore_mm / 91.4;
    else if (e.cylinders > 0 && e.displacement_l > 0)
        out.bore = std::cbrt(4e6 * e.displacement_l / (pi * e.cylinders)) / 91.4;
    out.swept_l = displacement_l(build.engine);
    for (const Element &pump : build.circuit.elements)
        if (pump.kind == ElementKind::Pump)
            out.pump = pumpDisplacement_m3(pump) / 6.8e-6;
    return out;
}

Element pipeElement(std::string id, std::string from, std::string to, double d_mm, double l_mm,
                    double k)
{
    return { std::move(id),
             ElementKind::Pipe,
             std::move(from),
             std::move(to),
             { { "d_mm", d_mm }, { "l_mm", l_mm }, { "k", k } },
             {} };
}

Element holeElement(std::string id, std::string from, std::string to, double d_mm, double l_mm,
                    double cd)
{
    return { std::move(id),
             ElementKind::Orifice,
             std::move(from),
             std::move(to),
             { { "d_mm", d_mm }, { "l_mm", l_mm }, { "cd", cd } },
             {} };
}

Element gapElement(std::string id, std::string from, double d_mm, double clearance_um, double l_mm,
                   double eccentricity, double count)
{
    Element e { std::move(id),
                ElementKind::Annulus,
                std::move(from),
                std::string(sumpNode),
                { { "d_mm", d_mm },
                  { "clearance_um", clearance_um },
                  { "l_mm", l_mm },
                  { "ecc", eccentricity } },
                {} };
    if (count > 1)
        e.values["count"] = count;
    return e;
}

double usualGrooveWidth_mm(double width_mm)
{
    return roundedToStep(0.165 * width_mm, 0.1);
}

Element bearingElement(std::string id, std::string from, double d_mm, double width_mm,
                       double clearance_um, double groove_deg)
{
    Element e { std::move(id),
                ElementKind::FilmBearing,
                std::move(from),
                std::string(sumpNode),
                { { "d_mm", d_mm },
                  { "width_mm", width_mm },
                  { "clearance_um", clearance_um },
                  { "groove_deg", groove_deg } },
                {} };
    if (groove_deg > 0)
        e.values["groove_width_mm"] = usualGrooveWidth_mm(width_mm);
    return e;
}

Element squirtHole(std::string id, std::string from, double bore)
{
    Element e = holeElement(std::move(id), std::move(from), std::string(sumpNode),
                            roundedToStep(1.5 * bore, 0.1), 6);
    e.values["duty"] = 0.15;
    return e;
}

StopForm formOf(StopKind kind)
{
    const KindRecipe *r = recipeOf(kind);
    return r ? r->form : StopForm::Fixed;
}

std::string usualName(StopKind kind)
{
    const KindRecipe *r = recipeOf(kind);
    return r ? std::string(r->name) : std::string(wordOf(kind));
}

MadeStop makeBranch(StopKind kind, const std::string &id, const std::string &givenName,
                    const std::string &from, const RecipeScale &scale, int cylinders)
{
    MadeStop out;
    Stop &s = out.stop;
    s.id = id;
    s.kind = kind;
    s.name = givenName.empty() ? usualName(kind) : givenName;
    const std::string sump(sumpNode), node = id + "_in";
    const double b = scale.bore;
    const auto add = [&](Element e) {
        s.elements.push_back(e.id);
        out.elements.push_back(std::move(e));
    };
    const auto point = [&](const std::string &at) { s.points.push_back({ s.name, at }); };
    if (kind == StopKind::Jet) {
        Element jet = holeElement(id + "_hole", from, sump, 1.3 * b, 6);
        jet.kind = ElementKind::Jet;
        jet.values["open_kpa"] = 190;
        jet.values["open_width_kpa"] = 40;
        jet.values["count"] = std::max(1, cylinders);
        add(std::move(jet));
    } else if (kind == StopKind::Chain) {
        add(holeElement(id + "_hole", from, sump, 1.0, 2));
    } else if (kind == StopKind::Tensioner) {
        // A check valve, then what seeps past the plunger, and its vent.
        point(node);
        Element check = holeElement(id + "_check", from, node, 2.5, 2, 0.7);
        check.kind = ElementKind::Check;
        check.values["open_kpa"] = 10;
        check.values["open_width_kpa"] = 10;
        add(std::move(check));
        add(gapElement(id + "_gap", node, 14, 50, 18, 0.7));
        add(holeElement(id + "_vent", node, sump, usualVent_mm, 2));
    } else if (kind == StopKind::Turbo) {
        point(node);
        add(pipeElement(id + "_line", from, node, 5, 500, 3));
        // Floating bushes; smaller ones where the engine is.
        add(holeElement(id + "_bearings", node, sump, scale.swept_l < 1.5 ? 1.2 : 1.6, 2));
    } else if (kind == StopKind::Phaser) {
        point(node);
        add(pipeElement(id + "_feed", from, node, 4, 60, 2.5));
        add(holeElement(id + "_leak", node, sump, 0.7, 4));
    } else if (kind == StopKind::Rocker) {
        point(node);
        add(holeElement(id + "_feed", from, node, 1.6, 6, 0.7));
        add(gapElement(id + "_bushes", node, 17 * b, 65, 11 * b, 0.6, std::max(2, 2 * cylinders)));
    } else if (kind == StopKind::Lifter) {
        point(node);
        add(holeElement(id + "_feed", from, node, 1.8, 4));
        // Out of its oil band at both ends.
        add(gapElement(id + "_bores", node, 22, 40, 10, 0.7, 2 * std::max(2, 2 * cylinders)));
    } else if (kind == StopKind::Idler) {
        // Its shaft stands still: oil comes through it by one hole.
        point(node);
        add(pipeElement(id + "_feed", from, node, 4 * b, 75 * b, 2.3));
        add(holeElement(id + "_hole", node, sump, roundedToStep(2 * b, 0.1), 4));
    } else { // a shaft's bearing
        point(node);
        add(pipeElement(id + "_feed", from, node, 3.5 * b, 75 * b, 2.3));
        Element e = bearingElement(id + "_film", node, 46 * b, 18 * b, std::round(65 * b), 0);
        e.values["hole_mm"] = roundedToStep(2.5 * b, 0.1);
        e.values["load_n"] = 800;
        e.values["speed_ratio"] = kind == StopKind::BalanceShaft ? 2 : 0.5;
        add(std::move(e));
    }
    return out;
}

MadeStop makeInline(StopKind kind, const std::string &id, const std::string &givenName,
                    const std::string &from, const std::string &to, const RecipeScale &scale)
{
    MadeStop out;
    Stop &s = out.stop;
    s.id = id;
    s.kind = kind;
    s.name = givenName.empty() ? usualName(kind) : givenName;
    const double root = std::sqrt(scale.pump);
    const auto add = [&](Element e) {
        s.elements.push_back(e.id);
        out.elements.push_back(std::move(e));
    };
    s.points.push_back({ s.name + " in", from });
    s.points.push_back({ s.name + " out", to });
    if (kind == StopKind::Line) {
        add(pipeElement(id + "_hose", from, to, std::round(13 * root), 800, 3));
    } else if (kind == StopKind::Cooler) {
        // Shut below its opening temperature; oil then takes the short way.
        Element gate { id + "_thermostat",
                       ElementKind::Thermostat,
                       from,
                       id + "_core",
                       { { "d_mm", 12 * root }, { "open_c", 75 }, { "full_c", 90 } },
                       {} };
        add(std::move(gate));
        Element core = pipeElement(id + "_matrix", id + "_core", to, 3.2, 250, 2);
        core.values["count"] = std::round(16 * scale.pump);
        add(std::move(core));
        Element past = holeElement(id + "_past", from, to, 7 * root, 4, 0.7);
        add(std::move(past));
    } else { // a filter
        const std::string mid = id + "_mid";
        Element check = holeElement(id + "_check", from, mid, 11 * root, 0, 0.65);
        check.kind = ElementKind::Check;
        check.values["open_kpa"] = 6;
        check.values["open_width_kpa"] = 6;
        add(std::move(check));
        add({ id + "_media",
              ElementKind::Media,
              mid,
              to,
              { { "permeance_m3", 7e-10 * scale.pump } },
              {} });
        add({ id + "_bypass",
              ElementKind::Relief,
              mid,
              to,
              { { "crack_kpa", 100 },
                { "full_kpa", 180 },
                { "full_area_mm2", 70 * scale.pump },
                { "cd", 0.65 } },
              {} });
    }
    return out;
}

} // namespace mildpath
