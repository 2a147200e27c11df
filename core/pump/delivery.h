// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/types.h"

namespace mildpath {

/// A rotor pump as it is measured on the bench.
struct PumpGeometry
{
    double displacement_m3; ///< per pump turn
    double rotorLength_m;
    double tipClearance_m; ///< inner to outer rotor, at the tip
    double endClearance_m; ///< total float of the rotors between the plates, shared by two faces
    double bodyClearance_m; ///< outer rotor in its body, diametral
    double tipLand_m;
    double endPathWidth_m;
    double endPathLength_m;
    double bodyPathLength_m;
};

/// The inlet port and when it can no longer fill the chambers.
struct PumpInlet
{
    double portArea_m2 = 0; ///< 0: no limit
    double portDischarge = 0.6;
    AbsolutePressure release { 30e3 }; ///< air release/cavitation; model choice, no source
};

/// Leak conductances (m³/s per Pa) of the three clearances, laminar slots.
///   tip 2 b h³/(12 μ L); end 2 w (h/2)³/(12 μ L); body 2 b (h/2)³/(12 μ L)
/// Path lengths are estimates; one common factor may be fitted to a bench figure.
/// Source: plane Poiseuille flow, textbook.
struct PumpLeaks
{
    double tip_m3_s_pa;
    double end_m3_s_pa;
    double body_m3_s_pa;
    double total_m3_s_pa() const { return tip_m3_s_pa + end_m3_s_pa + body_m3_s_pa; }
};
PumpLeaks pumpLeaks(const PumpGeometry &pump, double viscosity_pa_s);
/// The same for oil that thins in each of them.
struct SlotViscosities
{
    double tip_pa_s, end_pa_s, body_pa_s;
};
PumpLeaks pumpLeaks(const PumpGeometry &pump, const SlotViscosities &oil);

/// Flow the chambers take in (m³/s): Vn, limited at the port.
///   Q = Vn (1 + (Vn/Qf)^8)^(−1/8),  p_in − p_release = a Qf² + b Qf, a = ρ/(2 C_d² A²)
/// @param swept_m3_s  displacement × pump speed, ≥ 0
/// @param viscousLoss_pa_s_m3  b, what thick oil loses at the port (Pa per m³/s)
/// @return 0 where the inlet is at or below the release pressure; slope by inlet pressure.
/// Source: own smooth blend.
ValueSlope pumpFill_m3_s(double swept_m3_s, const PumpInlet &inlet, AbsolutePressure atInlet,
                         double density_kg_m3, double viscousLoss_pa_s_m3 = 0);

/// Air drawn through a hole on the suction side, at inlet pressure (m³/s):
///   q = 0.6 A √(2 (p_atm − p_in)/1.2) · p_atm/p_in,  p_in no less than 5 kPa
/// Source: orifice equation, textbook.
double suctionAir_m3_s(double holeDiameter_m, AbsolutePressure atInlet,
                       AbsolutePressure outside = { atmosphere_pa });

/// Share of air (0…0.95) drawn through a hole on the suction side.
///   q = 0.6 A √(2 (p_atm − p_in)/1.2) · p_atm/p_in, over the swept flow
/// @return share, and its slope by inlet pressure. Source: orifice equation, textbook; the cap is a
/// model choice.
ValueSlope suctionAirShare(double holeDiameter_m, AbsolutePressure atInlet, double swept_m3_s);

} // namespace mildpath
