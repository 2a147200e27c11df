// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/circuitof.h"

#include "assess/crankfeeds.h"
#include "assess/fits.h"
#include "assess/lines.h"
#include "assess/sizes.h"
#include "bearing/feed.h"
#include "bearing/journalheat.h"
#include "circuit/elementtypes.h"
#include "document/dimensions.h"
#include "pump/relief.h"
#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

std::optional<double> number(const Element &e, const char *key)
{
    const auto it = e.values.find(key);
    return it == e.values.end() ? std::nullopt : std::optional(it->second);
}

void applyFeedHole(const Build &build, const Stop &main, Circuit &circuit)
{
    const Element *drilling = feedDrilling(build, main);
    if (!drilling || !main.has("shell_hole_mm") || !main.has("block_hole_mm"))
        return;
    const HoleOverlap o
        = holeOverlap(main.value("block_hole_mm") * 1e-3, main.value("shell_hole_mm") * 1e-3,
                      main.value("hole_offset_mm") * 1e-3);
    if (o.ofSmaller >= 1)
        return;
    const double d = drilling->value("d_mm") * 1e-3;
    const double open = std::clamp(o.area_m2 / (pi / 4 * d * d), shutHoleSeeps, 1.0);
    Element *e = circuit.find(drilling->id);
    e->values["k"] = e->value("k") + 1 / std::pow(coveredHoleDischarge * open, 2);
}

void applyGroove(const Build &build, const Stop &main, Circuit &circuit)
{
    if (const double bevel_mm2 = main.value("thrust_bevel_mm2"); bevel_mm2 > 0
        && !main.points.empty()
        && (shellGroove_deg(build, main) >= 180 || main.value("journal_groove") > 0)) {
        // The bevel lies at the parting line: only a groove that reaches it brings oil there.
        Element bevel { "oil_bevel@" + main.id,
                        ElementKind::Orifice,
                        main.points.front().node,
                        std::string(sumpNode),
                        { { "d_mm", std::sqrt(4 * bevel_mm2 / pi) }, { "cd", bevelDischarge } },
                        {} };
        circuit.elements.push_back(std::move(bevel));
    }
    if (!grooveEntered(main))
        return;
    const bool inJournal = main.value("journal_groove") > 0;
    const double journals_mm = mainGroove(build, main).journalWidth_m * 1e3;
    for (const std::string &id : main.elements)
        if (Element *e = circuit.find(id); e && isBearing(*e)) {
            // A groove in the journal meets the whole film, like one round the shell.
            e->values["groove_deg"] = inJournal ? 360 : shellGroove_deg(build, main);
            // The film has lands on either side of the wider one.
            if (inJournal)
                e->values["groove_width_mm"]
                    = std::max(shellGroove_deg(build, main) > 0 ? e->value("groove_width_mm") : 0,
                               journals_mm);
            if (e->values["groove_deg"] == 0)
                e->values["hole_mm"] = main.value("shell_hole_mm", e->value("hole_mm"));
        }
}

/// The rods' oil comes through the windows of groove or hole. What a document without a groove says
/// of the time (`duty`) is the window's.
void applyWindows(const Build &build, const Stop &main, Circuit &circuit)
{
    if (main.points.empty())
        return;
    const MainGroove groove = mainGroove(build, main);
    for (Element &e : circuit.elements) {
        if (e.kind != ElementKind::CrankDrilling || e.from != main.points.front().node
            || e.values.contains("window_share"))
            continue;
        const auto said = grooveEntered(main) ? std::nullopt : number(e, "duty");
        feedDrillingBy(e, groove, e.value("r_in_mm") * 1e-3);
        if (said)
            e.values["window_share"] = *said;
    }
}

