// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/airreport.h"
#include "assess/fits.h"
#include "assess/forecast.h"
#include "assess/lines.h"
#include "assess/operating.h"
#include "assess/sizes.h"
#include "assess/spread.h"
#include "assess/states.h"
#include "passage/cleaning.h"

#include <string_view>
#include <vector>

namespace mildpath {

/// Every number that follows from a document, part by part, each from those before it. Immutable,
/// and complete once it is there.
struct Figures
{
    explicit Figures(const Build &build);

    const std::vector<GaugedSize> sizes; ///< family by family, in oil order
    const std::vector<FamilySummary> families; ///< those the engine has
    const std::vector<FeedHole> feedHoles; ///< mains whose holes were measured
    const std::vector<FitVerdict> fits; ///< pump, relief and pickup
    const std::vector<Spread> spreads; ///< of the bearings that failed
    const CleaningBook cleaning; ///< passages and plugs, as in the document
    const LinesReport lines; ///< outside the engine
    const Operating operating;
    const Forecast forecast;
    const std::vector<OperatingState> states; ///< where it is always judged
    const AirReport air;

    /// The first of a stop: its clearance, where it has one.
    const GaugedSize *size(std::string_view stop) const { return sizeOf(sizes, stop); }
    const GaugedSize *size(std::string_view stop, std::string_view family, int item) const
    {
        return sizeOf(sizes, stop, family, item);
    }
    const FamilySummary *family(std::string_view id) const;

private:
    Figures(const Build &build, std::vector<GaugedSize> judged);
    Figures(const Build &build, std::vector<GaugedSize> judged, Predicted predicted);
};

} // namespace mildpath
