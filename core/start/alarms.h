// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"
#include "rules/rules.h"
#include "start/corridor.h"
#include "start/prime.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

// What a live log calls out, and when. Pure: readings and time in, alarms out.

enum class AlarmKind {
    NoPressure, ///< turning, and nothing by the stop time
    LowPressure, ///< under the floor after it had come
    TooHigh, ///< beyond what filter cans stand
    TooHot, ///< oil well above hot
    StarterHot, ///< the starter turned a whole burst, or turns before it has cooled
    BelowBand, ///< under the forecast for a while: look, no need to stop
    Silent, ///< the sender says nothing
};
struct Alarm
{
    AlarmKind kind;
    double t_s; ///< since the log began
    bool stop; ///< switch off now; otherwise look
    Phrase text; ///< what is wrong and what to do
};

/// What a live run is held against.
struct AlarmLimits
{
    bool priming = false;
    double stop_s = 0; ///< turning so long without pressure: stop
    double floor_pa = 0; ///< running, once pressure has come
    double floorFrom_rpm = 0; ///< the floor holds from this speed on
    double hot_c = 0;
    double burst_s = 0, rest_s = 0; ///< of the starter; 0: a drill needs no rest
};
AlarmLimits primeLimits(const Build &build, const PrimeForecast &prime);
AlarmLimits startLimits(const Build &build);

class AlarmWatch
{
public:
    explicit AlarmWatch(const AlarmLimits &limits)
        : m_limits(limits)
    {
    }
    /// A reading; `expected` is the forecast for it, where there is one.
    /// @return alarms that begin with it
    std::vector<Alarm> take(const RunPoint &reading, const std::optional<LikelyPressure> &expected);
    /// Time goes on without a reading. @param t_s  on the log's clock
    std::vector<Alarm> tick(double t_s);
    /// Those that are on.
    const std::vector<Alarm> &standing() const { return m_on; }
    /// Seconds left until it must be stopped; absent once pressure came, or while nothing turns.
    std::optional<double> untilStop_s() const;
    std::optional<double> firstPressure_s() const { return m_came_s; } ///< since it first turned
    /// How long the starter has still to cool; absent while it turns, and once it has.
    std::optional<double> restLeft_s() const;
    /// Since it first turned, bursts added up while priming.
    double turned_s() const { return m_turned_s; }

private:
    void raise(std::vector<Alarm> &out, AlarmKind kind, double t_s, bool stop, Phrase text);
    void clear(AlarmKind kind);
    bool low(const RunPoint &reading) const;
    void judge(const RunPoint &reading, std::vector<Alarm> &out);
    void starter(const RunPoint &reading, std::vector<Alarm> &out);

    AlarmLimits m_limits;
    std::vector<Alarm> m_on;
    std::optional<RunPoint> m_last;
    std::optional<double> m_lowSince_s, m_belowSince_s, m_came_s;
    double m_turned_s = 0;
    double m_burst_s = 0; ///< turned since it last stood
    double m_stood_s = -1; ///< since the last burst; below 0: none yet
    bool m_turning = false;
};

} // namespace mildpath
