// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "circuit/circuit.h"

#include <span>
#include <string>
#include <vector>

namespace mildpath {

// What a forecast does not know: the one table behind likely ranges, diagnosis and what readings
// make of a forecast. Every input is a standard normal of its own; all its sizes are own choices,
// ± 20 to 30 % of flow being usual for a network nobody has calibrated (rules band.…).

/// What one standard deviation of an input does to a number of an element.
struct ElementStep
{
    std::string element, key;
    double by; ///< in the key's unit, or of its logarithm
    bool ofLogarithm = false;
};

struct UncertainInput
{
    std::string cause; ///< "Main 4, as gauged", "Big-end bearings, assumed"
    std::string family {}; ///< that nobody gauged; empty: anything else
    std::vector<ElementStep> steps {};
    double oil_ln = 0; ///< of the viscosity
    double oil_k = 0; ///< of the oil's temperature
    double pressure_ln = 0; ///< of every pressure: what the model itself leaves out
};

/// All inputs of a build's running circuit, in an order that does not depend on the temperatures.
/// @param circuit  as solved (runningCircuit), the parts at these temperatures
std::vector<UncertainInput> uncertainInputs(const Build &build,
                                            const std::vector<GaugedSize> &sizes,
                                            const PartTemperatures &parts, const Circuit &circuit);

/// What z does to the logarithm of every pressure.
double commonPart_ln(std::span<const UncertainInput> inputs, std::span<const double> z);

/// One possible build: every input moved by its z.
struct PossibleBuild
{
    Circuit circuit;
    Oil oil;
    double oil_c;
    double pressure_ln = 0;
};
PossibleBuild possibleBuild(const Circuit &circuit, const Oil &oil, double oil_c,
                            std::span<const UncertainInput> inputs, std::span<const double> z);

} // namespace mildpath
