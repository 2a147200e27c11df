// SPDX-License-Identifier: GPL-3.0-or-later
#include "evidence/checklog.h"

#include <array>

namespace mildpath {
namespace {

constexpr std::array<JobKind, 7> jobs { {
    { 'N', "new build, machined block", "all" },
    { 'F', "rebuild after a bearing failure", "all" },
    { 'R', "freshen-up: rings and bearings", "bottom end and bores" },
    { 'S', "single repair in a running engine", "what is named, and nothing else" },
    { 'B', "bare short block bought ready", "nothing below the pan rail" },
    { 'D', "dry-sump conversion", "pan, pump and lines" },
    { 'O', "oil or filter change", "nothing" },
} };

constexpr std::array<std::string_view, 11> stageNames { "strip",    "parts",   "clean",   "measure",
                                                        "assemble", "suction", "filling", "desk",
                                                        "prime",    "start",   "after" };

constexpr std::array<std::string_view, 3> sayings { "yes", "no", "none" };

constexpr std::array<CheckMeans, 7> meansTable { {
    { "eye", "by eye", false },
    { "light", "light through it", false },
    { "wire", "wire through it", true },
    { "camera", "camera", true },
    { "photo", "a photo older than the closing", true },
    { "gauge", "gauge", false },
    { "paper", "paper of the supplier or the shop", true },
} };

// What a build measures, by the unit it is read in. Common practice, no source.
constexpr std::array<InstrumentKind, 9> instruments { {
    { "micrometer", "micrometer", Dimension::Length, "µm", Shows::Clearance },
    { "bore_gauge", "bore gauge", Dimension::Length, "µm", Shows::Clearance },
    { "dial_indicator", "dial indicator", Dimension::Length, "µm", Shows::Clearance },
    { "feeler", "feeler blades", Dimension::Length, "µm", Shows::Clearance },
    { "plastic_strip", "plastic strip", Dimension::Length, "µm", Shows::Clearance },
    { "calliper", "calliper, depth gauge", Dimension::Length, "µm", Shows::Clearance },
    { "pressure_gauge", "pressure gauge", Dimension::Pressure, "kPa", Shows::Pressure },
    { "thermometer", "thermometer", Dimension::TemperatureDifference, "K",
      Shows::TemperatureDifference },
    { "torque_wrench", "torque wrench", Dimension::Torque, "N·m", Shows::Torque },
} };

// Which letters take which proof away stands with each kind of check. Common practice, no source.
constexpr std::array<ActKind, 16> acts { {
    { "filed", "Filed", 'M', true },
    { "dressed", "Dressed", 'M', true },
    { "cut", "Machined", 'M', true },
    { "blasted", "Blasted", 'M', true },
    { "painted", "Painted", 'M', true },
    { "chased", "Thread chased", 'M', true },
    { "drilled", "Plug drilled", 'M', true },
    { "metal_found", "Bearing metal found", 'F', false },
    { "taken_off", "Taken off", 'X', false },
    { "opened", "Opened", 'X', false },
    { "drained", "Drained", 'X', false },
    { "replaced", "Replaced", 'R', false },
    { "worked_beside", "Worked beside it while it was open", 'o', false },
    { "dropped", "Dropped or knocked", 'v', false },
    { "out_of_true", "Instrument found out of true", 'i', false },
    { "ran", "The engine ran", 't', false },
} };

template <class Row> const auto *found(const Row &rows, std::string_view id)
{
    for (const auto &r : rows)
        if (r.id == id)
            return &r;
    return static_cast<decltype(rows.data())>(nullptr);
}

} // namespace

std::span<const JobKind> jobKinds()
{
    return jobs;
}

const JobKind *findJobKind(std::string_view letter)
{
    for (const JobKind &j : jobs)
        if (letter.size() == 1 && letter.front() == j.letter)
            return &j;
    return nullptr;
}

std::span<const std::string_view> stageWords()
{
    return stageNames;
}

std::span<const std::string_view> checkSayings()
{
    return sayings;
}

std::span<const CheckMeans> checkMeans()
{
    return meansTable;
}

const CheckMeans *findCheckMeans(std::string_view id)
{
    return found(meansTable, id);
}

std::span<const InstrumentKind> instrumentKinds()
{
    return instruments;
}

Quantity InstrumentKind::figure(double value) const
{
    return { fromUnit(value, unit, dimension), as };
}

const InstrumentKind *findInstrumentKind(std::string_view id)
{
    return found(instruments, id);
}

std::span<const ActKind> actKinds()
{
    return acts;
}

const ActKind *findActKind(std::string_view id)
{
    return found(acts, id);
}

template <> const RecordType &recordType<Job>()
{
    static const RecordType type
        = describeNamelessRecord<Job>("job")
              .field<&Job::kinds>("kinds", "letters of the jobs it is: N F R S B D O")
              .of("a letter")
              .field<&Job::scope>("scope", "what is touched: ids of stops, passages, parts …")
              .of("an id")
              .ifSet<&Job::number>("number", "of the engine")
              .ifSet<&Job::jobNumber>("job_number", "of the shop's own book")
              .ifSet<&Job::customer>("customer", "whose engine it is")
              .ifSet<&Job::shop>("shop", "where it is built")
              .field<&Job::alone>("alone", "whoever it is by works alone");
    return type;
}

template <> const RecordType &recordType<Person>()
{
    static const RecordType type
        = describeNamelessRecord<Person>("person")
              .must<&Person::name>("name", "as they sign")
              .field<&Person::role>("role", "what they do here")
              .ifSet<&Person::hours_d>("hours_a_day_h", "on it, 0 for none at present")
              .in("h", 0, 24);
    return type;
}

template <> const RecordType &recordType<Instrument>()
{
    static const RecordType type
        = describeNamelessRecord<Instrument>("instrument")
              .must<&Instrument::name>("name", "as it is called at the bench")
              .field<&Instrument::kind>("kind", "of instrument")
              .oneOf([] { return idsOf(instrumentKinds()); })
              .ifSet<&Instrument::u>("u", "standard uncertainty, in the unit of its kind")
              .in("", 0, 1e5)
              .ifSet<&Instrument::zero>("zero", "what it shows at zero, in the same unit")
              .in("", -1e5, 1e5)
              .ifSet<&Instrument::checked>("checked", "held against a standard on: ISO 8601")
              .ifSet<&Instrument::standard>("standard", "against which");
    return type;
}

template <> const RecordType &recordType<CheckEntry>()
{
    static const RecordType type
        = describeNamelessRecord<CheckEntry>("check_entry")
              .must<&CheckEntry::kind>("kind", "of check")
              .field<&CheckEntry::places>("places", "where; none: everywhere it is asked")
              .of("an id")
              .ifSet<&CheckEntry::except>("except", "of those, the ones it is not said of")
              .of("an id")
              .field<&CheckEntry::says>("says", "yes, no, or none: this engine has none of it")
              .oneOf([] { return wordsOf(checkSayings()); })
              .ifSet<&CheckEntry::value>("value", "the figure, in the unit of the kind")
              .in("", -1e6, 1e6)
              .ifSet<&CheckEntry::u>("u", "its standard uncertainty")
              .in("", 0, 1e6)
              .ifSet<&CheckEntry::means>("means", "how it was seen; else by eye")
              .oneOf([] { return idsOf(checkMeans()); })
              .ifSet<&CheckEntry::seenBy>("seen_by", "the other who looked at it")
              .ifSet<&CheckEntry::minutes>("minutes", "hands were at it, all its places together")
              .in("min", 0, 1e5);
    return type;
}

template <> const RecordType &recordType<TimeTaken>()
{
    static const RecordType type
        = describeNamelessRecord<TimeTaken>("time_taken")
              .field<&TimeTaken::checks>("checks", "hands were at: ids")
              .of("an id")
              .must<&TimeTaken::minutes>("minutes", "of hands, for all of them")
              .in("min", 0, 1e5);
    return type;
}

template <> const RecordType &recordType<Act>()
{
    static const RecordType type
        = describeNamelessRecord<Act>("act")
              .must<&Act::act>("act", "what was done")
              .oneOf([] { return idsOf(actKinds()); })
              .field<&Act::places>("places", "what it was done to")
              .of("an id")
              .ifSet<&Act::stopped>("stopped", "part off, or holes stopped: no swarf got in")
              .ifSet<&Act::ran_h>("ran_h", "the engine ran")
              .in("h", 0, 1e5)
              .ifSet<&Act::ran_km>("ran_km", "the engine ran")
              .in("km", 0, 1e7)
              .ifSet<&Act::trackDays>("track_days", "days on a circuit it ran")
              .in("", 0, 1e4)
              .ifSet<&Act::passes>("passes", "runs down a strip or hill")
              .in("", 0, 1e5)
              .ifSet<&Act::instrument>("instrument", "that was found out of true");
    return type;
}

template <> const RecordType &recordType<OwnCheck>()
{
    static const RecordType type
        = describeNamelessRecord<OwnCheck>("own_check")
              .must<&OwnCheck::text>("text", "true when")
              .ifSet<&OwnCheck::place>("place", "an id; none: the engine")
              .ifSet<&OwnCheck::stage>("stage", "of the work; none: of what it comes after")
              .oneOf([] { return wordsOf(stageWords()); })
              .field<&OwnCheck::cls>("class", "what a signature can do")
              .oneOf([] {
                  return Words { "0", "1", "2", "!" };
              })
              .ifSet<&OwnCheck::after>("after", "kinds of check and own checks that come first")
              .of("an id")
              .ifSet<&OwnCheck::minutes>("minutes", "of hands")
              .in("min", 0, 1e5);
    return type;
}

} // namespace mildpath
