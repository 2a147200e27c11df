// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/marks.h"

#include "assess/air.h"
#include "assess/assessment.h"
#include "assess/cleanmarks.h"
#include "assess/cutreport.h"
#include "assess/figuremarks.h"
#include "assess/flowproof.h"
#include "assess/oilreport.h"
#include "oil/grades.h"
#include "quantity/dates.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

struct MarkAndReason
{
    Mark mark = Mark::NotDone;
    Phrase reason = "nothing recorded";
};

MarkAndReason fromProof(const Build &build, const Stop &stop, const char *aspect)
{
    const Proof *p = standingProof(build, stop.id, aspect);
    if (!p)
        return {};
    std::string reason = p->how.empty() ? std::string(markWord(proofMark(*p))) : p->how;
    if (!p->by.empty())
        reason += " (" + p->by + (p->at.empty() ? "" : ", " + dayText(p->at.substr(0, 10))) + ")";
    return { proofMark(*p), reason };
}

class Judge
{
public:
    Judge(const Build &build, const Figures &figures)
        : m_build(build)
        , m_in(figures)
        , m_flows(standing(build.flows))
    {
    }

    std::pair<std::vector<StopMarks>, std::vector<Finding>> run()
    {
        for (const Stop &stop : m_build.engine.stops)
            judgeStop(stop);
        judgeEngine();
        takeAll(judgeEvidence(m_build, m_in.spreads), Place::Passages);
        takeAll(airFindings(m_build, m_in.air), Place::Sump);
        takeAll(reportCuts(m_build).findings, Place::After);
        takeAll(reportOil(m_build).findings, Place::After);
        std::stable_sort(m_findings.begin(), m_findings.end(),
                         [](const Finding &a, const Finding &b) {
                             return (a.mark == Mark::Hold) > (b.mark == Mark::Hold);
                         });
        return { std::move(m_marks), std::move(m_findings) };
    }

private:
    void takeAll(std::vector<Finding> findings, Place place)
    {
        for (Finding &f : findings) {
            f.place = place;
            m_findings.push_back(std::move(f));
        }
    }

    /// Where what is wrong with a stop is mended when nothing says otherwise.
    Place placeOfStop(const std::string &id) const
    {
        const Stop *stop = m_build.engine.find(id);
        const bool pump = stop
            && (stop->kind == StopKind::Pump || stop->kind == StopKind::Relief
                || stop->kind == StopKind::Pickup);
        return pump ? Place::Pump : Place::Route;
    }

    void add(const std::string &kind, Mark mark, const std::string &stop, Phrase text,
             Phrase action, std::optional<Place> place = {})
    {
        m_findings.push_back({ stop.empty() ? kind : kind + "@" + stop, mark, stop, std::move(text),
                               std::move(action), place.value_or(placeOfStop(stop)) });
    }

    void judgeStop(const Stop &stop)
    {
        const MarkAndReason seen = fromProof(m_build, stop, "size");
        MarkAndReason size = seen;
        fromSizes(stop, size);
        // What somebody saw to be wrong stands beside the figures, until it is proven again.
        fromSeen("size", seen, stop);
        if (seen.mark == Mark::Hold || seen.mark == Mark::LookAgain)
            take(size, seen.mark, seen.reason);
        MarkAndReason clean = fromProof(m_build, stop, "clean");
        fromSeen("clean", clean, stop);
        MarkAndReason flow = fromProof(m_build, stop, "flow");
        fromSeen("flow", flow, stop);
        fromPassages(stop, clean, flow);
        fromFits(stop, size);
        fromFeedHoles(stop, flow);
        fromFlows(stop, flow);
        fromLines(stop, flow);
        fromChecks(stop, size, clean, flow);
        starved(stop, flow);
        m_marks.push_back(
            { stop.id, size.mark, clean.mark, flow.mark, size.reason, clean.reason, flow.reason });
    }

