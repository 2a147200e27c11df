// SPDX-License-Identifier: GPL-3.0-or-later
#include "diagnose/diagnosis.h"

#include "assess/calibrated.h"
#include "assess/operating.h"
#include "diagnose/flowevidence.h"
#include "document/logbook.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

constexpr double gaugeUsual_pa = GaugeReading::usualGaugeU_kpa * 1e3;
/// Pairs are made of this many of the likeliest single faults, at these severities. Own choice.
constexpr size_t pairsOf = 4;
constexpr std::array<double, 4> pairSeverities { 0.25, 0.5, 0.75, 1 };

/// ln Σ e^x without leaving the range of numbers; −∞ for nothing.
double logSum(const std::vector<double> &logs)
{
    const double most = *std::max_element(logs.begin(), logs.end());
    if (std::isinf(most))
        return most;
    double sum = 0;
    for (const double x : logs)
        sum += std::exp(x - most);
    return most + std::log(sum);
}

class Diagnosing
{
public:
    Diagnosing(const Build &build, const std::vector<GaugedSize> &sizes, Progress *progress)
        : m_build(build)
        , m_sizes(sizes)
        , m_progress(progress)
    {
    }

    Result<Diagnosis> run()
    {
        m_out.readings = standing(m_build.gaugeReadings);
        m_out.symptoms = standing(m_build.symptoms);
        std::vector<Condition> conditions = usualConditions(m_build);
        m_usual = conditions.size();
        // Until it has run there is the gauge while it is primed.
        const PrimeTurn turn = primeTurn(m_build);
        const bool ran = std::ranges::any_of(
            m_out.readings, [&](const GaugeReading *r) { return wasRunning(m_build, *r); });
        if (!ran && turn.shaft_rpm > 0)
            conditions.push_back({ turn.drill ? turn.shaft_rpm : turn.crank_rpm,
                                   primeOil_c(m_build),
                                   {},
                                   turn.drill });
        m_offered = conditions.size();
        for (const GaugeReading *r : m_out.readings) {
            const Condition c = conditionOf(*r);
            if (std::find(conditions.begin(), conditions.end(), c) == conditions.end())
                conditions.push_back(c);
        }
        auto made = Diagnoser::make(m_build, m_sizes, std::move(conditions), m_progress);
        if (!made)
            return tl::unexpected(made.error());
        m_diagnoser = std::move(*made);
        findPlaces();
        if (auto ok = weigh(); !ok)
            return tl::unexpected(ok.error());
        m_out.unsolved = m_diagnoser->unsolved();
        for (const auto &group : m_diagnoser->groups())
            candidate(group);
        std::stable_sort(
            m_out.candidates.begin(), m_out.candidates.end(),
            [](const Candidate &a, const Candidate &b) { return a.posterior > b.posterior; });
        if (auto ok = pairs(); !ok)
            return tl::unexpected(ok.error());
        nextSteps();
        conclude();
        return std::move(m_out);
    }

private:
    const Signatures &signatures() const { return m_diagnoser->signatures(); }

    /// Weights of the guesses by readings, symptoms and what was seen to flow.
    Result<void> weigh()
    {
        m_out.flows = pumpedFlows(m_build);
        const bool dry = std::any_of(m_out.flows.begin(), m_out.flows.end(),
                                     [](const FlowSeen *f) { return f->saw == "dry"; });
        // Lifter by lifter it is known better than in a word: it is not to count twice.
        m_weighed = m_out.symptoms;
        if (dry)
            std::erase_if(m_weighed,
                          [](const Symptom *s) { return s->symptom == "last_lifters_dry"; });
        m_weights = m_diagnoser->weights(m_read, m_weighed);
        auto logs = flowLogs(m_build, m_sizes, m_diagnoser->guesses(), m_out.flows, m_progress);
        if (!logs)
            return tl::unexpected(logs.error());
        m_flowLogs = std::move(*logs);
        std::vector<double> all;
        for (size_t g = 0; g < m_weights.size(); ++g)
            all.push_back(std::log(m_weights[g]) + m_flowLogs[g]);
        const double sum = logSum(all);
        for (size_t g = 0; g < m_weights.size(); ++g)
            m_weights[g] = std::exp(all[g] - sum);
        return {};
    }

