// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/engineplan.h"

#include "document/passageedit.h"
#include "document/plansizes.h"
#include "document/recipes.h"
#include "oil/grades.h"
#include "pump/rotor.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

/// The oil of a lifter gallery goes round every lifter's body through its groove: this share of the
/// gallery's section. Own choice, no source.
constexpr double grooveShare = 0.35;
/// What that loses, on the gallery's section: sudden contraction 0.5 (1 − s) and expansion (1 − s)²
/// on the narrow one (Idelchik, "Handbook of Hydraulic Resistance", from memory).
constexpr double lifterBodyLoss = (0.5 * (1 - grooveShare) + (1 - grooveShare) * (1 - grooveShare))
    / (grooveShare * grooveShare);
/// Usual bore across the front, of that of the galleries it joins. Own choice, no source.
constexpr double crossoverShare = 2.0 / 3;

std::string numbered(const std::string &what, int n)
{
    return what + "_" + std::to_string(n);
}

class Planner
{
public:
    explicit Planner(const EnginePlan &plan)
        : m_plan(plan)
        , m_b(plan.bore_mm / 91.4)
        , m_mains(plan.mainCount())
    {
    }

    Build run()
    {
        frame();
        suction();
        pump();
        wayToGallery();
        if (inSeries()) {
            seriesGallery();
        } else {
            if (lifterGalleryFirst())
                for (int bank = 0; bank < m_plan.banks(); ++bank)
                    lifters(bank);
            gallery();
        }
        crank();
        jetsAndDrive();
        if (m_plan.valveGear == "pushrods")
            pushrodGear();
        else
            overheadCams();
        if (m_plan.turbo)
            branch(StopKind::Turbo, "turbo", "Turbocharger",
                   m_plan.turboFeed == "filter" ? "filter_out" : frontNode());
        putUsualLimits(m_out, m_plan);
        putUsualCards(m_out, m_plan);
        if (m_out.engine.ofKind(StopKind::Tank))
            m_out.plumbing.lines = usualLines(m_out);
        m_out.plumbing.capped = usualCaps(m_out);
        return std::move(m_out);
    }

private:
    bool lifterGalleryFirst() const
    {
        return m_plan.order == "lifters_first" && m_plan.valveGear == "pushrods";
    }
    /// The mains hang on a lifter gallery, the other bank's behind it.
    bool inSeries() const
    {
        return m_plan.order == "lifters_series" && m_plan.valveGear == "pushrods";
    }
    /// The node of the gallery a main is fed from.
    std::string galleryNode(int main) const
    {
        if (!inSeries())
            return numbered("g", main);
        // Evenly along the first bank's lifters, which run from the rear to the front.
        const int count = 2 * ofBank();
        const double share = m_mains > 1 ? (main - 1.0) / (m_mains - 1) : 0;
        return numbered(bankId("lifters", 0) + "_l",
                        count - static_cast<int>(std::lround(share * (count - 1))));
    }
    /// From the filter along the first bank's lifters to the front, across, and back along the
    /// other's to its plug.
    void seriesGallery()
    {
        stop(StopKind::Gallery, "main_gallery", "Main gallery").points
            = { { "Gallery rear", numbered("g", 1) } };
        add(pipeElement("gallery_feed", m_supply, numbered("g", 1), bore(13), 120, 2));
        // The gauge sits where such engines have their port: behind the filter, at the rear.
        gaugePort(numbered("g", 1));
        for (int bank = 0; bank < m_plan.banks(); ++bank)
            lifters(bank);
        m_out.circuit.taps["front_main_gallery"] = frontNode();
    }
    void gaugePort(const std::string &from)
    {
        add(pipeElement("rear_tap_drilling", from, "tap_rear", 3, 25, 1.5));
        add(holeElement("rear_tap_seep", "tap_rear", std::string(sumpNode), 0.05, 1, 0.7));
        m_out.circuit.taps["rear_main_gallery"] = "tap_rear";
        m_out.gaugeTap = "rear_main_gallery";
    }
    /// Where the drive's jet and tensioner are fed.
    std::string frontNode() const { return galleryNode(1); }
    Stop &stop(StopKind kind, const std::string &id, const std::string &name)
    {
        Stop s;
        s.id = id;
        s.name = name;
        s.kind = kind;
        m_out.engine.stops.push_back(std::move(s));
        return m_out.engine.stops.back();
    }
    Stop &last() { return m_out.engine.stops.back(); }
    void add(Element e)
    {
        last().elements.push_back(e.id);
        m_out.circuit.elements.push_back(std::move(e));
    }
    void take(MadeStop made)
    {
        m_out.engine.stops.push_back(std::move(made.stop));
        for (Element &e : made.elements)
            m_out.circuit.elements.push_back(std::move(e));
    }
    void branch(StopKind kind, const std::string &id, const std::string &name,
                const std::string &from)
    {
        take(makeBranch(kind, id, name, from, { m_b, m_pump, swept_l() }, m_plan.cylinders));
    }
    std::string bankName(const std::string &what, int bank) const
    {
        if (m_plan.banks() == 1)
            return what;
        return what + (bank == 0 ? " L" : " R");
    }
    std::string bankId(const std::string &what, int bank) const
    {
        return m_plan.banks() == 1 ? what : what + (bank == 0 ? "_left" : "_right");
    }
    int ofBank() const { return m_plan.cylinders / m_plan.banks(); }

