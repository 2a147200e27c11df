// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/shellform.h"
#include "checks/board.h"
#include "checks/verdicttable.h"

#include "assess/air.h"
#include "assess/believed.h"
#include "assess/figuremarks.h"
#include "assess/figures.h"
#include "assess/narrowed.h"
#include "assess/operatingmodel.h"
#include "document/logbook.h"
#include "study/contacts.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

using Kind = Evidence::Kind;

/// What a value that is computed comes to, with the reason.
struct Says
{
    Evident evident = Evident::None;
    Phrase text;
    Phrase next {};
};
Says worseOf(Says a, Says b)
{
    return b.evident > a.evident ? std::move(b) : std::move(a);
}

Evident byMark(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return Evident::Yes;
    case Mark::LookAgain:
        return Evident::Unsure;
    case Mark::Hold:
        return Evident::No;
    default:
        return Evident::None;
    }
}

Evidence evidenceOf(Says says)
{
    Evidence out;
    out.kind = says.evident == Evident::Yes ? Kind::Yes
        : says.evident == Evident::No       ? Kind::No
                                            : Kind::Unsure;
    out.text = std::move(says.text);
    out.next = std::move(says.next);
    return out;
}

class Computing
{
public:
    explicit Computing(CheckBoard &board)
        : m_board(board)
        , m_build(board.build)
        , m_in(board.figures)
    {
    }

    void run()
    {
        m_board.each("shell", [&](Check &c) { lay(c, shell(c)); });
        m_board.each("form", [&](Check &c) { lay(c, form(c)); });
        m_board.each("cold", [&](Check &c) { lay(c, cold(c)); });
        m_board.each("heat", [&](Check &c) { lay(c, heat(c)); });
        m_board.each("solved", [&](Check &c) { solved(c); });
        if (m_in.operating.unsolved)
            return;
        m_board.each("idle", [&](Check &c) { lay(c, idle()); });
        m_board.each("need", [&](Check &c) { lay(c, needAt(c, { "hot_idle" })); });
        m_board.each("speed", [&](Check &c) {
            lay(c, c.place.id == wholeEngine ? gaugeAtSpeed() : speed(c));
        });
        m_board.each("over", [&](Check &c) { lay(c, over()); });
        m_board.each("crank", [&](Check &c) { lay(c, crank(c)); });
        m_board.each("film", [&](Check &c) { lay(c, film(c)); });
        m_board.each("air", [&](Check &c) { lay(c, air()); });
        strangled();
    }

private:
    static void lay(Check &c, Says says)
    {
        // A declaration of one's own does not make a figure; what is computed stands alone.
        c.timeline.clear();
        if (says.evident != Evident::None)
            c.timeline.push_back(evidenceOf(std::move(says)));
        else
            c.reason = says.text;
    }

    const GaugedSize *sizeOf(const CheckPlace &p) const
    {
        return p.family.empty() ? m_in.size(p.stop) : m_in.size(p.stop, p.family, p.item);
    }

    /// Halves chosen; a clearance on target proves the choice as well.
    Says shell(const Check &c) const
    {
        const GaugedSize *s = m_in.size(c.place.stop);
        if (s && s->measured && s->mark == Mark::Proven)
            return { Evident::Yes, s->verdict };
        const std::string fitted = s ? fittedShells(m_build, s->family, s->stop) : "";
        if (!fitted.empty())
            return { Evident::Yes, "chosen: " + fitted };
        return { Evident::None, "no shells chosen" };
    }

    /// Taper over the whole length and out-of-round against what is common where the maker gives
    /// nothing. Common practice, no source; docs/theory/checks.md.
    Says form(const Check &c) const
    {
        const GaugedSize *s = m_in.size(c.place.stop);
        if (!s || !s->form || s->form->counted < 2)
            return { Evident::None, "read at one place only" };
        double u_um = 0;
        for (const JudgedReading &r : s->readings)
            if (r.method == s->method())
                u_um = std::max(u_um, r.u_um);
        const DiametralClearance clearance { s->cold_um.value * 1e-6 };
        // Stations stand apart; over all of the length the taper is so much more.
        const double taper_m = s->form->taper_m / usualStationsApart;
        const double u_m = 2 * std::sqrt(2.0) * u_um * 1e-6;
        return worseOf(judged(taper_m, u_m, usualTaperLimits(clearance), "form.taper",
                              "taper {0} over its length, common limit {1}"),
                       judged(s->form->outOfRound_m, u_m, usualRoundLimits(clearance), "form.round",
                              "{0} out of round, common limit {1}"));
    }
    /// A value less its uncertainty must pass a limit to be worse than it.
    static Says judged(double value_m, double u_m, const FormLimits &limits, std::string_view id,
                       std::string_view pattern)
    {
        const bool no = value_m - u_m > limits.most_m, unsure = value_m - u_m > limits.fine_m;
        return { no           ? Evident::No
                     : unsure ? Evident::Unsure
                              : Evident::Yes,
                 { id,
                   pattern,
                   { asClearance(value_m * 1e6),
                     asLimit((no ? limits.most_m : limits.fine_m) * 1e6) } } };
    }

