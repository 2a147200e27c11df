// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/engine.h"

#include "checks/assessment.h"
#include "circuit/elementtypes.h"
#include "document/logbook.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double firstSpeed_rpm = 40, speedStep = 1.08; ///< grid of solved speeds
constexpr double oilStep_k = 4; ///< grid of solved temperatures

bool has(const std::vector<Fault> &faults, std::string_view kind)
{
    return std::any_of(faults.begin(), faults.end(),
                       [&](const Fault &f) { return f.kind == kind; });
}

} // namespace

std::string_view OutletFill::saw() const
{
    return filled >= flowsFrom ? "flows" : filled >= weakFrom ? "weak" : "dry";
}

Result<SimulatedEngine> SimulatedEngine::make(const Build &build, const Assessment &assessment,
                                              const SimulatedOptions &options)
{
    SimulatedEngine out;
    out.m_options = options;
    out.m_build = std::make_shared<const Build>(build);
    out.m_random = std::make_shared<std::mt19937_64>(options.seed);
    if (auto ok = checkFaults(build, options.faults); !ok)
        return tl::unexpected(ok.error());
    const Element *pump = pumpOf(build);
    if (!pump)
        return fail("/circuit", "there is no pump to turn");
    out.m_ratio = pumpDriveRatio(build);
    out.m_swept_m3 = pumpDisplacement_m3(*pump);
    out.m_prime = primeForecast(build, assessment);
    out.m_oil_c = options.oil_c.value_or(out.m_prime.oil_c);
    out.m_toFill_m3 = options.full ? 0 : out.m_prime.volume_m3();
    out.m_suction_m3 = options.full ? 0 : out.m_prime.suction_m3;
    // A port left open, or a dry pump too high over the oil, draws air as long as one likes.
    out.m_neverLifts = has(options.faults, "pump_gasket") || !out.m_prime.time.time_s;
    out.draw(assessment);
    for (const Stop &s : build.engine.stops)
        if (s.kind == StopKind::Lifter || s.kind == StopKind::Rocker)
            for (int i = 1; i <= static_cast<int>(flowOutlets(build, s).size()); ++i)
                out.m_outlets.push_back({ s.id, i, options.full ? 1.0 : 0.0 });
    // Once here, so that an engine without a solution is refused and not played.
    const auto model = OperatingModel::make(*out.m_build, out.m_sizes, out.m_oil_c,
                                            faultChange(*out.m_build, options.faults));
    if (!model)
        return tl::unexpected(model.error());
    out.settle();
    return out;
}

void SimulatedEngine::draw(const Assessment &assessment)
{
    m_sizes = assessment.sizes;
    if (!m_options.offModel)
        return;
    // Off by all that the forecast does not know, its oil's temperature but for that.
    if (const auto plain = OperatingModel::make(*m_build, m_sizes, m_oil_c)) {
        for (size_t i = 0; i < plain->inputs(); ++i)
            m_z.push_back(normal());
        m_common = std::exp(commonPart_ln(plain->inputList(), m_z));
    }
    m_gaugeOwn_pa = gaugeOwnShare * GaugeReading::usualGaugeU_kpa * 1e3 * normal();
    m_toFill_m3 *= std::exp(timesSpread * normal());
    m_suction_m3 *= std::exp(timesSpread * normal());
    m_rise_s = std::exp(timesSpread * normal());
    m_warmer = std::exp(warmingSpread * normal());
}

const SimulatedEngine::Sample &SimulatedEngine::sample(int rpmStep, int oilStep)
{
    const auto [it, fresh] = m_samples.try_emplace({ m_pumpAlone, rpmStep, oilStep });
    Sample &out = it->second;
    if (!fresh)
        return out;
    auto &model = m_models[oilStep];
    if (!model) {
        const auto change = [this](Circuit &circuit, Oil &oil) -> Result<void> {
            for (const Fault &f : m_options.faults)
                if (auto ok = applyFault(*m_build, f, circuit, oil); !ok)
                    return ok;
            return {};
        };
        auto made = OperatingModel::possible(
            *m_build, m_sizes, settledTemperatures(*m_build, oilStep * oilStep_k), m_z, change);
        if (!made) {
            m_trouble = made.error().message;
            return out;
        }
        model = std::move(*made);
    }
    const double rpm = firstSpeed_rpm * std::pow(speedStep, rpmStep);
    const auto r = model->at({ rpm, m_pumpAlone }, OperatingModel::Detail::Everything);
    if (!r) {
        m_trouble = r.error().message;
        return out;
    }
    for (const auto &[tap, node] : m_build->circuit.taps)
        if (const auto p = r->nodePressure_pa.find(node); p != r->nodePressure_pa.end())
            out.taps[tap] = p->second * m_common;
    out.points = r->points;
    for (PointPressure &p : out.points)
        p.pressure_pa *= m_common;
    return out;
}

