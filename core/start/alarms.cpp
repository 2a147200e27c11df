// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/alarms.h"

#include <algorithm>

namespace mildpath {
namespace {

Phrase belowMinimum(double pressure_pa, double minimum_pa)
{
    return { "alarm.low",
             "{0}: below your minimum of {1}. Switch off.",
             { asPressure(pressure_pa), asPressure(minimum_pa) } };
}

} // namespace

AlarmLimits primeLimits(const Build &build, const PrimeForecast &prime)
{
    // Where the forecast says it never primes, one burst is all there is to lose.
    AlarmLimits out { .priming = true, .stop_s = prime.time.stop_s.value_or(10), .hot_c = 1e3 };
    if (!prime.drill) {
        out.burst_s = *build.start.value("burst_s");
        out.rest_s = *build.start.value("rest_s");
    }
    return out;
}

AlarmLimits startLimits(const Build &build)
{
    return { .priming = false,
             .stop_s = *build.start.value("pressure_within_s"),
             .floor_pa = build.use.hotIdleFloor_kpa * 1e3,
             // Running down after the ignition is off, pressure may go.
             .floorFrom_rpm = 0.6 * build.use.hotIdle_rpm,
             .hot_c = build.use.hotOil_c + tooHot_k };
}

void AlarmWatch::raise(std::vector<Alarm> &out, AlarmKind kind, double t_s, bool stop, Phrase text)
{
    if (std::any_of(m_on.begin(), m_on.end(), [&](const Alarm &a) { return a.kind == kind; }))
        return;
    m_on.push_back({ kind, t_s, stop, std::move(text) });
    out.push_back(m_on.back());
}

void AlarmWatch::clear(AlarmKind kind)
{
    std::erase_if(m_on, [&](const Alarm &a) { return a.kind == kind; });
}

bool AlarmWatch::low(const RunPoint &r) const
{
    // A sender without a speed: what is not known to stand still runs.
    return !m_limits.priming && m_came_s && r.pressure_kpa
        && (!r.rpm || *r.rpm >= m_limits.floorFrom_rpm)
        && *r.pressure_kpa * 1e3 < m_limits.floor_pa;
}

void AlarmWatch::judge(const RunPoint &r, std::vector<Alarm> &out)
{
    const double pa = r.pressure_kpa.value_or(0) * 1e3;
    if (r.pressure_kpa && pa > beyondStrength_pa)
        raise(out, AlarmKind::TooHigh, r.t_s, true,
              { "alarm.high",
                "Above {0}: switch off, stand clear, the filter may burst. Check the relief valve.",
                { asPressure(beyondStrength_pa, 0) } });
    else
        clear(AlarmKind::TooHigh);
    if (r.oil_c && *r.oil_c > m_limits.hot_c)
        raise(out, AlarmKind::TooHot, r.t_s, true,
              { "alarm.hot",
                "Oil at {0}: switch off and let it cool.",
                { asTemperature(*r.oil_c) } });
    else
        clear(AlarmKind::TooHot);
    if (!low(r)) {
        m_lowSince_s.reset();
        clear(AlarmKind::LowPressure);
    } else if (!m_lowSince_s) {
        m_lowSince_s = r.t_s;
    } else {
        raise(out, AlarmKind::LowPressure, r.t_s, true, belowMinimum(pa, m_limits.floor_pa));
    }
}

/// Bursts with rest between: a starter is not made to turn for long.
void AlarmWatch::starter(const RunPoint &r, std::vector<Alarm> &out)
{
    const double dt = m_last ? std::max(0.0, r.t_s - m_last->t_s) : 0;
    if (!m_turning) {
        if (m_burst_s > 0)
            m_stood_s = 0; // it stands from here on
        else if (m_stood_s >= 0)
            m_stood_s += dt;
        m_burst_s = 0;
        clear(AlarmKind::StarterHot);
        return;
    }
    const bool early = m_burst_s == 0 && restLeft_s().has_value();
    if (early)
        raise(out, AlarmKind::StarterHot, r.t_s, true,
              { "alarm.starter_cools",
                "The starter has cooled for {0} of {1}: wait.",
                { asTime(m_stood_s), asTime(m_limits.rest_s) } });
    m_burst_s += std::max(dt, 1e-9);
    if (m_burst_s >= m_limits.burst_s)
        raise(out, AlarmKind::StarterHot, r.t_s, true,
              { "alarm.starter_hot",
                "{0} of cranking: let the starter cool for {1}.",
                { asTime(m_limits.burst_s), asTime(m_limits.rest_s) } });
}

std::optional<double> AlarmWatch::restLeft_s() const
{
    if (m_limits.burst_s <= 0 || m_burst_s > 0 || m_stood_s < 0 || m_stood_s >= m_limits.rest_s)
        return std::nullopt;
    return m_limits.rest_s - m_stood_s;
}

std::vector<Alarm> AlarmWatch::take(const RunPoint &reading,
                                    const std::optional<LikelyPressure> &expected)
{
    std::vector<Alarm> out;
    clear(AlarmKind::Silent);
    // A sender without a speed is taken as turning from its first reading on.
    m_turning = !reading.rpm || *reading.rpm >= turning_rpm;
    if (m_turning && m_last)
        m_turned_s += std::max(0.0, reading.t_s - m_last->t_s);
    else if (!m_turning && !m_limits.priming)
        m_turned_s = 0; // an engine that stopped starts anew; bursts of priming add up
    if (m_limits.burst_s > 0)
        starter(reading, out);
    const bool pressure = reading.pressure_kpa && *reading.pressure_kpa >= firstPressure_kpa;
    if (pressure && !m_came_s)
        m_came_s = m_turned_s;
    if (!m_turning && !m_limits.priming)
        m_came_s.reset();
    if (m_came_s)
        clear(AlarmKind::NoPressure);
    judge(reading, out);
    if (expected && m_came_s && reading.pressure_kpa && m_turning
        && *reading.pressure_kpa * 1e3 < expected->low_pa) {
        if (!m_belowSince_s)
            m_belowSince_s = reading.t_s;
        if (reading.t_s - *m_belowSince_s >= belowBand_s)
            raise(out, AlarmKind::BelowBand, reading.t_s, false,
                  { "alarm.below_likely",
                    "{0} is below the likely range: at least {1} was expected.",
                    { asPressure(*reading.pressure_kpa * 1e3), asPressure(expected->low_pa) } });
    } else {
        m_belowSince_s.reset();
        clear(AlarmKind::BelowBand);
    }
    m_last = reading;
    for (Alarm &a : tick(reading.t_s))
        out.push_back(std::move(a));
    return out;
}

std::vector<Alarm> AlarmWatch::tick(double t_s)
{
    std::vector<Alarm> out;
    if (!m_last)
        return out;
    const double since = std::max(0.0, t_s - m_last->t_s);
    if (since >= silence_s)
        raise(out, AlarmKind::Silent, t_s, true,
              "Sender silent, pressure unknown: switch off, then check its cable.");
    if (m_lowSince_s && t_s - *m_lowSince_s >= confirm_s && low(*m_last))
        raise(out, AlarmKind::LowPressure, t_s, true,
              belowMinimum(*m_last->pressure_kpa * 1e3, m_limits.floor_pa));
    if (m_turning && !m_came_s && m_turned_s + since >= m_limits.stop_s)
        raise(out, AlarmKind::NoPressure, t_s, true,
              { "alarm.no_pressure",
                "No oil pressure after {0}: switch off now, then check in the order below.",
                { asTime(m_limits.stop_s) } });
    return out;
}

std::optional<double> AlarmWatch::untilStop_s() const
{
    if (m_came_s || !m_turning)
        return std::nullopt;
    return std::max(0.0, m_limits.stop_s - m_turned_s);
}

} // namespace mildpath
