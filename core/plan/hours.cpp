// SPDX-License-Identifier: GPL-3.0-or-later
#include "plan/hours.h"

#include <cmath>

namespace mildpath {
namespace {

// Variances of the logarithm: among builders, kinds at one builder, jobs of one kind. Own choice.
constexpr double ofBuilders = 0.35 * 0.35, ofKinds = 0.40 * 0.40, ofJobs = 0.30 * 0.30;
constexpr double nineInTen = 1.645; // of a normal, 5 and 95 % (table)

} // namespace

PaceModel::PaceModel(std::span<const TimedWork> timed)
{
    std::map<std::string, double> sums;
    for (const TimedWork &t : timed) {
        sums[t.kind] += std::log(t.minutes / t.usual);
        ++m_kinds[t.kind].count;
        ++m_timed;
    }
    const auto weight = [](int n) { return 1 / (ofKinds + ofJobs / n); };
    double weights = 1 / ofBuilders, weighted = 0;
    for (const auto &[kind, sum] : sums) {
        const int n = m_kinds[kind].count;
        weights += weight(n);
        weighted += weight(n) * sum / n;
    }
    m_builder = weighted / weights;
    m_variance = 1 / weights;
    for (auto &[kind, k] : m_kinds)
        k.offset = (sums[kind] / k.count - m_builder) * ofKinds * weight(k.count);
}

double PaceModel::factor(std::string_view kind) const
{
    const auto at = m_kinds.find(kind);
    if (at == m_kinds.end())
        return std::exp(m_builder + (ofKinds + ofJobs) / 2);
    return std::exp(m_builder + at->second.offset + ofJobs / 2);
}

HoursRange PaceModel::hours(std::span<const WorkToDo> work) const
{
    std::map<std::string_view, double> ofKind;
    double whole = 0, untimed = 0, jobs = 0;
    for (const WorkToDo &w : work) {
        const double each = w.usual * factor(w.kind), all = each * w.count;
        ofKind[w.kind] += all;
        whole += all;
        untimed += isTimed(w.kind) ? 0 : all;
        jobs += w.count * each * each;
    }
    if (!(whole > 0))
        return {};
    double kinds = 0;
    for (const auto &[kind, minutes] : ofKind) {
        const auto at = m_kinds.find(kind);
        kinds += std::pow(minutes / whole, 2)
            * (at == m_kinds.end() ? ofKinds : ofJobs / at->second.count);
    }
    const double share = untimed / whole;
    const double s = std::sqrt(
        std::log1p(m_variance * share * share + kinds + jobs / (whole * whole) * ofJobs));
    const double likely_h = whole / 60;
    return { likely_h * std::exp(-nineInTen * s), likely_h, likely_h * std::exp(nineInTen * s) };
}

} // namespace mildpath