/// The leak of the real shells.
void applyForms(const std::vector<GaugedSize> &sizes, const PartTemperatures &parts,
                Circuit &circuit)
{
    for (const GaugedSize &s : sizes)
        if (Element *e = s.leak && s.known ? circuit.find(s.element) : nullptr;
            e && e->kind == ElementKind::FilmBearing)
            e->values["form_factor"] = s.leak->factorAt(s.at(parts));
}

/// A film warmer than its oil warms journal and housing by a share of that, and the clearance
/// with them. What was entered of the parts' warmth says it all.
void applyFilmGrowth(const Build &build, const std::vector<GaugedSize> &sizes,
                     const PartTemperatures &parts, Circuit &circuit)
{
    if (build.heat.settledEntered())
        return;
    for (const GaugedSize &s : sizes) {
        Element *e = s.known && s.growth.grows() ? circuit.find(s.element) : nullptr;
        if (!e || e->kind != ElementKind::FilmBearing)
            continue;
        const double share
            = journalWarmthShare(e->value("d_mm") * 1e-3, e->value("width_mm") * 1e-3,
                                 { std::max(1.0, s.at(parts)) * 1e-6 });
        e->values["film_growth_um_per_k"] = share * s.growth.journal_um_per_k
            + housingWarmthShare * (s.growth.housing_um_per_k + s.growth.cap_um_per_k);
    }
}

/// A pump's port is as long as it is wide unless said, and running oil carries some air.
void applyPump(Circuit &circuit)
{
    for (Element &e : circuit.elements) {
        if (e.kind != ElementKind::Pump)
            continue;
        e.values.try_emplace("inlet_port_length_mm", std::sqrt(4 * e.value("inlet_port_mm2") / pi));
        e.values.try_emplace("entrained_air", usualAirShare);
        e.values["displacement_m3"] = pumpDisplacement_m3(e);
    }
}

/// Mean loads of mains and big-ends from the engine, unless a stop states its own.
void applyLoads(const Build &build, Circuit &circuit)
{
    for (const BearingLoad &l : bearingLoads(build, idlePeak_pa(build)))
        for (const std::string &id : build.engine.find(l.stop)->elements)
            if (Element *e = circuit.find(id); e && e->kind == ElementKind::FilmBearing) {
                e->values["load_n"] = l.still_n;
                e->values["load_n_per_krpm2"] = l.perKrpm2_n;
            }
}

void applySpring(const Build &build, Circuit &circuit)
{
    for (const Stop &stop : build.engine.stops) {
        if (stop.kind != StopKind::Relief || stop.elements.empty())
            continue;
        if (const auto setting = springSetting(stop))
            if (Element *e = circuit.find(stop.elements.front()); e && *setting) {
                e->values["crack_kpa"] = (*setting)->crack_pa / 1e3;
                e->values["full_kpa"] = (*setting)->full_pa / 1e3;
            }
    }
}

} // namespace

const Element *feedDrilling(const Build &build, const Stop &main)
{
    if (main.points.empty())
        return nullptr;
    for (const std::string &id : main.elements)
        if (const Element *e = build.circuit.find(id);
            e && e->kind == ElementKind::Pipe && e->to == main.points.front().node)
            return e;
    return nullptr;
}

bool grooveEntered(const Stop &main)
{
    return main.has("groove_deg") || main.has("journal_groove") || main.has("cross_drilled");
}

double idlePeak_pa(const Build &build)
{
    return build.use.combustionPeak_kpa * 1e3;
}

double fullLoadPeakOf_pa(const Build &build)
{
    if (build.use.fullLoadPeak_kpa)
        return *build.use.fullLoadPeak_kpa * 1e3;
    return build.engine.ofKind(StopKind::Turbo) ? fullLoadPeakBoosted_pa : fullLoadPeak_pa;
}

