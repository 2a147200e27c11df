// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "oil/viscosity.h"
#include "quantity/types.h"
#include "rules/rules.h"

namespace mildpath {

/// A flow and how it answers to pressure: what Newton's method needs of every element.
struct FlowSlope
{
    double flow_m3_s;
    double slope_m3_s_pa; ///< dQ/d(dp), ≥ 0
};

/// Friction factor (Darcy) and its derivative by Reynolds number.
struct Friction
{
    double factor;
    double slope;
};

/// Darcy friction factor, laminar through turbulent.
///   f = 8 [(8/Re)^12 + (A + B)^(−3/2)]^(1/12), A = [2.457 ln(1/((7/Re)^0.9 + 0.27 e/D))]^16,
///   B = (37530/Re)^16;  64/Re below Re 500 (the same within 1e-13, without overflow)
/// @param re                  Reynolds number, > 0
/// @param relativeRoughness   e/D, 0…0.05
/// Source: Churchill (1977), Chemical Engineering 84(24); from memory, checked against Colebrook.
Friction churchillFriction(double re, double relativeRoughness);

/// A straight passage as it resists flow, with loss coefficient K.
struct Conduit
{
    double diameter_m;
    double length_m;
    double roughness_m = 10e-6;
    double lossCoefficient = 1.5;
};

/// Pressure drop of a passage at a flow, split in friction and loss coefficient (Pa, sign of flow).
struct PassageDrop
{
    double reynolds; ///< of |flow|
    double friction; ///< Darcy factor; 0 at zero flow, where it has no meaning
    double velocity_m_s;
    double friction_pa;
    double minor_pa;
    double total_pa() const { return friction_pa + minor_pa; }
};
/// dp = (ρ v²/2)(f L/D + K). Source: Darcy–Weisbach, textbook.
PassageDrop passageDrop(const Conduit &passage, double flow_m3_s, const OilState &oil);

/// What stands in series with a passage: |dp| = linear Q + quadratic Q².
struct SlotResistance
{
    double linear = 0, quadratic = 0;
};

/// Flow through a passage at a pressure drop: the inverse of passageDrop (and of what stands in
/// series), unique because f Re² grows with Re throughout. Newton in a bracket whose upper end is
/// the laminar flow.
/// @param near_m3_s  magnitude to start from (the last answer); 0 if unknown
FlowSlope passageFlow(const Conduit &passage, double dp_pa, const OilState &oil,
                      double near_m3_s = 0, const SlotResistance &slot = {});

/// Quadratic law |dp| = a Q² + b Q and its inverse, odd in dp. a ≥ 0, b > 0.
FlowSlope quadraticFlow(double a, double b, double dp_pa);

/// A hole: |dp| = a Q² + b Q, a = ρ/(2 Cd² A²), b = μ (24/d³ + 128 l/(π d⁴)).
/// The linear part is creeping flow through a hole (Sampson 1891) with a length term (Dagan,
/// Weinbaum, Pfeffer 1982; both from memory); it gives Cd → 0.163 √Re at low Re.
struct HoleCoefficients
{
    double a, b;
};
HoleCoefficients holeCoefficients(double diameter_m, double length_m, double discharge,
                                  const OilState &oil);

/// (1 + 1.5 ε²): leak of an eccentric annulus against a centred one, and the mean of a hole's flow
/// over all film thicknesses. 0 ≤ ε ≤ 1 gives 1…2.5. Source: textbook.
double eccentricityFactor(double eccentricity);

/// Leak conductance of an annulus (m³/s per Pa): π d c³ (1 + 1.5 ε²)/(12 μ l).
/// Source: thin annulus, laminar, textbook.
double annulusConductance_m3_s_pa(double diameter_m, RadialClearance c, double length_m,
                                  double eccentricity, double viscosity_pa_s);

/// Geometry of a bearing for the circuit's law.
struct BearingLeakGeometry
{
    double diameter_m;
    double width_m;
    double grooveWidth_m = 0;
    double groove_deg = 360; ///< 0: fed by a single hole
    double hole_m = 5e-3;
    double eccentricity = 0.6;
    double speedFlow = 0; ///< 0 off, 1 on
};

/// Pressure-driven conductance of a bearing (m³/s per Pa), both lands.
///   groove: (deg/360) π r c³ (1 + 1.5 ε²)/(3 μ l), l = (W − w)/2
///   hole:   π c³ (1 + 1.5 ε²)/(6 μ ln(2 W/(π r_hole)))
/// Source: thin annulus, textbook; the hole by images between two open edges, own derivation.
double bearingConductance_m3_s_pa(const BearingLeakGeometry &b, RadialClearance c,
                                  double viscosity_pa_s);

/// Flow carried out by the turning journal (m³/s): speed_flow · ω r c L ε, L = both lands, or the
/// whole width with a hole. The caller fades it with tanh(dp/20 kPa): no supply, no flow.
/// Source: short-bearing side flow, Ocvirk, textbook. Adding it to the pressure flow is an
/// approximation from above.
double bearingRotationFlow_m3_s(const BearingLeakGeometry &b, RadialClearance c,
                                double journalSpeed_rad_s);

/// t²(3 − 2t) on 0…1, 0 and 1 outside.
ValueSlope smoothstep(double t);

/// Opening of a spring-loaded valve, 0…1, for t = (dp − crack)/(full − crack).
///   R(t) = w [ln(1 + e^(t/w)) − ln(1 + e^((t−1)/w))], w = 0.02
/// At dp = crack it is 1.4 % open: the smoothing belongs to the model. Source: own choice.
ValueSlope valveOpening(double t);

/// Open share of a relief or bypass valve by the pressure across it, seat leak included.
ValueSlope valveOpenShare(double dp_pa, double crack_pa, double full_pa);

/// Pressure of the oil column in a crank drilling (Pa): ρ ω² (r_out² − r_in²)/2. Textbook.
double crankColumn_pa(double density_kg_m3, double speed_rad_s, double rIn_m, double rOut_m);

/// Supply (Pa) without which the oil column breaks at its point nearest the axis:
/// ρ ω² (r_in² − r_close²)/2. Textbook.
double crankSupplyNeeded_pa(double density_kg_m3, double speed_rad_s, double rIn_m,
                            double rClosest_m);

inline constexpr double radPerSecond(double rpm)
{
    return rpm * 2 * pi / 60;
}

} // namespace mildpath
