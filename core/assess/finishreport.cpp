// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/finishreport.h"

#include "quantity/rounding.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

using Value = std::optional<double>;

constexpr std::array quantities {
    FinishQuantity { "ra_um", "Ra", Shows::Roughness, 3,
                     "mean height over the mean line, single filter", false,
                     [](const ReadTrace &t) -> Value { return t.trace->amplitudes.ra_um; } },
    FinishQuantity { "rq_um", "Rq", Shows::Roughness, 3, "root mean square of the same", false,
                     [](const ReadTrace &t) -> Value { return t.trace->amplitudes.rq_um; } },
    FinishQuantity { "rz_um", "Rz", Shows::Roughness, 2,
                     "highest less lowest, mean of the sampling lengths", false,
                     [](const ReadTrace &t) -> Value { return t.trace->amplitudes.rz_um; } },
    FinishQuantity { "rk_um", "Rk", Shows::Roughness, 3, "core: what carries once it has run in",
                     false, [](const ReadTrace &t) -> Value { return t.trace->core.rk_um; } },
    FinishQuantity { "rpk_um", "Rpk", Shows::Roughness, 3, "peaks that wear off at first", false,
                     [](const ReadTrace &t) -> Value { return t.trace->core.rpk_um; } },
    FinishQuantity { "rvk_um", "Rvk", Shows::Roughness, 2, "valleys that hold oil", true,
                     [](const ReadTrace &t) -> Value { return t.trace->core.rvk_um; } },
    FinishQuantity { "mr1_percent", "Mr1", Shows::Share, 1, "share of the wall that is peaks",
                     false, [](const ReadTrace &t) -> Value { return 100 * t.trace->core.mr1; } },
    FinishQuantity { "mr2_percent", "Mr2", Shows::Share, 1, "share of the wall above the valleys",
                     false, [](const ReadTrace &t) -> Value { return 100 * t.trace->core.mr2; } },
    FinishQuantity { "vo_um3_um2", "Vo", Shows::ValleyVolume, 3, "oil the valleys hold", true,
                     [](const ReadTrace &t) -> Value { return t.trace->core.vo_um3_um2; } },
    FinishQuantity { "rpq_um", "Rpq", Shows::Roughness, 3, "plateau, slope in the probability plot",
                     false, [](const ReadTrace &t) -> Value { return t.fit.rpq_um; } },
    FinishQuantity { "rvq_um", "Rvq", Shows::Roughness, 2, "valleys, slope in the probability plot",
                     true, [](const ReadTrace &t) -> Value { return t.fit.rvq_um; } },
    FinishQuantity { "rmq_percent", "Rmq", Shows::Share, 1, "where plateau and valleys cross",
                     false, [](const ReadTrace &t) -> Value { return t.fit.rmq_percent; } },
};

} // namespace

ReadTrace readTrace(const BoreTrace &t, double cutoff_mm, ProfileFilter filter)
{
    ReadTrace out { .id = t.id,
                    .bore = t.bore,
                    .phase = t.phase,
                    .trace = {},
                    .fit = {},
                    .trouble = {},
                    .remark = {} };
    auto trace = finishTrace(t.z.um(), t.spacing_um, cutoff_mm * 1e3, filter);
    if (!trace) {
        out.trouble = trace.error().message;
        return out;
    }
    out.trace = std::make_shared<const FinishedTrace>(std::move(*trace));
    out.fit = plateauFit(out.trace->curve);
    if (const int n = out.trace->amplitudes.sections;
        filter != ProfileFilter::None && n < standardSections)
        out.remark = std::to_string(n) + " sampling lengths are left; 5 are standard";
    return out;
}

std::vector<ReadTrace> readTraces(const Build &build)
{
    const double cutoff = *valueOf(build.finish.values, finishKeys(), "cutoff_mm");
    std::vector<ReadTrace> out;
    for (const BoreTrace *t : standing(build.boreTraces))
        out.push_back(readTrace(*t, cutoff, ProfileFilter::TwoStep));
    return out;
}

std::span<const FinishQuantity> finishQuantities()
{
    return quantities;
}

const FinishQuantity *findFinishQuantity(std::string_view key)
{
    for (const FinishQuantity &q : quantities)
        if (q.key == key)
            return &q;
    return nullptr;
}

FinishRange rangeOf(std::span<const ReadTrace> traces, int bore, std::string_view phase,
                    const FinishQuantity &quantity)
{
    FinishRange out;
    for (const ReadTrace &t : traces) {
        if (!t.trace || (bore != 0 && t.bore != bore) || t.phase != phase)
            continue;
        const Value v = quantity.of(t);
        if (!v)
            continue;
        out.least = out.traces == 0 ? *v : std::min(out.least, *v);
        out.most = out.traces == 0 ? *v : std::max(out.most, *v);
        out.mean = (out.mean * out.traces + *v) / (out.traces + 1);
        ++out.traces;
    }
    return out;
}

Quantity FinishQuantity::asQuantity(double value) const
{
    const double scale = as == Shows::Share ? 0.01 : as == Shows::Roughness ? 1e-6 : 1;
    return { value * scale, as, 0, decimals };
}

Mark tracesMark(int traces)
{
    return traces >= enoughTraces ? Mark::Proven : Mark::LookAgain;
}

Phrase trustIn(int traces)
{
    if (traces >= enoughTraces)
        return {};
    return {
        "finish.trust",
        "{0} {0|trace is|traces are} weak evidence: one is good to {1} for the plateau, to {2} "
        "for the valleys. Take three a bore.",
        { asCount(traces), asShare(0.1), QuantityRange { asShare(0.2), asShare(0.4) } }
    };
}

std::optional<FinishChange> changeOf(std::span<const ReadTrace> traces, int bore,
                                     const FinishQuantity &quantity)
{
    FinishChange out { rangeOf(traces, bore, "before", quantity),
                       rangeOf(traces, bore, "after", quantity) };
    if (out.before.traces == 0 || out.after.traces == 0 || out.before.mean == 0)
        return std::nullopt;
    out.share = out.after.mean / out.before.mean - 1;
    const double one = quantity.valley ? valleyScatter : plateauScatter;
    out.counts = std::abs(out.share)
        > 2 * one * std::sqrt(1.0 / out.before.traces + 1.0 / out.after.traces);
    return out;
}

std::optional<ValleyTarget> valleyTarget(const Build &build)
{
    const auto petrol = ownValue(build.finish.values, "valley_um3_um2");
    if (!petrol)
        return std::nullopt;
    return ValleyTarget {
        *petrol, *petrol * *valueOf(build.finish.values, finishKeys(), "methanol_factor")
    };
}

Mark valleyMark(double mean, double wanted)
{
    return std::abs(mean / wanted - 1) <= valleyScatter ? Mark::Proven : Mark::LookAgain;
}

} // namespace mildpath
