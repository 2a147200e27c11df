// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/airjudge.h"

#include "kinds/cautions.h"
#include "pump/suction.h"
#include "rules/rules.h"
#include "sump/gas.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

Quantity wholeMm(double m)
{
    return asLength(m * 1e3, 0);
}

AirRow unknown(const char *id, const char *name, const char *contribution, Phrase missing)
{
    return { id, name, AirState::Unknown, "", std::move(missing), "", contribution };
}

AirState worst(AirState a, AirState b)
{
    const AirState both[] = { a, b };
    return overallState(both);
}

} // namespace

void AirJudge::rows()
{
    m_out.rows.push_back(m_dry ? scavengeRow() : windageRow());
    m_out.rows.push_back(uncoveringRow());
    m_out.rows.push_back(vortexRow());
    m_out.rows.push_back(leakRow());
    m_out.rows.push_back(ringRow());
    m_out.rows.push_back(gasketRow());
    m_out.rows.push_back(suctionRow());
    m_out.rows.push_back(residenceRow());
    m_out.rows.push_back(drainbackRow());
    m_out.rows.push_back(crankcaseRow());
    m_out.rows.push_back(foreignRow());
}

AirRow AirJudge::windageRow() const
{
    const char *id = "windage", *name = "Crank in the oil";
    if (m_out.problem)
        return unknown(id, name, "windage", m_out.problem->message);
    if (!m_sump.own("crank_z_mm") || !m_sump.own("sweep_radius_mm"))
        return unknown(id, name, "windage", "crank centre and swept radius are not measured");
    const AirCase *start = m_out.find("start"), *hardest = nullptr;
    for (const AirCase &c : m_out.cases)
        if (&c != start && c.clearance_m < 1e6
            && (!hardest
                || c.clearance_m / c.wind.allowance_m
                    < hardest->clearance_m / hardest->wind.allowance_m))
            hardest = &c;
    if (!hardest)
        return unknown(id, name, "windage", "no forecast, or the throws are not placed");
    AirRow out { id,       name, windageState(hardest->clearance_m, hardest->wind.allowance_m),
                 "",       "",   "",
                 "windage" };
    out.quantity
        = { "air.windage",
            "{0} clear, allowance {1}, {2}",
            { wholeMm(hardest->clearance_m), wholeMm(hardest->wind.allowance_m), hardest->name } };
    out.reason = out.state == AirState::Low ? "wind and ripple do not reach the crank"
                                            : "wind from the crank can reach the surface";
    if (hardest->clearance_m < 0)
        out.reason = { "air.dips",
                       "the crank dips {0} into it and whips it",
                       { wholeMm(-hardest->clearance_m) } };
    if (out.state != AirState::Low)
        out.remedy = "lower the fill, or fit a tray";
    // Before anything is held up it only turns slowly, and not for long.
    if (start && start->clearance_m < 0) {
        out.state = worst(out.state, AirState::Watch);
        append(out.quantity,
               { "air.dips_first",
                 "dips {0} before oil is in circulation",
                 { wholeMm(-start->clearance_m) } });
        if (out.remedy.empty())
            out.remedy = "turn it over slowly first, or lower the fill";
    }
    return out;
}

AirRow AirJudge::scavengeRow() const
{
    const char *id = "windage", *name = "Scavenge and pan";
    const Stop *s = m_build.engine.ofKind(StopKind::Scavenge);
    if (!s || !m_solved || !s->has("stage_cm3"))
        return unknown(id, name, "windage", "the scavenge stages are not measured");
    double ratio = 1;
    for (const Element &e : m_build.circuit.elements)
        if (e.kind == ElementKind::Pump)
            ratio = e.value("drive_ratio");
    const OperatingResult &most = m_operating.mostSpeed;
    const double takes
        = s->value("stages", 1) * s->value("stage_cm3") * 1e-6 * ratio * most.rpm / 60;
    const double share = takes / std::max(1e-9, throughput(most));
    AirRow out { id,
                 name,
                 share < 1                    ? AirState::High
                     : share < scavengeEnough ? AirState::Watch
                                              : AirState::Low,
                 "",
                 "",
                 "",
                 "windage" };
    out.quantity = { "air.scavenge", "stages sweep {0} × what comes down", { asNumber(share, 1) } };
    out.reason = out.state == AirState::Low
        ? "the pan stays dry"
        : "oil comes down as foam: the pan may fill to the crank";
    if (out.state != AirState::Low)
        out.remedy = "larger or more scavenge stages, a tray, pickups at the low corners";
    return out;
}

