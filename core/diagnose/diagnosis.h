// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "diagnose/likelihood.h"
#include "diagnose/signatures.h"
#include "rules/rules.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

// Readings → what is wrong. Model: docs/theory/diagnosis.md. Readings y,
// prediction h of a guess, covariance S = diag(sg² + (si h)²) + sc² h hᵀ, and to that what the
// clearances, the oil and each gauge may be off by, which moves readings together.

/// Severities looked at: this many, evenly up to 1.
inline constexpr int severitySteps = 12;

/// Chance to see a symptom where a fault of these words is. @param words  empty: nothing wrong
double symptomChance(const SymptomKind &symptom, const std::vector<std::string> &words);

/// Something to look at instead of reading a gauge. Efforts and what each shows: own choice.
struct Look
{
    std::string_view id, text;
    double minutes;
    std::vector<std::string_view> shows; ///< words of faults, see faultWords()
    std::string_view caution {}; ///< what hurts people; empty: nothing
};
std::span<const Look> looks();
/// Whether it shows a fault of these words, see faultWords().
bool wouldShow(const Look &look, const std::vector<std::string> &words);
/// Looks that would show a fault, the cheapest first.
std::vector<const Look *> looksFor(const Build &build, const Fault &fault);

/// A guess with what the readings and symptoms say to it.
struct Candidate
{
    std::vector<Fault> faults; ///< empty: nothing wrong; severities are the likeliest
    bool unlisted = false; ///< something that is not on the list, without a fault to name
    std::string name;
    /// Places no gauge can tell apart, the likeliest first; one where gauges know the place.
    std::vector<Fault> places;
    double prior = 0; ///< of all single ones together 1
    double posterior = 0;
    double low = 0, high = 0; ///< severity: nine in ten
    bool severityKnown = false; ///< narrower than half the scale
    /// From this severity on the readings taken tell it from a healthy engine; absent: never.
    std::optional<double> seenFrom;
    /// The same for all taps under all usual conditions; absent: no gauge can tell.
    std::optional<double> gaugesCanFrom;
    std::vector<double> predicted_pa; ///< by reading, at the likeliest severity
    std::vector<const Look *> looks; ///< that would show it, the cheapest first
};

/// What to do next, and what it is worth.
struct NextStep
{
    bool look = false;
    std::string id; ///< tap, or id of the look
    Condition condition {}; ///< of a reading
    Phrase text;
    std::string_view caution {};
    double bits = 0; ///< expected information
    double minutes = 0;
    double worth() const { return bits / minutes; } ///< bits a minute
};

/// Of the next steps so many are told where there is not room for all.
inline constexpr size_t stepsTold = 6;
/// What hurts people at the next steps, each once; the first steps only.
std::vector<std::string_view> cautionsOf(std::span<const NextStep> steps);

struct Diagnosis
{
    std::vector<const GaugeReading *> readings; ///< standing, of the build
    std::vector<const Symptom *> symptoms;
    std::vector<const FlowSeen *> flows; ///< at lifters, by the engine's own pump
    std::vector<double> healthy_pa; ///< by reading
    std::vector<Candidate> candidates; ///< single faults and nothing wrong, the likeliest first
    std::vector<Candidate> pairs; ///< of the likeliest; posterior among singles and pairs
    std::vector<NextStep> next; ///< the worthiest first
    double healthyPosterior = 0;
    int unsolved = 0; ///< guesses that had no solution
    Phrase verdict; ///< one line
    Phrase advice; ///< what to do
};

/// Single faults that readings are searched for, with a prior each (sum 1), nothing wrong first,
/// then what is not on the list: pressures about the healthy engine's, and far wider (rules
/// evidence.off…), the mass that readings of a forecast leave to it as well.
struct Suspect
{
    std::vector<Fault> faults; ///< severity 1; empty: nothing wrong
    double prior;
    /// Suspects of one kind and one stretch: no tap lies between them. Empty: by itself.
    std::string stretch {};
    bool unlisted = false; ///< the model is off by something that is not on the list
};
std::vector<Suspect> suspectsOf(const Build &build);
/// Severities of a suspect: the grid, or 1 where there is only on and off.
std::vector<double> severitiesOf(const Suspect &suspect);

/// Where gauges are usually read: cold and hot at idle and at the higher speed, hot at the highest.
std::vector<Condition> usualConditions(const Build &build);

/// One number read where a signature knows it.
struct ReadPoint
{
    size_t condition, tap; ///< of the signatures
    double value_pa;
    double gauge_pa; ///< standard uncertainty of gauge and eye
};

