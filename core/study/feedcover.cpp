// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/feedcover.h"

#include "assess/circuitof.h"
#include "assess/operatingmodel.h"
#include "assess/sizes.h"
#include "bearing/feed.h"

namespace mildpath {

Result<std::vector<CoverPoint>> coverSweep(const Build &build, const std::vector<GaugedSize> &sizes,
                                           const Stop &main, std::span<const double> covered)
{
    if (main.points.empty())
        return fail("points", main.name + " has no point where its oil comes in");
    std::string rod;
    for (const Element &e : build.circuit.elements)
        if (e.kind == ElementKind::CrankDrilling && e.from == main.points.front().node)
            rod = e.to;
    std::vector<CoverPoint> out;
    for (const double share : covered) {
        Build changed = build;
        for (Stop &s : changed.engine.stops) {
            if (s.id != main.id)
                continue;
            const Element *drilling = feedDrilling(build, main);
            const double d = s.value("block_hole_mm", drilling ? drilling->value("d_mm") : 6);
            s.values["block_hole_mm"] = d;
            s.values["shell_hole_mm"] = s.value("shell_hole_mm", d);
            s.values["hole_offset_mm"]
                = offsetFor(d * 1e-3, s.values["shell_hole_mm"] * 1e-3, 1 - share) * 1e3;
        }
        auto model = OperatingModel::make(changed, sizes, build.use.hotOil_c);
        if (!model)
            return tl::unexpected(model.error());
        const auto r = model->at(build.use.highSpeed_rpm, OperatingModel::Detail::Values);
        if (!r)
            return tl::unexpected(r.error());
        CoverPoint point { share, 0, r->gauge.value_pa, {} };
        for (const PointPressure &p : r->points) {
            if (p.node == main.points.front().node)
                point.main_pa = p.pressure_pa;
            if (p.node == rod)
                point.bigEnd_pa = p.pressure_pa;
        }
        out.push_back(point);
    }
    return out;
}

} // namespace mildpath
