// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bearing/crankfeed.h"
#include "circuit/circuit.h"
#include "document/afterrun.h"
#include "document/families.h"
#include "document/fastening.h"
#include "document/heat.h"
#include "document/parts.h"
#include "document/plumbing.h"
#include "document/start.h"
#include "document/sump.h"
#include "evidence/afterlog.h"
#include "evidence/checklog.h"
#include "evidence/debris.h"
#include "evidence/failure.h"
#include "evidence/flow.h"
#include "evidence/looks.h"
#include "evidence/orders.h"
#include "evidence/startlog.h"
#include "kinds/origin.h"
#include "kinds/stopkind.h"
#include "oil/viscosity.h"
#include "passage/cleaning.h"
#include "passage/passage.h"
#include "quantity/sharedlist.h"
#include "rules/rules.h"

#include <array>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// The document holds numbers in the units of the file (each name says which), so that what was
// typed is what is written; the assessment turns them into SI. Marks and verdicts are derived from
// it and never stored. Every struct keeps the keys it does not know in `extra`.

/// A place of a stop where pressure is looked at.
struct StopPoint
{
    std::string name; ///< "Lifter 8"
    std::string node; ///< of the circuit
    bool operator==(const StopPoint &) const = default;
};

/// One station on the oil's way.
struct Stop
{
    std::string id;
    std::string name;
    StopKind kind {};
    std::vector<StopPoint> points;
    std::vector<std::string> elements; ///< of the circuit; each element belongs to one stop
    std::map<std::string, double> values; ///< by stopKeys()
    std::string needSource; ///< where its required pressure is from; empty: the usual one
    ExtraKeys extra {};

    /// The value under the key, or the fallback.
    double value(const std::string &key, double fallback = 0) const;
    bool has(const std::string &key) const { return values.contains(key); }
    bool operator==(const Stop &) const = default;
};

/// What is known of a kind of stop.
struct AboutStopKind
{
    std::string_view plural; ///< family name: "Main bearings"
    int level; ///< indent on the rail: 0 on the way, 1 a branch, 2 behind a branch
};
const AboutStopKind &aboutStopKind(StopKind kind);

/// What the engine is.
struct Engine
{
    std::string name;
    std::string layout; ///< "inline-4"
    int cylinders = 0;
    double displacement_l = 0; ///< only where bore or stroke is not known (document/dimensions.h)
    double bore_mm = 0, stroke_mm = 0; ///< 0: not known, taken as equal
    double reciprocating_g = 0, rotating_g = 0; ///< of one cylinder; 0: by the bore
    std::string block, crank, rod; ///< material ids (bearing/thermal.h)
    std::string mainCap; ///< empty: as the block
    double mainCapFraction = 0.5;
    std::vector<Stop> stops; ///< in oil order
    ExtraKeys extra {};

    const Stop *find(std::string_view id) const;
    /// The first stop of a kind; null without one.
    const Stop *ofKind(StopKind kind) const;
    bool operator==(const Engine &) const = default;
};

template <> const RecordType &recordType<Engine>();

struct ChosenOil
{
    std::string grade;
    Oil oil {};
    std::optional<double> hths_mpa_s {}; ///< high-shear viscosity at 150 °C
    std::optional<double> phosphorus_mg_kg {}; ///< of the anti-wear additive
    ExtraKeys extra {};
    bool operator==(const ChosenOil &) const = default;
};
/// As it runs: thinning under shear, by its data sheet or as usual for its grade.
Oil runningOil(const ChosenOil &oil);

/// How the engine will be used and what the builder asks of it.
struct Use
{
    double coldestStart_c = -10;
    double hotOil_c = 100;
    double hotIdle_rpm = 800;
    double highSpeed_rpm = 3000;
    double most_rpm = 6000;
    double hotIdleFloor_kpa = 70;
    double coldestClearanceFloor_um = 15;
    double combustionPeak_kpa = 1500; ///< for bearing loads: 15 bar turns without load
    /// Of combustion at full load, for bearing loads; absent: by the kind of engine.
    std::optional<double> fullLoadPeak_kpa {};
    /// Where the relief valve lets its oil go: inlet, sump or unknown; empty: as the circuit has
    /// it.
    std::string reliefReturnsTo {};
    double ruleBase_kpa = 0; ///< least pressure wanted over speed: base and rise
    double ruleRise_kpa_per_krpm = usualRule_pa_per_rpm; ///< 10 psi per 1 000 rev/min
    double turn_g = 0, braking_g = 0, accelerating_g = 0; ///< held, over g; turns both ways
    double incline_deg = 0; ///< as installed, the rear lower
    double heel_deg = 0; ///< to either side
    double turn_s = 5; ///< longest it is held
    ExtraKeys extra {};
    bool operator==(const Use &) const = default;
};

