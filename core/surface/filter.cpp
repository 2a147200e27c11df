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

} // namespace

std::vector<double> gaussianMeanLine(std::span<const double> z_um, double spacing_um,
                                     double cutoff_um)
{
    const std::vector<double> w = weights(spacing_um, cutoff_um);
    const size_t n = z_um.size(), reach = w.size() - 1;
    // Heights about their mean: what the transform rounds off is then small against the roughness.
    double mean = 0;
    for (const double z : z_um)
        mean += z;
    mean /= static_cast<double>(std::max<size_t>(1, n));
    const size_t length = quickLength(n + reach);
    std::vector<double> heights(length, 0), kernel(length, 0);
    for (size_t i = 0; i < n; ++i)
        heights[i] = z_um[i] - mean;
    kernel[0] = w[0];
    for (size_t j = 1; j <= reach; ++j)
        kernel[j] = kernel[length - j] = w[j];
    Eigen::FFT<double> fft;
    fft.SetFlag(Eigen::FFT<double>::HalfSpectrum);
    std::vector<std::complex<double>> a, b;
    fft.fwd(a, heights);
    fft.fwd(b, kernel);
    for (size_t i = 0; i < a.size(); ++i)
        a[i] *= b[i];
    fft.inv(heights, a, static_cast<Eigen::Index>(length));
    // How much weight lies on the trace, from sums of the weights.
    std::vector<double> sum(reach + 1, 0);
    for (size_t j = 1; j <= reach; ++j)
        sum[j] = sum[j - 1] + w[j];
    std::vector<double> line(n);
    for (size_t i = 0; i < n; ++i)
        line[i] = mean
            + heights[i] / (w[0] + sum[std::min(reach, i)] + sum[std::min(reach, n - 1 - i)]);
    return line;
}

Result<RoughnessProfile> roughnessProfile(std::span<const double> z_um, double spacing_um,
                                          double cutoff_um, ProfileFilter filter)
{
    for (size_t i = 0; i < z_um.size(); ++i)
        if (!std::isfinite(z_um[i]))
            return fail("z_um", "height " + std::to_string(i + 1) + " is not a number");
    if (!(spacing_um > 0))
        return fail("spacing_um", "must be above 0");
    if (!(spacing_um <= cutoff_um / pointsPerCutoff * (1 + 1e-9)))
        return fail("spacing_um",
                    "is " + formatPlain(spacing_um, 2) + " µm: at most a fiftieth of the cut-off, "
                        + formatPlain(cutoff_um / pointsPerCutoff, 2) + " µm");
    RoughnessProfile out;
    if (filter == ProfileFilter::None) {
        if (z_um.size() < leastPoints)
            return fail("z_um", "has " + std::to_string(z_um.size()) + " heights, needs at least "
                            + std::to_string(leastPoints));
        double mean = 0;
        for (const double z : z_um)
            mean += z;
        mean /= static_cast<double>(z_um.size());
        for (const double z : z_um)
            out.r_um.push_back(z - mean);
        return out;
    }
    const double length_um = (static_cast<double>(z_um.size()) - 1) * spacing_um;
    if (!(length_um >= leastCutoffs * cutoff_um * (1 - 1e-9)))
        return fail("z_um",
                    "the trace is " + formatPlain(std::max(0.0, length_um) / 1000, 2)
                        + " mm long: shorter than two cut-offs of "
                        + formatPlain(cutoff_um / 1000, 2) + " mm");
    std::vector<double> line = gaussianMeanLine(z_um, spacing_um, cutoff_um);
    if (filter == ProfileFilter::TwoStep) {
        std::vector<double> shallow(z_um.size());
        for (size_t i = 0; i < z_um.size(); ++i)
            shallow[i] = std::max(z_um[i], line[i]);
        line = gaussianMeanLine(shallow, spacing_um, cutoff_um);
    }
    out.first = static_cast<size_t>(std::floor(0.5 * cutoff_um / spacing_um + 1e-9));
    for (size_t i = out.first; i + out.first < z_um.size(); ++i)
        out.r_um.push_back(z_um[i] - line[i]);
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
