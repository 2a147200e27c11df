// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/tracebuckets.h"

#include <algorithm>

namespace mildpath {

void TraceBucket::add(const LivePoint &p)
{
    TraceBucket one;
    one.from_s = one.to_s = p.read.t_s;
    one.points = 1;
    one.bandLow = p.low_kpa;
    one.bandHigh = p.high_kpa;
    if (p.read.pressure_kpa)
        one.first = one.low = one.high = one.last = static_cast<float>(*p.read.pressure_kpa);
    if (points == 0)
        *this = one;
    else
        add(one);
}

void TraceBucket::add(const TraceBucket &next)
{
    to_s = next.to_s;
    points += next.points;
    if (first < 0)
        first = next.first;
    if (next.last >= 0)
        last = next.last;
    low = std::min(low, next.low);
    high = std::max(high, next.high);
    if (next.bandHigh >= 0) {
        bandLow = next.bandLow;
        bandHigh = next.bandHigh;
    }
}

void TraceBuckets::add(const LivePoint &p)
{
    m_most = std::max({ m_most, static_cast<float>(p.read.pressure_kpa.value_or(0)), p.high_kpa });
    if (m_all.empty() || m_all.back().points >= m_each) {
        if (m_all.size() == most) {
            for (size_t i = 0; i < most / 2; ++i) {
                m_all[i] = m_all[2 * i];
                m_all[i].add(m_all[2 * i + 1]);
            }
            m_all.resize(most / 2);
            m_each *= 2;
        }
        m_all.emplace_back();
    }
    m_all.back().add(p);
}

void TraceBuckets::clear()
{
    *this = {};
}

} // namespace mildpath