    void frame()
    {
        m_out.name = m_plan.name.empty() ? "New build" : m_plan.name;
        Engine &e = m_out.engine;
        const std::string kind = m_plan.layout == "vee" ? "V" : m_plan.layout + "-";
        e.layout = m_plan.layout == "single" ? "single" : kind + std::to_string(m_plan.cylinders);
        e.cylinders = m_plan.cylinders;
        e.bore_mm = m_plan.bore_mm;
        e.stroke_mm = m_plan.stroke_mm;
        e.name = e.layout + ", " + (m_plan.drySump ? "dry" : "wet") + " sump";
        e.block = m_plan.block;
        e.mainCap = m_plan.mainCap;
        e.crank = e.rod = "crank_steel";
        const ShelfOil *oil = findShelfOil(m_plan.oil);
        m_out.oil = { m_plan.oil, oil->oil, oil->hths_mpa_s };
        m_out.use.hotIdle_rpm = m_plan.hotIdle_rpm;
        m_out.use.most_rpm = m_plan.most_rpm;
        m_out.use.highSpeed_rpm = roundedToStep(m_plan.most_rpm / 2, 100);
        // Half a cubic centimetre for every bearing of the crank, more for what else drinks.
        const int drinks = m_mains + m_plan.cylinders;
        double cm3 = 1.5 + 0.45 * drinks * std::pow(m_b, 2.2);
        cm3 += m_plan.jets ? 0.3 * m_plan.cylinders * m_b * m_b : 0;
        cm3 += (m_plan.turbo ? 1.5 : 0) + (m_plan.phasers ? 0.8 * cams() : 0);
        cm3 += m_plan.valveGear == "pushrods" ? 0.35 * m_plan.cylinders * m_b : 0.35 * cams();
        // Light-alloy housings open as they warm.
        const bool iron = m_plan.block == "grey_iron" || m_plan.block == "nodular_iron";
        // Within what pumps of such engines move in a turn, cm³ for each litre; small engines have
        // more bearings to the litre. Common practice, no source.
        const double most = m_plan.cylinders <= 3 ? 8 : 3.5;
        m_pump = std::clamp((iron ? 0.7 : 1.05) * cm3, 0.9 * swept_l(), most * swept_l()) / 6.8;
    }
    double swept_l() const
    {
        return pi / 4 * m_plan.bore_mm * m_plan.bore_mm * m_plan.stroke_mm * m_plan.cylinders
            * 1e-6;
    }
    void dropElement(const std::string &id)
    {
        std::erase_if(m_out.circuit.elements, [&](const Element &e) { return e.id == id; });
        std::erase(last().elements, id);
    }
    int cams() const { return m_plan.banks() * (m_plan.valveGear == "two_cams" ? 2 : 1); }

