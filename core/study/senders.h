// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/airreport.h"
#include "assess/operating.h"

#include <string>
#include <vector>

namespace mildpath {

/// A place a temperature sender could sit.
struct SenderPlace
{
    std::string stop, name;
    Mark mark; ///< proven: sees oil at every speed and no debris
    double idle_m3_s = 0, fast_m3_s = 0; ///< of oil passing it, hot
    bool filtered = false;
    Phrase why {};
};
/// In oil order. Common practice, no source; the flows are the forecast's.
std::vector<SenderPlace> senderPlaces(const Build &build, const Operating &operating,
                                      const AirReport &air);

} // namespace mildpath