    void findPlaces()
    {
        const auto &all = signatures().conditions();
        const auto &taps = signatures().taps();
        for (const GaugeReading *r : m_out.readings) {
            const Condition c = conditionOf(*r);
            const auto at = static_cast<size_t>(std::find(all.begin(), all.end(), c) - all.begin());
            const auto tap
                = static_cast<size_t>(std::find(taps.begin(), taps.end(), r->tap) - taps.begin());
            const double offset = r->tap == m_build.gaugeTap ? gaugeOffset_pa(m_build) : 0;
            m_read.push_back({ at, tap,
                               std::max(0.0, r->pressure_kpa * 1e3 - offset) / modelFactor(m_build),
                               r->u_kpa * 1e3 });
            m_out.healthy_pa.push_back(signatures().healthy(at, tap));
        }
        for (size_t c = 0; c < m_usual; ++c)
            for (size_t t = 0; t < taps.size(); ++t)
                m_everywhere.push_back({ c, t, 0, gaugeUsual_pa });
    }

    /// Where a reading stands: what was in the engine counts, named only where it was another oil.
    Condition conditionOf(const GaugeReading &r) const
    {
        return { r.rpm, r.oil_c, r.oil == m_build.oil.grade ? "" : r.oil, r.byDrill };
    }

    void candidate(const std::vector<size_t> &group)
    {
        Candidate c;
        size_t best = m_diagnoser->firstGuess(group.front()), of = group.front();
        for (const size_t s : group) {
            c.prior += m_diagnoser->suspects()[s].prior;
            for (size_t i = 0; i < m_diagnoser->guessesOf(s); ++i) {
                const size_t g = m_diagnoser->firstGuess(s) + i;
                c.posterior += m_weights[g];
                if (m_weights[g] > m_weights[best]) {
                    best = g;
                    of = s;
                }
            }
        }
        for (const ReadPoint &p : m_read)
            c.predicted_pa.push_back(signatures().at(best, p.condition, p.tap));
        const Suspect &suspect = m_diagnoser->suspects()[of];
        c.faults = suspect.faults;
        if (suspect.faults.empty()) {
            c.unlisted = suspect.unlisted;
            c.name = suspect.unlisted ? "Something not on this list" : "Nothing wrong";
            c.severityKnown = true;
        } else {
            const auto severities = severitiesOf(suspect);
            c.faults.front().severity = severities[best - m_diagnoser->firstGuess(of)];
            range(c, severities, group);
            c.places = c.faults;
            for (const size_t s : group)
                if (s != of)
                    c.places.push_back(m_diagnoser->suspects()[s].faults.front());
            c.name = groupName(c);
            c.seenFrom = m_diagnoser->seenFrom(of, m_read);
            c.gaugesCanFrom = m_diagnoser->seenFrom(of, m_everywhere);
            c.looks = looksFor(m_build, c.faults.front());
        }
        m_out.candidates.push_back(std::move(c));
    }

    std::string groupName(const Candidate &c) const
    {
        std::string out = faultName(m_build, c.faults.front());
        if (c.places.size() == 2)
            out += ", or there: " + m_build.engine.find(c.places[1].stop)->name;
        else if (c.places.size() > 2)
            out += ", or one of " + std::to_string(c.places.size() - 1) + " more places";
        return out;
    }

    /// The severity's own posterior over all places alike: nine in ten lie between.
    void range(Candidate &c, const std::vector<double> &severities,
               const std::vector<size_t> &group) const
    {
        c.low = severities.front();
        c.high = severities.back();
        double below = 0;
        for (size_t i = 0; i < severities.size() && c.posterior > 0; ++i) {
            const double before = below;
            for (const size_t s : group)
                below += m_weights[m_diagnoser->firstGuess(s) + i] / c.posterior;
            if (before < 0.05 && below >= 0.05)
                c.low = severities[i];
            if (before < 0.95 && below >= 0.95)
                c.high = severities[i];
        }
        c.severityKnown = severities.size() == 1 || c.high - c.low < 0.5;
    }

    /// Pairs of the likeliest faults that change pressures, at once.
    Result<void> pairs()
    {
        std::vector<const Candidate *> likely;
        for (const Candidate &c : m_out.candidates)
            if (!c.faults.empty() && findFaultKind(c.faults.front().kind)->changesPressure
                && likely.size() < pairsOf)
                likely.push_back(&c);
        if (m_read.empty() || likely.size() < 2)
            return {};
        std::vector<Guess> guesses;
        std::vector<std::pair<size_t, size_t>> of;
        for (size_t a = 0; a < likely.size(); ++a)
            for (size_t b = a + 1; b < likely.size(); ++b) {
                of.emplace_back(a, b);
                for (const double sa : pairSeverities)
                    for (const double sb : pairSeverities) {
                        Guess g { likely[a]->faults.front(), likely[b]->faults.front() };
                        g[0].severity = sa;
                        g[1].severity = sb;
                        guesses.push_back(std::move(g));
                    }
            }
        const auto solved
            = Signatures::make(m_build, m_sizes, guesses, signatures().conditions(), m_progress);
        if (!solved)
            return tl::unexpected(solved.error());
        weighPairs(*solved, guesses, of, likely);
        return {};
    }

