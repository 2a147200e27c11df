// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"

#include <array>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// The oil's passages as metal: straight drillings and cast ways, where they meet, what closes them.
// Lengths run from end 0 (at 0 mm) to end 1 (at l_mm) along each passage.

/// One end of a passage.
struct PassageEnd
{
    /// plug: opens outside and is closed by a plug · hole: opens outside · joint: runs into another
    /// passage · blind: stops in the metal
    std::string kind = "hole";
    std::string passage; ///< joint: the one it runs into; hole: what it meets once assembled
    double at_mm = 0; ///< where on that one
    bool straight = false; ///< joint at the other's end: runs on in one line
    std::string stop; ///< hole: the stop at which it opens
    ExtraKeys extra {};
    bool operator==(const PassageEnd &) const = default;
};

/// Where a passage runs through another.
struct Crossing
{
    double at_mm = 0;
    std::string passage;
    double there_mm = 0;
    bool operator==(const Crossing &) const = default;
};

/// A narrow place oil passes and a brush does not.
struct Restrictor
{
    double at_mm = 0;
    double d_mm = 0;
    bool operator==(const Restrictor &) const = default;
};

struct Passage
{
    std::string id, name;
    std::string part = "block"; ///< see passageParts()
    std::string stop; ///< the stop whose cleanness it is
    std::string made = "drilled"; ///< drilled, cast, tube
    bool curved = false; ///< no brush goes round its bends
    double d_mm = 0, l_mm = 0;
    /// Elements of the circuit that are this passage: its bore is that of the first of them.
    std::vector<std::string> elements {};
    std::array<PassageEnd, 2> ends;
    std::vector<Crossing> crossings;
    std::vector<Restrictor> restrictors;
    std::string splitFrom; ///< the passage it was a part of
    int splitAfter = 0; ///< how many events had been recorded when it was split off
    ExtraKeys extra {};
    bool operator==(const Passage &) const = default;
};

/// What closes a passage. A plug at a distance from the end sits hidden behind the outer one.
struct Plug
{
    std::string id, name;
    std::string kind = "screw"; ///< see plugKinds()
    std::string passage;
    double at_mm = 0;
    double d_mm = 0; ///< of the hole it closes
    std::string thread; ///< as stamped or measured: "M10x1"; empty: none or not known
    std::string behind; ///< id of the outer plug that hides it
    std::string stop; ///< a stop of its own; empty: that of its passage
    ExtraKeys extra {};
    bool hidden() const { return !behind.empty(); }
    bool operator==(const Plug &) const = default;
};

/// A part of the engine passages run through.
struct PassagePart
{
    std::string_view id, name;
};
std::span<const PassagePart> passageParts();
bool isPart(std::string_view id);
/// The name of a part; the id itself for an unknown one.
std::string_view partName(std::string_view id);

/// Whether two places of a passage are one: nearer than 0.01 mm.
bool samePlace(double a_mm, double b_mm);

const Passage *findPassage(std::span<const Passage> passages, std::string_view id);
const Plug *findPlug(std::span<const Plug> plugs, std::string_view id);

/// Every fault of sense with its place below "/passages" and "/plugs": unknown references,
/// positions outside, ends without what they say they have.
std::vector<Error> checkPassages(std::span<const Passage> passages, std::span<const Plug> plugs);

/// Cuts a passage in two that run on in one line: the first part keeps the id, the second becomes
/// `newId`; joints, crossings, restrictors and plugs go with the part they are on.
/// @param eventsSoFar  of the logbook: they happened to both parts
/// Errors: `passage` unknown; `at_mm` not inside, or at a joint, crossing, restrictor or plug.
Result<void> splitPassage(std::vector<Passage> &passages, std::vector<Plug> &plugs,
                          const std::string &id, double at_mm, const std::string &newId,
                          int eventsSoFar);

template <> const RecordType &recordType<Passage>();
template <> const RecordType &recordType<Plug>();

} // namespace mildpath
