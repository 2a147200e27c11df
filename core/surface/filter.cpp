// SPDX-License-Identifier: GPL-3.0-or-later
#include "surface/filter.h"

#include "quantity/rounding.h"

#include <Eigen/Dense>
#include <unsupported/Eigen/FFT>

#include <algorithm>
#include <cmath>
#include <complex>
#include <numbers>
#include <string>

namespace mildpath {
namespace {

/// The next length that splits into 2, 3 and 5, which the transform is quick at.
size_t quickLength(size_t least)
{
    for (size_t n = least + least % 2;; n += 2) {
        size_t rest = n;
        for (const size_t f : { 2U, 3U, 5U })
            while (rest % f == 0)
                rest /= f;
        if (rest == 1)
            return n;
    }
}

double meanOf(std::span<const double> z_um)
{
    double sum = 0;
    for (const double z : z_um)
        sum += z;
    return sum / static_cast<double>(std::max<size_t>(1, z_um.size()));
}

std::vector<double> weights(double spacing_um, double cutoff_um)
{
    const double alpha = std::sqrt(std::log(2.0) / std::numbers::pi);
    std::vector<double> w;
    // The edge belongs to the window, also where the division is a hair off.
    const auto reach = static_cast<size_t>(std::floor(cutoff_um / spacing_um + 1e-9));
    for (size_t j = 0; j <= reach; ++j) {
        const double x = static_cast<double>(j) * spacing_um / (alpha * cutoff_um);
        w.push_back(std::exp(-std::numbers::pi * x * x));
    }
    return w;
}

/// The filter for traces of one length: its weights are transformed once.
class GaussianFilter
{
public:
    GaussianFilter(size_t points, double spacing_um, double cutoff_um)
        : m_weights(weights(spacing_um, cutoff_um))
        , m_length(quickLength(points + m_weights.size() - 1))
    {
        m_fft.SetFlag(Eigen::FFT<double>::HalfSpectrum);
        std::vector<double> kernel(m_length, 0);
        kernel[0] = m_weights[0];
        for (size_t j = 1; j < m_weights.size(); ++j)
            kernel[j] = kernel[m_length - j] = m_weights[j];
        m_fft.fwd(m_kernel, kernel);
        // How much weight lies on the trace, from sums of the weights.
        m_sums.resize(m_weights.size(), 0);
        for (size_t j = 1; j < m_weights.size(); ++j)
            m_sums[j] = m_sums[j - 1] + m_weights[j];
    }

    std::vector<double> meanLine(std::span<const double> z_um)
    {
        const size_t n = z_um.size(), reach = m_weights.size() - 1;
        // Heights about their mean: what the transform rounds off is then small against the
        // roughness.
        const double mean = meanOf(z_um);
        std::vector<double> heights(m_length, 0);
        for (size_t i = 0; i < n; ++i)
            heights[i] = z_um[i] - mean;
        m_fft.fwd(m_spectrum, heights);
        for (size_t i = 0; i < m_spectrum.size(); ++i)
            m_spectrum[i] *= m_kernel[i];
        m_fft.inv(heights, m_spectrum, static_cast<Eigen::Index>(m_length));
        std::vector<double> line(n);
        for (size_t i = 0; i < n; ++i)
            line[i] = mean
                + heights[i]
                    / (m_weights[0] + m_sums[std::min(reach, i)]
                       + m_sums[std::min(reach, n - 1 - i)]);
        return line;
    }

private:
    std::vector<double> m_weights, m_sums;
    size_t m_length;
    Eigen::FFT<double> m_fft;
    std::vector<std::complex<double>> m_kernel, m_spectrum;
};

Result<void> checkTrace(std::span<const double> z_um, double spacing_um, double cutoff_um,
                        ProfileFilter filter)
{
    for (size_t i = 0; i < z_um.size(); ++i)
        if (!std::isfinite(z_um[i]))
            return fail("z_um", "height " + std::to_string(i + 1) + " is not a number");
    if (!(spacing_um > 0))
        return fail("spacing_um", "must be above 0");
    if (!(spacing_um <= cutoff_um / pointsPerCutoff * (1 + 1e-9)))
        return fail("spacing_um",
                    { "filter.step",
                      "is {0}: at most a fiftieth of the cut-off, {1}",
                      { Quantity { spacing_um * 1e-6, Shows::Roughness },
                        Quantity { cutoff_um / pointsPerCutoff * 1e-6, Shows::Roughness } } });
    if (filter == ProfileFilter::None && z_um.size() < leastPoints)
        return fail("z_um",
                    "has " + std::to_string(z_um.size()) + " heights, needs at least "
                        + std::to_string(leastPoints));
    const double length_um = (static_cast<double>(z_um.size()) - 1) * spacing_um;
    if (filter != ProfileFilter::None && !(length_um >= leastCutoffs * cutoff_um * (1 - 1e-9)))
        return fail(
            "z_um",
            { "filter.short",
              "the trace is {0} long: shorter than two cut-offs of {1}",
              { asLength(std::max(0.0, length_um) / 1000, 2), asLength(cutoff_um / 1000, 2) } });
    return {};
}

RoughnessProfile over(std::span<const double> z_um, std::span<const double> line, size_t drop)
{
    RoughnessProfile out;
    out.first = drop;
    for (size_t i = drop; i + drop < z_um.size(); ++i)
        out.r_um.push_back(z_um[i] - line[i]);
    return out;
}

} // namespace

std::vector<double> gaussianMeanLine(std::span<const double> z_um, double spacing_um,
                                     double cutoff_um)
{
    return GaussianFilter(z_um.size(), spacing_um, cutoff_um).meanLine(z_um);
}

Result<FilteredTrace> filterTrace(std::span<const double> z_um, double spacing_um, double cutoff_um,
                                  ProfileFilter filter)
{
    if (const auto ok = checkTrace(z_um, spacing_um, cutoff_um, filter); !ok)
        return tl::unexpected(ok.error());
    if (filter == ProfileFilter::None) {
        const RoughnessProfile r = over(z_um, std::vector<double>(z_um.size(), meanOf(z_um)), 0);
        return FilteredTrace { r, r };
    }
    GaussianFilter gauss(z_um.size(), spacing_um, cutoff_um);
    const std::vector<double> line = gauss.meanLine(z_um);
    const auto drop = static_cast<size_t>(std::floor(0.5 * cutoff_um / spacing_um + 1e-9));
    FilteredTrace out;
    out.single = over(z_um, line, drop);
    if (filter == ProfileFilter::Gaussian) {
        out.chosen = out.single;
        return out;
    }
    std::vector<double> shallow(z_um.size());
    for (size_t i = 0; i < z_um.size(); ++i)
        shallow[i] = std::max(z_um[i], line[i]);
    out.chosen = over(z_um, gauss.meanLine(shallow), drop);
    return out;
}

std::vector<double> withoutParabola(std::span<const double> z_um)
{
    const auto n = static_cast<Eigen::Index>(z_um.size());
    Eigen::MatrixXd form(n, 3);
    for (Eigen::Index i = 0; i < n; ++i) {
        const double x = n > 1 ? 2.0 * static_cast<double>(i) / static_cast<double>(n - 1) - 1 : 0;
        form.row(i) << 1, x, x * x;
    }
    const Eigen::Map<const Eigen::VectorXd> z(z_um.data(), n);
    const Eigen::Vector3d fit = (form.transpose() * form).ldlt().solve(form.transpose() * z);
    const Eigen::VectorXd rest = z - form * fit;
    return { rest.data(), rest.data() + n };
}

} // namespace mildpath