/// The same machine for the document's readings and for trials: suspects, their signatures, and
/// what readings say to them.
class Diagnoser
{
public:
    /// Errors: as Signatures::make.
    static Result<Diagnoser> make(const Build &build, const std::vector<GaugedSize> &sizes,
                                  std::vector<Condition> conditions, Progress *progress = nullptr);

    const std::vector<Suspect> &suspects() const { return m_suspects; }
    const Signatures &signatures() const { return m_signatures; }
    size_t firstGuess(size_t suspect) const { return m_first[suspect]; }
    /// Every guess, suspect by suspect, each at its severities.
    std::vector<Guess> guesses() const;
    size_t guessesOf(size_t suspect) const { return m_first[suspect + 1] - m_first[suspect]; }
    int unsolved() const { return m_unsolved; }

    /// S of every guess at these places, for reading them more than once.
    std::vector<Covariance> covariancesAt(std::span<const ReadPoint> places) const;
    /// Weight of every guess given readings and symptoms; sums to 1.
    std::vector<double> weights(std::span<const ReadPoint> read,
                                std::span<const Symptom *const> symptoms) const;
    /// @param covariances  covariancesAt() the places of `read`
    std::vector<double> weights(std::span<const ReadPoint> read,
                                std::span<const Symptom *const> symptoms,
                                std::span<const Covariance> covariances) const;
    /// Posterior by suspect from those weights.
    std::vector<double> bySuspect(std::span<const double> weights) const;
    /// Suspects of one kind that no gauge tells apart: their places, not what is wrong, stay open.
    const std::vector<std::vector<size_t>> &groups() const { return m_groups; }
    size_t groupOf(size_t suspect) const;
    /// Posterior by group.
    std::vector<double> byGroup(std::span<const double> weights) const;
    /// The suspect readings would find for a fault: its kind, or the one it is looked for as, at
    /// its place. Absent: it is not looked for.
    std::optional<size_t> suspectFor(const Fault &fault) const;
    /// S of readings at these places around what a guess predicts there.
    Covariance covarianceOf(size_t guess, std::span<const double> predicted,
                            std::span<const ReadPoint> places) const;
    /// S of readings at these places around a prediction from the list.
    Covariance covarianceAt(std::span<const double> predicted,
                            std::span<const ReadPoint> places) const
    {
        return covarianceAt(predicted, places, false);
    }
    /// Mahalanobis distance of a guess from the healthy engine at these places.
    double distance(size_t guess, std::span<const ReadPoint> places) const;
    /// The same of an engine that gives these pressures there.
    double distanceOf(std::span<const double> pressure_pa, std::span<const ReadPoint> places) const;
    /// From this severity on, readings there tell a suspect from the healthy engine; absent: never.
    std::optional<double> seenFrom(size_t suspect, std::span<const ReadPoint> places) const;
    /// Expected information (bits) of reading one more place.
    double information(std::span<const double> weights, std::span<const ReadPoint> read,
                       const ReadPoint &next) const;
    /// The same of a look.
    double information(std::span<const double> weights, const Look &look) const;

private:
    Diagnoser() = default;
    Result<void> findDirections(const Build &build, const std::vector<GaugedSize> &sizes);
    void findGroups();

    /// @param off  the model is off as well
    Covariance covarianceAt(std::span<const double> predicted, std::span<const ReadPoint> places,
                            bool off) const;
    bool alike(size_t a, size_t b, std::span<const ReadPoint> places) const;
    std::vector<Suspect> m_suspects;
    std::vector<size_t> m_first; ///< guess by suspect, one past the end last
    std::vector<std::vector<std::string>> m_words; ///< by suspect
    std::vector<std::vector<size_t>> m_groups;
    /// Relative change of every pressure (condition by condition, tap by tap) by one standard
    /// deviation of what the forecast does not know, in independent directions.
    std::vector<std::vector<double>> m_directions;
    std::vector<double> m_own; ///< of every pressure: what speed and oil of a reading may be off
    Signatures m_signatures;
    int m_unsolved = 0;
};

/// Everything that the build's readings and symptoms say. Errors: as Signatures::make.
Result<Diagnosis> diagnose(const Build &build, const std::vector<GaugedSize> &sizes,
                           Progress *progress = nullptr);

/// Stable JSON, documented in docs/format.
Json diagnosisToJson(const Build &build, const Diagnosis &diagnosis);
std::string diagnosisText(const Build &build, const Diagnosis &diagnosis, const UnitStyle &style);
/// A candidate's fault at some severity, in its measure.
Phrase severityAt(const Build &build, const Candidate &candidate, double severity);
/// "rear main gallery, 800 rev/min, oil 100 °C".
Phrase placeText(const Build &build, const std::string &tap, const Condition &condition);
Phrase placeText(const Build &build, const GaugeReading &reading);

} // namespace mildpath
