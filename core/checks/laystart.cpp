// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

#include "assess/calibrated.h"
#include "assess/cutreport.h"
#include "assess/figuremarks.h"
#include "assess/figures.h"
#include "assess/flowproof.h"
#include "assess/oilreport.h"
#include "document/logbook.h"
#include "oil/grades.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

using Kind = Evidence::Kind;

/// A step of the start-up checklist and the check it is evidence for.
struct StepCheck
{
    std::string_view step, check;
    enum class As { Done, Prime, Start, ColdRead, Read } as = As::Done;
};
constexpr std::array<StepCheck, 12> stepChecks { {
    { "oil_in", "oilin" },
    { "fuel_off", "off" },
    { "prime", "press", StepCheck::As::Prime },
    { "people", "watch" },
    { "start", "fire", StepCheck::As::Start },
    { "cold_idle", "cidle", StepCheck::As::ColdRead },
    { "fast", "fast", StepCheck::As::ColdRead },
    { "warm_up", "warm" },
    { "hot_idle", "hidle", StepCheck::As::Read },
    { "leaks", "leaks" },
    { "filter_cut", "cut" },
    { "drive", "off" },
} };

class Started
{
public:
    explicit Started(CheckBoard &board)
        : m_board(board)
        , m_build(board.build)
    {
    }

    void run()
    {
        EntryClock clock;
        for (const CardStep *s : standing(m_build.cardSteps))
            for (const StepCheck &c : stepChecks)
                if (c.step == s->step)
                    step(*s, c, clock(s->at));
        flows();
        filters();
        choices();
        twoValues();
        oil();
    }

private:
    void step(const CardStep &s, const StepCheck &of, const std::string &at)
    {
        Evidence e;
        e.at = at;
        e.by = s.by;
        e.text = words(s);
        if (s.outcome == "skipped") {
            e.kind = Kind::Unsure;
            e.text = joinedBy({ "skipped", s.note }, "{*|: }");
        } else if (s.outcome == "not_so") {
            e.kind = Kind::No;
            e.text = joinedBy(
                { of.as == StepCheck::As::Prime ? "no pressure came" : "not so", s.note },
                "{*|: }");
        } else {
            e.kind = judged(s, of, e.text);
        }
        const std::string_view place = of.check == "cut" ? filter() : std::string_view(wholeEngine);
        // Both steps make one check: the drive counts once the ignition is off as well.
        if (of.step == "drive" && e.kind == Kind::Yes)
            return;
        m_board.say(of.check, place, std::move(e));
    }
    std::string_view filter() const
    {
        const Stop *s = m_build.engine.ofKind(StopKind::Filter);
        return s ? std::string_view(s->id) : std::string_view();
    }

    static Phrase words(const CardStep &s)
    {
        std::vector<Phrase> parts;
        if (s.pressure_kpa)
            parts.push_back(asPhrase(asPressure(*s.pressure_kpa * 1e3)));
        if (s.rpm)
            parts.push_back(asPhrase(asSpeed(*s.rpm)));
        if (s.oil_c)
            parts.push_back({ "card.oil", "oil {0}", { asTemperature(*s.oil_c) } });
        if (s.seconds)
            parts.push_back({ "check.after", "after {0}", { asTime(*s.seconds, 1) } });
        if (parts.empty())
            parts.emplace_back("done");
        return joinedBy(parts);
    }

    Kind judged(const CardStep &s, const StepCheck &of, Phrase &text) const
    {
        const double floor_pa = m_build.use.hotIdleFloor_kpa * 1e3;
        if (of.as == StepCheck::As::Start) {
            if (s.seconds && *s.seconds > *m_build.start.value("pressure_within_s")) {
                append(text, "too late");
                return Kind::No;
            }
            if (s.pressure_kpa && *s.pressure_kpa * 1e3 < floor_pa) {
                append(text, "below the minimum");
                return Kind::No;
            }
        }
        if (s.step == "warm_up" && s.oil_c && *s.oil_c < m_build.use.hotOil_c - warmEnough_k) {
            append(text,
                   { "check.not_warm", "not yet at {0}", { asTemperature(m_build.use.hotOil_c) } });
            return Kind::Unsure;
        }
        if ((of.as != StepCheck::As::ColdRead && of.as != StepCheck::As::Read) || !s.pressure_kpa)
            return Kind::Yes;
        return reading(s, of, floor_pa, text);
    }
    Kind reading(const CardStep &s, const StepCheck &of, double floor_pa, Phrase &text) const
    {
        const double rpm = s.rpm.value_or(s.step == "fast" ? *m_build.start.value("fast_rpm")
                                                           : m_build.use.hotIdle_rpm);
        const double oil_c = s.oil_c.value_or(of.as == StepCheck::As::Read ? m_build.use.hotOil_c
                                                                           : primeOil_c(m_build));
        const auto r = assessAt(m_build, m_board.figures.sizes, rpm, oil_c);
        if (!r)
            return Kind::Unsure;
        const LikelyPressure likely = asGaugeShows(m_build, r->gauge);
        const double pa = *s.pressure_kpa * 1e3;
        const Mark mark = markOfReading(pa, likely, floor_pa);
        if (mark == Mark::Proven)
            return Kind::Yes;
        append(text,
               { "check.likely",
                 pa < floor_pa ? "below your minimum" : "likely was {0}",
                 { QuantityRange { asPressure(likely.low_pa), asPressure(likely.high_pa) } } });
        return mark == Mark::Hold ? Kind::No : Kind::Unsure;
    }

