// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

struct Build;

// The lines outside the engine: which port is joined to which.

/// One line as it is fitted. Which way the oil runs in it follows from its ports.
struct ExternalLine
{
    std::string id;
    std::string from, to; ///< "part.port", see portsOf()
    std::string rating; ///< pressure or suction (stands vacuum); empty: not known
    double bore_mm = 0; ///< 0: not measured
    std::string by, at; ///< who saw it so, and when; empty: as planned, nobody looked yet
    std::string note;
    ExtraKeys extra {};
    bool operator==(const ExternalLine &) const = default;
};

/// A port closed by a cap or plug.
struct PortCap
{
    std::string port;
    std::string by, at; ///< who saw it so, and when; empty: as planned, nobody looked yet
    bool operator==(const PortCap &) const = default;
};

/// All external lines of an engine.
struct Plumbing
{
    bool remoteFilter = false; ///< the filter sits away from the block
    std::string filterBuild = "spin_on"; ///< see filterBuilds()
    std::vector<ExternalLine> lines;
    bool oldPumpPort = false; ///< the block keeps the port of the pump it had
    int spares = 0; ///< ports of the filter head beside its two, on its clean side
    std::vector<PortCap> capped;
    /// Null: the port stands open or has its line.
    const PortCap *capOf(std::string_view port) const;
    ExtraKeys extra {};
    bool operator==(const Plumbing &) const = default;
};

/// How a filter is made tells which way it wants its oil. Common practice, no source.
struct FilterBuild
{
    std::string_view id, name;
    std::string_view rim, centre; ///< what its two ports look like
    bool rimIn; ///< in by `rim`, out by `centre`
    std::string_view why;
};
std::span<const FilterBuild> filterBuilds();
/// @return the first of the table for an unknown id.
const FilterBuild &filterBuild(std::string_view id);

enum class Way { In, Out, Either };
enum class Service { Pressure, Suction, Scavenge, Drain, Gauge };
std::string_view serviceWord(Service service);

/// What a port may not be without.
enum class PortNeed {
    Nothing,
    Line,
    LineOrCap, ///< a spare: oil stands behind it
    Cap, ///< nothing belongs there any more
};

/// A place a line can be joined to.
struct Port
{
    std::string id; ///< "part.port"
    std::string part; ///< "tank"
    std::string partName, name;
    Way way; ///< which way the oil goes there: Out leaves the part
    Service service;
    PortNeed need; ///< without it the start is held
    std::string stop; ///< it belongs to; empty: none
};
/// Whether the filter hangs on lines: it says so, the engine has a tank, or a line is a stop of the
/// oil's way.
bool filterIsAway(const Build &build);
/// Ports of the engine's parts, in oil order; only those that lie outside the block.
std::vector<Port> portsOf(const Build &build);
const Port *findPort(const std::vector<Port> &ports, std::string_view id);
/// Whether the engine has lines beside that of its gauge.
bool hasLines(const Build &build);
/// The lines such an engine wants, joined right: as planned, seen by nobody.
std::vector<ExternalLine> usualLines(const Build &build);
/// The caps it wants: as planned, seen by nobody.
std::vector<PortCap> usualCaps(const Build &build);

/// A line: found by id, or added (empty id).
struct PutLine
{
    ExternalLine line;
    bool operator==(const PutLine &) const = default;
};
struct DropLine
{
    std::string line;
    bool operator==(const DropLine &) const = default;
};
struct CapPort
{
    std::string port;
    bool capped;
    std::string by = {}, at = {}; ///< who saw the cap, and when; empty: nobody yet
    bool operator==(const CapPort &) const = default;
};
/// Where the filter sits, how it is made, and what ports its head has to spare.
struct SetFilter
{
    bool remote;
    std::string build;
    int spares = 0;
    bool operator==(const SetFilter &) const = default;
};
/// The usual lines, where none are written down.
struct DrawLines
{
    bool operator==(const DrawLines &) const = default;
};
/// Joins two ports, or changes the line of that id. Errors: the place is what of it cannot be.
Result<void> putLine(Build &build, ExternalLine line);
/// "pump outlet", for people.
std::string portName(const Build &build, const std::string &port);

/// Takes off what joins or caps ports that no longer exist: a stage or a part that goes takes its
/// lines along.
void dropLooseLines(Build &build);

template <> const RecordType &recordType<PortCap>();
template <> const RecordType &recordType<Plumbing>();
/// Faults of sense: unknown ports, ids used twice, unknown words.
void checkPlumbing(const Build &build, std::vector<Error> &errors);

} // namespace mildpath
