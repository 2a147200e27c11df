// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/catalogue.h"

#include "calc/arguments.h"

#include <array>

namespace mildpath {
namespace {

// A new calculator is one definition in its topic's file and one line here.
const std::array<const Calculator *, 69> all {
    &viscosityAtCalculator,
    &viscosityIndexCalculator,
    &gradeCalculator,
    &fuelDilutionCalculator,
    &highShearCalculator,
    &fallingBallCalculator,
    &filmParameterCalculator,
    &lineContactCalculator,
    &fuelMassCalculator,
    &clearanceFromDiametersCalculator,
    &boreFormCalculator,
    &stripGaugeCalculator,
    &thermalClearanceCalculator,
    &endFloatCalculator,
    &coldLockCalculator,
    &heatedBlockCalculator,
    &expansionFitCalculator,
    &clearanceWindowCalculator,
    &emissivityCalculator,
    &bearingFilmCalculator,
    &bearingHeatCalculator,
    &crankFeedCalculator,
    &shellFormCalculator,
    &crankFlowCalculator,
    &journalTemperatureCalculator,
    &tensionerSeepCalculator,
    &stopNeedCalculator,
    &likelyBandCalculator,
    &bandUpdateCalculator,
    &grooveFlowCalculator,
    &holeFlowCalculator,
    &feedOverlapCalculator,
    &pipeDropCalculator,
    &orificeFlowCalculator,
    &annulusLeakCalculator,
    &bearingLeakCalculator,
    &crankHeadCalculator,
    &pumpDeliveryCalculator,
    &reliefFlowCalculator,
    &reliefSettingCalculator,
    &filterDropCalculator,
    &inletPressureCalculator,
    &timedFeedCalculator,
    &oRingSqueezeCalculator,
    &compressionSetCalculator,
    &pickupGapCalculator,
    &sumpLevelCalculator,
    &tiltedSumpCalculator,
    &tiltedProfileCalculator,
    &fillWindowCalculator,
    &pickupUncoverCalculator,
    &windageCalculator,
    &submergenceCalculator,
    &suctionPressureCalculator,
    &suctionLeakCalculator,
    &airReleaseCalculator,
    &bubbleRiseCalculator,
    &aeratedDeliveryCalculator,
    &aeratedModulusCalculator,
    &drainBackCalculator,
    &primeVolumeCalculator,
    &primeLiftCalculator,
    &primeTimeCalculator,
    &oilVolumeCalculator,
    &senderThreadCalculator,
    &aerationRiskCalculator,
    &boreFinishCalculator,
    &wearRateCalculator,
    &countComparisonCalculator,
};

std::string_view kindName(CalcKind kind)
{
    switch (kind) {
    case CalcKind::Number:
        return "number";
    case CalcKind::WholeNumber:
        return "whole number";
    case CalcKind::Text:
        return "text";
    case CalcKind::Boolean:
        return "true or false";
    case CalcKind::List:
        return "list of objects";
    case CalcKind::Numbers:
        return "list of numbers";
    case CalcKind::Points:
        return "list of pairs of numbers";
    }
    return "";
}

Json describeInputs(std::span<const CalcInput> inputs)
{
    Json out = Json::array();
    for (const CalcInput &in : inputs) {
        Json row = { { "key", in.key }, { "meaning", in.meaning }, { "type", kindName(in.kind) } };
        if (!in.unit.empty())
            row["unit"] = in.unit;
        row["required"] = in.required;
        if (in.fallback)
            row["default"] = *in.fallback;
        if (!in.choices.empty())
            row["choices"] = in.choices;
        if (const std::string range = rangeText(in); !range.empty())
            row["range"] = range;
        if (!in.items.empty())
            row["items"] = describeInputs(in.items);
        out.push_back(std::move(row));
    }
    return out;
}

} // namespace

std::span<const Calculator *const> calculators()
{
    return all;
}

const Calculator *findCalculator(std::string_view name)
{
    for (const Calculator *c : all)
        if (c->name == name)
            return c;
    return nullptr;
}

Result<Json> runCalculator(const Calculator &calculator, const Json &input)
{
    const auto arguments = CalcArguments::check(calculator.inputs, input);
    if (!arguments)
        return tl::unexpected(arguments.error());
    // Each value is in range; together they may still lie beyond what can be computed.
    try {
        auto output = calculator.run(*arguments);
        if (output)
            for (const auto &[key, value] : output->items())
                if (value.is_number_float() && !std::isfinite(value.get<double>()))
                    return fail(key,
                                "cannot be computed from these values: it is no finite number");
        return output;
    } catch (const std::exception &e) {
        return fail(std::string(calculator.name),
                    std::string("cannot be computed from these values (") + e.what() + ")");
    }
}

std::string rangeText(const CalcInput &in)
{
    std::string out;
    if (in.least > -1e12)
        out = (in.aboveLeast ? "above " : "at least ") + Json(in.least).dump();
    if (in.most < 1e12)
        out += std::string(out.empty() ? "" : " and ") + "at most " + Json(in.most).dump();
    return out;
}

Json describeCalculator(const Calculator &c)
{
    Json outputs = Json::array();
    for (const CalcOutput &out : c.outputs) {
        Json row = { { "key", out.key }, { "meaning", out.meaning } };
        if (!out.unit.empty())
            row["unit"] = out.unit;
        outputs.push_back(std::move(row));
    }
    return { { "name", c.name },       { "title", c.title },
             { "meaning", c.meaning }, { "formula", c.formula },
             { "source", c.source },   { "inputs", describeInputs(c.inputs) },
             { "outputs", outputs } };
}

} // namespace mildpath
