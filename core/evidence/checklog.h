// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/phrase.h"
#include "quantity/record.h"
#include "quantity/units.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// What the list of checks is read from beside the readings and the cleaning logbook: what the job
// is, who works on it, what was said of a check, and what was done to a part on the bench.

/// A job an engine comes in for. Common practice, no source.
struct JobKind
{
    char letter; ///< N F R S B D O: as in the catalogue of checks
    std::string_view name;
    std::string_view apart; ///< what is taken apart
};
std::span<const JobKind> jobKinds();
/// @return null for what is none
const JobKind *findJobKind(std::string_view letter);

/// What the engine is in for. The last that stands says it; a build without one asks for it.
struct Job : Record
{
    std::vector<std::string> kinds; ///< letters of jobKinds(); several are united
    /// What is touched: ids of stops, passages, plugs, parts, lines, sets of fasteners. What was
    /// opened or cut since is touched by itself.
    std::vector<std::string> scope;
    std::string number; ///< of the engine
    std::string jobNumber, customer, shop; ///< for the sheet; empty: not said
    bool alone = false; ///< whoever it is by works alone, and says so
    bool operator==(const Job &) const = default;
};

/// Somebody who works on the engine, and may sign.
struct Person : Record
{
    std::string name, role;
    double hours_d = 4; ///< a day on it; 0: none at present
    bool operator==(const Person &) const = default;
};

/// What is measured with in this shop.
struct Instrument : Record
{
    std::string name; ///< as it is called at the bench
    std::string kind; ///< see instrumentKinds()
    std::optional<double> u; ///< standard uncertainty, in the unit of its kind; absent: not known
    std::optional<double> zero; ///< what it shows at zero, in the same unit
    std::string checked; ///< day it was last held against a standard: ISO 8601; empty: not said
    std::string standard; ///< against which
    bool operator==(const Instrument &) const = default;
};

struct InstrumentKind
{
    std::string_view id, name;
    Dimension dimension;
    std::string_view unit; ///< of its uncertainty and its zero, as in a file
    Shows as;
    /// A figure of its unit, for people.
    Quantity figure(double value) const;
};
std::span<const InstrumentKind> instrumentKinds();
/// @return null for an unknown id
const InstrumentKind *findInstrumentKind(std::string_view id);

/// What somebody says of a check: yes, no, or that this engine has none of it; or the figure that
/// says it.
struct CheckEntry : Record
{
    std::string kind; ///< of the catalogue of checks
    /// Where: ids, "place#item"; empty: at every place the kind stands at, a family in one entry.
    std::vector<std::string> places;
    std::vector<std::string> except; ///< of those, the ones it is not said of
    std::string says = "yes"; ///< yes, no or none
    std::optional<double> value, u; ///< a figure in the unit of the kind, its standard uncertainty
    std::string means; ///< see checkMeans(); empty: by eye
    std::string seenBy; ///< the other who looked at it; empty: nobody
    std::optional<double> minutes; ///< of hands, for all its places
    bool operator==(const CheckEntry &) const = default;
};
std::span<const std::string_view> checkSayings();

/// How long hands were at checks, as somebody says.
struct TimeTaken : Record
{
    std::vector<std::string> checks; ///< ids: "clr@main_3"
    double minutes = 0; ///< of hands, for all of them
    bool operator==(const TimeTaken &) const = default;
};

/// A way to come by what is said of a check.
struct CheckMeans
{
    std::string_view id, name;
    bool seesHidden; ///< it sees behind what is closed
};
std::span<const CheckMeans> checkMeans();
/// @return null for an unknown id
const CheckMeans *findCheckMeans(std::string_view id);

/// Something done on the bench, or that happened there, which takes proofs away.
struct ActKind
{
    std::string_view id, name;
    char letter; ///< what it does: see spoiltBy of the catalogue of checks
    bool chips; ///< makes swarf that gets into open holes
};
std::span<const ActKind> actKinds();
/// @return null for an unknown id
const ActKind *findActKind(std::string_view id);

struct Act : Record
{
    std::string act; ///< see actKinds()
    std::vector<std::string> places; ///< ids of stops, passages, plugs, parts, lines, fasteners
    /// The part was off the engine, or its holes were stopped: no swarf got in.
    bool stopped = false;
    std::optional<double> ran_h, ran_km; ///< the engine ran
    std::optional<int> trackDays, passes; ///< days on a circuit; runs down a strip, hill or jetty
    std::string instrument; ///< that was found out of true
    bool operator==(const Act &) const = default;
};

/// Stages of the work, in its order.
std::span<const std::string_view> stageWords();

/// A check of one's own: a weak point of this engine, a step of one's own order.
struct OwnCheck : Record
{
    std::string text; ///< true when
    std::string place; ///< id of a stop, passage, plug, part …; empty: the engine
    std::string stage; ///< of the work, see stageWords(); empty: the latest of what it comes after
    std::string cls = "1"; ///< what a signature can do: 0, 1, 2 or !
    std::vector<std::string> after; ///< kinds of check, or ids of own checks, that come first
    std::optional<double> minutes; ///< of hands
    bool operator==(const OwnCheck &) const = default;
};

template <> const RecordType &recordType<Job>();
template <> const RecordType &recordType<Person>();
template <> const RecordType &recordType<Instrument>();
template <> const RecordType &recordType<CheckEntry>();
template <> const RecordType &recordType<TimeTaken>();
template <> const RecordType &recordType<Act>();
template <> const RecordType &recordType<OwnCheck>();

} // namespace mildpath
