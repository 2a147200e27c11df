// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/growth.h"

#include <cmath>

namespace mildpath {

JournalParts journalPartsOf(const Build &build, const SizeItem &item)
{
    const Engine &engine = build.engine;
    const Family &family = *item.family;
    const auto of = [&](std::string_view material) {
        return expansionOf(build, material).value_or(Expansion {});
    };
    JournalParts p;
    p.part = family.housing;
    p.housing = of(family.housing == HousingPart::Rod ? engine.rod : engine.block);
    p.journal = of(family.shells || family.id == "end_float" ? engine.crank : "crank_steel");
    if (item.stop->kind == StopKind::Main || item.stop->kind == StopKind::BigEnd)
        p.journal_mm = journalOf_mm(build, *item.stop);
    p.shellWall_mm = item.stop->value("shell_wall_mm");
    if (family.id == "main") {
        if (!engine.mainCap.empty())
            p.cap = of(engine.mainCap);
        p.capFraction = engine.mainCapFraction;
        if (const auto whole = expansionOf(build, mainHousing)) {
            p.housing = *whole;
            p.effective = true;
        }
    }
    if (p.journal_mm == 0)
        if (const Element *e = build.circuit.find(item.element))
            p.journal_mm = e->value("d_mm");
    if (family.housing == HousingPart::None)
        p.journal_mm = 0;
    if (family.id == "end_float") {
        p.part = HousingPart::Block;
        p.thrustWidth_mm = item.stop->value("thrust_width_mm");
    }
    return p;
}

double Growth::change_um(const PartTemperatures &t) const
{
    return housing_um_per_k * (housing_c(t) - 20) + cap_um_per_k * (t.cap_c - 20)
        + journal_um_per_k * (t.journal_c - 20);
}

double Growth::spread_um(const PartTemperatures &t) const
{
    return std::abs(spreadHousing_um_per_k * (t.block_c - 20)
                    - spreadCap_um_per_k * (t.cap_c - 20));
}

namespace {

/// End float: along the crank, between the thrust faces; it closes where a bearing opens.
Growth endFloatGrowth(const JournalParts &p)
{
    Growth out;
    out.part = p.part;
    const auto change = [&](double housing_c, double journal_c) {
        return endFloatChange_m(p.thrustWidth_mm * 1e-3, p.housing.per_k, { housing_c },
                                p.journal.per_k, { journal_c })
            * 1e6;
    };
    out.housing_um_per_k = change(21, 20);
    out.journal_um_per_k = change(20, 21);
    out.housingU_um_per_k = p.thrustWidth_mm * 1e3 * p.housing.u_per_k;
    out.journalU_um_per_k = p.thrustWidth_mm * 1e3 * p.journal.u_per_k;
    return out;
}

} // namespace

Growth growthOf(const JournalParts &p, double cold_um)
{
    if (p.thrustWidth_mm > 0)
        return endFloatGrowth(p);
    Growth out;
    out.part = p.part;
    out.effective = p.effective;
    if (p.journal_mm <= 0)
        return out;
    ThermalBearing b { .cold = { cold_um * 1e-6 },
                       .journalDiameter_m = p.journal_mm * 1e-3,
                       .shellWall_m = p.shellWall_mm * 1e-3,
                       .housingExpansion_per_k = p.housing.per_k,
                       .housing = { 20 },
                       .journalExpansion_per_k = p.journal.per_k,
                       .journal = { 20 },
                       .cap = {} };
    const bool mixed = p.cap && !p.effective;
    if (mixed)
        b.cap = CapShare { p.cap->per_k, { 20 }, p.capFraction };
    // The law is linear in each temperature: one kelvin of each part tells it all.
    b.housing = { 21 };
    const ThermalClearance housing = thermalClearance(b);
    out.housing_um_per_k = housing.change_m * 1e6;
    out.shell_um_per_k = housing.shellInterferenceLoss_m * 1e6;
    b.housing = { 20 };
    b.journal = { 21 };
    out.journal_um_per_k = thermalClearance(b).change_m * 1e6;
    if (mixed) {
        b.journal = { 20 };
        b.cap->t = { 21 };
        const ThermalClearance cap = thermalClearance(b);
        out.cap_um_per_k = cap.change_m * 1e6;
        out.shell_um_per_k += cap.shellInterferenceLoss_m * 1e6;
    }
    const double bore_um = p.journal_mm * 1e3 + cold_um + 2e3 * p.shellWall_mm;
    if (p.cap) {
        out.spreadCap_um_per_k = bore_um * p.cap->per_k;
        // An effective expansion hides what block and cap do apart; together they make it.
        out.spreadHousing_um_per_k = p.effective && p.capFraction < 1
            ? bore_um * (p.housing.per_k - p.capFraction * p.cap->per_k) / (1 - p.capFraction)
            : bore_um * p.housing.per_k;
    }
    out.housingU_um_per_k = bore_um * p.housing.u_per_k;
    out.journalU_um_per_k = p.journal_mm * 1e3 * p.journal.u_per_k;
    return out;
}

PartTemperatures settledTemperatures(const Build &build, double oil_c)
{
    return settledAt(oil_c, build.heat.settled());
}

WarmUp warmUpOf(const Build &build)
{
    const Heat &h = build.heat;
    return { .start_c = build.use.coldestStart_c,
             .oilEnd_c = build.use.hotOil_c,
             .blockEnd_c = h.blockEnd_c,
             .idle_rpm = build.use.hotIdle_rpm,
             .oilAtIdle_s = h.oilAtIdle_s,
             .oilAtSpeed_s = h.oilAtSpeed_s,
             .blockAtIdle_s = h.blockAtIdle_s,
             .blockAtSpeed_s = h.blockAtSpeed_s,
             .journalLag_s = h.journalLag_s,
             .capLag_s = h.capLag_s };
}

} // namespace mildpath
