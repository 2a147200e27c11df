// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/afterwards.h"

#include "assess/calibrated.h"
#include "assess/figuremarks.h"
#include "diagnose/diagnosis.h"
#include "document/logbook.h"
#include "start/runcard.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Pressures at the readings' places, with something done to the running circuit. Models are made
/// once for each oil and temperature.
class Forecasts
{
public:
    Forecasts(const Build &build, const std::vector<GaugedSize> &sizes,
              const std::vector<const GaugeReading *> &readings)
        : m_build(build)
        , m_sizes(sizes)
        , m_readings(readings)
    {
    }

    /// Expected at each reading, Pa, calibrations of gauge and model included.
    Result<std::vector<LikelyPressure>> with(const CircuitChange &change, bool ranges) const
    {
        std::map<std::pair<std::string, double>, OperatingModel> models;
        std::vector<LikelyPressure> out;
        for (const GaugeReading *r : m_readings) {
            const auto key = std::pair(r->oil, r->oil_c);
            if (!models.contains(key)) {
                Build build = m_build;
                if (!r->oil.empty())
                    if (const auto oil = findOil(m_build, r->oil))
                        build.oil = *oil;
                auto model = OperatingModel::make(build, m_sizes, r->oil_c, change);
                if (!model)
                    return tl::unexpected(model.error());
                models.emplace(key, std::move(*model));
            }
            OperatingModel &model = models.at(key);
            const std::string node = m_build.circuit.taps.at(r->tap);
            const Turned turned = turnedAt(m_build, r->rpm, r->byDrill);
            const auto p = model.pressures(turned, model.oil(), std::span(&node, 1));
            if (!p)
                return tl::unexpected(p.error());
            LikelyPressure here { p->front(), p->front(), p->front() };
            if (ranges) {
                const auto at = model.at(turned, OperatingModel::Detail::Ranges);
                if (!at)
                    return tl::unexpected(at.error());
                // The band belongs to the gauge's own tap; another one is as uncertain, relatively.
                const double scale
                    = at->gauge.value_pa > 0 ? here.value_pa / at->gauge.value_pa : 1;
                here.low_pa = at->gauge.low_pa * scale;
                here.high_pa = at->gauge.high_pa * scale;
            }
            out.push_back(asGaugeShows(m_build, here, r->tap == m_build.gaugeTap));
        }
        return out;
    }

private:
    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    const std::vector<const GaugeReading *> &m_readings;
};

} // namespace

Result<std::vector<Residual>> residualsOf(const Build &build, const std::vector<GaugedSize> &sizes)
{
    const auto readings = standing(build.gaugeReadings);
    const auto expected = Forecasts(build, sizes, readings).with({}, true);
    if (!expected)
        return tl::unexpected(expected.error());
    std::vector<Residual> out;
    for (size_t i = 0; i < readings.size(); ++i) {
        const LikelyPressure &e = (*expected)[i];
        Residual r { readings[i], e };
        const double pa = readings[i]->pressure_kpa * 1e3;
        r.residual_pa = pa - e.value_pa;
        const double u
            = std::hypot(readings[i]->u_kpa * 1e3, (e.high_pa - e.low_pa) / 2 / likelyFactor);
        r.distance = u > 0 ? r.residual_pa / u : 0;
        const double floor = readings[i]->tap == build.gaugeTap && !readings[i]->byDrill
                && readings[i]->rpm >= 0.9 * build.use.hotIdle_rpm
            ? build.use.hotIdleFloor_kpa * 1e3
            : 0;
        r.mark = markOfReading(pa, e, floor);
        out.push_back(r);
    }
    return out;
}

Result<ReadAgainst> readAgainstForecast(const Build &build, const std::vector<GaugedSize> &sizes)
{
    auto residuals = residualsOf(build, sizes);
    if (!residuals)
        return tl::unexpected(residuals.error());
    ReadAgainst out { std::move(*residuals), {} };
    if (auto believed = believedIdle(build, sizes))
        out.believed = std::move(*believed);
    return out;
}

} // namespace mildpath