    Says cold(const Check &c) const
    {
        const GaugedSize *s = sizeOf(c.place);
        if (!s || !s->known)
            return { Evident::None, "its size is not known" };
        const LimitedFigure f = coldestFigure(m_build, *s);
        const Evident evident = evidentOf(f);
        return { evident,
                 { "check.coldest",
                   "{0} at the coldest start, minimum {1}",
                   { asClearance(f.value), asLimit(*f.least) } },
                 evident == Evident::Yes ? Phrase() : preheat(*s, *f.least) };
    }
    static Phrase preheat(const GaugedSize &s, double floor_um)
    {
        const auto t = s.closesAt_c(floor_um);
        if (!t)
            return "Preheat block and oil, or open the clearance";
        return { "find.preheat",
                 "Preheat block and oil to {0}, or open the clearance. Use a block, coolant or "
                 "sump heater, never a flame under the engine.",
                 { asTemperature(std::ceil(*t)) } };
    }
    Says heat(const Check &c) const
    {
        const GaugedSize *s = sizeOf(c.place);
        if (!s || !s->known)
            return { Evident::None, "its size is not known" };
        const LimitedFigure f { s->running_um, s->measured ? s->cold_um.expanded() : 0,
                                clearanceFloor_um(m_build, *s), std::nullopt };
        return {
            evidentOf(f),
            { "check.running", "{0} hot, minimum {1}", { asClearance(f.value), asLimit(*f.least) } }
        };
    }

    /// The circuit must solve, and somebody must say by name that its pump, journals and relief are
    /// this engine's own.
    void solved(Check &c) const
    {
        if (!m_in.operating.unsolved)
            return;
        c.timeline.push_back({ Kind::No, asItIsNow, {}, {}, {}, m_in.operating.unsolved->message });
    }

    Says idle() const
    {
        const LikelyPressure &p = m_in.operating.hotIdle.gauge;
        const double floor_pa = m_build.use.hotIdleFloor_kpa * 1e3;
        const Mark mark = markAgainst(p, floor_pa);
        return { byMark(mark),
                 { "check.idle",
                   "likely {0} at hot idle, your minimum {1}",
                   { QuantityRange { asPressure(p.low_pa), asPressure(p.high_pa) },
                     asPressure(floor_pa) } },
                 mark == Mark::LookAgain ? settledBy(
                     m_in.operating.hotIdle, m_build.circuit.taps.at(m_build.gaugeTap), floor_pa)
                                         : Phrase() };
    }

    /// The one measurement or reading that would settle a pressure too close to what is asked.
    Phrase settledBy(const OperatingResult &at, const std::string &node, double least_pa) const
    {
        auto model = OperatingModel::make(m_build, m_in.sizes, at.oil_c);
        const auto doubts
            = model ? model->likelyAt(at.rpm, std::span(&node, 1)) : tl::unexpected(model.error());
        if (!doubts)
            return {};
        if (!m_primed)
            m_primed = whilePriming(m_build, m_in.sizes);
        return narrowest(doubts->front(), least_pa, *m_primed ? &**m_primed : nullptr).what;
    }

    Says needAt(const Check &c, const std::vector<std::string_view> &states) const
    {
        Says out;
        double worst = 1e9;
        const OperatingState *where = nullptr; // of a pressure
        const PointPressure *point = nullptr;
        for (const std::string_view id : states) {
            const OperatingState *s = stateOf(m_in.states, id);
            for (const PointPressure &p : s ? s->result.points : noPoints())
                for (const Supply &supply :
                     p.stop == c.place.stop ? suppliesOf(*s->kind, p) : std::vector<Supply>()) {
                    const Evident e = byMark(supplyMarkAt(*s->kind, supply.ratio()));
                    if (e < out.evident || (e == out.evident && supply.ratio() >= worst))
                        continue;
                    worst = supply.ratio();
                    where = supply.shows == Shows::Pressure ? s : nullptr;
                    point = &p;
                    out = { e,
                            { "check.need",
                              "{0}: {1} at {2}, needs {3}",
                              { s->kind->name, Quantity { supply.value, supply.shows },
                                asSpeed(s->result.rpm),
                                Quantity { supply.need, supply.shows } } } };
                }
        }
        if (out.evident == Evident::None)
            out = { Evident::Yes, "needs nothing, on purpose" };
        else if (out.evident == Evident::Unsure && where)
            out.next = settledBy(where->result, point->node, point->need_pa);
        return out;
    }
    static const std::vector<PointPressure> &noPoints()
    {
        static const std::vector<PointPressure> none;
        return none;
    }
    /// Idling hotter than it is meant to run it is told on the forecast, and holds nobody up.
    Says speed(const Check &c) const
    {
        return worseOf(
            needAt(c, { "hot_2000", "high", "most", "hot_plus_most", "cold_idle", "cold_2000" }),
            amongItsLike(c));
    }

