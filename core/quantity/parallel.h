// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <thread>
#include <vector>

namespace mildpath {

/// Shares a long computation out to the machine's cores: work(first, step) on each, first = 0 …
/// step − 1, so that core k takes the items k, k + step, k + 2 step … Returns when all are done.
template <class Work> void onAllCores(Work work)
{
    const unsigned cores = std::max(1U, std::thread::hardware_concurrency());
    std::vector<std::thread> others;
    for (unsigned k = 1; k < cores; ++k)
        others.emplace_back([&work, k, cores] { work(k, cores); });
    work(0U, cores);
    for (std::thread &t : others)
        t.join();
}

} // namespace mildpath
