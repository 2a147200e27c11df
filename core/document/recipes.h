// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "kinds/stopkind.h"

namespace mildpath {

// What a stop is usually made of: sizes to begin with, for the builder to correct. All own choices
// near common practice, no source.

/// How big the engine is against the one the usual sizes were taken for.
struct RecipeScale
{
    double bore = 1; ///< bore over 91.4 mm
    double pump = 1; ///< displacement of the pump over 6.8 cm³ a turn
    double swept_l = 2.6; ///< of the whole engine
};

/// What a chain tensioner's vent usually is.
inline constexpr double usualVent_mm = 0.3;
RecipeScale scaleOf(const Build &build);

Element pipeElement(std::string id, std::string from, std::string to, double d_mm, double l_mm,
                    double k);
Element holeElement(std::string id, std::string from, std::string to, double d_mm, double l_mm,
                    double cd = 0.75);
Element gapElement(std::string id, std::string from, double d_mm, double clearance_um, double l_mm,
                   double eccentricity, double count = 1);
/// Of an oil groove in a bearing of this width (mm).
double usualGrooveWidth_mm(double width_mm);
/// A plain bearing with a full groove fed from a node.
Element bearingElement(std::string id, std::string from, double d_mm, double width_mm,
                       double clearance_um, double groove_deg);

/// A hole in a rod that throws oil at what runs above it, once a turn, when it meets the drilling
/// in the pin.
Element squirtHole(std::string id, std::string from, double bore);

/// A stop with the elements that make it.
struct MadeStop
{
    Stop stop;
    std::vector<Element> elements;
};

/// How a kind of stop hangs in the circuit.
enum class StopForm {
    Branch, ///< fed from a node, ends in the sump
    Inline, ///< oil passes through it on its way
    Bare, ///< no oil of its own in the circuit: a plug, small ends, scavenge stages
    Fixed, ///< belongs to the engine's frame: pump, relief, gallery, mains …
};
StopForm formOf(StopKind kind);

/// A branch fed from a node. @param name  empty: the kind's usual name
MadeStop makeBranch(StopKind kind, const std::string &id, const std::string &name,
                    const std::string &from, const RecipeScale &scale, int cylinders);
/// A stop oil passes through, between two nodes.
MadeStop makeInline(StopKind kind, const std::string &id, const std::string &name,
                    const std::string &from, const std::string &to, const RecipeScale &scale);
/// "Cooling jets" for a jet stop.
std::string usualName(StopKind kind);

} // namespace mildpath