AirRow AirJudge::uncoveringRow() const
{
    const char *id = "uncovering", *name = m_dry ? "Tank outlet uncovers" : "Pickup uncovers";
    if (m_out.problem)
        return unknown(id, name, "uncovering", m_out.problem->message);
    if (m_dry) {
        if (!m_out.tank || !m_tankWanted)
            return unknown(id, name, "uncovering", "the tank's outlet is not measured");
        const double depth = m_out.tank->level_m - m_out.tank->swirl_m;
        AirRow out {
            id,
            name,
            uncoveringState(depth, m_tankWanted->dip_m, m_tankWanted->required_m),
            { "air.over_outlet",
              "{0} over the outlet, {1} required",
              { wholeMm(depth), wholeMm(m_tankWanted->required_m) } },
            { "air.swirl", "turning oil dips {0} in the middle", { wholeMm(m_out.tank->swirl_m) } },
            "",
            "uncovering"
        };
        if (out.state != AirState::Low)
            out.remedy = "more oil in the tank; a slower return, baffles under it";
        return out;
    }
    if (!pickupGap_m(m_build))
        return unknown(id, name, "uncovering", "mouth to floor of the pickup is not measured");
    // The worst state leads; among its uses the one with least to spare. Shut doors help in a turn
    // that ends, not on a slope and not on the level.
    const bool doorsLast
        = m_out.baffle && m_out.baffle->shut_s && *m_out.baffle->shut_s >= m_build.use.turn_s;
    const auto stateOf = [&](const AirCase &c) {
        const AirState s = uncoveringState(c.submergence_m, c.wanted.dip_m, c.wanted.required_m);
        return s == AirState::High && c.accel_g != 0 && doorsLast ? AirState::Watch : s;
    };
    const auto margin = [](const AirCase &c) { return c.submergence_m - c.wanted.required_m; };
    const AirCase *hardest = nullptr;
    for (const AirCase &c : m_out.cases)
        if (!hardest || stateOf(c) > stateOf(*hardest)
            || (stateOf(c) == stateOf(*hardest) && margin(c) < margin(*hardest)))
            hardest = &c;
    if (!hardest)
        return unknown(id, name, "uncovering", "no forecast: how much the pump draws is not known");
    AirRow out { id, name, stateOf(*hardest), "", "", "", "uncovering" };
    out.quantity = { "air.over_mouth",
                     "{0} over the mouth, draws air below {1}, {2} required",
                     { wholeMm(hardest->submergence_m), wholeMm(hardest->wanted.dip_m),
                       wholeMm(hardest->wanted.required_m) } };
    out.reason = hardest->name;
    const bool bare = hardest->submergence_m < hardest->wanted.dip_m;
    if (hardest->uncovers_g && bare)
        append(out.reason,
               { "air.from_g",
                 "draws air from {0}",
                 { Quantity { *hardest->uncovers_g, Shows::Acceleration } } },
               "{*|: }");
    else if (hardest->wanted_g && out.state == AirState::Watch)
        append(out.reason,
               { "air.short_from_g",
                 "less than required from {0}",
                 { Quantity { *hardest->wanted_g, Shows::Acceleration } } },
               "{*|: }");
    if (bare && hardest->accel_g != 0 && m_out.baffle && m_out.baffle->shut_s)
        append(out.reason,
               { "air.doors",
                 "shut doors hold oil for {0} of {1}",
                 { asTime(*m_out.baffle->shut_s, 1), asTime(m_build.use.turn_s) } });
    if (out.state != AirState::Low)
        out.remedy = hardest->accel_g != 0 ? "more oil at the pickup: trap door, fill"
                                           : "more oil, or a lower pickup";
    const Use &use = m_build.use;
    const bool sideways = !m_across && (use.turn_g > 0 || use.heel_deg > 0);
    const bool lengthways = !m_along && (use.braking_g > 0 || use.accelerating_g > 0);
    if (sideways)
        append(out.reason, "turns are not judged: no section across");
    if (lengthways)
        append(out.reason, "braking is not judged: no section along");
    if ((sideways || lengthways) && out.state == AirState::Low)
        out.state = AirState::Unknown;
    return out;
}

