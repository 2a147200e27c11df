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

/// One reading may be this many of its own errors off and still fit.
constexpr double fits = 2;
/// Moved further than this many of its standard uncertainties an input is no explanation.
constexpr double mostZ = 2;

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
            const auto p = model.pressures(r->rpm, model.oil(), std::span(&node, 1));
            if (!p)
                return tl::unexpected(p.error());
            LikelyPressure here { p->front(), p->front(), p->front() };
            if (ranges) {
                const auto at = model.at(r->rpm, OperatingModel::Detail::Ranges);
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

/// An input that may be off, and what one standard uncertainty of it is.
struct Input
{
    std::string id, name;
    Quantity amount; ///< one standard uncertainty, as people see it
    double u; ///< the same in the unit of Calibration::amount
};

std::vector<Input> inputsOf(const Build &build, const std::vector<GaugedSize> &sizes)
{
    std::vector<Input> out;
    for (const Family &f : families()) {
        double squares = 0;
        int items = 0;
        for (const GaugedSize &s : sizes)
            if (s.family == f.id && s.known && !f.elementKey.empty() && !s.element.empty()) {
                squares += s.cold_um.standardUncertainty * s.cold_um.standardUncertainty;
                ++items;
            }
        if (items > 0 && squares > 0)
            out.push_back({ std::string(f.id), std::string(f.plural) + ", all alike",
                            asClearance(std::sqrt(squares / items)), std::sqrt(squares / items) });
    }
    out.push_back({ "oil", "the oil's viscosity (" + build.oil.grade + ")",
                    asShare(bandOilNew_ln, 1), bandOilNew_ln });
    const double gauge_kpa = gaugeOwnShare * GaugeReading::usualGaugeU_kpa;
    out.push_back(
        { "gauge", "the pressure gauge's own error", asPressure(gauge_kpa * 1e3), gauge_kpa });
    out.push_back({ "model", "model and engine, all readings alike", asShare(bandModelCommon_ln, 1),
                    bandModelCommon_ln });
    return out;
}

class Explainer
{
public:
    Explainer(const Build &build, const std::vector<GaugedSize> &sizes, Progress *progress)
        : m_build(build)
        , m_readings(standing(build.gaugeReadings))
        , m_forecasts(build, sizes, m_readings)
        , m_inputs(inputsOf(build, sizes))
        , m_progress(progress)
    {
    }

    Result<std::vector<Explanation>> run()
    {
        if (m_readings.empty())
            return fail("readings", "no gauge was read yet");
        const auto now = m_forecasts.with({}, false);
        if (!now)
            return tl::unexpected(now.error());
        m_now = *now;
        for (size_t i = 0; i < m_readings.size(); ++i) {
            const double eye
                = m_readings[i]->u_kpa * 1e3 * std::sqrt(1 - gaugeOwnShare * gaugeOwnShare);
            m_own.push_back(std::hypot(eye, bandModelOwn_ln * m_now[i].value_pa));
        }
        if (m_progress)
            m_progress->whole += static_cast<int>(m_inputs.size());
        std::vector<Explanation> out;
        for (const Input &input : m_inputs) {
            if (m_progress && m_progress->cancel)
                return fail("cancelled", "given up");
            auto e = explain(input);
            if (!e)
                return tl::unexpected(e.error());
            out.push_back(std::move(*e));
            if (m_progress)
                ++m_progress->done;
        }
        std::stable_sort(out.begin(), out.end(), [](const Explanation &a, const Explanation &b) {
            return std::pair(!a.explains, cost(a)) < std::pair(!b.explains, cost(b));
        });
        return out;
    }

private:
    /// What is left, and how far it had to be moved: as unlikely together.
    static double cost(const Explanation &e) { return e.after + e.z * e.z; }

    Result<std::vector<double>> at(const Input &input, double z) const
    {
        std::vector<double> out;
        const double by = z * input.u;
        if (input.id == "gauge" || input.id == "model") {
            for (size_t i = 0; i < m_now.size(); ++i)
                out.push_back(input.id == "model" ? m_now[i].value_pa * (1 + by)
                                  : m_readings[i]->tap == m_build.gaugeTap
                                  ? m_now[i].value_pa + by * 1e3
                                  : m_now[i].value_pa);
            return out;
        }
        Build moved = m_build;
        moved.calibrations.clear();
        Calibration c;
        c.id = "a1";
        c.input = input.id;
        c.amount = by;
        moved.calibrations.push_back(c);
        const CircuitChange change = [&](Circuit &circuit, Oil &oil) -> Result<void> {
            calibrate(moved, circuit);
            calibrate(moved, oil);
            return {};
        };
        const auto p = m_forecasts.with(change, false);
        if (!p)
            return tl::unexpected(p.error());
        for (const LikelyPressure &l : *p)
            out.push_back(l.value_pa);
        return out;
    }

    double misfit(const std::vector<double> &h) const
    {
        double sum = 0;
        for (size_t i = 0; i < h.size(); ++i)
            sum += std::pow((read(i) - h[i]) / m_own[i], 2);
        return sum;
    }
    double read(size_t i) const { return m_readings[i]->pressure_kpa * 1e3; }

    Result<Explanation> explain(const Input &input) const
    {
        std::vector<double> h0;
        for (const LikelyPressure &l : m_now)
            h0.push_back(l.value_pa);
        Explanation out { input.id, input.name };
        out.before = misfit(h0);
        std::vector<double> h = h0;
        double z = 0, probe = 1;
        // Slopes from where it stands; then once more along the secant to where that led.
        for (int pass = 0; pass < 2; ++pass) {
            const auto there = at(input, probe);
            if (!there)
                return tl::unexpected(there.error());
            double up = 0, down = 0;
            for (size_t i = 0; i < h0.size(); ++i) {
                const double slope = ((*there)[i] - h0[i]) / probe, w = 1 / (m_own[i] * m_own[i]);
                up += slope * (read(i) - h0[i]) * w;
                down += slope * slope * w;
            }
            z = down > 0 ? std::clamp(up / down, -4.0, 4.0) : 0;
            if (std::abs(z) < 0.05)
                break;
            probe = z;
        }
        if (const auto moved = at(input, z))
            h = *moved;
        else
            return tl::unexpected(moved.error());
        out.z = z;
        out.amount = z * input.u;
        out.after = misfit(h);
        out.explains = std::abs(z) <= mostZ;
        for (size_t i = 0; i < h.size(); ++i)
            out.explains = out.explains && std::abs(read(i) - h[i]) <= fits * m_own[i];
        Quantity moved = asChange(input.amount);
        moved.value *= z;
        out.text = { "after.explains",
                     "{0}, {1} of its uncertainty",
                     { moved, asNumber(std::abs(z), 1) } };
        return out;
    }

    const Build &m_build;
    std::vector<const GaugeReading *> m_readings;
    Forecasts m_forecasts;
    std::vector<Input> m_inputs;
    Progress *m_progress;
    std::vector<LikelyPressure> m_now;
    std::vector<double> m_own; ///< each reading's own error, Pa
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
        const double floor
            = readings[i]->tap == build.gaugeTap && readings[i]->rpm >= 0.9 * build.use.hotIdle_rpm
            ? build.use.hotIdleFloor_kpa * 1e3
            : 0;
        r.mark = markOfReading(pa, e, floor);
        out.push_back(r);
    }
    return out;
}

Result<std::vector<Explanation>>
explanationsOf(const Build &build, const std::vector<GaugedSize> &sizes, Progress *progress)
{
    return Explainer(build, sizes, progress).run();
}

Calibration calibrationOf(const Build &build, const Explanation &explanation)
{
    Calibration out;
    out.input = explanation.input;
    out.amount = explanation.amount;
    out.z = explanation.z;
    for (const GaugeReading *r : standing(build.gaugeReadings))
        out.readings.push_back(r->id);
    out.note = explanation.name + " " + render(explanation.text, fileStyle);
    return out;
}

Mark Explanation::mark() const
{
    return explains ? Mark::Proven : Mark::LookAgain;
}

Result<ReadAgainst> readAgainstForecast(const Build &build, const std::vector<GaugedSize> &sizes,
                                        Progress *progress)
{
    auto residuals = residualsOf(build, sizes);
    if (!residuals)
        return tl::unexpected(residuals.error());
    ReadAgainst out { std::move(*residuals), {} };
    if (out.residuals.empty())
        return out;
    auto explanations = explanationsOf(build, sizes, progress);
    if (!explanations)
        return tl::unexpected(explanations.error());
    out.explanations = std::move(*explanations);
    return out;
}

} // namespace mildpath
