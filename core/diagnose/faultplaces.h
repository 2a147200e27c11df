// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"

#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// Where at a stop a fault can sit.

/// Drillings of a stop that swarf can narrow, in the order of its elements; those to a gauge and a
/// lifter's own left out.
std::vector<const Element *> narrowable(const Build &build, const Stop &stop);
/// Elements of a type, in the stop's order.
std::vector<const Element *> ofType(const Build &build, const Stop &stop, std::string_view type);
/// Jets of a stop, as jets or as holes to the crankcase.
std::vector<const Element *> jetsOf(const Build &build, const Stop &stop);

/// The jet of that number (from 1; 0: the last). Null past the end.
const Element *lostJet(const Build &build, const Stop &stop, int item);

/// An end of a passage that a plug closes.
struct PlugEnd
{
    std::string name, node;
    double bore_mm;
};
/// That of a plug's stop, both of a gallery.
std::vector<PlugEnd> endsOf(const Build &build, const Stop &stop);

} // namespace mildpath
