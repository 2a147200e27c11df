// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/progress.h"
#include "assess/sizes.h"
#include "circuit/change.h"

namespace mildpath {

/// Pressures of many possible builds at one oil temperature: what nine in ten lie within.
struct SampledLine
{
    double oil_c = 0;
    std::vector<double> rpm; ///< solved speeds
    std::vector<double> low_pa, middle_pa, high_pa; ///< 5, 50 and 95 % of the gauge

    enum class Edge { Low, Middle, High };
    /// Between the solved speeds by a monotone cubic. @param rpm  within the solved range
    double at(Edge edge, double rpm) const;
};

struct Sampling
{
    int samples = 1024;
    unsigned seed = 1;
    std::vector<double> oil_c;
    std::vector<double> rpm; ///< at least 4, ascending
};
/// 40 °C, hot oil and 30 K more over eight speeds from idle to the highest.
Sampling usualSampling(const Build &build);

struct SampledForecast
{
    int samples = 0;
    unsigned seed = 0;
    std::vector<SampledLine> lines;
    /// Largest miss of the curves between the solved speeds, relative, found on the build as it
    /// stands half-way between them.
    double interpolationError = 0;
    int failed = 0; ///< draws without a solution, left out
};

/// Quasi-random (Sobol) draws of clearances, expansions and the model's common factor, shifted by
/// the seed: the same seed gives the same bands. Shared out to the machine's cores.
/// Errors: as Network::solve for the build itself; `cancelled`; `samples` below 16; `rpm`.
/// Source: I. M. Sobol, 1967, by Boost.Random; shift after Cranley and Patterson, 1976.
Result<SampledForecast> sampleForecast(const Build &build, const std::vector<GaugedSize> &sizes,
                                       const Sampling &sampling, Progress *progress = nullptr,
                                       const CircuitChange &change = {});

} // namespace mildpath