/// Steady pressures at the present speed and temperature, times how far they have come.
void SimulatedEngine::settle()
{
    m_taps_pa.clear();
    if (m_crank_rpm < firstSpeed_rpm / 4) {
        for (PointPressure &p : m_points)
            p.pressure_pa = 0;
        for (const auto &[tap, node] : m_build->circuit.taps)
            m_taps_pa[tap] = 0;
        m_gauge_pa = 0;
        return;
    }
    const double speed
        = std::max(0.0, std::log(m_crank_rpm / firstSpeed_rpm) / std::log(speedStep));
    const double oil = m_oil_c / oilStep_k;
    const int n = static_cast<int>(std::floor(speed)), t = static_cast<int>(std::floor(oil));
    const double atSpeed = speed - n, atOil = oil - t;
    bool first = true;
    for (const auto &[dn, dt] :
         { std::pair(0, 0), std::pair(1, 0), std::pair(0, 1), std::pair(1, 1) }) {
        const double share = (dn ? atSpeed : 1 - atSpeed) * (dt ? atOil : 1 - atOil) * m_level;
        const Sample &s = sample(n + dn, t + dt);
        for (const auto &[tap, p] : s.taps)
            m_taps_pa[tap] += share * p;
        if (first) {
            m_points = s.points;
            for (PointPressure &p : m_points)
                p.pressure_pa = 0;
            first = false;
        }
        for (size_t i = 0; i < m_points.size() && i < s.points.size(); ++i)
            m_points[i].pressure_pa += share * s.points[i].pressure_pa;
    }
    m_gauge_pa = m_taps_pa[m_build->gaugeTap];
}

void SimulatedEngine::turn(Turning how, double rpm)
{
    m_turning = how;
    if (how != Turning::Still)
        m_pumpAlone = how == Turning::Drill;
    m_asked_rpm = how == Turning::Still ? 0 : how == Turning::Drill ? rpm / m_ratio : rpm;
}

void SimulatedEngine::advance(double dt_s)
{
    while (dt_s > 1e-9) {
        const double step_s = std::min(dt_s, longestStep_s);
        step(step_s);
        dt_s -= step_s;
    }
}

void SimulatedEngine::step(double dt_s)
{
    m_t_s += dt_s;
    m_crank_rpm += (m_asked_rpm - m_crank_rpm) * (1 - std::exp(-dt_s / spinUp_s));
    if (m_asked_rpm == 0 && m_crank_rpm < 5)
        m_crank_rpm = 0;
    const double swept = m_swept_m3 * m_crank_rpm * m_ratio / 60 * dt_s;
    if (m_suction_m3 > 0)
        m_suction_m3 -= m_neverLifts ? 0 : swept;
    else if (m_toFill_m3 > 0)
        m_toFill_m3 -= fillEfficiency * swept;
    const bool pushing = primed() && m_crank_rpm > 5;
    const double rise_s = m_level > 0.95 || m_turning == Turning::Running ? fullRise_s : m_rise_s;
    m_level += ((pushing ? 1 : 0) - m_level) * (1 - std::exp(-dt_s / rise_s));
    if (!pushing && m_level < 1e-3)
        m_level = 0;
    if (m_turning == Turning::Running) {
        const WarmUp w = warmUpOf(*m_build);
        const double tau
            = m_warmer * timeConstant_s(w.oilAtIdle_s, w.oilAtSpeed_s, w.idle_rpm, m_crank_rpm);
        m_oil_c += (w.oilEnd_c - m_oil_c) * (1 - std::exp(-dt_s / tau));
    }
    settle();
    fill(dt_s);
}

/// An outlet fills to the share of its need that its pressure is.
void SimulatedEngine::fill(double dt_s)
{
    for (OutletFill &o : m_outlets) {
        double reach = 0;
        int at = 0;
        for (const PointPressure &p : m_points) {
            if (p.stop != o.stop)
                continue;
            ++at;
            // A stop with one point has it for all its outlets; one without a need only has to
            // flow.
            const bool mine = at == o.outlet || m_build->engine.find(o.stop)->points.size() == 1;
            if (mine)
                reach = std::clamp(p.pressure_pa / (p.need_pa > 0 ? p.need_pa : 0.05e5), 0.0, 1.0);
        }
        if (reach > o.filled)
            o.filled += (reach - o.filled) * (1 - std::exp(-dt_s / outletFills_s));
    }
}

std::optional<RunPoint> SimulatedEngine::read()
{
    // Drawn in any case, so that one seed gives one story with and without drop-outs.
    const double lost = std::uniform_real_distribution<double>()(*m_random);
    const double p = normal(), n = normal(), t = normal();
    if (lost < m_options.dropouts)
        return std::nullopt;
    const double noisy = m_gauge_pa / 1e3 * (1 + 0.004 * p)
        + (m_gauge_pa > 0 ? m_gaugeOwn_pa / 1e3 : 0) + m_options.noise_kpa * p;
    return RunPoint { m_t_s, std::max(0.0, noisy),
                      m_crank_rpm > 0 ? std::max(0.0, m_crank_rpm * (1 + hunting * n)) : 0.0,
                      m_oil_c + 0.2 * t };
}

double SimulatedEngine::readTap(const std::string &tap)
{
    if (tap == m_build->gaugeTap)
        return std::max(0.0, m_gauge_pa + (m_gauge_pa > 0 ? m_gaugeOwn_pa : 0));
    const double u_pa = GaugeReading::usualGaugeU_kpa * 1e3;
    const auto own = m_tapOwn_pa.find(tap);
    const double offset = own != m_tapOwn_pa.end()
        ? own->second
        : (m_tapOwn_pa[tap] = m_options.offModel ? gaugeOwnShare * u_pa * normal() : 0);
    const double there = m_taps_pa[tap];
    return std::max(0.0, there > 0 ? there + offset : 0);
}

} // namespace mildpath
