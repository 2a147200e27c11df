// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/document.h"
#include "kinds/stopkind.h"

namespace mildpath {

// Changes to the engine's stops: what comes in or goes out of the oil's way takes its elements of
// the circuit along. Records are never lost: a stop with readings, proofs or ticks stays.

/// A stop of a kind behind another: a branch fed from it, a plug at its end, or something the oil
/// passes through on its way on.
struct AddStop
{
    StopKind kind {};
    std::string name; ///< empty: the kind's usual name
    std::string behind; ///< stop
    bool operator==(const AddStop &) const = default;
};
/// Takes a stop out and closes the way behind it.
struct RemoveStop
{
    std::string stop;
    bool operator==(const RemoveStop &) const = default;
};
/// Its place in oil order; the circuit stays.
struct MoveStop
{
    std::string stop;
    int by; ///< places; negative: earlier
    bool operator==(const MoveStop &) const = default;
};
/// Makes it another kind where it is, with that kind's usual sizes.
struct TurnStop
{
    std::string stop;
    StopKind kind {};
    bool operator==(const TurnStop &) const = default;
};
/// Feeds a branch from another stop.
struct FeedStop
{
    std::string stop, from;
    bool operator==(const FeedStop &) const = default;
};
struct NameStop
{
    std::string stop, name;
    bool operator==(const NameStop &) const = default;
};
/// One dimension of all elements of a kind at a stop: what is alike stays alike.
struct SetAlike
{
    std::string stop;
    ElementKind elements {};
    std::string key;
    double value;
    bool operator==(const SetAlike &) const = default;
};
/// Puts the gauge on a stop, at one of its points.
struct MoveGauge
{
    std::string stop;
    int point = 0;
    bool operator==(const MoveGauge &) const = default;
};

// Errors: the place is the stop, the reason says what stands against it.
Result<Build> addStop(Build build, const AddStop &edit);
Result<Build> removeStop(Build build, const RemoveStop &edit);
Result<Build> moveStop(Build build, const MoveStop &edit);
Result<Build> turnStop(Build build, const TurnStop &edit);
Result<Build> feedStop(Build build, const FeedStop &edit);
Result<Build> nameStop(Build build, const NameStop &edit);
Result<Build> setAlike(Build build, const SetAlike &edit);
Result<Build> moveGauge(Build build, const MoveGauge &edit);

/// Where oil can be had at a stop: its last point, or what it flows into. Empty where there is
/// nothing to be had (a jet, a plug).
std::string outletOf(const Build &build, const Stop &stop);
/// The stop whose oil feeds it; null for the first on the way.
const Stop *feederOf(const Build &build, const Stop &stop);
/// Kinds that may stand where a stop is.
std::vector<StopKind> kindsInstead(const Stop &stop);

} // namespace mildpath