std::vector<BearingLoad> bearingLoads(const Build &build, double peak_pa)
{
    const Engine &e = build.engine;
    std::vector<const Stop *> mains, rods;
    for (const Stop &s : e.stops)
        if (s.kind == StopKind::Main || s.kind == StopKind::BigEnd)
            (s.kind == StopKind::Main ? mains : rods).push_back(&s);
    std::vector<BearingLoad> out;
    const auto own = [&](const Stop &s, double still_n, double perKrpm2_n) {
        if (s.has("load_n"))
            out.push_back({ s.id, s.value("load_n"), 0 });
        else if (still_n > 0)
            out.push_back({ s.id, still_n, perKrpm2_n });
    };
    auto train = crankTrainOf(build);
    if (train)
        train->peakPressure_pa = peak_pa;
    const double still = train ? bigEndMeanLoad_n(*train, 0) : 0;
    const double rise = train ? bigEndMeanLoad_n(*train, 1000) - still : 0;
    for (const Stop *s : rods)
        own(*s, still, rise);
    // Rods lie between the mains, evenly: one a bay in line, two in a V.
    const size_t bays = mains.size() > 1 ? mains.size() - 1 : 1;
    std::vector<double> inBay(bays, 0.0);
    for (size_t i = 0; i < rods.size(); ++i)
        inBay[i * bays / rods.size()] += 1;
    for (size_t i = 0; i < mains.size(); ++i) {
        const double before = i > 0 ? inBay[i - 1] : 0, behind = i < bays ? inBay[i] : 0;
        own(*mains[i], mainMeanLoad_n(before * still, behind * still),
            mainMeanLoad_n(before * rise, behind * rise));
    }
    return out;
}

std::optional<CrankTrain> crankTrainOf(const Build &build)
{
    const Engine &e = build.engine;
    if (e.cylinders < 1 || !(e.bore_mm > 0 || e.displacement_l > 0))
        return std::nullopt;
    CrankTrain train = e.displacement_l > 0 ? squareTrain(e.displacement_l * 1e-3, e.cylinders)
                                            : CrankTrain { e.bore_mm * 1e-3, e.bore_mm * 1e-3 };
    if (e.bore_mm > 0)
        train = { .bore_m = e.bore_mm * 1e-3, .stroke_m = stroke_mm(e) * 1e-3 };
    train.peakPressure_pa = idlePeak_pa(build);
    if (e.reciprocating_g > 0)
        train.reciprocating_kg = e.reciprocating_g * 1e-3;
    if (e.rotating_g > 0)
        train.rotating_kg = e.rotating_g * 1e-3;
    return train;
}

double shellGroove_deg(const Build &build, const Stop &main)
{
    double groove = 360;
    for (const std::string &id : main.elements)
        if (const Element *e = build.circuit.find(id); e && isBearing(*e))
            groove = e->value("groove_deg");
    return main.value("groove_deg", groove);
}

std::optional<Result<ReliefSetting>> springSetting(const Stop &relief)
{
    for (const char *key : { "plunger_d_mm", "spring_rate_n_per_mm", "free_length_mm",
                             "fitted_length_mm", "full_lift_mm" })
        if (!relief.has(key))
            return std::nullopt;
    return reliefSetting({ .plunger_m = relief.value("plunger_d_mm") * 1e-3,
                           .rate_n_per_m = relief.value("spring_rate_n_per_mm") * 1e3,
                           .free_m = relief.value("free_length_mm") * 1e-3,
                           .fitted_m = relief.value("fitted_length_mm") * 1e-3,
                           .shim_m = relief.value("shim_mm") * 1e-3,
                           .uncover_m = relief.value("uncover_mm") * 1e-3,
                           .lift_m = relief.value("full_lift_mm") * 1e-3,
                           .solid_m = relief.value("solid_length_mm") * 1e-3 });
}

