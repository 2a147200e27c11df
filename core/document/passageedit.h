// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/logbook.h"

namespace mildpath {

class Edit;

// Changes to the passages and plugs themselves, and entries of the logbook about them. Records are
// never lost: a passage or plug with events stays.

/// A passage: found by id, or added.
struct PutPassage
{
    Passage passage;
    bool operator==(const PutPassage &) const = default;
};
struct DropPassage
{
    std::string passage;
    bool operator==(const DropPassage &) const = default;
};
/// Cuts a passage in two; what happened to it happened to both parts.
struct CutPassage
{
    std::string passage;
    double at_mm;
    bool operator==(const CutPassage &) const = default;
};
/// A plug: found by id, or added. At an end of a passage it makes that end one with a plug.
struct PutPlug
{
    Plug plug;
    bool operator==(const PutPlug &) const = default;
};
/// Takes a plug off the list; an end it closed becomes a hole.
struct DropPlug
{
    std::string plug;
    bool operator==(const DropPlug &) const = default;
};
/// The usual passages of such an engine, where none are written down yet.
struct DrawPassages
{
    bool operator==(const DrawPassages &) const = default;
};

/// Gives a passage another bore: that of the elements it is, where it is some.
Edit setBore(const Passage &passage, double d_mm);

/// A passage set usual for the engine, from its circuit: plausible lengths and ends, to be
/// corrected by what is seen. Own choice, no source.
struct PassageSet
{
    std::vector<Passage> passages;
    std::vector<Plug> plugs;
};
PassageSet usualPassages(const Build &build);
/// Writes them down: what closes a plug's stop then stands in the ledger.
void putUsualPassages(Build &build);

} // namespace mildpath
