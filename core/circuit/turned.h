// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace mildpath {

/// How an engine is turned: by its crank, or the pump alone, as a drill does.
struct Turned
{
    // Most speeds are those of a crank.
    Turned(double crank_rpm, bool alone = false)
        : rpm(crank_rpm)
        , pumpAlone(alone)
    {
    }
    double rpm; ///< of the crank, > 0; of the one that would turn the pump so where it rests
    bool pumpAlone; ///< the crank rests
    bool operator==(const Turned &) const = default;
};

} // namespace mildpath
