// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <atomic>

namespace mildpath {

/// Whole and part of a long computation, and the wish to stop it. Shared between threads.
struct Progress
{
    std::atomic<int> done { 0 }, whole { 0 };
    std::atomic<bool> cancel { false };
};

} // namespace mildpath
