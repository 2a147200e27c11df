// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/sampling.h"

#include "assess/operatingmodel.h"
#include "quantity/parallel.h"

// The interpolator of Boost 1.74 takes isnan from the global namespace.
#include <math.h>

#include <boost/math/distributions/normal.hpp>
#include <boost/math/interpolators/pchip.hpp>
#include <boost/random/sobol.hpp>

#include <algorithm>
#include <cmath>
#include <random>

namespace mildpath {
namespace {

using Curve = boost::math::interpolators::pchip<std::vector<double>>;

/// One standard normal a dimension and draw, evenly spread.
std::vector<double> normalDraws(int samples, size_t dimensions, unsigned seed)
{
    boost::random::sobol sequence(dimensions);
    std::mt19937 random(seed);
    std::vector<double> shift(dimensions);
    for (double &s : shift)
        s = static_cast<double>(random()) / 4294967296.0;
    const boost::math::normal normal;
    const double whole = static_cast<double>(boost::random::sobol::max()) + 1;
    std::vector<double> out;
    out.reserve(static_cast<size_t>(samples) * dimensions);
    for (int i = 0; i < samples; ++i)
        for (size_t d = 0; d < dimensions; ++d) {
            double u = static_cast<double>(sequence()) / whole + shift[d];
            u -= std::floor(u);
            out.push_back(boost::math::quantile(normal, std::clamp(u, 1e-9, 1 - 1e-9)));
        }
    return out;
}

double quantileOf(std::vector<double> &values, double share)
{
    const auto n = static_cast<long>(std::lround(share * (static_cast<double>(values.size()) - 1)));
    std::nth_element(values.begin(), values.begin() + n, values.end());
    return values[static_cast<size_t>(n)];
}

class Sampler
{
public:
    Sampler(const Sampling &sampling, const OperatingModel &model,
            const std::vector<SolveState> &states, Progress *progress)
        : m_sampling(sampling)
        , m_model(model)
        , m_states(states)
        , m_progress(progress)
        , m_inputs(model.inputs() + sampling.rpm.size()) // each speed has a remainder of its own
        , m_draws(normalDraws(sampling.samples, m_inputs, sampling.seed))
        , m_gauge(m_draws.size() / m_inputs)
    {
    }

    /// False when it was cancelled.
    bool run()
    {
        onAllCores([this](unsigned first, unsigned step) { work(first, step); });
        return !(m_progress && m_progress->cancel);
    }

    SampledLine line(double oil_c, int &failed) const
    {
        SampledLine out { oil_c, m_sampling.rpm, {}, {}, {} };
        failed += static_cast<int>(std::count_if(m_gauge.begin(), m_gauge.end(),
                                                 [](const auto &draw) { return draw.empty(); }));
        for (size_t n = 0; n < m_sampling.rpm.size(); ++n) {
            std::vector<double> gauge;
            for (size_t i = 0; i < m_gauge.size(); ++i)
                if (!m_gauge[i].empty())
                    gauge.push_back(m_gauge[i][n]);
            if (gauge.empty())
                gauge = { 0 };
            out.low_pa.push_back(std::max(0.0, quantileOf(gauge, 0.05)));
            out.middle_pa.push_back(quantileOf(gauge, 0.5));
            out.high_pa.push_back(quantileOf(gauge, 0.95));
        }
        return out;
    }

private:
    void work(unsigned first, unsigned step)
    {
        for (size_t i = first; i < m_gauge.size(); i += step) {
            if (m_progress && m_progress->cancel)
                return;
            const std::span z(&m_draws[i * m_inputs], m_inputs);
            const auto r = m_model.drawn(z, m_sampling.rpm, m_states);
            if (m_progress)
                ++m_progress->done;
            if (!r)
                continue;
            for (size_t n = 0; n < r->size(); ++n)
                m_gauge[i].push_back((*r)[n] * std::exp(bandModelOwn_ln * z[m_model.inputs() + n]));
        }
    }

    const Sampling &m_sampling;
    const OperatingModel &m_model;
    const std::vector<SolveState> &m_states; ///< of the build itself, by speed
    Progress *m_progress;
    size_t m_inputs;
    std::vector<double> m_draws;
    std::vector<std::vector<double>> m_gauge; ///< by draw, empty where it failed
};

} // namespace

double SampledLine::at(Edge edge, double speed) const
{
    const auto &values = edge == Edge::Low ? low_pa : edge == Edge::High ? high_pa : middle_pa;
    return Curve(std::vector<double>(rpm),
                 std::vector<double>(values))(std::clamp(speed, rpm.front(), rpm.back()));
}

Sampling usualSampling(const Build &build)
{
    Sampling out;
    out.oil_c = { 40, build.use.hotOil_c, build.use.hotOil_c + 30 };
    const double from = std::min(build.use.hotIdle_rpm, 600.0);
    // Closer where the relief and the jets open.
    constexpr int speeds = 8;
    for (int i = 0; i < speeds; ++i)
        out.rpm.push_back(from
                          + (build.use.most_rpm - from)
                              * std::pow(static_cast<double>(i) / (speeds - 1), 1.4));
    return out;
}

Result<SampledForecast> sampleForecast(const Build &build, const std::vector<GaugedSize> &sizes,
                                       const Sampling &sampling, Progress *progress,
                                       const CircuitChange &change)
{
    if (sampling.samples < 16 || sampling.samples > 1000000)
        return fail("samples", "must be 16 to 1 000 000");
    if (sampling.rpm.size() < 4 || !std::is_sorted(sampling.rpm.begin(), sampling.rpm.end()))
        return fail("rpm", "needs at least four speeds, ascending");
    if (progress)
        progress->whole = sampling.samples * static_cast<int>(sampling.oil_c.size());
    SampledForecast out;
    out.samples = sampling.samples;
    out.seed = sampling.seed;
    for (const double oil_c : sampling.oil_c) {
        auto model = OperatingModel::make(build, sizes, oil_c, change);
        if (!model)
            return tl::unexpected(model.error());
        // The build itself: a start for all draws, and what the curves miss between the speeds.
        std::vector<double> here;
        std::vector<SolveState> states;
        for (const double n : sampling.rpm) {
            const auto r = model->at(n, OperatingModel::Detail::Values);
            if (!r)
                return tl::unexpected(r.error());
            here.push_back(r->gauge.value_pa);
            states.push_back(model->state());
            states.back().formerRpm = 0; // a draw begins where the build stands, not before it
        }
        const Curve curve(std::vector<double>(sampling.rpm), std::vector<double>(here));
        for (size_t i = 1; i < sampling.rpm.size(); ++i) {
            const double between = (sampling.rpm[i - 1] + sampling.rpm[i]) / 2;
            const auto r = model->at(between, OperatingModel::Detail::Values);
            if (r && r->gauge.value_pa > 0)
                out.interpolationError = std::max(out.interpolationError,
                                                  std::abs(curve(between) / r->gauge.value_pa - 1));
        }
        Sampler sampler(sampling, *model, states, progress);
        if (!sampler.run())
            return fail("cancelled", "given up");
        out.lines.push_back(sampler.line(oil_c, out.failed));
    }
    return out;
}

} // namespace mildpath