    void weighPairs(const Signatures &solved, const std::vector<Guess> &guesses,
                    const std::vector<std::pair<size_t, size_t>> &of,
                    const std::vector<const Candidate *> &likely)
    {
        // Singles and pairs on one scale: both as prior times mean likelihood. In logarithms, as
        // two faults may fit better than any one by more than a number can hold.
        const double singles = singlesEvidence();
        const size_t each = pairSeverities.size() * pairSeverities.size();
        std::vector<double> logs { singles };
        for (size_t p = 0; p < of.size(); ++p) {
            const auto [a, b] = of[p];
            Candidate pair;
            pair.prior = likely[a]->prior * likely[b]->prior;
            std::vector<double> fits;
            for (size_t i = 0; i < each; ++i) {
                const double fit = logFit(solved, p * each + i, false);
                fits.push_back(std::isnan(fit) ? -HUGE_VAL : fit);
            }
            const auto best = std::max_element(fits.begin(), fits.end());
            pair.faults = guesses[p * each + static_cast<size_t>(best - fits.begin())];
            pair.name = shortName(*likely[a]) + " and " + shortName(*likely[b]);
            logs.push_back(std::log(pair.prior / static_cast<double>(each)) + logSum(fits)
                           + std::log(symptomFactor(pair)) + pairFlowLog(pair));
            m_out.pairs.push_back(std::move(pair));
        }
        const double all = logSum(logs);
        for (size_t p = 0; p < of.size(); ++p)
            m_out.pairs[p].posterior = std::exp(logs[p + 1] - all);
        std::stable_sort(
            m_out.pairs.begin(), m_out.pairs.end(),
            [](const Candidate &x, const Candidate &y) { return x.posterior > y.posterior; });
    }

    /// Two faults show at the outlets what either shows.
    double pairFlowLog(const Candidate &pair) const
    {
        double out = -HUGE_VAL;
        for (const Fault &f : pair.faults)
            if (const auto s = m_diagnoser->suspectFor(f))
                for (size_t i = 0; i < m_diagnoser->guessesOf(*s); ++i)
                    out = std::max(out, m_flowLogs[m_diagnoser->firstGuess(*s) + i]);
        return std::isinf(out) ? 0 : out;
    }

    /// The kind alone where the engine has one place for it.
    static std::string shortName(const Candidate &c)
    {
        const FaultKind &kind = *findFaultKind(c.faults.front().kind);
        const bool onePlace = kind.stopKinds.size() == 1 && c.places.size() == 1;
        return onePlace ? std::string(kind.name) : c.name;
    }

    /// @param own  the signatures are the diagnoser's
    double logFit(const Signatures &s, size_t guess, bool own) const
    {
        std::vector<double> h, y;
        for (const ReadPoint &p : m_read) {
            h.push_back(s.at(guess, p.condition, p.tap));
            y.push_back(p.value_pa);
        }
        return (own ? m_diagnoser->covarianceOf(guess, h, m_read)
                    : m_diagnoser->covarianceAt(h, m_read))
            .logDensity(y);
    }

    /// ln of the sum of prior × likelihood over the single candidates, symptoms included. The
    /// weights are these terms over their sum: the likeliest guess tells the sum.
    double singlesEvidence() const
    {
        const size_t best = static_cast<size_t>(std::max_element(m_weights.begin(), m_weights.end())
                                                - m_weights.begin());
        size_t s = 0;
        while (m_diagnoser->firstGuess(s + 1) <= best)
            ++s;
        Candidate c;
        c.faults = m_diagnoser->suspects()[s].faults;
        c.unlisted = m_diagnoser->suspects()[s].unlisted;
        return m_flowLogs[best]
            + std::log(m_diagnoser->suspects()[s].prior
                       / static_cast<double>(m_diagnoser->guessesOf(s)))
            + logFit(signatures(), best, true) + std::log(symptomFactor(c))
            - std::log(m_weights[best]);
    }

    /// Chance of the symptoms: two faults together show what either shows.
    double symptomFactor(const Candidate &c) const
    {
        double out = 1;
        for (const Symptom *said : m_weighed) {
            const SymptomKind *kind = findSymptomKind(said->symptom);
            if (!kind)
                continue;
            double p = c.unlisted ? symptomPossible : symptomOtherwise;
            for (const Fault &f : c.faults)
                p = std::max(p, symptomChance(*kind, faultWords(m_build, f)));
            out *= said->there ? p : 1 - p;
        }
        return out;
    }

