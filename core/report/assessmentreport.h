// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/extrakeys.h"
#include "quantity/phrase.h"

#include <string>
#include <vector>

namespace mildpath {

class Believed;
struct Assessment;
struct BesideAssessment;
struct Build;
struct ForecastLine;

/// The assessment as stable, documented JSON (docs/format/assessment.md).
Json assessmentToJson(const Build &build, const Assessment &assessment,
                      const BesideAssessment &beside);
/// Forecast lines as stable JSON: the `forecast` part of the assessment.
Json forecastToJson(const Build &build, const std::vector<ForecastLine> &lines);
/// With what the gauge readings make of them (Believed::update).
Json forecastToJson(const Build &build, const std::vector<ForecastLine> &lines,
                    const Believed &believed);
/// The assessment for people, plain text.
std::string assessmentText(const Build &build, const Assessment &assessment,
                           const UnitStyle &style);

} // namespace mildpath
