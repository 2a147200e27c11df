// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/starttables.h"

#include "storage/recordtable.h"

namespace mildpath {

std::string signOffsToCsv(const Build &build)
{
    return recordsToCsv(build.signOffs);
}

std::string cardStepsToCsv(const Build &build)
{
    return recordsToCsv(build.cardSteps);
}

std::string gaugeReadingsToCsv(const Build &build)
{
    return recordsToCsv(build.gaugeReadings);
}

} // namespace mildpath
