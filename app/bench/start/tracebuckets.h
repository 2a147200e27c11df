// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "evidence/startlog.h"

#include <vector>

namespace mildpath {

/// One moment of a log with what was expected of it then.
struct LivePoint
{
    RunPoint read;
    float low_kpa = -1, high_kpa = -1; ///< −1: nothing was expected
};

/// A stretch of a trace: what is left to draw of it (kPa). No pressure: `high` below 0.
struct TraceBucket
{
    double from_s = 0, to_s = 0;
    float first = -1, low = 1e9F, high = -1, last = -1;
    float bandLow = -1, bandHigh = -1;
    int points = 0;

    void add(const LivePoint &point);
    void add(const TraceBucket &next);
};

/// A trace that can be drawn as quickly after an hour as after a minute: a bounded number of
/// stretches, each with its lowest and highest; when they get too many, two become one.
class TraceBuckets
{
public:
    void add(const LivePoint &point);
    void clear();
    const std::vector<TraceBucket> &all() const { return m_all; }
    double last_s() const { return m_all.empty() ? 0 : m_all.back().to_s; }
    float most_kpa() const { return m_most; } ///< pressures and bands; 0: none

    static constexpr size_t most = 1600; ///< more than a wide window has columns

private:
    std::vector<TraceBucket> m_all;
    int m_each = 1; ///< points that fill one
    float m_most = 0;
};

} // namespace mildpath
