// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/airjudge.h"

#include "quantity/types.h"

#include <algorithm>

namespace mildpath {

void AirJudge::baffle()
{
    const auto area = m_sump.own("compartment_area_mm2");
    const AirCase *running = m_out.find("running");
    if (!area || !running)
        return;
    const HungSection &s = running->way == PanWay::Along ? *m_along : *m_across;
    const double floor = floorAt_m(s.profile, s.mouth.x_m).value_or(0);
    const double flow = throughput(m_operating.mostSpeed), hot = m_build.use.hotOil_c;
    BaffleTrade out {};
    out.start_m = running->surface.heightAt_m(s.mouth.x_m) - floor;
    out.limit_m = s.mouth.z_m - floor + running->wanted.dip_m;
    const double opening = m_sump.value("baffle_opening_mm2").value_or(0) * 1e-6;
    if (out.start_m > out.limit_m) {
        Compartment c {
            *area * 1e-6, out.start_m, out.limit_m, flow * (1 - *m_sump.value("return_share")), 0,
            out.start_m
        };
        out.shut_s = pickupUncovers(c).time_s;
        c.opening_m2 = opening;
        if (opening > 0) {
            out.open_s = pickupUncovers(c).time_s;
            // Nine tenths of the way back: the rest takes for ever.
            c.outside_m += baffleCosts_m(c.draw_m3_s, opening, c.discharge);
            c.start_m = c.limit_m + 0.9 * (out.start_m - c.limit_m);
            out.refill_s = refills_s(c);
        }
    }
    if (opening > 0) {
        const double through = flow * (1 - *m_sump.value("return_share"));
        out.costs_m = baffleCostsThick_m(through, opening, nuAt(hot));
        out.costsCold_m = baffleCostsThick_m(throughput(m_operating.hotIdle), opening,
                                             nuAt(m_build.use.coldestStart_c));
    }
    m_out.baffle = out;
}

void AirJudge::tank()
{
    if (m_out.problem || !m_solved)
        return;
    const auto mmOf = [&](const char *key) { return m_sump.metres(key); };
    const double d = *mmOf("tank_diameter_mm"), area = pi * d * d / 4, hot = m_build.use.hotOil_c;
    const OperatingResult &most = m_operating.mostSpeed;
    TankReport t {};
    t.high_m = *mmOf("tank_height_mm");
    t.volume_m3 = std::max(
        0.0, volumeIn(hot, m_out.heldRunning_m3) - m_sump.own("held_dry_l").value_or(0) * 1e-3);
    t.level_m = t.volume_m3 / area;
    const double flow = throughput(most);
    if (const auto bore = mmOf("return_bore_mm")) {
        const double v = *m_sump.value("swirl_share") * flow / (pi * *bore * *bore / 4);
        // Oil turning as one: a paraboloid, its middle v²/(4 g) under the mean level.
        t.swirl_m = v * v / (4 * gravity_m_s2);
    }
    t.stay_s = flow > 0 ? t.volume_m3 / flow : 0;
    t.suction_pa = std::max(0.0, -inletGauge_pa(most));
    const auto bore = mmOf("hose_bore_mm"), wall = mmOf("hose_wall_mm");
    if (bore && wall)
        t.folds_pa = hoseFolds_pa(*wall, (*bore + *wall) / 2, *m_sump.value("hose_mpa") * 1e6);
    m_out.tank = t;
    m_out.levels.push_back(
        { "tank", "in the tank, running", t.volume_m3, t.level_m, "over its outlet" });
    const auto outlet = mmOf("tank_outlet_mm");
    if (!outlet)
        return;
    const Submergence want = submergence(flow, *outlet, nuAt(hot));
    const double fixed = m_sump.own("static_holdup_l").value_or(0) * 1e-3 + m_out.heldRunning_m3
        + m_sump.own("held_dry_l").value_or(0) * 1e-3;
    const double e = expansion(hot);
    m_out.window = FillWindow { (area * (t.swirl_m + want.required_m) + fixed) / e,
                                (area * t.high_m + fixed) / e, 0, 0 };
    m_out.edge
        = FillWindow { (area * (t.swirl_m + want.dip_m) + fixed) / e, m_out.window->most_m3, 0, 0 };
    m_out.leastName = "outlet covered, oil turning";
    m_out.mostName = "under the return's mouth";
    m_tankWanted = want;
}

} // namespace mildpath
