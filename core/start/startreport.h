// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/json.h"
#include "start/afterwards.h"
#include "start/runcard.h"

namespace mildpath {

/// Everything about the start, for scripts. Stable, documented in docs/format.
Json startReportToJson(const Build &build, const StartGate &gate, const PrimeForecast &prime,
                       const RunCard &card, const ReadAgainst &against);
/// The same for people.
std::string startReportText(const Build &build, const StartGate &gate, const PrimeForecast &prime,
                            const RunCard &card, const ReadAgainst &against,
                            const UnitStyle &style);

} // namespace mildpath
