// SPDX-License-Identifier: GPL-3.0-or-later
#include "surface/finish.h"

#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace mildpath {
namespace {

constexpr double window = 0.4;

double sized(size_t n)
{
    return static_cast<double>(n);
}

} // namespace

Amplitudes amplitudesOf(std::span<const double> r_um, double spacing_um, double sectionLength_um)
{
    Amplitudes out;
    if (r_um.empty())
        return out;
    double mean = 0;
    for (const double r : r_um)
        mean += r;
    mean /= sized(r_um.size());
    for (const double r : r_um) {
        out.ra_um += std::abs(r - mean);
        out.rq_um += (r - mean) * (r - mean);
    }
    out.ra_um /= sized(r_um.size());
    out.rq_um = std::sqrt(out.rq_um / sized(r_um.size()));
    size_t points = r_um.size();
    out.sections = 1;
    if (sectionLength_um > 0) {
        points = static_cast<size_t>(std::lround(sectionLength_um / spacing_um));
        out.sections = std::max(
            1, static_cast<int>(sized(r_um.size() - 1) * spacing_um / sectionLength_um + 1e-9));
    }
    for (int k = 0; k < out.sections; ++k) {
        const size_t from = std::min(static_cast<size_t>(k) * points, r_um.size() - 1);
        const auto section = r_um.subspan(from, std::min(points, r_um.size() - from));
        const auto [low, high] = std::ranges::minmax_element(section);
        out.rz_um += (*high - *low) / out.sections;
    }
    return out;
}

MaterialRatioCurve::MaterialRatioCurve(std::vector<double> heights_um)
    : m_z(std::move(heights_um))
{
    std::ranges::sort(m_z, std::greater());
}

MaterialRatioCurve::MaterialRatioCurve(std::vector<double> sorted, Sorted)
    : m_z(std::move(sorted))
{
}

double MaterialRatioCurve::at(double ratio) const
{
    const double place = std::clamp(ratio * sized(m_z.size()) - 0.5, 0.0, sized(m_z.size() - 1));
    const auto i = std::min(static_cast<size_t>(place), m_z.size() - 1);
    const size_t next = std::min(i + 1, m_z.size() - 1);
    return m_z[i] + (m_z[next] - m_z[i]) * (place - sized(i));
}

double MaterialRatioCurve::ratioAt(double height_um) const
{
    const auto below = std::ranges::partition_point(m_z, [&](double z) { return z >= height_um; });
    return sized(static_cast<size_t>(below - m_z.begin())) / sized(m_z.size());
}

MaterialRatioCurve MaterialRatioCurve::cutAt(double cut_um) const
{
    std::vector<double> z = m_z;
    for (double &v : z) {
        if (v <= cut_um)
            break;
        v = cut_um;
    }
    return { std::move(z), Sorted {} };
}

CoreRoughness coreRoughness(const MaterialRatioCurve &curve)
{
    const std::vector<double> &z = curve.heights_um();
    const size_t n = z.size();
    const auto k = static_cast<size_t>(std::lround(window * sized(n)));
    size_t first = 0;
    for (size_t i = 1; i + k < n; ++i)
        if (z[i] - z[i + k] < z[first] - z[first + k])
            first = i;
    CoreRoughness out;
    const auto ratio = [&](size_t i) { return (sized(i) + 0.5) / sized(n); };
    out.windowFrom = ratio(first);
    out.windowTo = ratio(first + k);
    // About the window's middle, so that nothing cancels.
    const double middle = (out.windowFrom + out.windowTo) / 2;
    double mean = 0, sxx = 0, sxz = 0;
    for (size_t i = first; i <= first + k; ++i)
        mean += z[i] / sized(k + 1);
    for (size_t i = first; i <= first + k; ++i) {
        const double x = ratio(i) - middle;
        sxx += x * x;
        sxz += x * (z[i] - mean);
    }
    const double slope = z[first] > z[first + k] ? sxz / sxx : 0;
    out.c1_um = mean - slope * middle;
    out.c2_um = mean + slope * (1 - middle);
    out.rk_um = out.c1_um - out.c2_um;
    const double tolerance = 1e-9 * (z.front() - z.back());
    size_t above = 0, below = 0;
    double a1 = 0, a2 = 0;
    for (size_t i = 0; i < n && z[i] > out.c1_um + tolerance; ++i, ++above)
        a1 += (z[i] - out.c1_um) / sized(n);
    for (size_t i = n; i-- > 0 && z[i] < out.c2_um - tolerance; ++below)
        a2 += (out.c2_um - z[i]) / sized(n);
    out.mr1 = sized(above) / sized(n);
    out.mr2 = 1 - sized(below) / sized(n);
    out.rpk_um = above > 0 ? 2 * a1 / out.mr1 : 0;
    out.rvk_um = below > 0 ? 2 * a2 / (sized(below) / sized(n)) : 0;
    out.vo_um3_um2 = a2;
    return out;
}

