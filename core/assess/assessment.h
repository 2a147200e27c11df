// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/airreport.h"
#include "assess/growth.h"
#include "assess/lines.h"
#include "assess/place.h"
#include "assess/rules.h"
#include "assess/spread.h"
#include "bearing/clearance.h"
#include "bearing/load.h"
#include "bearing/shells.h"
#include "circuit/change.h"
#include "circuit/network.h"
#include "document/document.h"
#include "pump/relief.h"
#include "quantity/rounding.h"

#include <functional>
#include <map>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace mildpath {

/// A value with the range nine builds in ten would fall in: measuring and assumed values to first
/// order, and the model's own 6 %.
struct LikelyPressure
{
    double value_pa = 0;
    double low_pa = 0, high_pa = 0;
};

/// Verdict on a pressure against the least that is asked of it: below it holds the start; a likely
/// range that reaches below it wants another look.
Mark markAgainst(const LikelyPressure &pressure, double least_pa);
/// The worse of two: holds, then look again, then not done.
Mark worse(Mark a, Mark b);

/// One standing reading as the judgement sees it.
struct JudgedReading
{
    std::string id;
    std::string method;
    int station;
    double angle_deg;
    double read_um; ///< as read
    double at20_um; ///< normalised to 20 °C
    double u_um; ///< standard, repeats included
    ReadingUse use;
    bool pastLimit; ///< by itself, whatever the mean says
    bool unlikely; ///< kept, but worth a second look
};

/// What one method says of a size.
struct MethodResult
{
    std::string method;
    int readings = 0; ///< that count
    Measured value_um { 0, 0 };
    double low_um = 0, high_um = 0; ///< about 95 %; the band itself for a feel
    double taper_um = 0;
};

/// A size that is measured: readings → value → verdict.
struct GaugedSize
{
    std::string stop;
    std::string family;
    int item = 1;
    std::string name; ///< "Main 4", "Cam 2"
    std::string element; ///< of the circuit; empty without one
    std::vector<JudgedReading> readings;
    std::vector<MethodResult> methods; ///< the deciding one first
    std::optional<BoreForm> form; ///< of the deciding method's counted readings at 20 °C
    bool measured = false; ///< false: middle of the limits, assumed
    bool known = true; ///< false: neither measured nor limited, there is no value
    Measured cold_um { 0, 0 }; ///< at 20 °C; diametral where it is a clearance
    double circuit_um = 0; ///< what the circuit takes: lobes that differ count by their cube
    double running_um = 0; ///< at hot oil
    double coldestStart_um = 0; ///< block and crank at the coldest start
    /// Where it reaches a floor on cooling, block and crank alike (°C); absent where cold does not
    /// close it, or only below −80 °C.
    std::optional<double> closesAt_c(double floor_um) const;
    Growth growth;
    SettledParts settled;
    /// µm, with the parts at these temperatures.
    double at(const PartTemperatures &parts) const { return circuit_um + growth.change_um(parts); }
    double runningAt(double oil_c) const; ///< µm, settled at this oil temperature
    double journal_mm = 0; ///< 0: no growth is computed
    double rule_um = 0; ///< a thousandth of the journal (common practice); 0 without one
    std::optional<Limits> limits;
    Mark mark = Mark::NotDone;
    Phrase verdict; ///< one line
    Phrase next; ///< what to do
    Phrase disagreement; ///< between methods; empty: none
    std::string method() const { return methods.empty() ? "" : methods.front().method; }
};

/// A family in one line.
struct FamilySummary
{
    std::string family;
    int items = 0, measured = 0;
    int readings = 0; ///< that count for the deciding methods
    double mean_um = 0, least_um = 0, most_um = 0; ///< of the measured items
    double taper_um = 0, outOfRound_um = 0; ///< the worst
    double expanded_um = 0; ///< U, k = 2, the largest
    Mark mark = Mark::NotDone; ///< the worst
    Phrase verdict;
    std::string weakestMethod; ///< of the deciding ones
};

/// How a main's feed hole meets the drilling in the block.
struct FeedHole
{
    std::string stop;
    double openArea_mm2 = 0;
    double openShare = 1; ///< of the smaller hole
    double ofDrilling = 1; ///< of the feed drilling of the circuit
    Mark mark = Mark::NotDone;
    Phrase verdict, next;
};