AirRow AirJudge::vortexRow() const
{
    const char *id = "vortex", *name = "Vortex at the pickup";
    const AirCase *running = m_out.find("running");
    if (m_dry && m_out.tank && m_tankWanted)
        return { id,
                 name,
                 uncoveringState(m_out.tank->level_m - m_out.tank->swirl_m, m_tankWanted->dip_m,
                                 m_tankWanted->required_m),
                 { "air.outlet",
                   "outlet requires {0}, has {1}",
                   { wholeMm(m_tankWanted->required_m),
                     wholeMm(m_out.tank->level_m - m_out.tank->swirl_m) } },
                 "the return makes the oil turn; a cross over the outlet stops it",
                 "",
                 "uncovering" };
    if (running && !pickupGap_m(m_build))
        return unknown(id, name, "uncovering", "mouth to floor of the pickup is not measured");
    if (!running)
        return unknown(id, name, "uncovering",
                       m_out.problem ? Phrase(m_out.problem->message) : "no forecast");
    const Submergence &w = running->wanted;
    AirRow out { id,          name, uncoveringState(running->submergence_m, w.dip_m, w.required_m),
                 "",          "",   "",
                 "uncovering" };
    out.quantity = { "air.vortex",
                     "needs {0}, has {1} running",
                     { wholeMm(w.required_m), wholeMm(running->submergence_m) } };
    out.reason = w.viscous ? Phrase("air.thick", "oil is too thick for the {0} water would need",
                                    { wholeMm(w.vortexFree_m) })
                           : Phrase("as thin as water: the full vortex can form");
    if (out.state != AirState::Low)
        out.remedy = "more oil over it, or a wider mouth";
    return out;
}

AbsolutePressure AirJudge::crankcase() const
{
    return { atmosphere_pa + m_sump.value("crankcase_kpa").value_or(0) * 1e3 };
}

AbsolutePressure AirJudge::inletAt(double nodeGauge_pa, double oil_c) const
{
    double lift = 0;
    const AirCase *running = m_out.find("running");
    if (const auto z = m_sump.own("pump_inlet_z_mm"); z && running && !m_dry) {
        const HungSection &s = running->way == PanWay::Along ? *m_along : *m_across;
        lift = *z * 1e-3 - running->surface.heightAt_m(s.mouth.x_m);
    }
    const double p
        = crankcase().value_pa + nodeGauge_pa - oilAt(oil_c).density_kg_m3 * gravity_m_s2 * lift;
    return { std::max(1.0, p) };
}

void AirJudge::noteLeak(double mass_kg_s, AbsolutePressure inlet, double oil_c)
{
    const double swept = m_operating.mostSpeed.sweptFlow_m3_s;
    const double flow = mass_kg_s * gasConstant_j_kgk * kelvin({ oil_c }).value / inlet.value_pa;
    if (swept > 0)
        m_out.leakShare = std::max(m_out.leakShare, std::min(1.0, flow / swept));
}

