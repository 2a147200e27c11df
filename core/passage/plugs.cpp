// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/plugs.h"

#include "kinds/cautions.h"
#include "quantity/rounding.h"
#include "rules/rules.h"

namespace mildpath {
namespace {

constexpr std::array<PlugKind, 4> kinds { {
    { "screw", "screw plug",
      "Warm the metal around it; turn out with a key that fills the socket. If tight, let it "
      "cool, then soak with penetrating oil. Wipe dry before any more heat",
      "Thread clean, sealant on the thread only and away from the passage; torque by the maker",
      false },
    { "cup", "pressed cup plug",
      "Drill through its middle, tap, and draw it straight with a slide hammer or a bolt over a "
      "bridge. Do not lever against the bore",
      "New plug, bore bright, sealant outside the rim, driven square to the depth the maker gives",
      true },
    { "ball", "pressed ball",
      "Drill its middle on a flat spot ground first, tap, and draw it with a bolt over a bridge. A "
      "hardened ball wants a carbide drill, or a shop",
      "New ball or a screw plug cut for it; stake the rim where the maker did", true },
    { "core", "light-alloy core plug",
      "Warm the block about it evenly with hot air, then drill, tap and draw it; alloy comes out "
      "with the chip, do not let it fall inward",
      "New plug, both faces clean; it is pressed cold into a warm block", true },
} };

constexpr std::array<TapSize, 7> taps { {
    { "M3", 3, 0.5, 2.5 },
    { "M4", 4, 0.7, 3.3 },
    { "M5", 5, 0.8, 4.2 },
    { "M6", 6, 1.0, 5.0 },
    { "M8", 8, 1.25, 6.8 },
    { "M10", 10, 1.5, 8.5 },
    { "M12", 12, 1.75, 10.2 },
} };

constexpr std::array<double, 14> brushes { { 2, 3, 4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 25, 32 } };

} // namespace

std::span<const PlugKind> plugKinds()
{
    return kinds;
}

const PlugKind *findPlugKind(std::string_view id)
{
    for (const PlugKind &k : kinds)
        if (k.id == id)
            return &k;
    return nullptr;
}

std::span<const TapSize> tapSizes()
{
    return taps;
}

std::optional<TapSize> pullerTap(double plug_mm)
{
    std::optional<TapSize> out;
    for (const TapSize &t : taps)
        if (t.major_mm <= mostOfPlug * plug_mm)
            out = t;
    return out;
}

DrawingAdvice howToDraw(const Plug &plug)
{
    DrawingAdvice out;
    const PlugKind *kind = findPlugKind(plug.kind);
    if (!kind)
        return out;
    if (plug.hidden())
        out.steps.emplace_back("The outer plug comes out first; this one sits behind it.");
    out.steps.emplace_back(std::string(kind->drawing) + ".");
    if (kind->drilled) {
        if (const auto tap = pullerTap(plug.d_mm))
            out.steps.push_back({ "plug.tap",
                                  "For {0}: drill {1}, tap {2}.",
                                  { asLength(plug.d_mm), asLength(tap->drill_mm), tap->thread } });
        else
            out.steps.emplace_back("Too small for a tap: a left-hand drill, or a qualified shop.");
        out.cautions.emplace_back(caution::drillingPlugs);
    } else if (!plug.thread.empty()) {
        out.steps.emplace_back("Thread " + plug.thread + ".");
    }
    out.cautions.emplace_back(caution::drawingPlugs);
    return out;
}

double brushFor_mm(double bore_mm)
{
    for (const double b : brushes)
        if (b >= bore_mm)
            return b;
    return brushes.back();
}

} // namespace mildpath
