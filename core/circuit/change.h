// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/circuit.h"
#include "oil/viscosity.h"

#include <functional>

namespace mildpath {

/// Something done to the circuit as it runs, clearances and all, and to its oil: a fault, a remedy.
/// Errors: what cannot be done to it.
using CircuitChange = std::function<Result<void>(Circuit &, Oil &)>;

} // namespace mildpath
