// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "diagnose/flowevidence.h"
#include "rules/rules.h"
#include "sump/priming.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct Assessment;

// Filling a dry engine: how much, how long, when to stop, and where to look when nothing comes.
// Model: sump/priming.h; the corridor's time constants are own choice (docs/theory/start.md).

/// Something that is filled.
struct PrimeVolume
{
    std::string name;
    double volume_m3;
    std::string from; ///< where the figure comes from
};

/// Where to look when nothing comes.
struct PrimeCause
{
    std::string_view id;
    std::string_view name; ///< short
    std::string_view text; ///< what to look at
    std::string_view effort; ///< "seconds", "pan off"
    std::string stop; ///< where on the rail; empty: nowhere
    bool proven = false; ///< this build has shown it to be right
    Phrase why; ///< what shows it, or what does not yet
    Mark mark() const;
};

struct PrimeForecast
{
    bool drill = true; ///< by drill; else by the starter
    double shaft_rpm = 0; ///< of the pump
    double crank_rpm = 0; ///< of a crank that would turn the pump so
    double oil_c = 0;
    std::vector<PrimeVolume> volumes; ///< behind the pump
    double suction_m3 = 0, lift_m = 0; ///< air before the pump, pump over the oil
    std::optional<double> dryLift_m; ///< absent: the pump is wetted, or it lies under the oil
    PrimeTime time;
    LikelyPressure steady; ///< at the gauge, once all is full
    std::optional<Error> unsolved; ///< no steady pressure could be found
    std::vector<PrimeCause> causes; ///< the ones not proven first, each in the usual order

    double volume_m3() const;
    /// Edges of what is expected at a time since turning began (Pa). All of it 0 while it cannot
    /// prime.
    double upper_pa(double t_s) const;
    double lower_pa(double t_s) const;
};

/// What this build is expected to do when it is primed as its run card says.
PrimeForecast primeForecast(const Build &build, const Assessment &assessment);

/// The ten causes of the usual order with what this build has proven of each.
std::vector<PrimeCause> primeCauses(const Build &build, const Assessment &assessment);

} // namespace mildpath
