// SPDX-License-Identifier: GPL-3.0-or-later
#include "sump/threads.h"

#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double inch_mm = 25.4;
constexpr double within_mm = 0.6;

constexpr std::array all {
    Thread { "1/8 NPT", 10.287, inch_mm / 27, 60, true, "NPT", "1/8" },
    Thread { "1/4 NPT", 13.716, inch_mm / 18, 60, true, "NPT", "1/4" },
    Thread { "3/8 NPT", 17.145, inch_mm / 18, 60, true, "NPT", "3/8" },
    Thread { "R 1/8", 9.728, inch_mm / 28, 55, true, "R", "1/8" },
    Thread { "R 1/4", 13.157, inch_mm / 19, 55, true, "R", "1/4" },
    Thread { "R 3/8", 16.662, inch_mm / 19, 55, true, "R", "3/8" },
    Thread { "G 1/8", 9.728, inch_mm / 28, 55, false, "G", "1/8" },
    Thread { "G 1/4", 13.157, inch_mm / 19, 55, false, "G", "1/4" },
    Thread { "G 3/8", 16.662, inch_mm / 19, 55, false, "G", "3/8" },
    Thread { "M10x1", 10, 1, 60, false, "M", "10x1" },
    Thread { "M12x1.5", 12, 1.5, 60, false, "M", "12x1.5" },
};

} // namespace

std::span<const Thread> threads()
{
    return all;
}

const Thread *findThread(std::string_view name)
{
    for (const Thread &t : all)
        if (t.name == name)
            return &t;
    return nullptr;
}

ThreadMatch matchThreads(const Thread &male, const Thread &female)
{
    ThreadMatch out { "mismatch", false, male.major_mm - female.major_mm,
                      male.pitch_mm - female.pitch_mm, male.flank_deg - female.flank_deg };
    const auto whitworth = [](const Thread &t) { return t.family == "R" || t.family == "G"; };
    if (male.name == female.name)
        out.match = "match";
    else if (whitworth(male) && whitworth(female) && male.size == female.size)
        out.match = "engages_different_seal";
    else
        out.deceptive = std::abs(out.major_mm) <= within_mm;
    return out;
}

} // namespace mildpath
