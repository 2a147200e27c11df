// SPDX-License-Identifier: GPL-3.0-or-later
#include "calc/arguments.h"

#include "calc/inputs.h"
#include "evidence/counts.h"
#include "evidence/usedoil.h"
#include "surface/finish.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array finishInputs {
    many(either("z_um", "heights of the trace", "µm")),
    positive("spacing_um", "step between heights; at most a fiftieth of the cut-off", "µm"),
    optional(positive("cutoff_mm", "cut-off of the filter", "mm"), 0.8),
    CalcInput { .key = "filter",
                .meaning = "what Rk and the rest are read from",
                .unit = "",
                .kind = CalcKind::Text,
                .required = false,
                .choices = "two_step|gaussian|none" },
    optional(notNegative("truncate_depth_um",
                         "finishing strokes: depth taken from the height at 1 %", "µm"),
             0),
};
constexpr std::array finishOutputs {
    CalcOutput { "points", "heights that are left after the filter", "" },
    CalcOutput { "sections", "sampling lengths; 5 are standard", "" },
    CalcOutput { "ra_um", "mean height, single filter", "µm" },
    CalcOutput { "rq_um", "root mean square, single filter", "µm" },
    CalcOutput { "rz_um", "mean of highest less lowest, single filter", "µm" },
    CalcOutput { "rk_um", "core", "µm" },
    CalcOutput { "rpk_um", "peaks above the core", "µm" },
    CalcOutput { "rvk_um", "valleys below the core", "µm" },
    CalcOutput { "mr1_percent", "material ratio where peaks end", "%" },
    CalcOutput { "mr2_percent", "material ratio where valleys begin", "%" },
    CalcOutput { "vo_mm3_cm2", "oil-retention volume", "mm³/cm²" },
    CalcOutput { "vo_um3_um2", "the same", "µm³/µm²" },
    CalcOutput { "two_process", "without a cut: whether plateau and valleys can be told apart",
                 "" },
    CalcOutput { "rpq_um", "without a cut: plateau, after ISO 13565-3", "µm" },
    CalcOutput { "rvq_um", "without a cut: valleys, null with one process", "µm" },
    CalcOutput { "rmq_percent", "without a cut: where they cross, null with one process", "%" },
    CalcOutput { "material_ratio_at_cut_percent", "with a cut: what stood above it", "%" },
    CalcOutput { "valley_volume_left_um3_um2", "with a cut: below the foot of the uncut core",
                 "µm³/µm²" },
};

ProfileFilter filterNamed(const std::string &name)
{
    return name == "none"    ? ProfileFilter::None
        : name == "gaussian" ? ProfileFilter::Gaussian
                             : ProfileFilter::TwoStep;
}

Result<Json> runFinish(const CalcArguments &in)
{
    const auto trace
        = finishTrace(in.numbers("z_um"), in.number("spacing_um"), in.number("cutoff_mm") * 1e3,
                      filterNamed(in.has("filter") ? in.text("filter") : "two_step"));
    if (!trace)
        return tl::unexpected(trace.error());
    const double depth = in.number("truncate_depth_um");
    std::optional<StrokedTrace> stroked;
    if (depth > 0) {
        auto cut = strokeTrace(*trace, depth);
        if (!cut)
            return tl::unexpected(cut.error());
        stroked = *cut;
    }
    const Amplitudes &a = stroked ? stroked->amplitudes : trace->amplitudes;
    const CoreRoughness &c = stroked ? stroked->core : trace->core;
    Json out { { "points", trace->profile.r_um.size() },
               { "sections", a.sections },
               { "ra_um", a.ra_um },
               { "rq_um", a.rq_um },
               { "rz_um", a.rz_um },
               { "rk_um", c.rk_um },
               { "rpk_um", c.rpk_um },
               { "rvk_um", c.rvk_um },
               { "mr1_percent", 100 * c.mr1 },
               { "mr2_percent", 100 * c.mr2 },
               { "vo_mm3_cm2", c.vo_mm3_cm2() },
               { "vo_um3_um2", c.vo_um3_um2 } };
    if (stroked) {
        out["material_ratio_at_cut_percent"] = 100 * stroked->cut.ratio;
        out["valley_volume_left_um3_um2"] = stroked->cut.valleyLeft_um3_um2;
        return out;
    }
    const PlateauFit fit = plateauFit(trace->curve);
    out["two_process"] = fit.twoProcess;
    out["rpq_um"] = fit.rpq_um;
    out["rvq_um"] = orNull(fit.rvq_um);
    out["rmq_percent"] = orNull(fit.rmq_percent);
    return out;
}

constexpr std::array wearInputs {
    positive("sump_mass_kg", "oil in the engine", "kg"),
    notNegative("element_mg_kg", "in the sample", "mg/kg"),
    notNegative("baseline_mg_kg", "in the new oil", "mg/kg"),
    optional(notNegative("start_mg_kg", "when the stretch began; else as the new oil", "mg/kg")),
    positive("hours_h", "run since", "h"),
    optional(notNegative("oil_added_kg", "topped up since, evenly", "kg"), 0),
    optional(many(either("history_mg_kg_per_100h", "this engine's earlier rates", "mg/kg"))),
};
constexpr std::array wearOutputs {
    CalcOutput { "net_mg_kg", "over the new oil", "mg/kg" },
    CalcOutput { "corrected_gain_mg_kg", "that would have gathered without make-up", "mg/kg" },
    CalcOutput { "wear_mass_mg", "metal", "mg" },
    CalcOutput { "wear_rate_mg_h", "metal in an hour", "mg/h" },
    CalcOutput { "rate_mg_kg_per_100h", "gain in 100 h", "mg/kg" },
    CalcOutput { "below_baseline", "less than the new oil: an additive, scatter or another oil",
                 "" },
    CalcOutput { "history_median", "with a history: middle of the earlier rates", "mg/kg" },
    CalcOutput { "history_scale", "with a history: their robust spread", "mg/kg" },
    CalcOutput { "robust_z", "with a history: distance from it; null with fewer than 3", "" },
};

