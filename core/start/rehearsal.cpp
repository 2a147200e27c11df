// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/rehearsal.h"

#include "checks/assessment.h"
#include "diagnose/whatif.h"
#include "document/logbook.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace mildpath {
namespace {

bool bearing(StopKind kind)
{
    return kind == StopKind::Main || kind == StopKind::BigEnd;
}

bool shows(const Look &look, const std::vector<std::string> &words)
{
    return std::any_of(words.begin(), words.end(), [&](const std::string &w) {
        return std::find(look.shows.begin(), look.shows.end(), w) != look.shows.end();
    });
}

/// Names of outlets that are not full: "Lifter 7, Lifter 8".
std::string notFull(const Build &build, const std::vector<OutletFill> &outlets, StopKind kind)
{
    std::string out;
    for (const OutletFill &o : outlets) {
        const Stop *s = build.engine.find(o.stop);
        if (s->kind != kind || o.saw() == "flows")
            continue;
        out += (out.empty() ? "" : ", ") + flowOutlets(build, *s)[static_cast<size_t>(o.outlet - 1)]
            + (o.saw() == "weak" ? " weak" : " dry");
    }
    return out;
}

} // namespace

void HarmClock::take(const SimulatedEngine &engine, const Build &build, double dt_s)
{
    if (engine.turning() != Turning::Running || engine.crank_rpm() < build.use.hotIdle_rpm / 2)
        return;
    for (const PointPressure &p : engine.points()) {
        if (!(p.need_pa > 0) || p.pressure_pa >= p.need_pa)
            continue;
        const Stop *s = build.engine.find(p.stop);
        double stands_s = othersStand_s;
        if (bearing(s->kind)) {
            const double idle = build.use.hotIdle_rpm;
            const double fast = fastFrom_rpm > idle
                ? std::clamp((engine.crank_rpm() - idle) / (fastFrom_rpm - idle), 0.0, 1.0)
                : 1.0;
            stands_s = std::lerp(bearingStandsIdle_s, bearingStandsFast_s, fast);
        }
        damage[p.name] += dt_s / stands_s;
    }
}

double HarmClock::worst() const
{
    double out = 0;
    for (const auto &[name, d] : damage)
        out = std::max(out, d);
    return out;
}

std::string HarmClock::where() const
{
    std::string out;
    double most = 0;
    for (const auto &[name, d] : damage)
        if (d > most) {
            most = d;
            out = name;
        }
    return out;
}

std::vector<Suspect> hideable(const Build &build)
{
    std::vector<Suspect> out;
    for (Suspect &s : suspectsOf(build)) {
        if (s.faults.empty())
            continue;
        const bool pressure = findFaultKind(s.faults.front().kind)->changesPressure;
        // What neither a gauge nor a look could ever show would be a riddle, not a rehearsal.
        if (pressure || !looksFor(build, s.faults.front()).empty())
            out.push_back(std::move(s));
    }
    return out;
}

Result<Rehearsal> Rehearsal::make(const Build &build, const Assessment &assessment, unsigned seed)
{
    std::mt19937_64 random(seed);
    const std::vector<Suspect> all = hideable(build);
    if (all.empty())
        return fail("fault", "nothing can be hidden in this engine");
    std::vector<double> chances;
    for (const Suspect &s : all)
        chances.push_back(s.prior);
    std::discrete_distribution<size_t> choose(chances.begin(), chances.end());
    Fault hidden = all[choose(random)].faults.front();
    const FaultKind &kind = *findFaultKind(hidden.kind);
    if (graded(kind))
        hidden.severity = std::uniform_real_distribution<double>(0.6, 1.0)(random);
    return with(build, assessment, hidden, seed);
}

Result<Rehearsal> Rehearsal::with(const Build &build, const Assessment &assessment, Fault hidden,
                                  unsigned seed)
{
    SimulatedOptions options;
    options.faults = { hidden };
    options.seed = seed * 2654435761u + 1;
    auto engine = SimulatedEngine::make(build, assessment, options);
    if (!engine)
        return tl::unexpected(engine.error());
    Rehearsal out(std::move(*engine));
    out.m_build = std::make_shared<const Build>(build);
    out.m_prime = primeForecast(build, assessment);
    out.m_hidden = std::move(hidden);
    for (const Suspect &s : hideable(build))
        out.m_answers.push_back({ s.faults.front(), faultName(build, s.faults.front()) });
    return out;
}

void Rehearsal::note(Phrase what, Phrase saw, double minutes)
{
    m_steps.push_back({ std::move(what), std::move(saw), minutes, m_harm.worst() });
}

void Rehearsal::turn(Turning how, double rpm)
{
    if (m_ended)
        return;
    const Turning was = m_engine.turning();
    if (was != Turning::Still && how == Turning::Still) {
        note(was == Turning::Running     ? "Ran"
                 : was == Turning::Drill ? "Primed by drill"
                                         : "Cranked",
             { "rehearsal.ran",
               "{0}; pressure gauge {1}, oil {2}",
               { asTime(m_turned_s), asPressure(m_engine.readTap(m_build->gaugeTap)),
                 asTemperature(m_engine.oil_c()) } },
             m_turned_s / 60);
        m_turned_s = 0;
    }
    m_engine.turn(how, rpm);
}

void Rehearsal::advance(double dt_s)
{
    constexpr double step_s = 0.1;
    while (dt_s > 1e-9 && !m_ended) {
        const double now = std::min(dt_s, step_s);
        m_engine.advance(now);
        if (m_engine.turning() != Turning::Still)
            m_turned_s += now;
        m_harm.take(m_engine, *m_build, now);
        dt_s -= now;
        if (m_harm.worst() >= 1) {
            turn(Turning::Still, 0);
            m_ended = true;
        }
    }
}