Result<Cut> cutOf(const MaterialRatioCurve &uncut, const CoreRoughness &core, double depth_um)
{
    Cut out;
    out.height_um = uncut.at(cutFromRatio) - depth_um;
    out.ratio = uncut.ratioAt(out.height_um);
    if (out.ratio > mostCut)
        return fail("truncate_depth_um",
                    { "finish.cut",
                      "cuts away {0} of the wall; at most {1}",
                      { asShare(out.ratio), asShare(mostCut) } });
    const std::vector<double> &z = uncut.heights_um();
    const double foot = std::min(out.height_um, core.c2_um);
    for (size_t i = z.size(); i-- > 0 && z[i] < foot;)
        out.valleyLeft_um3_um2 += (foot - z[i]) / sized(z.size());
    return out;
}

Result<FinishedTrace> finishTrace(std::span<const double> z_um, double spacing_um, double cutoff_um,
                                  ProfileFilter filter)
{
    auto filtered = filterTrace(z_um, spacing_um, cutoff_um, filter);
    if (!filtered)
        return tl::unexpected(filtered.error());
    MaterialRatioCurve curve(filtered->chosen.r_um);
    const CoreRoughness core = coreRoughness(curve);
    if (core.flat())
        return fail("z_um",
                    "the plateau is cut flat or too coarsely digitised: more than 40 % of "
                    "the heights are one and the same");
    const double section = filter == ProfileFilter::None ? 0 : cutoff_um;
    const Amplitudes amplitudes = amplitudesOf(filtered->single.r_um, spacing_um, section);
    return FinishedTrace { std::move(filtered->chosen),
                           std::move(filtered->single),
                           spacing_um,
                           section,
                           std::move(curve),
                           core,
                           amplitudes };
}

Result<StrokedTrace> strokeTrace(const FinishedTrace &trace, double depth_um)
{
    auto cut = cutOf(trace.curve, trace.core, depth_um);
    if (!cut)
        return tl::unexpected(cut.error());
    StrokedTrace out;
    out.cut = *cut;
    out.core = coreRoughness(trace.curve.cutAt(cut->height_um));
    // Its own 1 % height: only that one place is wanted of this profile's order.
    std::vector<double> r = trace.single.r_um;
    const double place = std::max(0.0, cutFromRatio * sized(r.size()) - 0.5);
    const auto i = static_cast<std::ptrdiff_t>(place);
    std::ranges::nth_element(r, r.begin() + i, std::greater());
    const double high = r[static_cast<size_t>(i)];
    const double next
        = i + 1 < std::ssize(r) ? *std::max_element(r.begin() + i + 1, r.end()) : high;
    const double limit = high + (next - high) * (place - static_cast<double>(i)) - depth_um;
    for (size_t k = 0; k < r.size(); ++k)
        r[k] = std::min(trace.single.r_um[k], limit);
    out.amplitudes = amplitudesOf(r, trace.spacing_um, trace.sectionLength_um);
    return out;
}

} // namespace mildpath
