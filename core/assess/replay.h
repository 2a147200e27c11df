// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"
#include "rules/rules.h"
#include "sump/drive.h"

namespace mildpath {

/// The pickup at a moment of a drive.
struct ReplayMoment
{
    double time_s;
    double cover_m; ///< oil over the mouth, the less of the two sections
    PanWay way; ///< which section that is
    double lateral_g, longitudinal_g; ///< as the oil follows
    bool modelled; ///< false: the signal is quicker than the oil can follow here
};
/// A stretch of time with the mouth bare.
struct Uncovered
{
    double from_s, to_s, least_m;
};
struct Replay
{
    std::vector<ReplayMoment> moments;
    std::vector<Uncovered> uncovered; ///< below the dip limit
    double slosh_s; ///< the signal is averaged over
    double dip_m, wanted_m;
    double least_m = 0, leastAt_s = 0;
    double notModelled = 0; ///< share of the time
    double uncovered_s = 0, short_s = 0; ///< below the dip limit, below what is wanted
};

/// Never short of what is wanted is proven.
Mark markOf(const Replay &replay);

/// A drive over the pan, hot, at the highest speed: steady tilt of the signal averaged over one
/// slosh period. Lateral moments are seen in the section across, longitudinal ones along; both at
/// once are not put together. Errors: what the sump lacks, `volume_l`; place as in the document.
Result<Replay> replayDrive(const Build &build, const AirReport &air,
                           std::span<const DriveMoment> drive);

} // namespace mildpath
