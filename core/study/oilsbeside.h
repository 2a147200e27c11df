// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sizes.h"
#include "document/document.h"
#include "study/contacts.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

/// One oil in this engine, hot: what it does for the gauge, the contacts, the cold and the cam.
struct OilBeside
{
    ChosenOil oil;
    bool fitted = false;
    bool shearAssumed = false; ///< no high-shear viscosity on its sheet: usual for its kind
    double gauge_pa = 0; ///< hot idle
    double weakestRatio = 0; ///< of the weakest stop to its need, hot idle
    std::vector<Contact> idle, most; ///< at hot idle and at the highest speed
    double film_c = 0; ///< the hottest film of the crank at full load and the highest speed
    CrankingTest cranks {};
    double pumpsTo_c = 0; ///< down to which its grade is tested for pumping
    AntiWearAdvice antiWear {}; ///< against its own phosphorus

    /// Gauge and weakest stop at hot idle against what is asked.
    Mark idleMark(const Build &build) const;
    /// Hollow where its high-shear viscosity is only usual.
    Mark markOf(const Contact &contact) const;
    /// Of mains and big-ends together: at hot idle, or at full load and the highest speed.
    const Contact *leastOfTheCrank(bool atMost) const;
    const Contact *cam(bool atMost) const;
};

/// The shelf's engine oils, the builder's own and the fitted one, thin to thick.
/// Errors: as Network::solve.
Result<std::vector<OilBeside>> oilsBeside(const Build &build, const std::vector<GaugedSize> &sizes);
Json oilsToJson(const std::vector<OilBeside> &oils);

} // namespace mildpath