    /// Cleanness is that of its passages; what was seen of the stop as a whole counts where there
    /// is more to it than these, or where it was seen to be wrong.
    void fromPassages(const Stop &stop, MarkAndReason &clean, MarkAndReason &flow)
    {
        const CleanVerdict v = judgeCleanness(m_build, m_in.cleaning, stop);
        takeAll(v.findings, Place::Passages);
        if (v.hasPassages) {
            const MarkAndReason passages { v.clean, v.cleanReason };
            const bool counts = hasBodyToClean(stop.kind) || clean.mark == Mark::Hold
                || clean.mark == Mark::LookAgain;
            clean = counts && worse(clean.mark, v.clean) == clean.mark ? clean : passages;
        }
        if (v.flow == Mark::Hold)
            take(flow, v.flow, v.flowReason);
    }

    static void take(MarkAndReason &into, Mark mark, const Phrase &reason)
    {
        if (worse(into.mark, mark) == into.mark)
            return;
        into = { mark, reason };
    }

    /// Measured sizes decide; where nothing of a stop was measured its proof stands.
    void fromSizes(const Stop &stop, MarkAndReason &size)
    {
        bool any = false, required = false;
        MarkAndReason worst { Mark::Proven, "" };
        for (const GaugedSize &s : m_in.sizes) {
            if (s.stop != stop.id)
                continue;
            const Family &family = *findFamily(s.family);
            any = any || s.measured || !s.methods.empty();
            required = required || !family.optional;
            if (s.mark == Mark::Hold || s.mark == Mark::LookAgain)
                add(family.shells ? "clearance"
                                  : s.family + (s.item > 1 ? "#" + std::to_string(s.item) : ""),
                    s.mark, stop.id, named(s.name, s.verdict), s.next, Place::Clearances);
            if (!s.disagreement.empty() && !(s.verdict == s.disagreement))
                add("disagree_" + s.family, Mark::LookAgain, stop.id, named(s.name, s.disagreement),
                    "Find out which is wrong", Place::Clearances);
            if (family.optional && s.mark == Mark::NotDone)
                continue;
            if (worst.reason.empty() || worse(worst.mark, s.mark) != worst.mark)
                worst = { worse(worst.mark, s.mark),
                          s.name == stop.name ? s.verdict : named(s.name, s.verdict) };
        }
        if (any || (required && size.mark == Mark::NotDone))
            size = worst;
    }

    void fromFits(const Stop &stop, MarkAndReason &size)
    {
        for (const FitVerdict &f : m_in.fits) {
            if (f.stop != stop.id || (f.mark != Mark::Hold && f.mark != Mark::LookAgain))
                continue;
            add(f.id, f.mark, stop.id, joinedBy({ f.title, f.detail }, "{*|: }"), f.next);
            take(size, f.mark, f.title);
        }
    }

    void fromFeedHoles(const Stop &stop, MarkAndReason &flow)
    {
        for (const FeedHole &f : m_in.feedHoles) {
            if (f.stop != stop.id || f.mark == Mark::Proven)
                continue;
            add("feed_hole", f.mark, stop.id, named(stop.name, f.verdict), f.next,
                Place::Clearances);
            take(flow, f.mark, f.verdict);
        }
    }

    /// Oil seen to come, outlet by outlet.
    void fromFlows(const Stop &stop, MarkAndReason &flow)
    {
        if (m_flows.empty())
            return;
        const FlowProof p = flowProof(m_build, stop, m_flows);
        if (p.mark == Mark::Hold || p.mark == Mark::LookAgain) {
            add("flow_seen", p.mark, stop.id, named(stop.name, p.text), p.next);
            take(flow, p.mark, p.text);
        } else if (p.mark == Mark::Proven
                   && (flow.mark == Mark::NotDone || flow.mark == Mark::Proven)) {
            flow = { Mark::Proven, p.text };
        } else if (p.seen > 0 && flow.mark == Mark::NotDone) {
            flow.reason = p.text;
        }
    }