    /// Oil seen to come: at each lifter and rocker, or at a stop as a whole.
    void flows()
    {
        EntryClock clock;
        for (const FlowSeen *f : standing(m_build.flows)) {
            const std::string &at = clock(f->at);
            const Stop *stop = m_build.engine.find(f->stop);
            if (!stop)
                continue;
            const std::string_view check = stop->kind == StopKind::Lifter ? "seelif"
                : stop->kind == StopKind::Rocker                          ? "seeroc"
                                                                          : "seejet";
            Evidence e { Kind::Yes, at, f->by, {}, f->means, "oil " + f->saw };
            const Mark mark = markOfSight(f->saw);
            e.kind = mark == Mark::Proven ? Kind::Yes
                : mark == Mark::Hold      ? Kind::No
                                          : Kind::Unsure;
            m_board.each(check, [&](Check &c) {
                if (c.place.stop == f->stop
                    && (f->outlet == 0 || c.place.item == 0 || c.place.item == f->outlet))
                    c.timeline.push_back(e);
            });
        }
    }

    void filters()
    {
        const CutReport report = reportCuts(m_build);
        for (const FilterCut *c : standing(m_build.filterCuts)) {
            Evidence e { Kind::Yes, c->at, c->by, {}, {}, c->settled };
            const auto cut = std::find_if(report.cuts.begin(), report.cuts.end(),
                                          [&](const JudgedCut &j) { return j.id == c->id; });
            if (c->settled.empty() && cut != report.cuts.end()) {
                e.text = cut->verdict;
                e.kind = cut->mark == Mark::Hold   ? Kind::No
                    : cut->mark == Mark::LookAgain ? Kind::Unsure
                                                   : Kind::Yes;
            }
            const bool old = c->engine_h == 0;
            m_board.say(old ? "oldcut" : "cut", old ? wholeEngine : filter(), std::move(e));
        }
        for (const OilSample *o : standing(m_build.oilSamples))
            if (o->of == "used")
                m_board.say("used", wholeEngine, sample(*o));
    }
    Evidence sample(const OilSample &o) const
    {
        Evidence out { Kind::Yes, o.at, o.by, {}, "paper", "sample judged" };
        if (!o.settled.empty()) {
            out.text = o.settled;
            return out;
        }
        for (const Finding &f : reportOil(m_build).findings) {
            out.kind = f.mark == Mark::Hold ? Kind::No : Kind::Unsure;
            out.text = f.text;
            out.next = f.action;
            if (f.mark == Mark::Hold)
                break;
        }
        return out;
    }

    /// Gear oil is no engine oil, whatever the can says.
    void oil()
    {
        const ShelfOil *shelf = findShelfOil(m_build.oil.grade);
        if (shelf && shelf->gearOil)
            m_board.say("oilok", wholeEngine,
                        { Kind::No,
                          asItIsNow,
                          {},
                          {},
                          {},
                          "gear oil in an engine",
                          {},
                          std::string(gearOilCaution()) });
    }

    /// Questions both answers of which have their reasons: answered is done.
    void choices()
    {
        Evidence e { Kind::Yes, {}, {}, {}, {}, "open questions answered" };
        for (const char *question : { "prefill_filter", "pump_packing", "prime_by" }) {
            const Choice *last = nullptr;
            for (const Choice &c : m_build.choices)
                if (c.question == question)
                    last = &c;
            if (!last)
                return;
            e.at = std::max(e.at, last->at);
            e.by = last->by;
        }
        m_board.say("pick", wholeEngine, std::move(e));
    }
    /// What an older file said twice is an open question as well.
    void twoValues()
    {
        for (const TwoValues &t : m_build.twoValues)
            m_board.say("pick", wholeEngine,
                        { Kind::Unsure, asItIsNow, {}, {}, {}, twoValuesText(m_build, t) });
    }

    CheckBoard &m_board;
    const Build &m_build;
    /// Own choice: a sump thermometer reads to so much.
    static constexpr double warmEnough_k = 5;
};

} // namespace

void layStart(CheckBoard &board)
{
    Started(board).run();
}

std::string checkOfStep(std::string_view step)
{
    for (const StepCheck &c : stepChecks)
        if (c.step == step && c.step != "drive" && c.check != "cut")
            return std::string(c.check) + "@" + std::string(wholeEngine);
    return {};
}

} // namespace mildpath
