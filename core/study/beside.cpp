// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/beside.h"

namespace mildpath {

BesideAssessment besideAssessment(const Build &build, const std::vector<GaugedSize> &sizes)
{
    BesideAssessment out;
    for (const Stop &stop : build.engine.stops)
        if (HeatLog log = judgeHeatLog(build, sizes, stop.id); !log.points.empty())
            out.heatLogs.emplace_back(stop.id, std::move(log));
    for (const char *family : { "main", "big_end" })
        if (auto room = roomOf(build, sizes, family, conditionsOf(build)))
            out.rooms.push_back(std::move(*room));
    return out;
}

} // namespace mildpath