/// A part of the pump's or pickup's fit that is judged by itself.
struct FitVerdict
{
    std::string id; ///< "relief_spring", "oring", "pickup_gap", "scoring"
    std::string stop;
    Mark mark = Mark::NotDone;
    Phrase title, detail, next;
};

/// A share of what the pump sweeps.
struct OilShare
{
    std::string id, name;
    double flow_m3_s = 0;
    double ofSwept = 0; ///< 0…1
};

/// A point of a stop at an operating point.
struct PointPressure
{
    std::string stop;
    std::string name; ///< "Lifter 8"
    std::string node;
    double pressure_pa = 0; ///< at its feed, without the crank's oil column
    double column_pa = 0; ///< that column
    double need_pa = 0; ///< 0: none
    double ratio() const { return need_pa > 0 ? pressure_pa / need_pa : 0; }
};

/// A bearing's film at an operating point: an indicator under a mean load.
struct BearingFilm
{
    std::string stop, family, name, element;
    double load_n = 0;
    double eccentricityRatio = 0;
    double smallest_m = 0;
    double film_c = 0; ///< effective
    double outlet_c = 0;
    double flow_m3_s = 0;
    double loss_w = 0;
    double peak_pa = 0;
    bool carried = true; ///< false: more load than a film can bear
};

/// Everything about one speed and oil temperature.
struct OperatingResult
{
    double rpm = 0, oil_c = 0;
    LikelyPressure gauge;
    std::vector<PointPressure> points; ///< in oil order
    int weakest = -1; ///< index of the lowest ratio; −1 when nothing has a need
    LikelyPressure weakestPressure;
    std::vector<OilShare> shares; ///< outlets, relief, slip; sums to the swept flow
    double pumpFlow_m3_s = 0, sweptFlow_m3_s = 0, reliefFlow_m3_s = 0;
    /// Share of the big-ends in what mains and big-ends take together.
    double bigEndsOfCrank() const;
    bool reliefOpen() const { return reliefFlow_m3_s > reliefOpenShare * pumpFlow_m3_s; }
    std::map<std::string, double> nodePressure_pa;
    std::map<std::string, double> elementFlow_m3_s;
    std::vector<BearingFilm> films; ///< in oil order; with Detail::Everything
    /// Largest feed a crank drilling needs at its main, and how far its own main is from it (the
    /// worst ratio); 0 without crank drillings.
    double crankNeed_pa = 0, crankRatio = 0;
    std::vector<Warning> warnings;
};

/// One of "same build, other oils".
struct OtherOil
{
    std::string grade;
    bool gearOil = false;
    bool fitted = false; ///< the oil of the document
    double gauge_pa = 0;
    double weakest_pa = 0;
    std::string weakestName;
    Mark mark = Mark::NotDone; ///< against the floor and the needs
};

/// One of "what moves hot idle".
struct Lever
{
    Phrase name;
    double change_pa = 0; ///< of the gauge at hot idle
    Phrase remark; ///< why nothing happens, where nothing does
};

/// Something worth saying.
struct Finding
{
    std::string id; ///< stable: kind@stop
    Mark mark;
    std::string stop; ///< empty: the whole engine
    Phrase text; ///< what it is
    Phrase action; ///< what to do
    Place place = Place::Route; ///< where it is mended
};

struct StopMarks
{
    std::string stop;
    Mark size, clean, flow;
    Phrase sizeReason, cleanReason, flowReason;
    bool operator==(const StopMarks &) const = default;
};

/// Pressure against speed at one oil temperature.
struct ForecastLine
{
    double oil_c = 0;
    std::vector<double> rpm;
    std::vector<LikelyPressure> gauge;
    std::vector<double> weakest_pa;
    std::vector<double> weakestRatio;
    std::vector<double> bigEndsOfCrank; ///< share of the oil that mains and big-ends take
    std::optional<double> reliefOpens_rpm; ///< absent: not up to the highest speed
    std::vector<double> crankNeed_pa; ///< feed the crank needs at its mains
    std::optional<double> crankStarves_rpm; ///< absent: fed up to the highest speed
};

/// Everything that can be said about a document. Immutable.
struct Assessment
{
    Assessment(); // made and copied in one place, like a Build
    Assessment(const Assessment &);
    Assessment(Assessment &&) noexcept;
    Assessment &operator=(const Assessment &);
    Assessment &operator=(Assessment &&) noexcept;
    ~Assessment();

