// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/warmfilm.h"

namespace mildpath {

/// By how much the flow of a bearing changes with another oil on the same ladder, its balance
/// followed a few steps from a warmth near it (as flowChange_m3_s for another clearance).
double flowChangeByOil_m3_s(const FilmBearing &bearing, const Running &running, double feed_pa,
                            double near_k, const FilmOil &now, const FilmOil &other);

} // namespace mildpath
