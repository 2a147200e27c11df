// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operatingmodel.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct GaugedSize;

/// One of "same build, other oils".
struct OtherOil
{
    std::string grade;
    bool gearOil = false;
    bool fitted = false; ///< the oil of the document
    double gauge_pa = 0;
    double weakest_pa = 0;
    std::string weakestName;
    Mark mark = Mark::NotDone; ///< against the floor and the needs
};

/// One of "what moves hot idle".
struct Lever
{
    Phrase name;
    double change_pa = 0; ///< of the gauge at hot idle
    Phrase remark; ///< why nothing happens, where nothing does
};

/// Pressure against speed at one oil temperature.
struct ForecastLine
{
    double oil_c = 0;
    std::vector<double> rpm;
    std::vector<LikelyPressure> gauge;
    std::vector<double> weakest_pa;
    std::vector<double> weakestRatio;
    std::vector<double> bigEndsOfCrank; ///< share of the oil that mains and big-ends take
    std::optional<double> reliefOpens_rpm; ///< absent: not up to the highest speed
    std::vector<double> crankNeed_pa; ///< feed the crank needs at its mains
    std::optional<double> crankStarves_rpm; ///< absent: fed up to the highest speed
    std::vector<LikelyPressure> updated {}; ///< what readings make of it; empty: not asked for
};

/// What follows from the circuit beyond the points that are judged.
struct Forecast
{
    std::vector<ForecastLine> lines; ///< 40 °C, hot oil, hot oil + 30 K
    std::vector<OtherOil> otherOils;
    std::vector<Lever> levers;
};

/// Both from one walk along the speeds.
struct Predicted
{
    Operating operating;
    Forecast forecast;
    std::map<double, OperatingModel> models; ///< by oil temperature, for more of the same build
};
/// Never fails: what cannot be solved is said in `operating.unsolved`.
Predicted predict(const Build &build, const std::vector<GaugedSize> &sizes);

/// Pressure against speed at the given oil temperatures, optionally with another oil.
/// Errors: as Network::solve.
Result<std::vector<ForecastLine>> forecastLines(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                const std::vector<double> &oil_c,
                                                const std::vector<double> &rpm,
                                                const CircuitChange &change = {});

/// The lines of a forecast at this many speeds, evenly from its first to its last. Where the relief
/// opens stays as it was found there: one and the same figure everywhere.
/// Errors: as Network::solve. Empty where the forecast is.
Result<std::vector<ForecastLine>> finerForecast(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                const Forecast &coarse, int speeds);

/// Speeds of the assessment's own forecast: 14, idle to highest.
std::vector<double> forecastSpeeds(const Build &build);

} // namespace mildpath
