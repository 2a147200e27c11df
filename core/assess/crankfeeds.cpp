// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/crankfeeds.h"

#include "assess/circuitof.h"
#include "circuit/elementtypes.h"
#include "document/recipes.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double usualGroove_mm = 1;

double shellDepth_mm(const Stop &main)
{
    if (main.has("groove_depth_mm"))
        return main.value("groove_depth_mm");
    const double wall = main.value("shell_wall_mm");
    return wall > 0 ? std::clamp(0.45 * wall, 0.6, 1.2) : usualGroove_mm;
}

} // namespace

MainGroove mainGroove(const Build &build, const Stop &main)
{
    MainGroove out;
    double hole_mm = 0;
    for (const std::string &id : main.elements)
        if (const Element *e = build.circuit.find(id); e && isBearing(*e)) {
            out.width_m = e->value("groove_width_mm") * 1e-3;
            if (!(out.width_m > 0))
                out.width_m = usualGrooveWidth_mm(e->value("width_mm")) * 1e-3;
            hole_mm = e->value("hole_mm");
        }
    out.hole_m = main.value("shell_hole_mm", hole_mm) * 1e-3;
    out.mouths = main.value("cross_drilled") > 0 ? 2 : 1;
    out.extent_deg = shellGroove_deg(build, main);
    if (out.extent_deg > 0) {
        out.kind = out.extent_deg >= 360 ? FeedGroove::Full : FeedGroove::Partial;
        out.depth_m = shellDepth_mm(main) * 1e-3;
    }
    if (main.value("journal_groove") > 0) {
        out.kind = FeedGroove::Journal;
        const double depth_m = main.value("journal_groove_depth_mm", usualGroove_mm) * 1e-3;
        out.journalWidth_m = main.value("journal_groove_width_mm", out.width_m * 1e3) * 1e-3;
        if (!(out.extent_deg > 0)) {
            out.width_m = out.journalWidth_m;
            out.depth_m = depth_m;
        } else {
            // One slot of the section of both.
            out.depth_m += depth_m * out.journalWidth_m / out.width_m;
        }
    }
    return out;
}

std::vector<std::string> rodsFedBy(const Build &build, const Stop &main)
{
    std::vector<std::string> out;
    for (const Element &e : build.circuit.elements) {
        if (e.kind != ElementKind::CrankDrilling || main.points.empty()
            || e.from != main.points.front().node)
            continue;
        for (const Stop &rod : build.engine.stops)
            for (const StopPoint &p : rod.points)
                if (rod.kind == StopKind::BigEnd && p.node == e.to)
                    out.push_back(rod.name);
    }
    return out;
}

MainGroove withGrooveAllRound(MainGroove groove, const Stop &main)
{
    if (groove.kind == FeedGroove::None)
        groove.depth_m = shellDepth_mm(main) * 1e-3;
    groove.kind = FeedGroove::Full;
    groove.extent_deg = 360;
    return groove;
}

double mouthShareOfTurn(const MainGroove &groove, double journalRadius_m, double drilling_m)
{
    return feedFraction(groove.kind, groove.extent_deg, journalRadius_m, drilling_m, groove.hole_m,
                        1);
}

void feedDrillingBy(Element &drilling, const MainGroove &groove, double journalRadius_m)
{
    const double d = drilling.value("d_mm") * 1e-3;
    drilling.values["window_share"] = mouthShareOfTurn(groove, journalRadius_m, d);
    drilling.values["mouths"] = groove.mouths;
    drilling.values.erase("duty");
    if (groove.kind == FeedGroove::None) {
        drilling.values["open_mean"] = groove.hole_m > 0 ? meanHoleOverlap(d, groove.hole_m) : 1;
        return;
    }
    const double way = groove.kind == FeedGroove::Partial
        ? arcSlot_m(journalRadius_m, groove.extent_deg)
        : wholeSlot_m(journalRadius_m);
    drilling.values["open_mean"] = 1;
    drilling.values["slot_width_mm"] = groove.width_m * 1e3;
    drilling.values["slot_depth_mm"] = groove.depth_m * 1e3;
    drilling.values["slot_length_mm"] = way * 1e3;
}

} // namespace mildpath