    void fromLines(const Stop &stop, MarkAndReason &flow)
    {
        for (const LineFault &f : m_in.lines.faults) {
            if (f.stop != stop.id)
                continue;
            add("lines_" + f.id, f.mark, stop.id, joinedBy({ f.text, f.reason }, "{*|. }"),
                f.action);
            take(flow, f.mark, f.text);
        }
    }

    /// Ticked points. Not ticked, one that holds keeps the start; the others only stay open.
    void fromChecks(const Stop &stop, MarkAndReason &size, MarkAndReason &clean,
                    MarkAndReason &flow)
    {
        for (const TickKind &c : tickKinds()) {
            if (c.stopKind != stop.kind)
                continue;
            const Proof *p = standingCheck(m_build, stop.id, c.id);
            const Mark mark = tickMark(c, p);
            if (mark == Mark::Proven || mark == Mark::NotDone)
                continue;
            const std::string text = p
                ? (p->how.empty() ? "not so: " + std::string(c.text) : p->how)
                : "not checked yet: " + std::string(c.text);
            const bool fitted = c.stopKind == StopKind::Main || c.stopKind == StopKind::BigEnd;
            add(std::string(c.id), mark, stop.id, stop.name + ", " + text, std::string(c.reason),
                fitted ? std::optional(Place::Clearances) : std::nullopt);
            take(c.aspect == "size" ? size : c.aspect == "clean" ? clean : flow, mark, text);
        }
    }

    void fromSeen(const std::string &aspect, const MarkAndReason &seen, const Stop &stop)
    {
        if (seen.mark == Mark::Hold || seen.mark == Mark::LookAgain)
            add(aspect, seen.mark, stop.id, named(stop.name + ", " + aspect, seen.reason),
                seen.mark == Mark::Hold ? "Fix it, then prove it again" : "Check again",
                aspect == "size" ? std::optional(Place::Clearances) : std::nullopt);
    }

    /// A stop the forecast starves cannot count as flowing, whatever was seen on the bench.
    void starved(const Stop &stop, MarkAndReason &flow)
    {
        for (const PointPressure &p : m_in.operating.hotIdle.points) {
            if (p.stop != stop.id || p.need_pa <= 0 || p.ratio() >= 1)
                continue;
            flow = { Mark::Hold,
                     { "find.starved",
                       "{0} gets {1} at hot idle; required pressure {2}",
                       { p.name, asPressure(p.pressure_pa), asPressure(p.need_pa) } } };
            add("starved", Mark::Hold, stop.id, flow.reason,
                "Reduce leakage upstream or increase flow", Place::Forecast);
            return;
        }
    }

    void judgeEngine()
    {
        if (m_in.operating.unsolved) {
            add("unsolved", Mark::Hold, "", m_in.operating.unsolved->message,
                "Check the dimensions of the circuit", Place::Forecast);
            return;
        }
        const double floor_pa = m_build.use.hotIdleFloor_kpa * 1e3;
        const LikelyPressure &idle = m_in.operating.hotIdle.gauge;
        const Mark mark = markAgainst(idle, floor_pa);
        if (mark == Mark::Hold)
            add("hot_idle_floor", Mark::Hold, "",
                { "find.idle_low",
                  "Hot idle: {0} at the pressure gauge, below your minimum of {1}",
                  { asPressure(idle.value_pa), asPressure(floor_pa) } },
                "Tighter clearances, thicker or cooler oil, or a larger pump; a stiffer spring "
                "does "
                "not help",
                Place::Forecast);
        else if (mark == Mark::LookAgain)
            add("hot_idle_floor", Mark::LookAgain, "",
                { "find.idle_may_be_low",
                  "Hot idle may fall to {0}, below your minimum of {1}",
                  { asPressure(idle.low_pa), asPressure(floor_pa) } },
                "Measure what is still assumed", Place::Forecast);
        if (const ShelfOil *oil = findShelfOil(m_build.oil.grade); oil && oil->gearOil)
            add("gear_oil", Mark::Hold, "", "Gear oil in an engine", std::string(gearOilCaution()),
                Place::Forecast);
        for (const LineFault &f : m_in.lines.faults)
            if (f.stop.empty())
                add("lines_" + f.id, f.mark, "", joinedBy({ f.text, f.reason }, "{*|. }"),
                    f.action);
        if (gaugeOnFilterHead(m_build))
            add("gauge_place", Mark::LookAgain, "",
                "The forecast's gauge sits on the filter head: there it reads well while the "
                "engine starves",
                "Put the gauge on the engine, at the far end of the main gallery");
        coldestStart();
        hotClosing();
        fastening();
        for (const OperatingResult *r : { &m_in.operating.hotIdle, &m_in.operating.highSpeed })
            for (const Warning &w : r->warnings)
                add(w.id, Mark::LookAgain, "", w.text, "See the forecast");
    }