AirRow AirJudge::leakRow()
{
    const char *id = "leak", *name = "Suction side tight";
    const auto area = m_sump.own("leak_mm2");
    if (!area)
        return unknown(id, name, "suction_leak",
                       { "air.leak_test",
                         "not tested: leak-test at no more than {0}, by regulator, with leak-test "
                         "smoke; no flammable vapour, no ignition source",
                         { asPressure(20e3, 1) } });
    if (!m_solved)
        return unknown(id, name, "suction_leak", "no forecast");
    const OperatingResult &most = m_operating.mostSpeed;
    const AbsolutePressure inlet = inletAt(inletGauge_pa(most), most.oil_c);
    AirRow out { id, name, AirState::Low, "", "", "", "suction_leak" };
    if (*area == 0) {
        out.quantity = "tested tight";
        return out;
    }
    const Quantity hole { *area * 1e-6, Shows::Area, 0, 2 };
    const AirCase *running = m_out.find("running");
    const auto joint = m_sump.own("joint_z_mm");
    double lowest = -1e9; // of the surface at the pickup, over all uses
    if (running) {
        lowest = 1e9;
        for (const AirCase &c : m_out.cases) {
            const HungSection &s = c.way == PanWay::Along ? *m_along : *m_across;
            lowest = std::min(lowest, c.surface.heightAt_m(s.mouth.x_m));
        }
    }
    if (joint && *joint * 1e-3 < lowest) {
        out.quantity = { "air.leak_under", "{0} under the oil", { hole } };
        out.reason = "it draws oil, not air, until the level falls below the joint";
        out.state = AirState::Watch;
        out.remedy = "fix it all the same";
        return out;
    }
    if (const auto leak = airLeak(*area * 1e-6, inlet, crankcase(), most.oil_c)) {
        noteLeak(leak->mass_kg_s, inlet, most.oil_c);
        out.state = leakState(m_out.leakShare);
        out.quantity = { "air.leak",
                         "{0} of air through {1}",
                         { Quantity { leak->free_m3_s, Shows::GasFlow, 0, 1 }, hole } };
        out.reason = { "air.leak_suction",
                       "suction {0} below the crankcase at {1}",
                       { asPressure(crankcase().value_pa - inlet.value_pa), asSpeed(most.rpm) } };
    }
    if (out.state != AirState::Low)
        out.remedy = "fix the joint; nothing behind the pump helps";
    return out;
}

AirRow AirJudge::ringRow()
{
    const char *id = "oring", *name = "Suction O-ring";
    const Stop *p = m_build.engine.ofKind(StopKind::Pickup);
    if (!p || !p->has("oring_section_mm") || !p->has("gland_depth_mm"))
        return unknown(id, name, "suction_leak", "section and gland are not measured");
    const ORing ring { p->value("oring_section_mm") * 1e-3,
                       p->value("gland_depth_mm") * 1e-3,
                       p->value("oring_stretch"),
                       p->value("oring_set"),
                       {} };
    const ORingFit fit = oRingFit(ring);
    AirRow out { id, name, AirState::Low, "", "", "", "suction_leak" };
    out.quantity = { "air.squeeze",
                     ring.compressionSet > 0 ? "squeeze {0} after set" : "squeeze {0}",
                     { asShare(fit.squeezeAfterSet) } };
    if (fit.verdict == "watch" || fit.verdict == "over_squeezed") {
        out.state = AirState::Watch;
        out.reason = fit.verdict == "watch" ? "little is left" : "more than a ring bears for long";
        out.remedy = "a new ring; check ring and gland";
    } else if (fit.verdict == "high" || fit.verdict == "no_seal") {
        out.state = AirState::High;
        out.reason = "the joint may pass air above the oil level";
        out.remedy = "a new ring; a used pickup ring is never used again";
        const double gap = ring.gland_m - fit.sectionAfterSet_m;
        if (gap > 0 && m_solved) {
            // Ring and gland leave a slot all round; a wide one is an orifice.
            const double round = pi * p->value("pickup_bore_mm", 16) * 1e-3;
            const OperatingResult &most = m_operating.mostSpeed;
            const AbsolutePressure inlet = inletAt(inletGauge_pa(most), most.oil_c);
            const auto hole = airLeak(gap * round, inlet, crankcase(), most.oil_c);
            const double slot
                = slotLeak_kg_s(gap, round, ring.section_m, inlet, crankcase(), most.oil_c);
            if (hole)
                noteLeak(std::min(slot, hole->mass_kg_s), inlet, most.oil_c);
        }
    }
    return out;
}

