// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// Hours of work, learned from those that were timed. The logarithm of a time over the usual one is
// builder + kind + job, each normal about 0: a partly pooled mean (best linear unbiased prediction,
// Henderson 1975, from memory). The three spreads: own choice. docs/theory/plan.md.

/// A piece of work as it was timed.
struct TimedWork
{
    std::string kind; ///< id in the catalogue of checks
    double minutes = 0; ///< for one place; above 0
    double usual = 0; ///< the catalogue's; above 0
};

/// Work that is still to do: so many alike.
struct WorkToDo
{
    std::string kind;
    double usual = 0; ///< minutes of each, 0 or more
    int count = 1;
};

/// Hours with the range nine in ten jobs take.
struct HoursRange
{
    double low_h = 0, likely_h = 0, high_h = 0;
};

/// How quick this builder is, at each kind that was timed and at others.
class PaceModel
{
public:
    explicit PaceModel(std::span<const TimedWork> timed);

    /// What a usual time is multiplied by. A job's own scatter is in it: slow ones cost more than
    /// quick ones save.
    double factor(std::string_view kind) const;
    bool isTimed(std::string_view kind) const { return m_kinds.contains(kind); }
    int timed() const { return m_timed; } ///< pieces of work
    /// Builder's own pace, of the logarithm.
    double builder() const { return m_builder; }
    HoursRange hours(std::span<const WorkToDo> work) const;

private:
    struct Kind
    {
        double offset = 0; ///< of the logarithm, from the builder's own pace
        int count = 0;
    };
    std::map<std::string, Kind, std::less<>> m_kinds;
    double m_builder = 0, m_variance = 0;
    int m_timed = 0;
};

} // namespace mildpath