    void suction()
    {
        const double root = std::sqrt(m_pump);
        std::string source(sumpNode);
        if (m_plan.drySump) {
            // A tank some way above the pump.
            source = "tank";
            m_out.circuit.fixed_kpa["tank"] = 3;
            Stop &scavenge = stop(StopKind::Scavenge, "scavenge", "Pan & scavenge");
            scavenge.values["stages"] = m_plan.cylinders > 4 ? 3 : 2;
            scavenge.values["stage_cm3"] = roundedToStep(m_pump * 6.8 * 0.8, 0.1);
            stop(StopKind::Tank, "tank", "Oil tank").points.push_back({ "Oil tank", "tank" });
            if (m_plan.tankReturns > 1)
                last().values["returns"] = m_plan.tankReturns;
            m_out.plumbing.oldPumpPort = m_plan.oldPumpPort;
        }
        stop(StopKind::Pickup, "sump_pickup", m_plan.drySump ? "Suction hose" : "Sump & pickup")
            .points.push_back({ "Pump inlet", "inlet" });
        add(holeElement("strainer", source, "inlet_tube", roundedToStep(20 * root, 0.5), 0, 0.65));
        add(pipeElement("pickup", "inlet_tube", "inlet", roundedToStep(16 * root, 0.5),
                        m_plan.drySump ? 700 : roundedToStep(220 * m_b, 5), 1.6));
    }

    void pump()
    {
        const double root = std::cbrt(m_pump);
        stop(StopKind::Pump, "pump", "Pump").points.push_back({ "Pump outlet", "pump_out" });
        const bool rotors = m_plan.pump == "gerotor";
        last().values["lobes"] = rotors ? 4 : m_plan.pump == "gear" ? 9 : 7;
        // Rotors of usual proportions that move what such an engine wants.
        const double length_mm = roundedToStep(12 * root, 0.1);
        const double turn_mm3 = roundedToStep(6.8 * m_pump, 0.05) * 1e3;
        const double eccentricity_mm = roundedToStep(
            rotorSetFor(4, turn_mm3 * 1e-9, length_mm * 1e-3)->eccentricity_m * 1e3, 0.01);
        const double tip_mm = roundedToStep(
            turn_mm3 / (2 * pi * length_mm * eccentricity_mm) + 2 * eccentricity_mm, 0.001);
        add({ "pump",
              ElementKind::Pump,
              "inlet",
              "pump_out",
              { { "drive_ratio", 1 },
                { "rotor_length_mm", length_mm },
                { "eccentricity_mm", eccentricity_mm },
                { "inner_tip_mm", tip_mm },
                { "tip_clearance_um", 90 },
                { "end_clearance_um", 76 },
                { "body_clearance_um", 160 },
                { "tip_land_mm", 1 },
                { "end_path_width_mm", roundedToStep(90 * root, 1) },
                { "end_path_length_mm", roundedToStep(6 * root, 0.1) },
                { "body_path_length_mm", roundedToStep(35 * root, 1) },
                { "inlet_port_mm2", roundedToStep(130 * m_pump * m_plan.most_rpm / 6000, 1) },
                { "inlet_port_cd", 0.6 },
                { "release_pressure_abs_kpa", 30 } },
              {} });
        add(pipeElement("pump_passage", "pump_out", "filt_in", bore(12), 140, 2.5));
        if (!rotors) {
            // Gears and vanes do not follow from a gerotor's sizes: what they move is entered.
            Element &e = *m_out.circuit.find("pump");
            e.values["displacement_m3"] = turn_mm3 * 1e-9;
            e.values.erase("eccentricity_mm");
            e.values.erase("inner_tip_mm");
        }
        stop(StopKind::Relief, "relief", "Relief valve");
        const double crack = m_plan.most_rpm > 7000 ? 550 : 470;
        add({ "relief",
              ElementKind::Relief,
              "pump_out",
              m_plan.reliefTo == "sump" ? std::string(sumpNode) : "inlet",
              { { "crack_kpa", crack },
                { "full_kpa", crack + 230 },
                { "full_area_mm2", roundedToStep(60 * m_pump * m_plan.most_rpm / 6000, 1) },
                { "cd", 0.7 } },
              {} });
    }
    double bore(double d_mm) const { return roundedToStep(d_mm * std::sqrt(m_pump), 0.5); }