template <> const RecordType &recordType<Use>();
/// What may be said of where the relief valve lets its oil go.
inline constexpr std::array<std::string_view, 3> reliefReturns { "inlet", "sump", "unknown" };

/// Limits of one kind of clearance, diametral, at 20 °C.
struct Limits
{
    double min_um = 0, max_um = 0;
    std::optional<double> target_um;
    std::string source; ///< "maker", "shop", "common practice"
    ExtraKeys extra {};
    bool operator==(const Limits &) const = default;
};

/// A reading of a size. Never overwritten: a correction is a new reading that replaces the old one,
/// and a withdrawal is a reading without value that does. Readings by different methods stand side
/// by side.
struct Reading
{
    std::string id;
    std::string stop;
    std::string family; ///< see families(); empty in older files: that of the stop's kind
    int item = 1; ///< within the stop
    std::string method = "zeroed_bore_gauge";
    int station = 1; ///< from the front; lobe or spot
    double angle_deg = 90; ///< from the parting line
    std::optional<double> value_um; ///< diametral, as read
    double u_um = 1.3; ///< standard uncertainty of the reading
    double housing_c = 20, journal_c = 20; ///< part temperatures when gauged (zeroed)
    std::optional<double> bore_mm, journal_mm; ///< two instruments
    double journalU_um = 0; ///< two instruments: of the micrometer
    bool overOilHole = false; ///< plastic strip: kept, not used
    std::string feel; ///< drop feel: see dropFeels()
    std::vector<double> repeats_um; ///< what value_um is the mean of; empty: one reading
    std::optional<bool> capTorqued; ///< whether the cap stood at its last stage
    std::string shells; ///< "green/brown" fitted when gauged; empty: not known
    std::string instrument, by, at;
    std::string replaces; ///< id of the reading it strikes
    ExtraKeys extra {};
    bool operator==(const Reading &) const = default;
};

/// Where a reading belongs; two readings of one place strike each other.
struct ReadingPlace
{
    std::string stop, family;
    int item = 1;
    std::string method;
    int station = 1;
    double angle_deg = 90;
    bool operator==(const ReadingPlace &) const = default;
};
ReadingPlace placeOf(const Reading &reading);

/// What somebody saw: a stop is clean, oil flows there, its size was checked otherwise.
struct Proof
{
    std::string id;
    std::string stop;
    std::string aspect; ///< size | clean | flow
    std::string verdict; ///< proven | look_again | hold
    std::string how, by, at;
    std::string check; ///< one ticked point of the aspect (assess/rules.h); empty: all of it
    ExtraKeys extra {};
    bool operator==(const Proof &) const = default;
};

/// A build: one engine, everything measured, seen and decided about its lubrication.
/// A size an older file had written in two places, differently: the one counts, the other is kept
/// until somebody says which is right, by setting it.
struct TwoValues
{
    std::string element; ///< of the circuit; a plug of the ledger; "engine"
    std::string key;
    double other = 0; ///< in the key's unit
    bool operator==(const TwoValues &) const = default;
};
template <> const RecordType &recordType<TwoValues>();

/// Where a number of the engine comes from, and what other sources say of it.
struct ValueOrigin
{
    Origin origin = Origin::Shop;
    std::map<std::string, double> others; ///< by the word of their origin, in the key's unit
    std::string by, at;
    ExtraKeys extra {};
    bool operator==(const ValueOrigin &) const = default;
};
template <> const RecordType &recordType<ValueOrigin>();

struct Build
{
    // Made and copied in one place: every file that holds a build would compile that anew.
    Build();
    Build(const Build &);
    Build(Build &&) noexcept;
    Build &operator=(const Build &);
    Build &operator=(Build &&) noexcept;
    ~Build();
    bool operator==(const Build &) const;

