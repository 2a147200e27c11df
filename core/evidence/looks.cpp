// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/looks.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array<std::string_view, 8> items {
    "First oil and filter change",
    "Oil and filter change",
    "Filter cut and read",
    "Pan off, baffle and welds looked at",
    "Pickup ring and bolts",
    "Relief spring",
    "Valve lash",
    "Oil hoses and their ends",
};

} // namespace

std::span<const std::string_view> lookItems()
{
    return items;
}

template <> const RecordType &recordType<NextLook>()
{
    static const RecordType type
        = describeNamelessRecord<NextLook>("next_look")
              .must<&NextLook::item>("item", "what is looked at")
              .ifSet<&NextLook::every_h>("every_h", "of running")
              .in("h", 0.1, 1e5)
              .ifSet<&NextLook::every_km>("every_km", "driven")
              .in("km", 1, 1e7)
              .ifSet<&NextLook::everyDays>("every_days", "of the calendar")
              .in("", 1, 1e4)
              .ifSet<&NextLook::everyTrackDays>("every_track_days", "on a circuit")
              .in("", 1, 1e4)
              .ifSet<&NextLook::everyPasses>("every_passes", "down a strip or hill")
              .in("", 1, 1e5);
    return type;
}

} // namespace mildpath