    void coldestStart()
    {
        const GaugedSize *c = coldestOf(m_in.sizes);
        if (c && coldestMark(m_build, *c) == Mark::Hold)
            add("coldest_start", Mark::Hold, c->stop,
                { "find.closes_cold",
                  "{0} closes to {1} at the coldest start",
                  { m_build.engine.find(c->stop)->name, asWholeClearance(c->coldestStart_um) } },
                preheatAdvice(*c), Place::Heat);
    }

    Phrase preheatAdvice(const GaugedSize &c) const
    {
        const auto t = c.closesAt_c(m_build.use.coldestClearanceFloor_um);
        if (!t)
            return "Preheat block and oil, or open the clearance";
        return {
            "find.preheat",
            "Preheat block and oil to {0}, or open the clearance. Use a block, coolant or sump "
            "heater, never a flame under the engine.",
            { asTemperature(std::ceil(*t)) }
        };
    }

    /// Housings that grow less than their journals close a bearing hot.
    void hotClosing()
    {
        for (const GaugedSize &s : m_in.sizes)
            if (findFamily(s.family)->shells && s.known
                && s.running_um < m_build.use.coldestClearanceFloor_um)
                add("hot_clearance", Mark::Hold, s.stop,
                    { "find.closes_hot",
                      "{0} closes to {1} hot",
                      { s.name, asWholeClearance(s.running_um) } },
                    "Open the clearance, or look at what housing and journal are made of",
                    Place::Heat);
    }

    /// A cap left half way is forgotten easily; test bolts too.
    void fastening()
    {
        for (const TorqueCard &card : m_build.torqueCards) {
            const TorqueState state = torqueState(m_build, card);
            const std::string stop = card.fasteners.front().stop;
            if (state.halfWay)
                add("torque_" + card.id, Mark::LookAgain, stop,
                    card.name + ": not all at the last stage",
                    { "find.next_bolt",
                      "Go on with bolt {0}, stage {1}",
                      { asCount(state.tighten->fastener), asCount(state.tighten->stage) } },
                    Place::Clearances);
            else if (state.outOfOrder)
                add("torque_" + card.id, Mark::LookAgain, stop,
                    card.name + ": tightened out of order",
                    "Loosen in reverse and tighten again in order", Place::Clearances);
            if (state.complete() && card.singleUse && !state.allNew())
                add("bolts_" + card.id, Mark::LookAgain, stop,
                    card.name + ": test bolts are in, and these stretch",
                    "New bolts for the build, once nothing is to be gauged any more",
                    Place::Clearances);
        }
    }

    const Build &m_build;
    const Figures &m_in;
    std::vector<StopMarks> m_marks;
    std::vector<Finding> m_findings;
    std::vector<const FlowSeen *> m_flows; ///< oil seen to come, as it stands
};

} // namespace

std::pair<std::vector<StopMarks>, std::vector<Finding>> judge(const Build &build,
                                                              const Figures &figures)
{
    return Judge(build, figures).run();
}

} // namespace mildpath