Result<Json> runWear(const CalcArguments &in)
{
    const double hours = in.number("hours_h"), baseline = in.number("baseline_mg_kg");
    const WearRate w
        = wearRate({ .sump_kg = in.number("sump_mass_kg"),
                     .element_mg_kg = in.number("element_mg_kg"),
                     .baseline_mg_kg = baseline,
                     .start_mg_kg = in.optionalNumber("start_mg_kg").value_or(baseline),
                     .hours_h = hours,
                     .added_kg = in.number("oil_added_kg") });
    Json out { { "net_mg_kg", w.net_mg_kg },
               { "corrected_gain_mg_kg", w.gain_mg_kg },
               { "wear_mass_mg", w.mass_mg },
               { "wear_rate_mg_h", w.rate_mg_h },
               { "rate_mg_kg_per_100h", w.per100h_mg_kg },
               { "below_baseline", w.belowBaseline } };
    if (!in.has("history_mg_kg_per_100h"))
        return out;
    const std::vector<double> history = in.numbers("history_mg_kg_per_100h");
    out["history_median"] = out["history_scale"] = out["robust_z"] = Json();
    if (history.empty())
        return out;
    const OwnPattern p = ownPattern(history, w.per100h_mg_kg, hours);
    out["history_median"] = p.median;
    out["history_scale"] = p.scale;
    out["robust_z"] = orNull(p.z);
    return out;
}

constexpr CalcInput counted(std::string_view key, std::string_view meaning)
{
    CalcInput in = within(notNegative(key, meaning, ""), 0, 1e6);
    in.kind = CalcKind::WholeNumber;
    return in;
}
constexpr std::array countInputs {
    counted("count_1", "particles of one kind on the first filter"),
    positive("hours_1_h", "oil went through it", "h"),
    positive("area_1_cm2", "medium looked at", "cm²"),
    counted("count_2", "on the second"),
    positive("hours_2_h", "oil went through it", "h"),
    positive("area_2_cm2", "medium looked at", "cm²"),
};
constexpr std::array countOutputs {
    CalcOutput { "rate_1_per_h_cm2", "of the first", "1/(h·cm²)" },
    CalcOutput { "rate_2_per_h_cm2", "of the second", "1/(h·cm²)" },
    CalcOutput { "rate_ratio", "second over first; null when the first is 0", "" },
    CalcOutput { "ratio_low_95", "least it may be; null when both are 0", "" },
    CalcOutput { "ratio_high_95", "most it may be; null when the first is 0", "" },
    CalcOutput { "p_value", "chance of as unlikely a split under equal rates", "" },
};

Result<Json> runCounts(const CalcArguments &in)
{
    const Exposure first { static_cast<int>(in.number("count_1")), in.number("hours_1_h"),
                           in.number("area_1_cm2") },
        second { static_cast<int>(in.number("count_2")), in.number("hours_2_h"),
                 in.number("area_2_cm2") };
    const CountComparison c = compareCounts(first, second);
    return Json { { "rate_1_per_h_cm2", first.rate_per_h_cm2() },
                  { "rate_2_per_h_cm2", second.rate_per_h_cm2() },
                  { "rate_ratio", orNull(c.ratio) },
                  { "ratio_low_95", orNull(c.low95) },
                  { "ratio_high_95", orNull(c.high95) },
                  { "p_value", c.p } };
}

} // namespace

const Calculator boreFinishCalculator {
    "bore-finish",
    "Bore finish",
    "What a stylus trace says of plateau and valleys, and what more strokes would leave",
    "r = z − Gaussian mean line (two steps); Rk = line of least slope over 40 %; Rpk, Rvk by equal "
    "areas; Vo = Σ max(c2 − r, 0)/N; Rpq, Rvq = slopes in the probability plot",
    "ISO 16610-21:2011, ISO 13565-1:1996, ISO 13565-2:1996, all from memory; Rpq, Rvq, Rmq after "
    "ISO 13565-3, own fit of two lines",
    finishInputs,
    finishOutputs,
    runFinish,
};

const Calculator wearRateCalculator {
    "wear-rate",
    "Wear by a used-oil sample",
    "Metal that came into the oil, less what the new oil brought and what topping up thinned out",
    "gain = [(c − b) − (c0 − b) e^(−A/V)] (A/V)/(1 − e^(−A/V)); wear = gain V; z = (rate − "
    "median)/max(1.4826 MAD, 10 %, 1 mg/kg)",
    "own derivation: mass balance of a mixed sump; limits of own history common practice, no "
    "source",
    wearInputs,
    wearOutputs,
    runWear,
};

const Calculator countComparisonCalculator {
    "count-comparison",
    "Two filter cuts compared",
    "Whether one filter holds more of a kind than another, by hours and area; never “no change” "
    "from a large p alone",
    "n2 ~ Binomial(n1 + n2, e2/(e1 + e2)), e = hours × area; interval of Clopper & Pearson",
    "Przyborowski & Wilenski, Biometrika 31, 1940; Clopper & Pearson, Biometrika 26, 1934, both "
    "from memory",
    countInputs,
    countOutputs,
    runCounts,
};

} // namespace mildpath
