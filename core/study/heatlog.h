// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"
#include "assess/sizes.h"
#include "bearing/heatedblock.h"
#include "bearing/infrared.h"
#include "rules/rules.h"

namespace mildpath {

/// A point of the heated-block log as the judgement sees it.
struct JudgedHeatPoint
{
    std::string id;
    std::optional<double> metal_c; ///< mean of the spots, corrected for emissivity
    double spread_k = 0; ///< over the block
    double amplification = 1; ///< of the infrared correction
    std::optional<double> reading_um; ///< as gauged: journal as cold as when it was zeroed
    std::optional<double> running_um; ///< with the journal as warm as the metal
    double grown_um = 0; ///< the bore's growth since the reference
    std::optional<double> growthSays_c; ///< metal temperature that the growth asks for
    bool counts = false; ///< for the fit
    Mark mark = Mark::NotDone;
    Phrase verdict;
};

/// The log of one bore and what it proves.
struct HeatLog
{
    std::string stop;
    std::vector<JudgedHeatPoint> points; ///< in order of entry
    std::optional<ExpansionFit> fit; ///< of the points that count, journal brought to 20 °C
    double expansion_per_k = 0; ///< of the housing, effective: the shell's wall taken out
    std::optional<double> expansionU_per_k; ///< standard
    double running_um_per_k = 0; ///< growth with block and crank warming together
    double gauge_um_per_k = 0; ///< as the gauge sees it, journal cold
    std::optional<double> slopeU_um_per_k; ///< standard, of both
    Mark mark = Mark::NotDone;
    Phrase verdict;
};
HeatLog judgeHeatLog(const Build &build, const std::vector<GaugedSize> &sizes,
                     std::string_view stop);

/// Question of a recorded choice: what the infrared thermometer answers to, "band_8_14" (unless
/// chosen otherwise) or "total".
inline constexpr std::string_view infraredBandQuestion = "infrared_band";
InfraredBand infraredBand(const Build &build);

/// The edit that makes a log's fit the expansion in use. Only with a fit.
OwnExpansion expansionFromLog(const Build &build, const HeatLog &log);

} // namespace mildpath