AirRow AirJudge::gasketRow() const
{
    const char *id = "gasket", *name = "Pump gasket and port";
    const Stop *pump = m_build.engine.ofKind(StopKind::Pump);
    const Proof *seen = pump ? standingCheck(m_build, pump->id, "pump_gasket") : nullptr;
    if (!seen)
        return unknown(id, name, "suction_leak", "nobody laid the gasket on the pump's own base");
    if (seen->verdict == "proven")
        return { id, name, AirState::Low, "laid on, ports open", "", "", "suction_leak" };
    return { id,
             name,
             AirState::High,
             "does not fit",
             "a port left open to the air: the pump sucks air for ever",
             "the gasket that belongs to this pump",
             "suction_leak" };
}

AirRow AirJudge::suctionRow()
{
    const char *id = "release", *name = "Suction and dissolved air";
    if (!m_solved)
        return unknown(id, name, "air_release", "no forecast");
    double share = -1;
    SuctionPoint at {};
    for (const SuctionPoint &p : m_operating.suction) {
        const double here = gasAtPressure(inletAt(p.inlet_pa, p.oil_c), crankcase(), p.oil_c,
                                          *m_sump.value("bunsen"), *m_sump.value("release_share"))
                                .share();
        if (here > share) {
            share = here;
            at = p;
        }
    }
    if (share < 0)
        return unknown(id, name, "air_release", "no pump");
    m_out.releaseShare = share;
    const double depth = crankcase().value_pa - inletAt(at.inlet_pa, at.oil_c).value_pa;
    AirRow out { id, name, releaseState(share), "", "", "", "air_release" };
    out.quantity = { "air.suction",
                     "{0} at {1}, {2}",
                     { asPressure(-depth), asTemperature(at.oil_c), asSpeed(at.rpm) } };
    out.reason = out.state == AirState::Low ? "little can come out of solution"
                                            : "air can come out of solution in the suction";
    if (out.state != AirState::Low)
        out.remedy = "a wider, shorter suction; a larger strainer; warm it before speed";
    if (reliefReturnOf(m_build) == ReliefReturn::Unknown)
        append(out.reason,
               "taken as if the relief valve let its oil go to the sump: look which way it goes");
    if (m_out.tank && m_out.tank->folds_pa) {
        const double folds = *m_out.tank->folds_pa;
        const Phrase hose { "air.folds",
                            "a plain hose of this wall folds at {0}",
                            { asPressure(-folds) } };
        if (depth > folds) {
            out.state = AirState::High;
            out.reason = hose;
            out.remedy = "a hose made for suction, with a spiral in it";
        } else {
            append(out.reason, hose);
        }
    }
    return out;
}

AirRow AirJudge::residenceRow() const
{
    const char *id = "residence", *name = "Time for bubbles";
    const AirCase *running = m_out.find("running");
    if (!m_solved || (!running && !m_out.tank))
        return unknown(id, name, "residence",
                       m_out.problem ? Phrase(m_out.problem->message) : "no forecast");
    const double hot = m_build.use.hotOil_c, flow = throughput(m_operating.mostSpeed);
    double volume = 0, depth = 0;
    if (m_out.tank) {
        volume = m_out.tank->volume_m3;
        depth = m_out.tank->level_m;
    } else {
        volume = running->volume_m3;
        depth = m_out.level("running") ? m_out.level("running")->level_m : 0;
    }
    if (!(volume > 0) || !(depth > 0) || !(flow > 0))
        return { id,
                 name,
                 AirState::High,
                 "nothing is left to rest in",
                 "the sump is empty",
                 "more oil",
                 "residence" };
    const double stay = volume / flow;
    const double d
        = escapingBubble_m(depth, stay, nuAt(hot), oilAt(hot).density_kg_m3, 1.2, Bubble::Rigid);
    AirRow out { id, name, bubbleState(d), "", "", "", "residence" };
    out.quantity = { "air.bubbles",
                     "{0} and larger rise in {1}",
                     { asLength(d * 1e3, 1), asTime(stay, 1) } };
    out.reason = out.state == AirState::Low ? "smaller ones go round again"
                                            : "most bubbles go round again";
    if (out.state != AirState::Low)
        out.remedy = "a wider pan or more oil, not a deeper pan";
    return out;
}