double Rehearsal::readGauge(const std::string &tap)
{
    const double pa = m_engine.readTap(tap);
    const bool own = tap == m_build->gaugeTap;
    if (!m_ended)
        note("Pressure gauge, " + tapName(*m_build, tap),
             { "rehearsal.read",
               "{0} at {1}, oil {2}",
               { asPressure(pa), asSpeed(m_engine.crank_rpm()), asTemperature(m_engine.oil_c()) } },
             own ? gaugeAgain_min : gaugeMoved_min);
    return pa / 1e3;
}

std::string Rehearsal::lifters(const std::vector<StopKind> &kinds) const
{
    std::string out;
    for (const StopKind kind : kinds) {
        const std::string bad = notFull(*m_build, m_engine.outlets(), kind);
        if (!bad.empty())
            out += (out.empty() ? "" : "; ") + bad;
    }
    return out.empty() ? "all of them full" : out;
}

Phrase Rehearsal::look(const Look &look)
{
    Phrase saw;
    const std::vector<std::string> words = faultWords(*m_build, m_hidden);
    if (look.id == "watch_lifters") {
        // What one sees there is oil or none; what is behind it is for the head to find.
        saw = m_engine.primed() || m_engine.crank_rpm() > 0 || m_engine.time_s() > 0
            ? lifters({ StopKind::Lifter, StopKind::Rocker })
            : "nothing has turned yet: dry";
        if (words.size() > 0 && shows(look, { m_hidden.kind }))
            append(saw, faultName(*m_build, m_hidden));
    } else if (shows(look, words)) {
        saw = joinedBy({ faultName(*m_build, m_hidden), severityText(*m_build, m_hidden) });
    } else {
        saw = "nothing out of order there";
    }
    if (!m_ended)
        note(std::string(look.text), saw, look.minutes);
    return saw;
}

bool Rehearsal::same(const Fault &a, const Fault &b) const
{
    if (a.kind != b.kind)
        return false;
    if (findFaultKind(a.kind)->wholeFamily)
        return true;
    return a.stop == b.stop && (a.item == b.item || a.item == 0 || b.item == 0);
}

bool Rehearsal::name(const Fault &fault)
{
    m_named = fault;
    m_found = same(fault, m_hidden);
    m_ended = true;
    return m_found;
}

double Rehearsal::minutes() const
{
    double sum = 0;
    for (const RehearsalStep &s : m_steps)
        sum += s.minutes;
    return sum;
}

/// The shortest way there was: prime and watch the gauge, then the cheapest look that shows it.
void Rehearsal::best(Debrief &out) const
{
    const double prime_s = m_prime.time.high_s.value_or(10);
    out.best.push_back({ m_prime.drill ? "Prime by drill" : "Prime by starter",
                         "the gauge against its corridor, before anything can be hurt",
                         prime_s / 60, 0 });
    const auto looks = looksFor(*m_build, m_hidden);
    if (!looks.empty())
        out.best.push_back(
            { std::string(looks.front()->text), "shows it", looks.front()->minutes, 0 });
    else
        out.best.push_back(
            { "Gauge at another port", "between the taps it shows", gaugeMoved_min, 0 });
    for (const RehearsalStep &s : out.best)
        out.bestMinutes += s.minutes;
}

Debrief Rehearsal::debrief(const Assessment &assessment) const
{
    Debrief out;
    out.hidden = joinedBy({ faultName(*m_build, m_hidden), severityText(*m_build, m_hidden) });
    out.named = m_named ? faultName(*m_build, *m_named) : "";
    out.found = m_found;
    out.harmed = m_harm.worst() >= 1;
    out.path = m_steps;
    out.minutes = minutes();
    if (out.harmed)
        out.harm = m_harm.where() + " ran below its required pressure for too long";
    best(out);
    const Build &b = *m_build;
    const std::pair<std::string, std::pair<Turned, double>> moments[] = {
        { "Priming", { primeTurn(b).turned(), m_prime.oil_c } },
        { "Cold idle", { b.use.hotIdle_rpm, m_prime.oil_c } },
        { "Hot idle", { b.use.hotIdle_rpm, b.use.hotOil_c } },
    };
    for (const auto &[name, at] : moments) {
        const auto w = whatIf(b, assessment.sizes, { m_hidden }, at.first, at.second);
        if (!w)
            continue;
        for (const TapChange &t : w->taps)
            if (t.shows())
                out.signs.push_back({ "rehearsal.sign",
                                      "{0}: {1} {2} instead of {3}",
                                      { name, tapName(b, t.tap), asPressure(t.after_pa),
                                        asPressure(t.before_pa) } });
        if (!w->starved.empty())
            out.signs.push_back(name + ": " + w->after.points[w->starved.front()].name
                                + " below its required pressure");
    }
    const std::string dry = lifters({ StopKind::Lifter, StopKind::Rocker });
    if (m_engine.primed() && dry != "all of them full")
        out.signs.push_back("With the cover off: " + dry);
    for (const SymptomKind &s : symptomKinds())
        if (symptomChance(s, faultWords(b, m_hidden)) >= symptomLikely)
            out.signs.push_back("Likely: " + std::string(s.text));
    if (out.signs.empty())
        out.signs.push_back("No gauge and no noise shows it: only a look does");
    out.verdict = out.harmed ? Phrase("Too late: " + out.harm)
        : out.found
        ? Phrase("rehearsal.found", "Found before harm, in {0}; the shortest way took {1}",
                 { Quantity { out.minutes, Shows::Minutes },
                   Quantity { out.bestMinutes, Shows::Minutes } })
        : m_named ? Phrase("It was something else")
                  : Phrase("Given up");
    return out;
}

} // namespace mildpath
