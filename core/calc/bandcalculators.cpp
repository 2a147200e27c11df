// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "evidence/band.h"

#include <array>

namespace mildpath {
namespace {

constexpr CalcInput own(double fallback)
{
    return within(
        optional(notNegative("own", "remainder of the model at one point, in ln", ""), fallback), 0,
        5);
}

constexpr std::array likelyInputs {
    positive("value_kpa", "the plain forecast", "kPa"),
    many(within(either("effects_ln", "change of ln p by one standard deviation of each input", ""),
                -10, 10)),
    own(0.05),
};
constexpr std::array likelyOutputs {
    CalcOutput { "sigma_ln", "standard uncertainty of ln p", "" },
    CalcOutput { "low_kpa", "nineteen in twenty lie above", "kPa" },
    CalcOutput { "high_kpa", "nineteen in twenty lie below", "kPa" },
};

Result<Json> runLikely(const CalcArguments &in)
{
    const LikelyBand band
        = likelyBand(in.number("value_kpa"), in.numbers("effects_ln"), in.number("own"));
    return Json { { "sigma_ln", band.sigma_ln },
                  { "low_kpa", band.low },
                  { "high_kpa", band.high } };
}

constexpr std::array updateInputs {
    many(positive("prior_kpa", "the plain forecast of every point", "kPa")),
    many(within(either("jacobian",
                       "change of ln p by one standard deviation of each input, a row a point", ""),
                -10, 10)),
    CalcInput { .key = "inputs",
                .meaning = "how many inputs a row has",
                .unit = "",
                .kind = CalcKind::WholeNumber,
                .least = 1,
                .most = 1000 },
    many(within(notNegative("read_index", "points that were read, from 0", ""), 0, 1000)),
    many(positive("read_kpa", "what was read there", "kPa")),
    many(positive("read_u_kpa", "its standard uncertainty", "kPa")),
    own(0.03),
};
constexpr std::array updateOutputs {
    CalcOutput { "updated_kpa", "every point after the readings", "kPa" },
    CalcOutput { "updated_sd_ln", "standard uncertainty of its ln", "" },
    CalcOutput { "z", "the inputs, in their standard deviations", "" },
    CalcOutput { "chi2", "readings against the forecast", "" },
    CalcOutput { "p_value", "of readings as far off or further", "" },
    CalcOutput { "off_probability", "that something else is at work", "" },
};

Result<Json> runUpdate(const CalcArguments &in)
{
    const auto index = in.numbers("read_index"), value = in.numbers("read_kpa"),
               u = in.numbers("read_u_kpa");
    if (value.size() != index.size())
        return fail("read_kpa", "must be as many as read_index");
    if (u.size() != index.size())
        return fail("read_u_kpa", "must be as many as read_index");
    std::vector<BandReading> readings;
    for (size_t i = 0; i < index.size(); ++i) {
        if (index[i] != static_cast<double>(static_cast<size_t>(index[i])))
            return fail("read_index", "must be whole numbers");
        readings.push_back({ static_cast<size_t>(index[i]), value[i], u[i] });
    }
    const auto prior = in.numbers("prior_kpa"), jacobian = in.numbers("jacobian");
    const auto out = updateBand(prior, jacobian, static_cast<size_t>(in.number("inputs")), readings,
                                in.number("own"));
    if (!out)
        return tl::unexpected(out.error());
    return Json { { "updated_kpa", out->value }, { "updated_sd_ln", out->sd_ln },
                  { "z", out->inputs },          { "chi2", out->chi2 },
                  { "p_value", out->p_value },   { "off_probability", out->offProbability } };
}

} // namespace

const Calculator likelyBandCalculator {
    "likely-band",
    "Likely range of a pressure",
    "Where nine builds in ten lie, by what each uncertain input moves the pressure",
    "σ = √(Σ J² + own²);  low, high = p e^(∓1.645 σ)",
    "first order in ln p, textbook; the inputs' uncertainties are own choices",
    likelyInputs,
    likelyOutputs,
    runLikely
};

const Calculator bandUpdateCalculator {
    "band-update",
    "Likely range after readings",
    "What pressures that were read make of a forecast, also where nothing was read",
    "S = JJᵀ + R;  z = Jᵀ S⁻¹ r;  ln p = ln prior + J z;  variance = J (I − Jᵀ S⁻¹ J) Jᵀ + own²;  "
    "off: S + 0.30² 11ᵀ + 0.15² I, prior 0.10",
    "linear-Gaussian inversion, Tarantola, Inverse Problem Theory, 2005, ch. 3, from memory; "
    "discrepancy after Kennedy and O'Hagan, 2001, from memory, its size an own choice",
    updateInputs,
    updateOutputs,
    runUpdate
};

} // namespace mildpath