    std::string name;
    std::string notes;
    Engine engine;
    Circuit circuit;
    std::vector<TwoValues> twoValues; ///< to be settled
    std::map<std::string, ValueOrigin>
        origins; ///< by where the number stands (document/enginevalue.h); absent: typical
    std::string gaugeTap; ///< name of a tap
    ChosenOil oil;
    Use use;
    std::vector<ChosenOil> ownOils; ///< by name, beside the shelf
    std::map<std::string, Limits> limits; ///< by family; "main@main_3": of that bearing alone
    SharedList<Reading> readings; ///< append-only
    SharedList<Proof> proofs; ///< append-only
    std::vector<TorqueCard> torqueCards;
    SharedList<TorqueTick> ticks; ///< append-only
    std::map<std::string, ShellStock> shells; ///< by family
    SharedList<Weighing> weighings; ///< append-only
    std::map<std::string, WeighedPart> weighedParts; ///< by part: what is weighed, how alike
    SharedList<Choice> choices; ///< append-only
    Heat heat;
    std::map<std::string, OwnExpansion> expansions; ///< by material id, or mainHousing
    SharedList<HeatPoint> heatPoints; ///< append-only
    std::vector<Passage> passages;
    std::vector<Plug> plugs;
    Plumbing plumbing; ///< lines outside the engine
    Sump sump;
    Start start;
    ValueSection finish; ///< by finishKeys()
    ValueSection after; ///< by afterKeys()
    SharedList<CleanEvent> events; ///< append-only, like all that follows (document/logbook.h)
    SharedList<DebrisFind> finds;
    SharedList<Sign> signs;
    SharedList<BearingFailure> failures;
    SharedList<Repair> repairs;
    SharedList<ShopJob> shopJobs;
    SharedList<GaugeReading> gaugeReadings;
    SharedList<Symptom> symptoms;
    SharedList<FlowSeen> flows;
    SharedList<Scenario> scenarios;
    SharedList<SignOff> signOffs;
    SharedList<CardStep> cardSteps;
    SharedList<RunLog> runs;
    SharedList<Calibration> calibrations;
    SharedList<FilterCut> filterCuts;
    SharedList<OilSample> oilSamples;
    SharedList<Opening> openings;
    SharedList<SealCheck> sealChecks;
    SharedList<BoreTrace> boreTraces;
    SharedList<Job> jobs;
    SharedList<Person> people;
    SharedList<CheckEntry> checkEntries;
    SharedList<Act> acts;
    SharedList<Order> orders;
    SharedList<TimeTaken> times;
    SharedList<Instrument> instruments;
    SharedList<OwnCheck> ownChecks;
    SharedList<NextLook> nextLooks;
    std::string fromTemplate; ///< name of the one it was begun from; empty: none
    ExtraKeys extra {}; ///< what newer versions write
};

inline constexpr std::string_view buildFormat = "mild-path-build";
inline constexpr int buildVersion = 13;

/// Readings that no later one strikes, in order of entry; withdrawals are left out.
std::vector<const Reading *> standingReadings(const Build &build);
/// The standing reading at a place; null if there is none.
const Reading *readingAt(const Build &build, const ReadingPlace &place);
/// "green/brown" as fitted now; empty where that is not known.
std::string fittedShells(const Build &build, const std::string &family, const std::string &stop);
/// Questions of the run card that practitioners answer differently, and what they are answered.
namespace question {
inline constexpr std::string_view primeBy = "prime_by"; ///< drill, starter
inline constexpr std::string_view prefill = "prefill_filter"; ///< half, dry
inline constexpr std::string_view packing = "pump_packing"; ///< packed, poured, none
inline constexpr std::string_view drillTurns = "drill_turns"; ///< clockwise, anticlockwise
}

/// The last answer to a question; empty if none was given.
std::string choiceOf(const Build &build, std::string_view question);
/// What the engine is in for: the last that stands; null where nobody said.
const Job *currentJob(const Build &build);
/// Proof that stands for a stop's aspect: the last one; null if there is none.
const Proof *standingProof(const Build &build, std::string_view stop, std::string_view aspect);
/// The last tick of one point of a stop; null if there is none.
const Proof *standingCheck(const Build &build, std::string_view stop, std::string_view check);
/// Id for a new record: prefix and a number not yet used.
/// Whoever sets a size says which of two is right.
void settleTwoValues(Build &build, std::string_view element, std::string_view key);
/// "Main 3, diameter: 60.000 mm counts, 45.000 mm was written as well".
Phrase twoValuesText(const Build &build, const TwoValues &two);
/// The one of the two that is reckoned with, in the key's unit.
double countedValue(const Build &build, const TwoValues &two);
/// Journal diameter of a bearing (mm), its film's; 0 where the stop has no bearing.
double journalOf_mm(const Build &build, const Stop &stop);
std::string nextReadingId(const Build &build);
std::string nextProofId(const Build &build);
std::string nextTickId(const Build &build);
std::string nextWeighingId(const Build &build);

/// Reads a document of the present version. Errors are collected with JSON pointers; sense is
/// checked by validateBuild().
template <> const RecordType &recordType<Build>();
template <> const RecordType &recordType<Reading>();
template <> const RecordType &recordType<Proof>();
/// An oil of the shelf or of the build's own list; null for an unknown name.
std::optional<ChosenOil> findOil(const Build &build, std::string_view name);
template <> const RecordType &recordType<ChosenOil>();

/// Whether the document makes sense as an engine: known materials and kinds, references that lead
/// somewhere, values in range, a circuit that can be solved. Every fault with its place.
std::vector<Error> validateBuild(const Build &build);

} // namespace mildpath
