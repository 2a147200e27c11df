// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "calc/catalogue.h"
#include "quantity/json.h"

#include <optional>
#include <utility>
#include <vector>

namespace mildpath {

class CalcArguments
{
public:
    /// Checks `input` against the definition.
    static Result<CalcArguments> check(std::span<const CalcInput> definition, const Json &input,
                                       const std::string &place = {});

    bool has(std::string_view key) const;
    /// The number, or the definition's fallback; must exist (a programming error otherwise).
    double number(std::string_view key) const;
    std::optional<double> optionalNumber(std::string_view key) const;
    std::string text(std::string_view key) const;
    bool boolean(std::string_view key) const;
    std::vector<CalcArguments> list(std::string_view key) const;
    std::vector<double> numbers(std::string_view key) const;
    std::vector<std::pair<double, double>> points(std::string_view key) const;

    /// Unit helpers: keys carry millimetres, micrometres, kilopascals, litres a minute.
    double mm(std::string_view key) const { return number(key) * 1e-3; }
    double um(std::string_view key) const { return number(key) * 1e-6; }
    double kpa(std::string_view key) const { return number(key) * 1e3; }
    double litres(std::string_view key) const { return number(key) * 1e-3; }
    double l_min(std::string_view key) const { return number(key) / 60000; }

private:
    CalcArguments(std::span<const CalcInput> definition, Json values)
        : m_definition(definition)
        , m_values(std::move(values))
    {
    }
    const CalcInput *definition(std::string_view key) const;

    std::span<const CalcInput> m_definition;
    Json m_values;
};

/// What there is, or null: a key that does not apply.
template <class T> Json orNull(const std::optional<T> &value)
{
    return value ? Json(*value) : Json();
}
inline Json orNull(const std::optional<double> &value, double scale)
{
    return value ? Json(*value * scale) : Json();
}

/// Registered in catalogue.cpp.
extern const Calculator viscosityAtCalculator, viscosityIndexCalculator, gradeCalculator,
    fuelDilutionCalculator, highShearCalculator;
extern const Calculator filmParameterCalculator, lineContactCalculator, fallingBallCalculator,
    fuelMassCalculator;
extern const Calculator stopNeedCalculator, crankFlowCalculator, shellFormCalculator,
    journalTemperatureCalculator, tensionerSeepCalculator, likelyBandCalculator,
    bandUpdateCalculator;
extern const Calculator crankFeedCalculator, bearingHeatCalculator, inletPressureCalculator,
    timedFeedCalculator;
extern const Calculator clearanceFromDiametersCalculator, boreFormCalculator, stripGaugeCalculator,
    thermalClearanceCalculator, endFloatCalculator, coldLockCalculator;
extern const Calculator heatedBlockCalculator, expansionFitCalculator, clearanceWindowCalculator,
    emissivityCalculator, bearingFilmCalculator;
extern const Calculator grooveFlowCalculator, holeFlowCalculator, feedOverlapCalculator;
extern const Calculator reliefSettingCalculator, oRingSqueezeCalculator, compressionSetCalculator,
    pickupGapCalculator;
extern const Calculator sumpLevelCalculator, tiltedSumpCalculator, tiltedProfileCalculator,
    fillWindowCalculator, pickupUncoverCalculator, drainBackCalculator, oilVolumeCalculator;
extern const Calculator windageCalculator, submergenceCalculator, suctionPressureCalculator,
    suctionLeakCalculator, airReleaseCalculator, bubbleRiseCalculator, aeratedDeliveryCalculator,
    aeratedModulusCalculator, aerationRiskCalculator;
extern const Calculator primeVolumeCalculator, primeLiftCalculator, primeTimeCalculator,
    senderThreadCalculator;
extern const Calculator boreFinishCalculator, wearRateCalculator, countComparisonCalculator;
extern const Calculator pipeDropCalculator, orificeFlowCalculator, annulusLeakCalculator,
    bearingLeakCalculator, pumpDeliveryCalculator, reliefFlowCalculator, filterDropCalculator,
    crankHeadCalculator;

} // namespace mildpath