    std::vector<GaugedSize> sizes; ///< family by family, in oil order
    std::vector<FamilySummary> families; ///< those the engine has
    std::vector<FeedHole> feedHoles; ///< mains whose holes were measured
    std::vector<FitVerdict> fits; ///< pump, relief and pickup
    CleaningBook cleaning; ///< passages and plugs, as in the document
    std::vector<Spread> spreads; ///< of the bearings that failed
    LinesReport lines; ///< outside the engine
    std::vector<StopMarks> marks; ///< all stops in oil order
    std::vector<ForecastLine> forecast; ///< 40 °C, hot oil, hot oil + 30 K
    OperatingResult hotIdle;
    OperatingResult highSpeed;
    OperatingResult mostSpeed; ///< hot oil at the highest speed
    double coldInlet_pa = 0; ///< at the pump's inlet, cool oil of the forecast at the highest speed
    double coldInletOil_c = 0;
    AirReport air;
    std::vector<OtherOil> otherOils;
    std::vector<Lever> levers;
    int coldest = -1; ///< index into sizes: the shelled bearing least open at the coldest start
    std::vector<Finding> findings; ///< holds first
    std::optional<Error>
        unsolved; ///< the circuit has no solution: nothing of the forecast is filled

    int holds() const;
    /// Marks (size, clean, flow of every stop) nobody has done anything for yet.
    int notDone() const;
    /// The first of a stop: its clearance, where it has one.
    const GaugedSize *size(std::string_view stop) const;
    const GaugedSize *size(std::string_view stop, std::string_view family, int item) const;
    const FamilySummary *family(std::string_view id) const;
    const StopMarks *marksOf(std::string_view stop) const;
};

/// The document as a circuit with its parts at given temperatures, ready for any speed.
class OperatingModel
{
public:
    /// @param change  done to the circuit before anything is computed; empty: nothing
    /// Errors: as Network::compile; those of the change.
    static Result<OperatingModel> make(const Build &build, const std::vector<GaugedSize> &sizes,
                                       const PartTemperatures &parts,
                                       const CircuitChange &change = {});
    /// With everything settled at this oil temperature.
    static Result<OperatingModel> make(const Build &build, const std::vector<GaugedSize> &sizes,
                                       double oil_c, const CircuitChange &change = {});

    /// How much of an OperatingResult is wanted; each step costs about as much as a solve.
    enum class Detail {
        Values, ///< gauge and points, no ranges
        Ranges, ///< and the likely ranges
        Everything, ///< and what every node and element does
    };
    /// Errors: as Network::solve.
    Result<OperatingResult> at(double rpm, Detail detail = Detail::Everything);
    /// Values with another oil.
    Result<OperatingResult> at(double rpm, const Oil &oil);

    /// How many independent normal draws make one possible build (clearances and expansions).
    size_t inputs() const { return m_groups + m_ownInputs; }
    /// Gauge pressures (Pa) of one possible build, by speed.
    /// @param z    standard normal, inputs() of them
    /// @param rpm   ascending
    /// @param from  where to start at each of them; empty: from where this model ended
    /// Errors: as Network::solve.
    Result<std::vector<double>> drawn(std::span<const double> z, std::span<const double> rpm,
                                      std::span<const SolveState> from = {}) const;
    const SolveState &state() const { return m_state; }
    /// Pressures (Pa) at some nodes, nothing judged: as quick as a solve.
    /// @param nodes  names; an unknown one reads 0
    /// Errors: as Network::solve.
    Result<std::vector<double>> pressures(double rpm, const Oil &oil,
                                          std::span<const std::string> nodes);
    const Oil &oil() const { return m_oil; }