    /// From the pump to the gallery: lines, cooler, filter.
    void wayToGallery()
    {
        std::string node = "filt_in";
        m_out.circuit.taps["filter_housing"] = node;
        const auto on = [&](StopKind kind, const std::string &id, const std::string &name) {
            const std::string next = id + "_out";
            take(makeInline(kind, id, name, node, next, { m_b, m_pump }));
            node = next;
        };
        if (m_plan.drySump || m_plan.remoteFilter)
            on(StopKind::Line, "line_out", "Line to the filter");
        on(StopKind::Filter, "filter", m_plan.remoteFilter ? "Remote filter" : "Filter");
        if (m_plan.cooler)
            on(StopKind::Cooler, "cooler", "Oil cooler");
        if (m_plan.remoteFilter)
            on(StopKind::Line, "line_back", "Line to the engine");
        m_supply = node;
    }

    /// A chain of passages along the engine with its nodes.
    void chain(const std::string &id, const std::string &prefix, int nodes, double d_mm,
               double step_mm)
    {
        for (int i = 1; i < nodes; ++i)
            add(pipeElement(id + "_" + std::to_string(i) + std::to_string(i + 1),
                            numbered(prefix, i), numbered(prefix, i + 1), d_mm, step_mm,
                            nodes > 8 ? 0.4 : 0.3));
    }

    void gallery()
    {
        stop(StopKind::Gallery, "main_gallery", "Main gallery").points
            = { { "Gallery front", numbered("g", 1) } };
        if (m_mains > 1)
            last().points.push_back({ "Gallery rear", numbered("g", m_mains) });
        add(pipeElement("gallery_feed", m_supply, numbered("g", 1), bore(13), 120, 2));
        chain("gallery", "g", m_mains, bore(12), roundedToStep(100 * m_b, 5));
        gaugePort(numbered("g", m_mains));
        m_out.circuit.taps["front_main_gallery"] = numbered("g", 1);
    }

    void crank()
    {
        const double mainJournal = usualMainJournal_mm(m_plan);
        const double rodJournal = usualRodJournal_mm(m_plan);
        const double width = roundedToStep(20 * m_b, 0.5);
        for (int i = 1; i <= m_mains; ++i) {
            Stop &s = stop(StopKind::Main, numbered("main", i), "Main " + std::to_string(i));
            s.points = { { s.name, numbered("m", i) } };
            s.values["shell_wall_mm"] = 2;
            if (i == (m_mains + 1) / 2) {
                s.values["thrust_width_mm"] = roundedToStep(27 * m_b, 1);
                s.values["run_out_here"] = 1;
            }
            add(pipeElement(numbered("main_feed", i), galleryNode(i), numbered("m", i),
                            roundedToStep(6 * std::sqrt(m_b), 0.5), roundedToStep(55 * m_b, 1),
                            2.3));
            add(bearingElement(numbered("main", i), numbered("m", i), mainJournal, width,
                               std::round(mainJournal / 1.2), 180));
        }
        const int throws = m_mains - 1;
        for (int i = 1; i <= m_plan.cylinders; ++i) {
            const int bay = (i - 1) * throws / m_plan.cylinders + 1;
            // The front half is fed from the main before it, the rear half from the one behind;
            // of an overhung crank there is one main only.
            const int main = throws == 0 || 2 * bay <= throws ? bay : bay + 1;
            Stop &s
                = stop(StopKind::BigEnd, numbered("big_end", i), "Big-end " + std::to_string(i));
            s.points = { { s.name, numbered("b", i) } };
            s.values["shell_wall_mm"] = 1.5;
            Element drill = pipeElement(numbered("crank_drill", i), numbered("m", main),
                                        numbered("b", i), roundedToStep(5 * std::sqrt(m_b), 0.5),
                                        roundedToStep(95 * m_b, 1), 2.5);
            drill.kind = ElementKind::CrankDrilling;
            drill.values["duty"] = 0.5;
            add(std::move(drill));
            Element film = bearingElement(numbered("big_end", i), numbered("b", i), rodJournal,
                                          width, std::round(rodJournal * 1.12), 0);
            film.values["hole_mm"] = roundedToStep(5 * std::sqrt(m_b), 0.5);
            film.values["hole_in_journal"] = 1;
            add(std::move(film));
            if (m_plan.squirtHoles)
                add(squirtHole(numbered("rod_squirt", i), numbered("b", i), m_b));
        }
        stop(StopKind::SmallEnd, "small_ends", "Small ends").values["items"] = m_plan.cylinders;
    }