AirRow AirJudge::drainbackRow() const
{
    const char *id = "drainback", *name = "Drain-back";
    const auto d = drain(m_build.use.hotOil_c);
    const auto fill = m_sump.own("fill_l");
    if (!d || !fill)
        return unknown(id, name, "drainback", "drain holes and the heads' floor are not measured");
    if (!m_solved)
        return unknown(id, name, "drainback", "no forecast");
    AirRow out { id, name, heldState(m_out.heldRunning_m3, *fill * 1e-3), "", "", "", "drainback" };
    out.quantity = { "air.held",
                     "{0} in circulation at {1}",
                     { asVolume(m_out.heldRunning_m3 * 1e3), asSpeed(m_build.use.most_rpm) } };
    const double supply = headFlow(m_operating.mostSpeed), vents = d->selfVenting_m3_s();
    out.reason = supply > vents
        ? Phrase("air.flood",
                 "the drains flood: {0} come, {1} can pass with gas going up the same holes",
                 { asFlow(supply, 1), asFlow(vents, 1) })
        : Phrase("gas can come up while oil runs down");
    if (supply > vents)
        out.state = worst(out.state, AirState::Watch);
    if (out.state != AirState::Low)
        out.remedy = "larger or more drains, a restrictor to the head, a breather of its own";
    return out;
}

AirRow AirJudge::crankcaseRow() const
{
    const char *id = "crankcase", *name = "Crankcase pressure";
    const auto kpa = m_sump.own("crankcase_kpa");
    if (!kpa)
        return unknown(id, name, "drainback",
                       "not measured: use a water manometer on the dipstick tube");
    const auto d = drain(m_build.use.hotOil_c), free = drain(m_build.use.hotOil_c, false);
    const double head = *kpa * 1e3 / (oilAt(m_build.use.hotOil_c).density_kg_m3 * gravity_m_s2);
    AirRow out { id, name, AirState::Low, "", "", "", "drainback" };
    out.quantity = { "air.crankcase",
                     "{0} carries {1} of oil",
                     { Quantity { *kpa * 1e3, Shows::CasePressure }, wholeMm(head) } };
    if (d && free && m_solved && m_sump.own("fill_l")) {
        const double supply = headFlow(m_operating.mostSpeed);
        const double more = (d->steadyDepth_m(supply) - free->steadyDepth_m(supply)) * d->pool_m2;
        out.state = heldState(more, *m_sump.own("fill_l") * 1e-3);
        out.reason = { "air.crankcase_holds",
                       "it holds {0} more up in the heads",
                       { asVolume(std::max(0.0, more) * 1e3) } };
    } else {
        out.state = AirState::Unknown;
        out.reason = "drain holes and the heads' floor are not measured";
    }
    if (out.state == AirState::Watch || out.state == AirState::High)
        out.remedy = "find the blow-by; breathe the crankcase";
    return out;
}

AirRow AirJudge::foreignRow() const
{
    AirRow out { "foreign",
                 "Coolant or fuel in the oil",
                 worst(foreignState(m_sump.coolant), foreignState(m_sump.fuel)),
                 "",
                 "",
                 "",
                 "coolant" };
    const auto said = [](const std::string &word) { return word.empty() ? "not said" : word; };
    out.quantity = "coolant " + said(m_sump.coolant) + ", fuel " + said(m_sump.fuel);
    if (out.state == AirState::Unknown)
        out.reason = std::string(caution::spoiltOil);
    else if (foreignState(m_sump.coolant) == AirState::High)
        out.reason = "nothing else here holds until the oil is changed";
    if (out.state == AirState::High || out.state == AirState::Watch)
        out.remedy = "find where it comes in; change oil and filter";
    return out;
}

} // namespace mildpath