    void nextSteps()
    {
        const auto &s = signatures();
        for (size_t c = 0; c < m_offered; ++c)
            for (size_t t = 0; t < s.taps().size(); ++t) {
                const bool done = std::any_of(m_read.begin(), m_read.end(), [&](const auto &p) {
                    return p.condition == c && p.tap == t;
                });
                if (done)
                    continue;
                NextStep n;
                n.id = s.taps()[t];
                n.condition = s.conditions()[c];
                n.minutes = n.id == m_build.gaugeTap ? fittedMinutes : otherPortMinutes;
                n.bits = m_diagnoser->information(m_weights, m_read, { c, t, 0, gaugeUsual_pa });
                n.text = { "diagnose.read", "Read {0}", { placeText(m_build, n.id, n.condition) } };
                m_out.next.push_back(std::move(n));
            }
        for (const Look &l : looks()) {
            NextStep n;
            n.look = true;
            n.id = l.id;
            n.text = l.text;
            n.caution = l.caution;
            n.minutes = l.minutes;
            n.bits = m_diagnoser->information(m_weights, l);
            m_out.next.push_back(std::move(n));
        }
        std::erase_if(m_out.next, [](const NextStep &n) { return n.bits < 0.005; });
        std::stable_sort(
            m_out.next.begin(), m_out.next.end(),
            [](const NextStep &a, const NextStep &b) { return a.worth() > b.worth(); });
    }

    void conclude()
    {
        for (const Candidate &c : m_out.candidates)
            if (c.faults.empty() && !c.unlisted)
                m_out.healthyPosterior = c.posterior;
        const Candidate &first = m_out.candidates.front();
        const Quantity likely = asShare(first.posterior);
        if (m_read.empty() && m_out.symptoms.empty() && m_out.flows.empty()) {
            m_out.verdict = "Nothing read yet";
            m_out.advice = "Read the pressure gauge hot and cold, at idle and faster. If oil "
                           "pressure is lost, switch off at once. Hair, sleeves, leads clear of "
                           "belts.";
        } else if (first.posterior >= sureEnough) {
            m_out.verdict = { "diagnose.is", "{0}, {1}", { first.name, likely } };
            m_out.advice = first.unlisted ? Phrase("Read again, and look over what was entered: "
                                                   "nothing on the list explains these readings")
                : first.faults.empty()
                ? Phrase("The readings fit this build as it was measured")
                : Phrase("diagnose.confirm", "Confirm before dismantling: {0}",
                         { first.looks.empty() ? std::string_view("read once more")
                                               : std::string_view(first.looks.front()->text) });
        } else {
            m_out.verdict
                = { "diagnose.open", "Not certain: {0} most likely, {1}", { first.name, likely } };
            m_out.advice = m_out.next.empty() ? Phrase("No further reading would tell")
                                              : m_out.next.front().text;
        }
    }

    const Build &m_build;
    const std::vector<GaugedSize> &m_sizes;
    Progress *m_progress;
    std::optional<Diagnoser> m_diagnoser;
    size_t m_usual = 0, m_offered = 0; ///< of the conditions: usual ones, those of next steps
    std::vector<ReadPoint> m_read, m_everywhere;
    std::vector<const Symptom *> m_weighed; ///< symptoms that count
    std::vector<double> m_flowLogs; ///< by guess
    std::vector<double> m_weights;
    Diagnosis m_out;
};

} // namespace

Result<Diagnosis> diagnose(const Build &build, const std::vector<GaugedSize> &sizes,
                           Progress *progress)
{
    return Diagnosing(build, sizes, progress).run();
}

Phrase severityAt(const Build &build, const Candidate &candidate, double severity)
{
    Fault f = candidate.faults.front();
    f.severity = severity;
    return severityText(build, f);
}

Phrase placeText(const Build &build, const std::string &tap, const Condition &c)
{
    std::string name = tapName(build, tap);
    name[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(name[0])));
    return joinedBy({ { "diagnose.place",
                        "{0}, {1}, oil {2}",
                        { name, turnedText(c.rpm, c.byDrill), asTemperature(c.oil_c) } },
                      c.oil });
}

Phrase placeText(const Build &build, const GaugeReading &r)
{
    return placeText(build, r.tap, { r.rpm, r.oil_c, r.oil, r.byDrill });
}

} // namespace mildpath