    void jetsAndDrive()
    {
        const std::string front = frontNode();
        if (m_plan.jets) {
            stop(StopKind::Jet, "cooling_jets", "Cooling jets");
            for (int i = 1; i <= m_plan.cylinders; ++i) {
                const int bay = (i - 1) * (m_mains - 1) / m_plan.cylinders + 1;
                Element e = holeElement(numbered("piston_jet", i), galleryNode(bay),
                                        std::string(sumpNode), roundedToStep(1.3 * m_b, 0.05), 6);
                e.kind = ElementKind::Jet;
                e.values["open_kpa"] = 190;
                e.values["open_width_kpa"] = 40;
                add(std::move(e));
            }
        }
        if (m_plan.chainJet)
            branch(StopKind::Chain, "chain_jet",
                   m_plan.valveGear == "pushrods" ? "Drive jet" : "Chain jet", front);
        if (m_plan.tensioner) {
            branch(StopKind::Tensioner, "tensioner", "Tensioner", front);
            if (m_plan.tensionerVent_mm > 0)
                m_out.circuit.find("tensioner_vent")->values["d_mm"] = m_plan.tensionerVent_mm;
            else
                dropElement("tensioner_vent");
        }
        if (m_plan.balanceShafts)
            branch(StopKind::BalanceShaft, "balance_shaft", "Balance shaft", front);
        for (int i = 1; i <= m_plan.idlers; ++i)
            branch(StopKind::Idler, numbered("idler", i), "Idler " + std::to_string(i), front);
    }

    /// A gallery along a bank with a lifter bore for every valve.
    void lifters(int bank)
    {
        const std::string id = bankId("lifters", bank), p = id + "_l";
        const int count = 2 * ofBank();
        stop(StopKind::Lifter, id, bankName("Lifters", bank));
        const bool series = inSeries(), first = lifterGalleryFirst();
        if (series && bank > 0)
            // Across the front, from the end of the first bank's.
            add(pipeElement("crossover", m_lifterEnd, numbered(p, 1),
                            m_plan.crossover_mm > 0 ? m_plan.crossover_mm
                                                    : bore(10 * crossoverShare),
                            roundedToStep(2.2 * m_plan.bore_mm, 5), 3));
        else if (series || first)
            add(pipeElement(id + "_feed", series ? numbered("g", 1) : m_supply, numbered(p, 1),
                            bore(11), 100, 2));
        else
            add(holeElement(id + "_restrictor", numbered("g", 1), numbered(p, 1),
                            1.8 * std::sqrt(count / 8.0), 4));
        chain(id, p, count, series || first ? bore(10) : 8, roundedToStep(46 * m_b, 1));
        if (series)
            // The oil passes every lifter's body through the groove round it.
            for (const std::string &e : last().elements)
                if (Element *pipe = m_out.circuit.find(e); pipe->kind == ElementKind::Pipe
                    && pipe->to.starts_with(p) && pipe->from.starts_with(p))
                    pipe->values["k"] = roundedToStep(lifterBodyLoss, 0.1);
        for (int i = 1; i <= count; ++i) {
            const std::string at = numbered(p, i), top = numbered(id + "_top", i);
            last().points.push_back({ "Lifter " + std::to_string(bank * count + i), at });
            add(gapElement(numbered(id + "_bore", i), at, 22, 40, 10, 0.7, 2));
            if (m_plan.overhead != "pushrods" && m_plan.solidLifters)
                continue;
            // A hydraulic lifter meters; a solid one wants a restrictor in its place.
            add(holeElement(numbered(id + "_meter", i), at, top,
                            m_plan.solidLifters ? solidMeter_mm : 0.4, 0.8, 0.7));
            add(pipeElement(numbered(id + "_pushrod", i), top, std::string(sumpNode), 2,
                            roundedToStep(210 * m_b, 5), 2.5));
        }
        m_out.circuit.taps[bankId("far_lifter_gallery", bank)] = numbered(p, count);
        m_lifterEnd = numbered(p, count);
        if (series && bank + 1 < m_plan.banks())
            return; // it goes on across the front
        Stop &plug
            = stop(StopKind::Plug, bankId("lifter_plug", bank), bankName("Gallery plug", bank));
        plug.points.push_back({ plug.name, m_lifterEnd });
        plug.values["plug_bore_mm"] = 8;
    }

