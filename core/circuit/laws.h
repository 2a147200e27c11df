// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/warmfilm.h"
#include "circuit/circuit.h"
#include "circuit/crankinflow.h"
#include "circuit/hydraulics.h"
#include "pump/delivery.h"

#include <array>
#include <memory>

namespace mildpath {

/// An element's values; each law names what it takes where a key is absent.
class ElementValues
{
public:
    /// @param keys  of its type
    ElementValues(const Element &element, std::span<const NumberKey> keys)
        : m_element(element)
        , m_keys(keys)
    {
    }
    /// As entered, or what is usual for its type; 0 where neither is.
    double operator()(std::string_view key) const { return m_element.value(key, m_keys); }
    double mm(std::string_view key) const { return (*this)(key)*1e-3; }
    bool has(const char *key) const { return m_element.values.contains(key); }

private:
    const Element &m_element;
    std::span<const NumberKey> m_keys;
};

/// What a pump's rotors move in a turn by their sizes (m³); 0: they are not known.
double rotorsDisplacement_m3(const ElementValues &pump);
/// What a pump moves in a turn (m³): as entered, else as its rotors' sizes give.
double pumpDisplacement_m3(const ElementValues &pump);

/// What an element sees of the operating point.
struct LawConditions
{
    OilState oil; ///< at the element's own temperature
    double shaftSpeed_rad_s;
    double sumpTemperature_c;
    const FilmOil *filmOil = nullptr; ///< for the laws that find their own warmth
    const ShearThinning *shear = nullptr; ///< null: the oil does not thin
};

/// Coefficients of a law at one operating point, computed once and used by every pass over the
/// circuit; their meaning is the law's own.
struct Prepared
{
    std::array<double, 6> value {};
    std::shared_ptr<const WarmCurve> curve {}; ///< of a film bearing

    double operator[](size_t i) const { return value[i]; }
};

/// A value that a law takes from the round before, not part of the convex problem: the pump's fill,
/// the gate of a crank drilling, the pressure it is supplied with.
enum class Lagged {
    None,
    Fill, ///< m³/s; settled within 1e-6 relative
    Gate, ///< 0…1; settled within 1e-4
    Supply, ///< Pa; never behind
};

/// A law's flow, how it answers to the pressure across and to its lagged value.
struct LawFlow
{
    double flow_m3_s = 0;
    double slope_m3_s_pa = 0; ///< dQ/d(dp), ≥ 0
    double perLagged = 0; ///< dQ/d(lagged value)

    LawFlow() = default;
    LawFlow(const FlowSlope &f, double byLagged = 0)
        : flow_m3_s(f.flow_m3_s)
        , slope_m3_s_pa(f.slope_m3_s_pa)
        , perLagged(byLagged)
    {
    }
};

/// Flow law of one element: monotone in dp, defined for both signs, with analytic slope.
class Law
{
public:
    virtual ~Law() = default;

    virtual Prepared prepare(const LawConditions &conditions) const = 0;
    /// @param dp_pa   p_from − p_to
    /// @param lagged  the lagged value, if the law has one
    /// @param memory  the law's own note to itself between passes (a pipe's last flow)
    virtual LawFlow flow(double dp_pa, const Prepared &prepared, double lagged,
                         double &memory) const = 0;

    virtual Lagged lagged() const { return Lagged::None; }
    /// What the lagged value should be at this pressure, and its slope by that pressure.
    virtual ValueSlope laggedTarget(double /*from_pa*/, const Prepared &) const { return { 0, 0 }; }
    /// Before anything is known.
    virtual double laggedStart(const Prepared &) const { return 0; }
};

/// Bearings warm their own oil; the solver asks for the loss when it balances heat.
class BearingLaw : public Law
{
public:
    explicit BearingLaw(const ElementValues &v);
    Prepared prepare(const LawConditions &conditions) const override;
    LawFlow flow(double dp_pa, const Prepared &prepared, double, double &) const override;

    /// Diametral clearance at this sump temperature.
    DiametralClearance clearance(double sumpTemperature_c) const;
    /// Petroff loss (W): 2 π μ ω² r³ L/c. Textbook; a lightly loaded film.
    double loss_w(const LawConditions &conditions) const;

private:
    BearingLeakGeometry m_geometry;
    double m_clearance_m;
    double m_growth_m_per_k;
    double m_speedRatio;
};

/// A bearing whose flow and warmth come from its film.
class FilmBearingLaw : public Law
{
public:
    explicit FilmBearingLaw(const ElementValues &v);
    Prepared prepare(const LawConditions &conditions) const override;
    LawFlow flow(double dp_pa, const Prepared &prepared, double, double &) const override;

