// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "circuit/circuit.h"

namespace mildpath {

/// Applies a list of edits to a copy of a circuit.
///   {"op":"set"|"scale","id":"x"|["x","y"],"values":{key: value or factor}}  (set may change
///   `type`)
///   {"op":"add","element":{…}} · {"op":"remove"|"reverse","id":…} · {"op":"engine","values":{…}}
/// Errors: place is the JSON pointer in the list; an absent id or an unknown op is named, and the
/// circuit is left as it was.
Result<Circuit> applyEdits(const Circuit &circuit, const Json &edits);

} // namespace mildpath
