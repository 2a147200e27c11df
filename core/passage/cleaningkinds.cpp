// SPDX-License-Identifier: GPL-3.0-or-later
// What may be done to a passage, and what jobs throw into it.
#include "passage/cleaning.h"

#include <array>

namespace mildpath {
namespace {

using Words = std::span<const std::string_view>;

constexpr std::array<std::string_view, 3> brushResults { "white", "grey", "black" };
constexpr std::array<std::string_view, 2> flushResults { "clear", "cloudy" };
constexpr std::array<std::string_view, 2> lookResults { "through", "blocked" };

constexpr std::array<EventKind, 16> eventKindRows { {
    { "hot_tank", "Hot tank", Does::Cleans, {} },
    { "solvent", "Solvent", Does::Cleans, {} },
    { "ultrasonic", "Ultrasonic bath", Does::Cleans, {} },
    { "brush", "Brush", Does::Cleans, brushResults },
    { "flush", "Flushed through", Does::Cleans, flushResults },
    { "air", "Compressed air", Does::Cleans, {} },
    { "look", "Far end looked for", Does::Looks, lookResults },
    { "machining", "Machined", Does::Dirties, {} },
    { "wash", "Final wash", Does::Washes, {} },
    { "storage", "Stored", Does::Ages, {} },
    { "assembly", "Assembled", Does::Closes, {} },
    { "taken_apart", "Taken apart", Does::Opens, {} },
    { "plug_out", "Plug drawn", Does::Plug, {} },
    { "plug_left", "Plug left in", Does::Plug, {} },
    { "plug_in", "Plug fitted", Does::Plug, {} },
    { "plug_seen", "Plug seen", Does::Plug, {} },
} };

constexpr std::array<std::string_view, 4> means { "light", "wire", "fluid", "camera" };

constexpr std::array mains { StopKind::Main };
constexpr std::array bigEnds { StopKind::BigEnd };
constexpr std::array cams { StopKind::CamBearing };
constexpr std::array lifters { StopKind::Lifter };
constexpr std::array balance { StopKind::BalanceShaft };
constexpr std::array crankcase { StopKind::Main, StopKind::Jet, StopKind::BalanceShaft };
constexpr std::array smallEnds { StopKind::SmallEnd };

/// Where swarf of usual jobs gets in. Common practice, no source.
constexpr std::array<MachiningJob, 12> jobs { {
    { "bore_mains", "Mains line-bored or honed", "block", mains },
    { "bore_cylinders", "Cylinders bored or honed", "block", crankcase },
    { "deck", "Deck faced", "block", {}, "head" },
    { "cam_bearings_block", "Cam bearings of the block fitted or bored", "block", cams },
    { "lifter_bores", "Lifter bores bushed or honed", "block", lifters },
    { "balance_bores", "Balance shaft bores bushed", "block", balance },
    { "grind_mains", "Main journals ground or polished", "crank", mains },
    { "grind_pins", "Crankpins ground or polished", "crank", bigEnds },
    { "head_face", "Head faced", "head", {}, "block" },
    { "cam_bearings_head", "Cam bearings of the head bored", "head", cams },
    { "cam_ground", "Camshaft ground", "cam", cams },
    { "rod_bushes", "Small-end bushes fitted", "rods", smallEnds },
} };

} // namespace

std::span<const EventKind> eventKinds()
{
    return eventKindRows;
}

const EventKind *findEventKind(std::string_view id)
{
    for (const EventKind &k : eventKindRows)
        if (k.id == id)
            return &k;
    return nullptr;
}

std::span<const MachiningJob> machiningJobs()
{
    return jobs;
}

const MachiningJob *findMachiningJob(std::string_view id)
{
    for (const MachiningJob &j : jobs)
        if (j.id == id)
            return &j;
    return nullptr;
}

std::span<const std::string_view> farEndMeans()
{
    return means;
}

std::string_view cleanStateId(CleanState state)
{
    constexpr std::array<std::string_view, 7> ids { "nothing_done", "begun", "grey", "dirty",
                                                    "blocked",      "aged",  "clean" };
    return ids[static_cast<size_t>(state)];
}

} // namespace mildpath
