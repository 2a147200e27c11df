// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/laws.h"

#include "pump/rotor.h"

#include <algorithm>
#include <cassert>
#include <cmath>

namespace mildpath {
namespace {

Conduit passageOf(const ElementValues &v)
{
    return { v.mm("d_mm"), v.mm("l_mm"), v("rough_um") * 1e-6, v("k") };
}

OilState preparedOil(const Prepared &p)
{
    return { p[0], p[1] };
}

class PipeLaw : public Law
{
public:
    explicit PipeLaw(const ElementValues &v)
        : m_passage(passageOf(v))
    {
    }
    Prepared prepare(const LawConditions &c) const override
    {
        return { { c.oil.density_kg_m3, c.oil.dynamicViscosity_pa_s } };
    }
    LawFlow flow(double dp_pa, const Prepared &p, double, double &memory) const override
    {
        const FlowSlope out = passageFlow(m_passage, dp_pa, preparedOil(p), memory);
        memory = std::abs(out.flow_m3_s);
        return out;
    }

private:
    Conduit m_passage;
};

/// Common to hole, check and relief: the coefficients of a hole.
class HoleLaw : public Law
{
public:
    HoleLaw(double diameter_m, double length_m, double discharge)
        : m_diameter_m(diameter_m)
        , m_length_m(length_m)
        , m_discharge(discharge)
    {
    }
    Prepared prepare(const LawConditions &c) const override
    {
        const HoleCoefficients k = holeCoefficients(m_diameter_m, m_length_m, m_discharge, c.oil);
        return { { k.a, k.b } };
    }
    LawFlow flow(double dp_pa, const Prepared &p, double, double &) const override
    {
        return quadraticFlow(p[0], p[1], dp_pa);
    }

protected:
    /// The hole's flow times an opening that itself depends on dp.
    static FlowSlope opened(const LawFlow &hole, double opening, double openingSlope_per_pa)
    {
        return { hole.flow_m3_s * opening,
                 hole.slope_m3_s_pa * opening + hole.flow_m3_s * openingSlope_per_pa };
    }

private:
    double m_diameter_m, m_length_m, m_discharge;
};

class CheckLaw : public HoleLaw
{
public:
    explicit CheckLaw(const ElementValues &v)
        : HoleLaw(v.mm("d_mm"), v.mm("l_mm"), v("cd"))
        , m_open_pa(v("open_kpa") * 1e3)
        , m_width_pa(v("open_width_kpa") * 1e3)
        , m_leak(v("leak"))
    {
    }
    LawFlow flow(double dp_pa, const Prepared &p, double lagged, double &memory) const override
    {
        const ValueSlope s = smoothstep((dp_pa - m_open_pa) / m_width_pa);
        return opened(HoleLaw::flow(dp_pa, p, lagged, memory), m_leak + (1 - m_leak) * s.value,
                      (1 - m_leak) * s.slope / m_width_pa);
    }

private:
    double m_open_pa, m_width_pa, m_leak;
};

/// A hole that wax opens as the oil warms.
class ThermostatLaw : public HoleLaw
{
public:
    explicit ThermostatLaw(const ElementValues &v)
        : HoleLaw(v.mm("d_mm"), v.mm("l_mm"), v("cd"))
        , m_open_c(v("open_c"))
        , m_full_c(v("full_c"))
        , m_leak(v("leak"))
    {
    }
    Prepared prepare(const LawConditions &c) const override
    {
        Prepared out = HoleLaw::prepare(c);
        const double warm = (c.sumpTemperature_c - m_open_c) / (m_full_c - m_open_c);
        out.value[2] = m_leak + (1 - m_leak) * smoothstep(warm).value;
        return out;
    }
    LawFlow flow(double dp_pa, const Prepared &p, double lagged, double &memory) const override
    {
        return opened(HoleLaw::flow(dp_pa, p, lagged, memory), p[2], 0);
    }

private:
    double m_open_c, m_full_c, m_leak;
};

class ReliefLaw : public HoleLaw
{
public:
    explicit ReliefLaw(const ElementValues &v)
        : HoleLaw(2 * std::sqrt(v("full_area_mm2") * 1e-6 / pi), 0, v("cd"))
        , m_crack_pa(v("crack_kpa") * 1e3)
        , m_full_pa(v("full_kpa") * 1e3)
        , m_stuck(v("stuck_open_fraction"))
    {
    }
    LawFlow flow(double dp_pa, const Prepared &p, double lagged, double &memory) const override
    {
        // A jammed plunger neither shuts nor opens further.
        const ValueSlope open = m_stuck >= 0
            ? ValueSlope { valveSeatLeak + (1 - valveSeatLeak) * m_stuck, 0 }
            : valveOpenShare(dp_pa, m_crack_pa, m_full_pa);
        return opened(HoleLaw::flow(dp_pa, p, lagged, memory), open.value, open.slope);
    }

private:
    double m_crack_pa, m_full_pa, m_stuck;
};

/// Annulus and filter medium: flow in proportion to pressure and to 1/μ.
class LinearLaw : public Law
{
public:
    /// @param permeance_m3  conductance × viscosity
    explicit LinearLaw(double permeance_m3)
        : m_permeance_m3(permeance_m3)
    {
    }
    Prepared prepare(const LawConditions &c) const override
    {
        return { { m_permeance_m3 / c.oil.dynamicViscosity_pa_s } };
    }
    LawFlow flow(double dp_pa, const Prepared &p, double, double &) const override
    {
        return FlowSlope { p[0] * dp_pa, p[0] };
    }

private:
    double m_permeance_m3;
};

} // namespace

BearingLaw::BearingLaw(const ElementValues &v)
    : m_geometry { v.mm("d_mm"),    v.mm("width_mm"), v.mm("groove_width_mm"), v("groove_deg"),
                   v.mm("hole_mm"), v("ecc"),         v("speed_flow") }
    , m_clearance_m(v("clearance_um") * 1e-6)
    , m_growth_m_per_k(v("growth_um_per_k") * 1e-6)
    , m_speedRatio(v("speed_ratio"))
{
}

DiametralClearance BearingLaw::clearance(double sumpTemperature_c) const
{
    return { m_clearance_m + m_growth_m_per_k * (sumpTemperature_c - 20) };
}

Prepared BearingLaw::prepare(const LawConditions &c) const
{
    const RadialClearance gap = radial(clearance(c.sumpTemperature_c));
    return { { bearingConductance_m3_s_pa(m_geometry, gap, c.oil.dynamicViscosity_pa_s),
               bearingRotationFlow_m3_s(m_geometry, gap, m_speedRatio * c.shaftSpeed_rad_s) } };
}

LawFlow BearingLaw::flow(double dp_pa, const Prepared &p, double, double &) const
{
    const double fade = std::tanh(dp_pa / rotationFade_pa);
    return FlowSlope { p[0] * dp_pa + p[1] * fade,
                       p[0] + p[1] * (1 - fade * fade) / rotationFade_pa };
}

double BearingLaw::loss_w(const LawConditions &c) const
{
    const double r = m_geometry.diameter_m / 2;
    const double w = m_speedRatio * c.shaftSpeed_rad_s;
    const double gap = radial(clearance(c.sumpTemperature_c)).value_m;
    if (gap <= 0)
        return 0;
    return 2 * pi * c.oil.dynamicViscosity_pa_s * w * w * r * r * r * m_geometry.width_m / gap;
}

FilmBearingLaw::FilmBearingLaw(const ElementValues &v)
    : m_film({ v.mm("d_mm"),
               v.mm("width_mm"),
               { v("groove_deg"), v.mm("groove_width_mm"), v.mm("hole_mm"),
                 v("hole_in_journal") > 0, v("feed_from_load_deg") * pi / 180, v("form_factor") } })
    , m_clearance_m(v("clearance_um") * 1e-6)
    , m_growth_m_per_k(v("growth_um_per_k") * 1e-6)
    , m_filmGrowth_m_per_k(v("film_growth_um_per_k") * 1e-6)
    , m_load_n(v("load_n"))
    , m_load_n_per_krpm2(v("load_n_per_krpm2"))
    , m_speedRatio(v("speed_ratio"))
{
}

Running FilmBearingLaw::running(double shaftSpeed_rad_s, double sumpTemperature_c) const
{
    const double krpm = shaftSpeed_rad_s * 60 / (2 * pi) / 1000;
    return { radial(DiametralClearance { m_clearance_m
                                         + m_growth_m_per_k * (sumpTemperature_c - 20) }),
             m_load_n + m_load_n_per_krpm2 * krpm * krpm, m_speedRatio * shaftSpeed_rad_s,
             m_filmGrowth_m_per_k / 2 };
}

Prepared FilmBearingLaw::prepare(const LawConditions &c) const
{
    assert(c.filmOil);
    return { {},
             std::make_shared<const WarmCurve>(
                 m_film, running(c.shaftSpeed_rad_s, c.sumpTemperature_c), *c.filmOil) };
}

LawFlow FilmBearingLaw::flow(double dp_pa, const Prepared &p, double, double &) const
{
    const ValueSlope q = p.curve->flow_m3_s(dp_pa);
    return FlowSlope { q.value, q.slope };
}

double rotorsDisplacement_m3(const ElementValues &v)
{
    return rotorDisplacement_m3(v.mm("rotor_length_mm"), v.mm("eccentricity_mm"),
                                v.mm("inner_tip_mm"));
}

double pumpDisplacement_m3(const ElementValues &v)
{
    const double entered = v("displacement_m3");
    return entered > 0 ? entered : rotorsDisplacement_m3(v);
}

PumpLaw::PumpLaw(const ElementValues &v)
    : m_geometry { pumpDisplacement_m3(v),        v.mm("rotor_length_mm"),
                   v("tip_clearance_um") * 1e-6,  v("end_clearance_um") * 1e-6,
                   v("body_clearance_um") * 1e-6, v.mm("tip_land_mm"),
                   v.mm("end_path_width_mm"),     v.mm("end_path_length_mm"),
                   v.mm("body_path_length_mm") }
    , m_inlet { v("inlet_port_mm2") * 1e-6,
                v("inlet_port_cd"),
                { v("release_pressure_abs_kpa") * 1e3 } }
    , m_portLength_m(v.mm("inlet_port_length_mm"))
    , m_tipRadius_m(v.mm("inner_tip_mm") / 2)
    , m_driveRatio(v("drive_ratio"))
    , m_entrained(v("entrained_air"))
    , m_airHole_m(v.mm("suction_air_hole_mm"))
    , m_airForced(v("suction_air_fraction"))
{
}

Prepared PumpLaw::prepare(const LawConditions &c) const
{
    const double swept = m_geometry.displacement_m3 * m_driveRatio * c.shaftSpeed_rad_s / (2 * pi);
    const double tip_m_s = m_driveRatio * c.shaftSpeed_rad_s * m_tipRadius_m;
    const double still = c.oil.dynamicViscosity_pa_s;
    const auto thinned = [&](double gap_m) {
        return c.shear && tip_m_s > 0 && gap_m > 0 ? c.shear->viscosity_pa_s(still, tip_m_s / gap_m)
                                                   : still;
    };
    const double leaks
        = pumpLeaks(m_geometry,
                    { thinned(m_geometry.tipClearance_m), thinned(m_geometry.endClearance_m / 2),
                      thinned(m_geometry.bodyClearance_m / 2) })
              .total_m3_s_pa();
    double portLoss = 0; // of thick oil
    if (m_portLength_m > 0 && m_inlet.portArea_m2 > 0)
        portLoss = holeCoefficients(std::sqrt(4 * m_inlet.portArea_m2 / pi), m_portLength_m,
                                    m_inlet.portDischarge, c.oil)
                       .b;
    return { { leaks, swept, c.oil.density_kg_m3, portLoss } };
}

LawFlow PumpLaw::flow(double dp_pa, const Prepared &p, double fill, double &) const
{
    return { FlowSlope { fill + p[0] * dp_pa, p[0] }, 1 };
}

ValueSlope PumpLaw::airShare(AbsolutePressure atInlet, double swept) const
{
    if (m_airForced >= 0)
        return { m_airForced, 0 };
    return suctionAirShare(m_airHole_m, atInlet, swept);
}

ValueSlope PumpLaw::laggedTarget(double from_pa, const Prepared &p) const
{
    const AbsolutePressure inlet = absolute(GaugePressure { from_pa });
    const ValueSlope fill = pumpFill_m3_s(p[1], m_inlet, inlet, p[2], p[3]);
    const ValueSlope air = airShare(inlet, p[1]);
    const double oil = 1 - m_entrained;
    return { oil * fill.value * (1 - air.value),
             oil * (fill.slope * (1 - air.value) - fill.value * air.slope) };
}

double PumpLaw::laggedStart(const Prepared &p) const
{
    return laggedTarget(0, p).value;
}

CrankDrillingLaw::CrankDrillingLaw(const ElementValues &v)
    : m_passage(passageOf(v))
    , m_rIn_m(v.mm("r_in_mm"))
    , m_rOut_m(v.mm("r_out_mm"))
    , m_rClosest_m(v.has("closest_mm") ? v.mm("closest_mm") : closestShare * m_rIn_m)
{
}

Prepared CrankDrillingLaw::prepare(const LawConditions &c) const
{
    const double rho = c.oil.density_kg_m3;
    return { { rho, c.oil.dynamicViscosity_pa_s,
               crankColumn_pa(rho, c.shaftSpeed_rad_s, m_rIn_m, m_rOut_m),
               crankSupplyNeeded_pa(rho, c.shaftSpeed_rad_s, m_rIn_m, m_rClosest_m) } };
}

LawFlow CrankDrillingLaw::flow(double dp_pa, const Prepared &p, double gate, double &memory) const
{
    const FlowSlope out = passageFlow(m_passage, dp_pa + gate * p[2], preparedOil(p), memory);
    memory = std::abs(out.flow_m3_s);
    return { out, out.slope_m3_s_pa * p[2] };
}

ValueSlope CrankDrillingLaw::laggedTarget(double from_pa, const Prepared &p) const
{
    if (p[3] <= 0)
        return { 1, 0 };
    const ValueSlope gate = smoothstep(from_pa / p[3]);
    return { gate.value, gate.slope / p[3] };
}

CrankInflowLaw::CrankInflowLaw(const ElementValues &v)
    : m_drilling { .passage = passageOf(v),
                   .rIn_m = v.mm("r_in_mm"),
                   .rOut_m = v.mm("r_out_mm"),
                   .closest_m = v.has("closest_mm") ? v.mm("closest_mm")
                       : v("mouths") > 1            ? 0
                                                    : closestShare * v.mm("r_in_mm"),
                   .windowShare = v("window_share"),
                   .mouths = static_cast<int>(v("mouths")),
                   .openMean = v("open_mean"),
                   .slotWidth_m = v.mm("slot_width_mm"),
                   .slotDepth_m = v.mm("slot_depth_mm"),
                   .slotLength_m = v.mm("slot_length_mm"),
                   .keep_pa = v("keep_kpa") * 1e3 }
{
}

Prepared CrankInflowLaw::prepare(const LawConditions &c) const
{
    const InflowConditions at = inflowConditions(m_drilling, c.oil, c.shaftSpeed_rad_s);
    return { { c.oil.density_kg_m3, c.oil.dynamicViscosity_pa_s, at.need_pa, at.column_pa,
               at.window_s } };
}

LawFlow CrankInflowLaw::flow(double dp_pa, const Prepared &p, double supply_pa, double &) const
{
    const CrankFlow q
        = crankFlow(m_drilling, { preparedOil(p), p[2], p[3], p[4] }, supply_pa, supply_pa - dp_pa);
    return { FlowSlope { q.flow_m3_s, -q.byPin }, q.byMain + q.byPin };
}

double CrankInflowLaw::laggedStart(const Prepared &p) const
{
    return p[2] + 3e5; // fed, as most are
}

std::unique_ptr<Law> makePipe(const ElementValues &v)
{
    return std::make_unique<PipeLaw>(v);
}

std::unique_ptr<Law> makeOrifice(const ElementValues &v)
{
    return std::make_unique<HoleLaw>(v.mm("d_mm"), v.mm("l_mm"), v("cd"));
}

std::unique_ptr<Law> makeAnnulus(const ElementValues &v)
{
    const RadialClearance gap = radial(DiametralClearance { v("clearance_um") * 1e-6 });
    return std::make_unique<LinearLaw>(
        annulusConductance_m3_s_pa(v.mm("d_mm"), gap, v.mm("l_mm"), v("ecc"), 1));
}

std::unique_ptr<Law> makeBearing(const ElementValues &v)
{
    return std::make_unique<BearingLaw>(v);
}

std::unique_ptr<Law> makeFilmBearing(const ElementValues &v)
{
    return std::make_unique<FilmBearingLaw>(v);
}

std::unique_ptr<Law> makeCrankDrilling(const ElementValues &v)
{
    if (v.has("window_share"))
        return std::make_unique<CrankInflowLaw>(v);
    return std::make_unique<CrankDrillingLaw>(v);
}

std::unique_ptr<Law> makeMedia(const ElementValues &v)
{
    return std::make_unique<LinearLaw>(v("permeance_m3"));
}

std::unique_ptr<Law> makeCheck(const ElementValues &v)
{
    return std::make_unique<CheckLaw>(v);
}
std::unique_ptr<Law> makeThermostat(const ElementValues &v)
{
    return std::make_unique<ThermostatLaw>(v);
}

std::unique_ptr<Law> makeRelief(const ElementValues &v)
{
    return std::make_unique<ReliefLaw>(v);
}
std::unique_ptr<Law> makePump(const ElementValues &v)
{
    return std::make_unique<PumpLaw>(v);
}

} // namespace mildpath
