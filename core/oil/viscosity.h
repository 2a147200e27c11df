// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/result.h"
#include "quantity/types.h"

#include <string>

namespace mildpath {

/// An oil as its data sheet gives it.
struct Oil
{
    double kv40_mm2_s; ///< kinematic viscosity at 40 °C
    double kv100_mm2_s; ///< kinematic viscosity at 100 °C
    double rho15_kg_m3; ///< density at 15 °C
    /// High-shear over low-shear viscosity at 150 °C (oil/shear.h); 1: it does not thin.
    double highShearRatio = 1;

    bool operator==(const Oil &) const = default;
};

/// Viscosity–temperature line of an oil on the double-log scale.
///   log10(log10(nu + 0.7)) = a − b log10(T),  nu in mm²/s, T in K
/// Source: ASTM D341, short form (Walther); from memory.
struct WaltherLine
{
    double a;
    double b;
};

/// The line through the two points of the data sheet.
/// Errors: kv40_mm2_s below 2, kv100_mm2_s below 1 or not below kv40 (each names its key).
Result<WaltherLine> waltherLine(double kv40_mm2_s, double kv100_mm2_s);

/// Kinematic viscosity (mm²/s). Good to 1–2 % between the two points; the short form loses accuracy
/// below 2 mm²/s, and below 0 °C real oil is thicker (wax). @param t  −60…300 °C
double kinematicViscosity_mm2_s(const WaltherLine &line, Celsius t);

/// Density, linear law of the circuit model: rho15 (1 − 0.00070 (T − 15)).
/// Source: common practice, no source; used in every assessment so that all its numbers agree.
double densityLinear_kg_m3(double rho15_kg_m3, Celsius t);

/// Density, exponential law: rho15 exp(−α ΔT (1 + 0.8 α ΔT)), α = 0.6278/rho15, ΔT = T − 15.
/// Source: ASTM D1250, lubricating-oil group (Table 54D constants), from memory. The calculator
/// `viscosity-at` uses this one; it differs from the linear law by under 0.5 % up to 150 °C.
double densityD1250_kg_m3(double rho15_kg_m3, Celsius t);

/// What an element needs to know of its oil.
struct OilState
{
    double density_kg_m3;
    double dynamicViscosity_pa_s;
};

/// State by Walther viscosity and linear density.
OilState oilState(const WaltherLine &line, double rho15_kg_m3, Celsius t);

/// Viscosity index and the reference oils behind it.
struct ViscosityIndex
{
    double l_mm2_s; ///< viscosity at 40 °C of the reference oil of index 0
    double h_mm2_s; ///< viscosity at 40 °C of the reference oil of index 100
    bool procedureB; ///< index above 100
    double index;
};

/// Viscosity index.
/// Procedure A (kv40 ≥ H): 100 (L − U)/(L − H); B: (10^N − 1)/0.00715 + 100 with
/// N = (log10 H − log10 U)/log10 Y.
/// Source: ASTM D2270, quadratic fits of its table, from memory; its two worked examples are tests.
/// Errors: kv100_mm2_s below 2, or not below kv40.
Result<ViscosityIndex> viscosityIndex(double kv40_mm2_s, double kv100_mm2_s);

} // namespace mildpath
