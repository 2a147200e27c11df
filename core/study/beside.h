// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "study/heatlog.h"
#include "study/room.h"

#include <map>
#include <string>
#include <vector>

namespace mildpath {

/// What is asked beside an assessment whenever it is written down.
struct BesideAssessment
{
    std::vector<std::pair<std::string, HeatLog>> heatLogs; ///< by stop; those that hold a point
    std::vector<Room> rooms; ///< of mains and big-ends; none where the circuit has no solution
};
BesideAssessment besideAssessment(const Build &build, const std::vector<GaugedSize> &sizes);

} // namespace mildpath