    /// Camshaft in the block, fed through the mains.
    void pushrodGear()
    {
        camRow("cam_bearings", "Cam bearings", "m", m_mains, 46 * m_b, 1400);
        if (!lifterGalleryFirst() && !inSeries())
            for (int bank = 0; bank < m_plan.banks(); ++bank)
                lifters(bank);
        if (m_plan.overhead == "pushrods")
            return;
        for (int bank = 0; bank < m_plan.banks(); ++bank) {
            const bool throughHead = m_plan.overhead == "head";
            const int cam = bank == 0 ? std::max(1, m_mains - 1) : 2;
            const std::string from
                = throughHead ? numbered("g", 1) : numbered("cam_bearings_c", cam);
            branch(StopKind::Rocker, bankId("rocker_shaft", bank), bankName("Rocker shaft", bank),
                   from);
            if (!throughHead)
                handsOn(numbered("cam_bearings", cam));
            for (const std::string &id : last().elements) {
                Element *e = m_out.circuit.find(id);
                // A hole in the camshaft meets its feed for a part of the turn only.
                if (e->kind == ElementKind::Orifice && !throughHead) {
                    e->values["d_mm"] = 3;
                    e->values["duty"] = 0.15;
                }
                if (e->kind == ElementKind::Annulus)
                    e->values["count"] = 2 * ofBank();
            }
        }
    }

    /// A bush that hands oil on has a groove for it.
    void handsOn(const std::string &bush)
    {
        if (Element *film = m_out.circuit.find(bush)) {
            film->values["groove_deg"] = 360;
            film->values["groove_width_mm"] = usualGrooveWidth_mm(film->value("width_mm"));
        }
    }

    /// A row of cam bearings: each fed from a node of its own, or along a gallery of its own.
    void camRow(const std::string &id, const std::string &name, const std::string &from, int count,
                double journal_mm, double load_n)
    {
        const std::string p = id + "_c";
        stop(StopKind::CamBearing, id, name);
        const bool hollow = from.empty() && m_plan.hollowCams;
        const double d = roundedToStep(journal_mm, 1), width = roundedToStep(0.4 * journal_mm, 0.5);
        for (int i = 1; i <= count; ++i) {
            const std::string at = numbered(p, i);
            last().points.push_back({ "Cam " + std::to_string(++m_cam), at });
            if (!from.empty())
                add(pipeElement(numbered(id + "_feed", i), numbered(from, i), at,
                                roundedToStep(3.5 * std::sqrt(m_b), 0.1),
                                roundedToStep(75 * m_b, 1), 2.3));
            else if (hollow && i > 1) // out of the camshaft; the first is fed by the head
                add(holeElement(numbered(id + "_hole", i), numbered(id + "_bore", i), at,
                                roundedToStep(2.5 * m_b, 0.1), roundedToStep(0.25 * d, 0.5)));
            const bool grooved = m_plan.bushGrooves || (hollow && i == 1);
            Element film = bearingElement(numbered(id, i), at, d, width,
                                          roundedToStep(40 + 0.55 * d, 1), grooved ? 360 : 0);
            if (!grooved)
                film.values["hole_mm"] = roundedToStep(3.5 * std::sqrt(m_b), 0.1);
            film.values["speed_ratio"] = 0.5;
            film.values["load_n"] = load_n;
            add(std::move(film));
        }
        const double step_mm = roundedToStep(90 * m_b, 5);
        if (hollow) {
            add(holeElement(id + "_hole_1", p + "_1", id + "_bore_1", roundedToStep(3.5 * m_b, 0.1),
                            roundedToStep(0.25 * d, 0.5)));
            chain(id + "_bore", id + "_bore", count, roundedToStep(0.4 * d, 0.5), step_mm);
        } else if (from.empty()) {
            chain(id, p, count, 7, step_mm);
        }
    }