    /// Enough, but far less than most of its kind get: something narrows its feed.
    Says amongItsLike(const Check &c) const
    {
        Says out { Evident::Yes, {} };
        const Stop *stop = m_build.engine.find(c.place.stop);
        for (const char *id : { "high", "most" }) {
            const OperatingState *s = stop ? stateOf(m_in.states, id) : nullptr;
            std::vector<double> all;
            double least = 0;
            for (const PointPressure &p : s ? s->result.points : noPoints())
                if (const Stop *other = m_build.engine.find(p.stop);
                    other->kind == stop->kind && p.need_pa > 0) {
                    all.push_back(p.pressure_pa);
                    if (p.stop == stop->id && (least == 0 || p.pressure_pa < least))
                        least = p.pressure_pa;
                }
            constexpr size_t enough = 3; // to say what is usual
            if (all.size() < enough)
                continue;
            const auto middle = all.begin() + static_cast<std::ptrdiff_t>(all.size() / 2);
            std::ranges::nth_element(all, middle);
            if (least > 0 && least < farBelowLike * *middle)
                out = { Evident::Unsure,
                        { "check.among_like",
                          "{0}: {1} at {2}, where most of its kind get {3}",
                          { s->kind->name, asPressure(least), asSpeed(s->result.rpm),
                            asPressure(*middle) } } };
        }
        return out;
    }

    /// The gauge against the rule of pressure over speed: below it look again, far below it holds.
    Says gaugeAtSpeed() const
    {
        Says out;
        double worst = 1e9;
        for (const char *id : { "hot_2000", "high", "most" }) {
            const OperatingState *s = stateOf(m_in.states, id);
            if (!s)
                continue;
            const GaugeVerdict v = gaugeVerdict(m_build, *s);
            const double ratio = v.least_pa > 0 ? v.value_pa / v.least_pa : 1e9;
            if (ratio >= worst)
                continue;
            worst = ratio;
            out = { byMark(v.mark),
                    { "check.gauge_rule",
                      "pressure gauge {0} at {1}, rule of thumb {2}",
                      { asPressure(v.value_pa), asSpeed(s->result.rpm),
                        asPressure(v.least_pa) } } };
        }
        return out;
    }

    struct Limit
    {
        std::string_view part;
        double OperatingState::*value;
        double warn_pa, hold_pa;
    };
    /// With a relief valve that works; one stuck shut holds nothing and is said by itself.
    Says over() const
    {
        const std::array<Limit, 3> limits { {
            { "filter", &OperatingState::filterIn_pa, filterWarn_pa, filterHold_pa },
            { "filter element", &OperatingState::element_pa, elementWarn_pa, elementHold_pa },
            { "cooler", &OperatingState::coolerIn_pa, coolerWarn_pa, coolerHold_pa },
        } };
        Says out;
        double worst = 0;
        for (const OperatingState &s : m_in.states) {
            if (s.kind->reliefShut)
                continue;
            for (const Limit &l : limits) {
                const double pa = s.*l.value, share = pa / l.hold_pa;
                const Evident e = byMark(standsMark(pa, l.warn_pa, l.hold_pa));
                if (e < out.evident || (e == out.evident && share <= worst))
                    continue;
                worst = share;
                out = { e,
                        { "check.over",
                          "{0}: {1} at the {2}, limit {3}",
                          { s.kind->name, asPressure(std::min(pa, beyondStrength_pa)), l.part,
                            asPressure(e == Evident::Yes ? l.warn_pa : l.hold_pa) } } };
            }
        }
        const CrankingTest test = crankingTestOf(m_build);
        if (test.mark != Mark::Proven)
            out = worseOf(std::move(out),
                          { byMark(test.mark),
                            { "check.cranking",
                              test.winter ? "{0} was tested for cranking down to {1}: colder, the "
                                            "forecast takes it too thin"
                                          : "{0} has no winter grade: below {1} the forecast takes "
                                            "it too thin",
                              { m_build.oil.grade, asTemperature(test.tested_c) } },
                            "Use a thinner winter grade, or preheat" });
        return out;
    }
    /// Stuck shut the relief valve lets the pressure beyond what cans stand: its piston must fall.
    void strangled()
    {
        for (const OperatingState &s : m_in.states)
            if (s.kind->reliefShut && s.filterIn_pa > filterHold_pa)
                m_board.each("rfree", [&](Check &c) {
                    if (findsOf(c.timeline).evident != Evident::Yes)
                        c.cls = CheckClass::Never;
                });
    }

