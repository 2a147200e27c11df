// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/drive.h"

#include <algorithm>

namespace mildpath {
namespace {

/// Integral from the first moment, of one of the signals, straight between moments.
class Integral
{
public:
    Integral(std::span<const DriveMoment> m, double DriveMoment::*signal)
        : m_moments(m)
        , m_signal(signal)
        , m_sum(m.size(), 0)
    {
        for (size_t i = 1; i < m.size(); ++i)
            m_sum[i] = m_sum[i - 1]
                + (m[i].*signal + m[i - 1].*signal) / 2 * (m[i].time_s - m[i - 1].time_s);
    }

    double to(double t) const
    {
        const DriveMoment &first = m_moments.front(), &last = m_moments.back();
        if (t <= first.time_s)
            return (t - first.time_s) * (first.*m_signal);
        if (t >= last.time_s)
            return m_sum.back() + (t - last.time_s) * (last.*m_signal);
        const auto next
            = std::upper_bound(m_moments.begin(), m_moments.end(), t,
                               [](double time, const DriveMoment &m) { return time < m.time_s; });
        const auto i = static_cast<size_t>(next - m_moments.begin()) - 1;
        const DriveMoment &a = m_moments[i], &b = m_moments[i + 1];
        const double x = t - a.time_s, slope = (b.*m_signal - a.*m_signal) / (b.time_s - a.time_s);
        return m_sum[i] + x * (a.*m_signal) + slope * x * x / 2;
    }

private:
    std::span<const DriveMoment> m_moments;
    double DriveMoment::*m_signal;
    std::vector<double> m_sum;
};

} // namespace

std::vector<DriveMoment> smoothed(std::span<const DriveMoment> moments, double window_s)
{
    std::vector<DriveMoment> out(moments.begin(), moments.end());
    if (moments.empty())
        return out;
    for (double DriveMoment::*signal : { &DriveMoment::lateral_g, &DriveMoment::longitudinal_g }) {
        const Integral integral(moments, signal);
        for (DriveMoment &m : out)
            m.*signal
                = (integral.to(m.time_s + window_s / 2) - integral.to(m.time_s - window_s / 2))
                / window_s;
    }
    return out;
}

} // namespace mildpath