    Running running(double shaftSpeed_rad_s, double sumpTemperature_c) const;
    const FilmBearing &film() const { return m_film; }

private:
    FilmBearing m_film;
    double m_clearance_m, m_growth_m_per_k, m_filmGrowth_m_per_k;
    double m_load_n, m_load_n_per_krpm2;
    double m_speedRatio;
};

/// The pump, its fill lagged.
class PumpLaw : public Law
{
public:
    explicit PumpLaw(const ElementValues &v);
    Prepared prepare(const LawConditions &conditions) const override;
    LawFlow flow(double dp_pa, const Prepared &prepared, double fill, double &) const override;
    Lagged lagged() const override { return Lagged::Fill; }
    ValueSlope laggedTarget(double from_pa, const Prepared &prepared) const override;
    double laggedStart(const Prepared &prepared) const override;

    /// Displacement × speed (m³/s).
    double swept_m3_s(const Prepared &prepared) const { return prepared[1]; }
    AbsolutePressure releasePressure() const { return m_inlet.release; }
    /// Share of air in what the pump takes in, and its slope by inlet pressure.
    ValueSlope airShare(AbsolutePressure atInlet, double swept) const;

private:
    PumpGeometry m_geometry;
    PumpInlet m_inlet;
    double m_portLength_m; ///< 0: thick oil is no loss at the port
    double m_tipRadius_m; ///< of the inner rotor; 0: not known
    double m_driveRatio;
    double m_entrained; ///< share of air in what it takes in
    double m_airHole_m;
    double m_airForced; ///< negative: not forced
};

/// A drilling through the crank, by either law.
class CrankLaw : public Law
{
public:
    /// Below it at the main the crank is not fed (Pa).
    virtual double supplyNeeded_pa(const Prepared &prepared) const = 0;
    /// It fills through windows: what a rod gets falls well before the crank is not fed at all.
    virtual bool byWindows() const { return false; }
    /// What turning adds between its mouths (Pa).
    virtual double column_pa(const Prepared &prepared) const = 0;
    /// Of the pressure at a pin, what turning put there (Pa).
    virtual double columnAt_pa(double lagged, double main_pa, double pin_pa,
                               const Prepared &prepared) const = 0;
};

/// Pipe plus oil column, the column gated by the supply.
class CrankDrillingLaw : public CrankLaw
{
public:
    explicit CrankDrillingLaw(const ElementValues &v);
    Prepared prepare(const LawConditions &conditions) const override;
    LawFlow flow(double dp_pa, const Prepared &prepared, double gate,
                 double &memory) const override;
    Lagged lagged() const override { return Lagged::Gate; }
    ValueSlope laggedTarget(double from_pa, const Prepared &prepared) const override;
    double laggedStart(const Prepared &) const override { return 1; }

    double supplyNeeded_pa(const Prepared &prepared) const override { return prepared[3]; }
    double column_pa(const Prepared &prepared) const override { return prepared[2]; }
    double columnAt_pa(double gate, double, double, const Prepared &prepared) const override
    {
        return gate * prepared[2];
    }

private:
    Conduit m_passage;
    double m_rIn_m, m_rOut_m, m_rClosest_m;
};

/// Fed by windows of the shell's hole or groove (circuit/crankinflow.h). Its flow answers to the
/// pressures at main and pin by unlike slopes: that of the pin is its slope, what is more of the
/// main's is told as a lagged value that is never behind, so that every step has the whole
/// unsymmetric matrix.
class CrankInflowLaw : public CrankLaw
{
public:
    explicit CrankInflowLaw(const ElementValues &v);
    Prepared prepare(const LawConditions &conditions) const override;
    LawFlow flow(double dp_pa, const Prepared &prepared, double supply_pa,
                 double &memory) const override;
    Lagged lagged() const override { return Lagged::Supply; }
    ValueSlope laggedTarget(double from_pa, const Prepared &) const override
    {
        return { from_pa, 1 };
    }
    double laggedStart(const Prepared &prepared) const override;

    double supplyNeeded_pa(const Prepared &prepared) const override { return prepared[2]; }
    bool byWindows() const override { return true; }
    double column_pa(const Prepared &prepared) const override { return prepared[3]; }
    /// A pin that takes all the drilling gives has less than the whole column: its pressure is the
    /// main's and the column's in equal measure.
    double columnAt_pa(double, double main_pa, double pin_pa,
                       const Prepared &prepared) const override
    {
        return main_pa > prepared[2] ? pin_pa * prepared[3] / (main_pa + prepared[3]) : 0;
    }

private:
    CrankInflow m_drilling;
};

std::unique_ptr<Law> makePipe(const ElementValues &);
std::unique_ptr<Law> makeOrifice(const ElementValues &);
std::unique_ptr<Law> makeAnnulus(const ElementValues &);
std::unique_ptr<Law> makeBearing(const ElementValues &);
std::unique_ptr<Law> makeFilmBearing(const ElementValues &);
std::unique_ptr<Law> makeCrankDrilling(const ElementValues &);
std::unique_ptr<Law> makeMedia(const ElementValues &);
std::unique_ptr<Law> makeCheck(const ElementValues &);
std::unique_ptr<Law> makeThermostat(const ElementValues &);
std::unique_ptr<Law> makeRelief(const ElementValues &);
std::unique_ptr<Law> makePump(const ElementValues &);

} // namespace mildpath