    Says crank(const Check &check) const
    {
        // The main the rod is fed through, at the highest speeds used.
        const ForecastLine *line = starvesCrankFirst(m_in.forecast);
        const OperatingResult &most = m_in.operating.mostSpeed;
        if (line && *line->crankStarves_rpm <= m_build.use.most_rpm)
            return { Evident::No,
                     { "check.crank_not",
                       "not fed above {0} with oil at {1}",
                       { asSpeed(*line->crankStarves_rpm), asTemperature(line->oil_c) } } };
        if (!(most.crankNeed_pa > 0))
            return { Evident::Yes, "no drilling to be fed through" };
        Says out { Evident::None, "its feed is not computed" };
        for (const OperatingResult *r : { &m_in.operating.highSpeed, &most })
            for (const PointPressure &p : r->points)
                if (p.stop == check.place.stop)
                    out = worseOf(std::move(out),
                                  { byMark(crankFedMark(p.fedShare)),
                                    { "check.crank",
                                      "{0} of what its film takes at {1}",
                                      { asShare(p.fedShare), asSpeed(r->rpm) } } });
        return out;
    }

    /// Its load within what its film bears, idling and at full load, and no hotter than oil stands.
    Says film(const Check &c) const
    {
        Says out { Evident::None, "its film is not computed" };
        for (const OperatingResult *r :
             { &m_in.operating.hotIdle, &m_in.operating.highSpeed, &m_in.operating.mostSpeed })
            for (const BearingFilm &f : r->films)
                if (f.stop == c.place.stop) {
                    out = worseOf(std::move(out), borne(f.carried, f.smallest_m, r->rpm));
                    if (f.loaded)
                        out = worseOf(std::move(out), atFullLoad(*f.loaded, r->rpm));
                }
        if (const OperatingState *s = stateOf(m_in.states, "hot_plus_most"))
            for (const BearingFilm &f : s->result.films)
                if (Says hotter = f.loaded ? atFullLoad(*f.loaded, s->result.rpm) : Says {};
                    f.stop == c.place.stop && hotter.evident > Evident::Yes) {
                    hotter.evident = Evident::Unsure; // hotter than it is meant to run
                    out = worseOf(std::move(out), std::move(hotter));
                }
        return out;
    }
    static Says borne(bool carried, double smallest_m, double rpm)
    {
        return carried
            ? Says { Evident::Yes,
                     { "check.film",
                       "film {0} at {1}",
                       { asClearance(smallest_m * 1e6), asSpeed(rpm) } } }
            : Says { Evident::No,
                     { "check.no_film", "no film bears its load at {0}", { asSpeed(rpm) } } };
    }
    static Says atFullLoad(const BearingFilm::AtFullLoad &f, double rpm)
    {
        if (!f.carried)
            return { Evident::No,
                     { "check.no_film_full", "no film bears full load at {0}", { asSpeed(rpm) } } };
        const Mark mark = filmHeatMark(f.film_c);
        const bool hot = mark == Mark::Hold;
        return { byMark(mark),
                 { "check.film_full",
                   "film {0} and {1} at full load and {2}, limit {3}",
                   { asClearance(f.smallest_m * 1e6), asTemperature(f.film_c), asSpeed(rpm),
                     asTemperature(hot ? filmHot_c : filmWarm_c) } },
                 mark != Mark::Proven ? Phrase("Enter this engine's own peak at full load; else a "
                                               "thinner oil, or cooler oil")
                                      : Phrase() };
    }

    /// What nobody can tell yet is for another look, and says what is missing.
    Says air() const
    {
        if (const AirRow *row = m_in.air.leading())
            return { byMark(markOf(m_in.air)), named(row->name, row->quantity) };
        if (m_in.air.problem)
            // More oil than the section holds is wrong; a section nobody entered is not known.
            return m_in.air.problem->place == "/sump/values/fill_l"
                ? Says { Evident::No, m_in.air.problem->message }
                : Says { Evident::Unsure,
                         { "check.air_unknown", "not known: {0}", { m_in.air.problem->message } } };
        for (const AirRow &row : m_in.air.rows)
            if (row.state == AirState::Unknown)
                return {
                    Evident::Unsure,
                    { "check.air_unknown", "not known: {0}", { named(row.name, row.reason) } }
                };
        return { Evident::Yes, "no air row speaks against it" };
    }

    CheckBoard &m_board;
    const Build &m_build;
    const Figures &m_in;
    /// Made when the first verdict is not sure; absent within: it is not primed any more.
    mutable std::optional<std::optional<ReadAt>> m_primed {};
};

} // namespace

void layComputed(CheckBoard &board)
{
    Computing(board).run();
}

} // namespace mildpath
