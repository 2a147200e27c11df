// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/cannotknow.h"

#include "assess/circuitof.h"
#include "document/logbook.h"
#include "rules/rules.h"

namespace mildpath {

std::vector<Phrase> cannotKnow(const Build &build)
{
    std::vector<Phrase> out;
    if (standing(build.gaugeReadings).empty())
        out.push_back("Whether the engine that stands there is the one described here: the first "
                      "reading of a gauge tells.");
    out.push_back({ "unknown.air",
                    "How much air the oil carries at speed: {0} by volume is taken, give or take "
                    "{1}.",
                    { asShare(usualAirShare), asShare(bandAir, 1) } });
    out.push_back({ "unknown.edges",
                    "How sharp the edges and how rough the walls of its drillings are: holes pass "
                    "what such holes usually pass, give or take {0} each.",
                    { asShare(bandHole_ln) } });
    out.push_back("What a cycle does to a film from moment to moment: a mean load stands for it.");
    out.push_back("The film's own pressure at the mouth of a drilling, and what a turning groove "
                  "drags along: both are left out of the crank's feed.");
    if (!build.use.fullLoadPeak_kpa)
        out.push_back({ "unknown.peak",
                        "What it burns: {0} at full load is usual for it; diesel has to be said.",
                        { asPressure(fullLoadPeakOf_pa(build), 0) } });
    if (reliefReturnOf(build) == ReliefReturn::Unknown)
        out.push_back("Where the relief valve lets its oil go: nobody has looked.");
    out.push_back("Dirt that comes loose later: what was proven clean is forecast clean.");
    return out;
}

} // namespace mildpath
