// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"

namespace mildpath {

// Numbers set without a note of where they come from; the edits that do so note it.

Result<Build> setElementValue(Build build, const SetElementValue &edit);
Result<Build> setStopValue(Build build, const SetStopValue &edit);
Result<Build> setEngine(Build build, const SetEngine &edit);
Result<Build> setUse(Build build, const SetUse &edit);
Result<Build> setLimit(Build build, const SetLimit &edit);
Result<Build> setSectionValue(Build build, const SetSectionValue &edit);

} // namespace mildpath