    /// Starts from where another model of the same elements ended.
    void startFrom(const OperatingModel &other) { m_state = other.m_state; }
    void startFrom(const SolveState &state) { m_state = state; }

private:
    struct Uncertain
    {
        int element;
        std::shared_ptr<const Law> raised; ///< with the value one step up
        const Element *base; ///< of m_circuit
        std::string key;
        double step_um;
        size_t own = 0; ///< which input is its own alone
        /// Shares of the step that are uncertain, by what moves together; −1: by itself.
        std::vector<std::pair<int, double>> shares;
    };
    struct Filmed
    {
        BearingFilm film;
        int element;
    };
    struct Watched
    {
        PointPressure point;
        double needAtSpeed_pa; ///< 0: as at idle
        int node;
        int crankDrilling; ///< element that feeds it through the crank, −1
        std::vector<int> crankFed; ///< drillings it feeds
    };
    OperatingResult judge(const Solution &solution, const OperatingPoint &point,
                          Detail detail) const;
    /// Change of each uncertain element's flow by one step of its value.
    std::vector<double> flowSteps(const Solution &solution, const OperatingPoint &point) const;
    LikelyPressure likely(const Solution &solution, const std::vector<double> &steps, int node,
                          double value_pa) const;
    void share(const Solution &solution, OperatingResult &out) const;
    void findUncertain(const std::vector<GaugedSize> &sizes, const PartTemperatures &parts);
    void findWatched(const Build &build);
    void findFilmed(const Build &build);
    void fillFilms(const Solution &solution, const OperatingPoint &point,
                   OperatingResult &out) const;

    std::shared_ptr<const Circuit> m_circuit;
    std::shared_ptr<const Network> m_network;
    SolveState m_state;
    Oil m_oil {};
    double m_oil_c = 0;
    double m_floor_pa = 0, m_idleEnds_rpm = 0;
    int m_gaugeNode = -1;
    std::vector<Uncertain> m_uncertain;
    size_t m_groups = 0; ///< of inputs that move together
    size_t m_ownInputs = 0; ///< that move by themselves
    std::vector<Watched> m_watched;
    std::vector<Filmed> m_filmed;
    std::vector<int> m_crankDrillings;
    std::vector<int> m_groupOf; ///< element → index into oilGroups(), −1
};

/// Readings → sizes of everything that is measured, in the order of sizeItems().
std::vector<GaugedSize> judgeSizes(const Build &build);
std::vector<FamilySummary> summarise(const std::vector<GaugedSize> &sizes);
std::vector<FeedHole> judgeFeedHoles(const Build &build);
std::vector<FitVerdict> judgeFits(const Build &build, const std::vector<GaugedSize> &sizes);

/// The document's circuit with its parts at these temperatures: running clearances, what the feed
/// holes leave open, grooves, bevels, the relief's setting from its spring.
Circuit circuitOf(const Build &build, const std::vector<GaugedSize> &sizes,
                  const PartTemperatures &parts);

/// Oil enters the filter from its clean side: check valve and bypass stand the wrong way round.
void reverseFilter(const Build &build, Circuit &circuit);

/// A bearing's mean load: `still` at standstill and a rise with the square of the speed. An
/// indicator (bearing/load.h); a stop's own `load_n` takes its place.
struct BearingLoad
{
    std::string stop;
    double still_n, perKrpm2_n;
};
/// Of every main and big-end of which one is known, rods first.
std::vector<BearingLoad> bearingLoads(const Build &build);
/// Bore, stroke and masses as far as the document knows them; absent without a size.
std::optional<CrankTrain> crankTrainOf(const Build &build);

/// The relief's setting from spring and plunger; absent until they are measured.
std::optional<Result<ReliefSetting>> springSetting(const Stop &relief);

/// Sizes with every one of a family moved alike.
std::vector<GaugedSize> movedBy(std::vector<GaugedSize> sizes, const std::string &family,
                                double by_um);

/// Groove of a main's shell in degrees: as entered, or as the circuit has it.
double shellGroove_deg(const Build &build, const Stop &main);

/// Rotors longer by a factor, displacement with them; a relief spring stiffer by a pressure.
void lengthenRotors(Circuit &circuit, double factor);
void stiffenSpring(const Build &build, Circuit &circuit, double by_kpa);
/// What the pump takes (W): outlet pressure × swept flow / pumpEfficiency; 0 without a pump's
/// outlet. @param result  with Detail::Everything
double pumpPower_w(const Build &build, const OperatingResult &result);

/// The build with another relief spring, or with a longer pump section.
Build withStifferSpring(const Build &build, double by_kpa);
Build withLongerRotors(const Build &build, double factor);

/// Share of a turn during which the crank drillings of a main see oil, by its groove and holes;
/// absent where none of that was entered.
std::optional<double> feedShareOfTurn(const Build &build, const Stop &main);

