// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/stopkind.h"
#include "passage/cleaningplan.h"
#include "quantity/record.h"
#include "quantity/sharedlist.h"
#include "rules/rules.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What was done to passages and plugs, event by event, and what state that leaves them in. States
// are derived from the events, never stored.

/// What an event does to cleanness.
enum class Does { Dirties, Cleans, Looks, Washes, Ages, Closes, Opens, Plug };

struct EventKind
{
    std::string_view id; ///< "hot_tank"
    std::string_view name; ///< "Hot tank"
    Does does;
    std::span<const std::string_view> results; ///< what must be said of it; empty: nothing
};
std::span<const EventKind> eventKinds();
/// @return null for an unknown id.
const EventKind *findEventKind(std::string_view id);

/// A machining job and where its swarf gets in: every hole that opens at these stops.
struct MachiningJob
{
    std::string_view id, name; ///< "Mains line-bored"
    std::string_view part; ///< block: and so on; "head": any head
    std::span<const StopKind> stopKinds; ///< holes that open there
    std::string_view facing {}; ///< instead: holes that meet this part
};
std::span<const MachiningJob> machiningJobs();
const MachiningJob *findMachiningJob(std::string_view id);

/// An entry of the cleaning logbook.
struct CleanEvent : Record
{
    std::string kind; ///< see eventKinds()
    std::string scope = "passage"; ///< passage, part, all, plug, job
    std::string target; ///< id of passage, part, plug or job; empty for all
    std::string result; ///< by kind: white, grey; through, blocked; clear …
    std::string means; ///< looks: light, wire, fluid, camera
    double days = 0; ///< storage
    bool covered = false; ///< storage
    bool seen = false; ///< plug in its place: somebody looked at it there
    bool dated = false; ///< the time was given by hand: it goes where it belongs
    bool operator==(const CleanEvent &) const = default;
};

template <> const RecordType &recordType<CleanEvent>();

/// Means of seeing the far end. A magnet is none: what bearings are made of is not magnetic.
std::span<const std::string_view> farEndMeans();

/// The events that stand, in the order they happened: as they were recorded, a correction in the
/// place of what it corrects, and one that was dated by hand before the first that is later. A
/// clock that was wrong moves nothing.
std::vector<const CleanEvent *> inOrder(const SharedList<CleanEvent> &events);
/// Whether the clock went back between two entries that follow each other, neither dated by hand.
bool clockWentBack(const SharedList<CleanEvent> &events);

enum class CleanState {
    NothingDone, ///< nothing recorded
    Begun, ///< something was done, the proof is not complete
    Grey, ///< the last brush or flush did not come out clean
    Dirty, ///< machined since it was last cleaned
    Blocked, ///< far end not seen
    Aged, ///< proven once, stored since: asks for the final wash
    Clean, ///< white brush and far end seen, nothing since
};

std::string_view cleanStateId(CleanState state); ///< "nothing_done" …, for files and scripts

/// One event as a passage met it.
struct ChainLink
{
    int event; ///< index into the events
    CleanState after; ///< the passage's state then
};

struct PassageState
{
    std::string passage;
    CleanState state = CleanState::NothingDone;
    Phrase reason; ///< one line
    std::vector<std::string> missing; ///< what the proof still asks for, in order
    std::vector<ChainLink> chain; ///< what happened to it
    bool brush = false, flush = false; ///< what the proof needs, by its lengths
    bool machined = false; ///< at any time
    Phrase soiled; ///< dirty: by what
    std::string provenAt; ///< time of the last entry about it
    double unreached_mm = 0; ///< of it, nothing reaches
};

enum class PlugPlace { NotTouched, Out, Left, In };

struct PlugState
{
    std::string plug;
    PlugPlace place = PlugPlace::NotTouched;
    bool seen = false;
    std::string seal; ///< as fitted
    std::string reason; ///< why it was left
    std::string by, at, seenBy, seenAt;
};

/// State of everything after all events.
struct CleaningBook
{
    std::vector<PassageState> passages; ///< as in the network
    std::vector<PlugState> plugs;
};
/// Something that made passages dirty and is no entry of the cleaning logbook: a hole filed, a
/// bearing that failed, a chip that was found.
struct Soiling
{
    std::string at; ///< ISO 8601; empty: after everything else
    Phrase what; ///< "filed"
    /// Flags by passage, with the plugs as they were: `plugIn` says which.
    std::function<std::vector<bool>(const std::function<bool(int)> &plugIn)> reaches;
};
/// @param stopKinds  stop id → its kind, for jobs
/// @param soilings   in any order
CleaningBook readBook(const PassageNetwork &network, const SharedList<CleanEvent> &events,
                      const std::map<std::string, StopKind> &stopKinds,
                      std::vector<Soiling> soilings = {});

/// Passages swarf of this event gets into, with the plugs as `plugIn` says: one flag a passage.
std::vector<bool> dirtiedBy(const PassageNetwork &network, const CleanEvent &event,
                            const std::map<std::string, StopKind> &stopKinds,
                            const std::function<bool(int)> &plugIn,
                            const std::function<bool(int, int)> &assembled = {});

} // namespace mildpath