Circuit circuitOf(const Build &build, const std::vector<GaugedSize> &sizes,
                  const PartTemperatures &parts)
{
    Circuit out = wholeCircuit(build);
    for (const GaugedSize &s : sizes) {
        const std::string key(findFamily(s.family)->elementKey);
        Element *e = key.empty() || !s.known ? nullptr : out.find(s.element);
        if (!e)
            continue;
        // The running clearance goes in ready; the element's own growth would add to it. A pump
        // with no gap at all is no pump: a micrometre keeps its leak defined.
        const bool pump = e->kind == ElementKind::Pump;
        e->values[key] = std::max(pump ? 1.0 : 0.0, s.at(parts));
        if (isBearing(*e))
            e->values["growth_um_per_k"] = 0;
    }
    for (const Stop &stop : build.engine.stops)
        if (stop.kind == StopKind::Main) {
            applyFeedHole(build, stop, out);
            applyGroove(build, stop, out);
            applyWindows(build, stop, out);
        }
    applyForms(sizes, parts, out);
    applyFilmGrowth(build, sizes, parts, out);
    applyPump(out);
    // As long as nobody knows, the forecast has it at the inlet, and the suction row at the sump.
    if (const ReliefReturn to = reliefReturnOf(build); to != ReliefReturn::AsDrawn)
        leadRelief(out, to == ReliefReturn::Sump);
    applySpring(build, out);
    applyLoads(build, out);
    if (filterReversed(build))
        reverseFilter(build, out);
    return out;
}

ReliefReturn reliefReturnOf(const Build &build)
{
    const auto at = std::ranges::find(reliefReturns, build.use.reliefReturnsTo);
    return at == reliefReturns.end() ? ReliefReturn::AsDrawn
                                     : static_cast<ReliefReturn>(1 + (at - reliefReturns.begin()));
}

bool reliefToSump(const Build &build)
{
    for (const Element &pump : build.circuit.elements)
        if (pump.kind == ElementKind::Pump)
            for (const Element &e : build.circuit.elements)
                if (e.kind == ElementKind::Relief && e.from == pump.to)
                    return e.to == sumpNode;
    return false;
}

void leadRelief(Circuit &circuit, bool toSump)
{
    for (const Element &pump : circuit.elements)
        if (pump.kind == ElementKind::Pump)
            for (Element &e : circuit.elements)
                if (e.kind == ElementKind::Relief && e.from == pump.to)
                    e.to = toSump ? std::string(sumpNode) : pump.from;
}

void reverseFilter(const Build &build, Circuit &circuit)
{
    for (const Stop &stop : build.engine.stops)
        if (stop.kind == StopKind::Filter)
            for (const std::string &id : stop.elements)
                if (Element *e = circuit.find(id);
                    e && (e->kind == ElementKind::Check || e->kind == ElementKind::Relief))
                    std::swap(e->from, e->to);
}

void lengthenRotors(Circuit &circuit, double factor)
{
    for (Element &e : circuit.elements)
        if (e.kind == ElementKind::Pump)
            for (const char *key : { "displacement_m3", "rotor_length_mm" })
                if (const auto at = e.values.find(key); at != e.values.end())
                    at->second *= factor;
}

void stiffenSpring(const Build &build, Circuit &circuit, double by_kpa)
{
    for (const Stop &stop : build.engine.stops)
        if (stop.kind == StopKind::Relief && !stop.elements.empty())
            if (Element *e = circuit.find(stop.elements.front())) {
                e->values["crack_kpa"] += by_kpa;
                e->values["full_kpa"] += by_kpa;
            }
}

Build withStifferSpring(const Build &build, double by_kpa)
{
    Build out = build;
    // The measured spring gives way to the setting it made, so that this can be moved.
    applySpring(build, out.circuit);
    for (Stop &stop : out.engine.stops)
        if (stop.kind == StopKind::Relief && !stop.elements.empty())
            stop.values.clear();
    stiffenSpring(out, out.circuit, by_kpa);
    return out;
}

Build withLongerRotors(const Build &build, double factor)
{
    Build out = build;
    lengthenRotors(out.circuit, factor);
    return out;
}

} // namespace mildpath