/// Hot oil, higher speed, with a main's feed hole covered by a share of its area.
struct CoverPoint
{
    double covered; ///< 0…1 of the smaller hole
    double main_pa, bigEnd_pa, gauge_pa; ///< at the feeds, without the crank's oil column
};
/// Errors: as Network::solve; `points` when the main feeds nothing.
Result<std::vector<CoverPoint>> coverSweep(const Build &build, const Assessment &assessment,
                                           const Stop &main, std::span<const double> covered);

/// A point of the dressing plan.
struct DressingPoint
{
    double end_um; ///< end clearance
    double gauge_pa; ///< hot idle
    double weakest_pa;
};
struct DressingPlan
{
    DressingPoint now;
    std::vector<DressingPoint> points; ///< from now down to where rotors bind
    DressingPoint stop; ///< dress to here: the limit, or where more buys nothing
    Phrase why;
    double score_um = 0; ///< deepest in the body face
    double scoreLeft_um = 0; ///< that stays when one stops there
    double take_um() const { return now.end_um - stop.end_um; }
};
/// Errors: as Network::solve; `pump` without one.
Result<DressingPlan> dressingPlan(const Build &build, const Assessment &assessment);

/// "As it is, dressed, new rotors, longer rotors, stiffer spring": hot idle at the gauge.
struct PumpOption
{
    Phrase name;
    double gauge_pa;
    double power_w; ///< at the higher speed, p × theoretical flow over pumpEfficiency
    Phrase remark;
};
/// @param plan  adds the dressed pump; null: without
std::vector<PumpOption> pumpOptions(const Build &build, const Assessment &assessment,
                                    const DressingPlan *plan);

/// Shells for a family: what is there to choose from and what is best.
struct ShellPlan
{
    std::vector<ShellClass> classes;
    std::vector<std::string> stops; ///< in order; as `spaces`
    std::vector<JournalSpace> spaces;
    std::vector<std::string> from; ///< how each space is known
    ShellSelection best;
    std::vector<RegrindStep> regrind; ///< of the journal furthest outside; empty when all fit
    std::string regrindFor;
    OperatingResult hotIdle; ///< with these shells
};
/// Errors: `shells` without classes, `limits`, `journals` naming a bearing of which nothing is
/// known; as selectShells().
Result<ShellPlan> shellPlan(const Build &build, const Assessment &assessment,
                            const std::string &family);

/// How parts weigh against each other.
struct WeightSpread
{
    std::string part;
    std::map<int, double> grams; ///< standing, by item
    double spread_g = 0;
    std::optional<double> tolerance_g;
    Mark mark = Mark::NotDone;
    Phrase verdict;
};
std::vector<WeightSpread> judgeWeights(const Build &build);

/// Gauge and points at hot idle with other cold values of some sizes (index into assessment.sizes →
/// µm): for "if it were at target". Errors: as Network::solve.
Result<OperatingResult> hotIdleWith(const Build &build, const std::vector<GaugedSize> &sizes,
                                    const std::map<size_t, double> &cold_um);

/// Any speed and oil temperature, for the sliders.
Result<OperatingResult> assessAt(const Build &build, const std::vector<GaugedSize> &sizes,
                                 double rpm, double oil_c, const CircuitChange &change = {});

/// Everything. Never fails: what cannot be solved is said in `unsolved` and as a finding.
Assessment assess(const Build &build);

/// Pressure against speed at the given oil temperatures, optionally with another oil.
/// Errors: as Network::solve.
Result<std::vector<ForecastLine>> forecastLines(const Build &build,
                                                const std::vector<GaugedSize> &sizes,
                                                const std::vector<double> &oil_c,
                                                const std::vector<double> &rpm,
                                                const CircuitChange &change = {});

/// Speeds of the assessment's own forecast: 14, idle to highest.
std::vector<double> forecastSpeeds(const Build &build);

// Parts of assess(), each in its own file.
void fillForecast(const Build &build, Assessment &out);
void fillMarks(const Build &build, Assessment &out);

/// The assessment as stable, documented JSON (docs/format/assessment.md).
Json assessmentToJson(const Build &build, const Assessment &assessment);
/// Forecast lines as stable JSON: the `forecast` part of the assessment.
Json forecastToJson(const Build &build, const std::vector<ForecastLine> &lines);
/// The assessment for people, plain text.
std::string assessmentText(const Build &build, const Assessment &assessment,
                           const UnitStyle &style);

} // namespace mildpath
