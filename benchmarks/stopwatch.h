// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <chrono>
#include <cstdio>
#include <vector>

namespace mildpath {

/// Runs something `times` times and prints median and 95th percentile (µs). @return the median
template <class Work> double measure(const char *name, int times, Work work)
{
    std::vector<double> taken;
    for (int i = 0; i < times; ++i) {
        const auto start = std::chrono::steady_clock::now();
        work(i);
        taken.push_back(
            std::chrono::duration<double, std::micro>(std::chrono::steady_clock::now() - start)
                .count());
    }
    std::sort(taken.begin(), taken.end());
    const double median = taken[taken.size() / 2];
    std::printf("%-46s %10.1f %10.1f\n", name, median, taken[taken.size() * 95 / 100]);
    return median;
}

} // namespace mildpath
