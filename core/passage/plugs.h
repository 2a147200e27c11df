// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "passage/passage.h"
#include "rules/rules.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

/// A kind of plug and how it comes out. Common practice, no source.
struct PlugKind
{
    std::string_view id, name;
    std::string_view drawing; ///< how, in one or two sentences
    std::string_view fitting; ///< how a new one goes in
    bool drilled; ///< a hole is drilled and tapped for a puller
};
std::span<const PlugKind> plugKinds();
/// @return null for an unknown id.
const PlugKind *findPlugKind(std::string_view id);

/// A metric coarse thread and the drill for it.
struct TapSize
{
    std::string_view thread; ///< "M6"
    double major_mm, pitch_mm;
    double drill_mm; ///< major − pitch, on the nearest drill that is sold
};
/// M3 to M12, ascending. Source: ISO 261 (coarse pitches); tap drill = major − pitch, the usual
/// choice of handbooks (from memory), rounded to drills of 0.1 mm.
std::span<const TapSize> tapSizes();
/// The largest tap a puller needs in a plug of this diameter: at most 0.55 of it, so that a wall
/// stays to pull at (own choice). Absent where even M3 is too large.
std::optional<TapSize> pullerTap(double plug_mm);

/// How a plug is drawn: what to do, and what to mind, in order.
struct DrawingAdvice
{
    std::vector<Phrase> steps;
    std::vector<std::string> cautions;
};
DrawingAdvice howToDraw(const Plug &plug);

/// The smallest stock brush that fills this bore; the largest there is for a wider one.
double brushFor_mm(double bore_mm);

} // namespace mildpath
