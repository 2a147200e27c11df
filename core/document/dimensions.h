// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

namespace mildpath {

// Sizes that follow from others of the document. They are worked out where they are wanted and
// stand nowhere a second time.

/// Of all cylinders (l): from bore and stroke, else as it was written.
double displacement_l(const Engine &engine);
/// Stroke (mm): as entered, else the bore.
double stroke_mm(const Engine &engine);

/// The hole a plug's stop closes (mm): that of its plug in the ledger, else as the stop says;
/// absent where neither does.
std::optional<double> plugBore_mm(const Build &build, const Stop &stop);

/// Where a drilling through the crank begins and ends (mm from the crank's axis): at the surfaces
/// of main and pin, unless it says otherwise. @param key  r_in_mm or r_out_mm. Absent: no bearing
/// there, no stroke known
std::optional<double> journalRadius_mm(const Build &build, const Element &drilling,
                                       std::string_view key);
/// The document's circuit with what follows from other sizes filled in: ready to be solved.
Circuit wholeCircuit(const Build &build);
/// Whether an element makes sense, with what follows from other sizes. Errors: place = its key.
Result<void> checkElementOf(const Build &build, const Element &element);

/// Bores of passages that are elements of the circuit become theirs; what is no element any more
/// keeps the bore it had. Done after every edit and on reading a file.
void followCircuit(Build &build);

/// Sizes an older file had written twice become one; where they differ the other is kept to be
/// asked about. The document's of version 12 and before.
void settleOlder(Build &build);

} // namespace mildpath
