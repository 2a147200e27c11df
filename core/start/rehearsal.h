// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "rules/rules.h"
#include "start/engine.h"

#include <optional>
#include <string>
#include <vector>

namespace mildpath {

struct Assessment;

// A trainer: a fault hidden in a copy of the build, to be found before it does harm. Efforts, and
// when harm is done: own choice (docs/theory/start.md).

/// How far a stop has come toward harm.
struct HarmClock
{
    std::map<std::string, double> damage; ///< by point name; 1 is harm
    /// @param dt_s  a small step with the engine as it is; counts only while it runs
    void take(const SimulatedEngine &engine, const Build &build, double dt_s);
    double worst() const;
    std::string where() const; ///< empty while nothing suffers
};

/// Something that was done, and what it showed.
struct RehearsalStep
{
    Phrase what, saw;
    double minutes = 0; ///< of effort
    double damage = 0; ///< the worst after it
};

/// One of the faults that may be named.
struct RehearsalAnswer
{
    Fault fault;
    std::string name;
};

struct Debrief
{
    Phrase hidden; ///< with its severity
    std::string named; ///< empty: nothing was named
    bool found = false, harmed = false;
    std::string harm; ///< which stop suffered, and why
    double minutes = 0; ///< of the user's path
    std::vector<RehearsalStep> path, best;
    double bestMinutes = 0;
    std::vector<Phrase> signs; ///< that were there to be seen
    Phrase verdict; ///< one sentence
};

class Rehearsal
{
public:
    /// Hides one fault that can happen on this engine, chosen by its prior; one that nothing would
    /// ever show is not chosen. @param seed  the same seed hides the same
    /// Errors: as SimulatedEngine::make.
    static Result<Rehearsal> make(const Build &build, const Assessment &assessment, unsigned seed);
    /// With a fault of one's choice, for tests and for teaching.
    static Result<Rehearsal> with(const Build &build, const Assessment &assessment, Fault hidden,
                                  unsigned seed);

    SimulatedEngine &engine() { return m_engine; }
    const SimulatedEngine &engine() const { return m_engine; }
    const PrimeForecast &prime() const { return m_prime; }

    void turn(Turning how, double rpm);
    /// Lets the engine go on; harm stops it and ends the rehearsal.
    void advance(double dt_s);
    /// Reads the gauge at a tap. @return kPa
    double readGauge(const std::string &tap);
    /// Looks at something; shows only what that look would show.
    Phrase look(const Look &look);
    /// Names the fault and ends. @return whether it is the one, its place as near as gauges tell
    bool name(const Fault &fault);
    void giveUp() { m_ended = true; }

    bool ended() const { return m_ended; }
    const HarmClock &harm() const { return m_harm; }
    const std::vector<RehearsalStep> &steps() const { return m_steps; }
    double minutes() const;
    /// Everything that may be named, in oil order.
    const std::vector<RehearsalAnswer> &answers() const { return m_answers; }
    Debrief debrief(const Assessment &assessment) const;

private:
    Rehearsal(SimulatedEngine engine)
        : m_engine(std::move(engine))
    {
    }
    void note(Phrase what, Phrase saw, double minutes);
    std::string lifters(const std::vector<StopKind> &kinds) const;
    void best(Debrief &out) const;
    bool same(const Fault &a, const Fault &b) const;

    std::shared_ptr<const Build> m_build;
    SimulatedEngine m_engine;
    PrimeForecast m_prime;
    Fault m_hidden;
    HarmClock m_harm;
    std::vector<RehearsalStep> m_steps;
    std::vector<RehearsalAnswer> m_answers;
    std::optional<Fault> m_named;
    double m_turned_s = 0; ///< since the last note of turning
    bool m_ended = false, m_found = false;
};

/// Every fault that may be hidden in this engine, with its share of the chance.
std::vector<Suspect> hideable(const Build &build);

} // namespace mildpath