    void overheadCams()
    {
        const bool twin = m_plan.valveGear == "two_cams";
        for (int bank = 0; bank < m_plan.banks(); ++bank)
            for (int cam = 0; cam < (twin ? 2 : 1); ++cam) {
                const std::string which = !twin ? "cams" : cam == 0 ? "intake_cam" : "exhaust_cam";
                const std::string id = bankId(which, bank);
                const std::string side = !twin ? "" : cam == 0 ? "Int. " : "Ex. ";
                camRow(id, bankName(!twin ? "Camshaft" : side + "cam", bank), "", ofBank() + 1,
                       26 * m_b, 600);
                // Every head is fed through a restrictor at the front of the gallery.
                Element feed = holeElement(id + "_riser", numbered("g", 1), numbered(id + "_c", 1),
                                           2.2 * std::sqrt(m_b), 40, 0.7);
                last().elements.insert(last().elements.begin(), feed.id);
                m_out.circuit.elements.push_back(std::move(feed));
                if (!m_plan.solidLifters) {
                    const std::string far = numbered(id + "_c", ofBank() + 1);
                    stop(StopKind::Lifter, id + "_adjusters",
                         bankName(twin ? side + "adj." : "Adjusters", bank))
                        .points.push_back({ "Adjusters", far });
                    add(gapElement(id + "_adjuster_gaps", far, 12, 20, 16, 0.7, 2 * ofBank()));
                }
                if (m_plan.phasers)
                    phaser(id, bankName(twin ? side + "phaser" : "Phaser", bank));
            }
    }

    /// At the end of its camshaft's gallery, or fed by itself through a screen of its own.
    void phaser(const std::string &cam, const std::string &name)
    {
        const std::string id = cam + "_phaser";
        if (m_plan.phaserFeed != "own") {
            branch(StopKind::Phaser, id, name, numbered(cam + "_c", ofBank() + 1));
            const std::string bush = numbered(cam, ofBank() + 1);
            // Its groove leaves the small bush two lands: it is wider, to bear as much.
            if (Element *film = m_out.circuit.find(bush))
                film->values["width_mm"] = roundedToStep(1.6 * film->value("width_mm"), 0.5);
            handsOn(bush);
            return;
        }
        branch(StopKind::Phaser, id, name, id + "_clean");
        // As much open section as the drilling behind it.
        Element screen = holeElement(id + "_screen", frontNode(), id + "_clean", 4, 0, 0.65);
        last().elements.insert(last().elements.begin(), screen.id);
        m_out.circuit.elements.push_back(std::move(screen));
    }

    EnginePlan m_plan;
    double m_b;
    int m_mains;
    double m_pump = 1;
    int m_cam = 0;
    std::string m_supply, m_lifterEnd;
    Build m_out;
};

} // namespace

Result<Build> planBuild(const EnginePlan &plan)
{
    if (auto ok = checkPlan(plan); !ok)
        return tl::unexpected(ok.error());
    Build out = Planner(plan).run();
    putUsualPassages(out);
    out.sump = usualSump(out);
    if (auto errors = validateBuild(out); !errors.empty())
        return tl::unexpected(errors.front());
    return out;
}

} // namespace mildpath
