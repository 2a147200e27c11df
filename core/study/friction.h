// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "quantity/result.h"

#include <string>
#include <vector>

namespace mildpath {

/// What a journal's film costs, as it is and with every journal of the crank another diameter.
struct JournalLoss
{
    std::string name, family;
    double now_w = 0, changed_w = 0;
};
struct CrankFriction
{
    double rpm = 0;
    std::vector<JournalLoss> each; ///< in oil order
    /// Of a family together.
    JournalLoss of(std::string_view family) const;
};
/// Hot, without load, at the higher and the highest speed. Friction goes with the cube of the
/// diameter at one viscosity (Petroff); with its own heat a doubled journal costs four to six times
/// as much, not eight.
/// @param by_mm  of every main and big-end journal's diameter, clearances as they are: a regrind
///               takes away, another crank may add
/// Errors: as Network::solve.
Result<std::vector<CrankFriction>>
crankFriction(const Build &build, const std::vector<GaugedSize> &sizes, double by_mm);

} // namespace mildpath
