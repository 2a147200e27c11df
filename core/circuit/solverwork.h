// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/network.h"
#include "circuit/settling.h"

#include <optional>
#include <utility>
#include <vector>

namespace mildpath {

/// Rounds after which a cycle of lagged values is to be broken.
inline constexpr int stubbornFrom = 6;

/// Everything one solve writes to.
struct Network::Work
{
    struct Lag
    {
        double value = 0;
        ValueSlope target {}; ///< by the pressure before the element
        double flowPer = 0; ///< dQ/d(value), count and duty included
        Secant secant {};
        Bracket bracket {};
    };
    /// Oil at one temperature; a circuit has only a handful of them.
    struct CachedOil
    {
        double temperature_c;
        OilState oil;
    };

    WaltherLine line {};
    std::optional<ShearThinning> shear {}; ///< of oil that thins
    double swept_m3_s = 0; ///< by the pump
    double voidPer_m3_s_pa = 0,
           void_m3_s = 0; ///< oil that runs out: per pressure below, and in all
    std::vector<double> p, residual, step; ///< per unknown
    std::vector<Prepared> prepared;
    std::vector<double> memory, filmRise_k, temperature_c, flow;
    std::vector<OilState> oil; ///< per element
    std::vector<Lag> lag;
    std::vector<Secant> film; ///< per element; bearings only
    std::vector<std::pair<size_t, double>> moved; ///< lagged values a step moves, beside pressures
    std::vector<CachedOil> oils;
    std::vector<std::shared_ptr<const FilmOil>> filmOils;
    Elimination::Values matrix;
    int steps = 0, mostInOneRound = 0, rounds = 0;
    double error = 0; ///< absolute imbalance, m³/s
    int worst = 0, emptiest = -1; ///< unknown
};

} // namespace mildpath
