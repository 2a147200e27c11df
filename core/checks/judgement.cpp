// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/judgement.h"

#include "assess/circuitof.h"
#include "assess/figures.h"
#include "checks/assessment.h"
#include "document/document.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

struct MarkAndReason
{
    Mark mark = Mark::NotAsked;
    Phrase reason = "not asked by this job";
};

/// The worst asked check of one mark at a stop, with its reason.
MarkAndReason markAt(const CheckList &list, const std::string &stop, Aspect aspect)
{
    MarkAndReason out;
    const Check *worst = nullptr;
    int alike = 0;
    for (const Check &c : list.all()) {
        if (!CheckList::counts(c, stop, aspect))
            continue;
        const Mark mark = markOf(c);
        if (!worst || (mark != out.mark && worse(mark, out.mark) == mark)) {
            out.mark = mark;
            worst = &c;
            alike = 0;
        }
        alike += mark == out.mark;
    }
    if (!worst)
        return out;
    out.reason = joinedBy({ worst->statement(), worst->reason }, "{*|: }");
    if (alike > 1 && out.mark != Mark::Proven)
        out.reason = { "mark.more", "{0}; {1} more", { out.reason, asCount(alike - 1) } };
    return out;
}

std::vector<StopMarks> marksFrom(const Build &build, const CheckList &list)
{
    std::vector<StopMarks> out;
    for (const Stop &s : build.engine.stops) {
        const MarkAndReason size = markAt(list, s.id, Aspect::Size),
                            clean = markAt(list, s.id, Aspect::Clean),
                            flow = markAt(list, s.id, Aspect::Flow);
        out.push_back(
            { s.id, size.mark, clean.mark, flow.mark, size.reason, clean.reason, flow.reason });
    }
    return out;
}

/// What is odd, and no check: it is said, and holds nothing.
void remarks(const Build &build, const Figures &figures, std::vector<Finding> &out)
{
    if (clockWentBack(build.events))
        out.push_back({ "clock", Mark::LookAgain, "",
                        "The clock went back between two entries of the cleaning logbook",
                        "They count in the order they were written down; set the clock",
                        Place::Passages });
    if (const Stop *relief = build.engine.ofKind(StopKind::Relief);
        relief && reliefReturnOf(build) == ReliefReturn::Unknown)
        out.push_back({ "relief_return@" + relief->id, Mark::LookAgain, relief->id,
                        "Nobody knows where the relief valve lets its oil go: the forecast takes "
                        "the pump's inlet, the suction the sump",
                        "Look which way it goes: inlet or sump?", Place::Pump });
    if (figures.operating.unsolved)
        return;
    for (const OperatingResult *r : { &figures.operating.hotIdle, &figures.operating.highSpeed })
        for (const Warning &w : r->warnings)
            if (std::none_of(out.begin(), out.end(),
                             [&](const Finding &f) { return f.id == w.id; }))
                out.push_back(
                    { w.id, Mark::LookAgain, "", w.text, "See the forecast", Place::Forecast });
}

std::vector<Finding> findingsFrom(const Build &build, const Figures &figures, const CheckList &list)
{
    std::vector<Finding> out;
    for (const CheckState state : { CheckState::Hold, CheckState::LookAgain })
        for (const Check &c : list.all()) {
            if (!c.asked || c.state != state)
                continue;
            Phrase next = c.next;
            if (next.empty())
                next = state == CheckState::Hold ? "Fix it, then prove it again" : "Check again";
            out.push_back({ c.id(), markOf(c), c.place.stop,
                            joinedBy({ c.statement(), c.reason }, "{*|: }"), std::move(next),
                            placeOf(*c.kind) });
        }
    remarks(build, figures, out);
    return out;
}

} // namespace

Place placeOf(const CheckKind &kind)
{
    struct Row
    {
        std::string_view kinds;
        Place place;
    };
    // What does not go with its stage.
    static constexpr std::array<Row, 6> apart { {
        { "cold heat", Place::Heat },
        { "piston asked", Place::BoreFinish },
        { "film", Place::Film },
        { "air drain baffle", Place::Sump },
        { "card bolts torq", Place::Clearances },
        { "capway lube tang crush", Place::Clearances },
    } };
    for (const Row &r : apart)
        if (hasWord(r.kinds, kind.id))
            return r.place;
    switch (kind.stage) {
    case Stage::Strip:
    case Stage::Parts:
    case Stage::Clean:
        return kind.id == "job" ? Place::Start : Place::Passages;
    case Stage::Measure:
    case Stage::Assemble:
        return Place::Clearances;
    case Stage::Suction:
        return Place::Pump;
    case Stage::Filling:
        return Place::Route;
    case Stage::Desk:
        return Place::Forecast;
    case Stage::Prime:
    case Stage::Start:
        return Place::Start;
    case Stage::After:
        break;
    }
    return Place::After;
}

Judgement::Judgement(const Build &build, const Figures &figures, std::string_view today)
    : checks(checksOf(build, figures, today))
    , marks(marksFrom(build, checks))
    , findings(findingsFrom(build, figures, checks))
{
}

const StopMarks *Judgement::marksOf(std::string_view stop) const
{
    const auto it = std::find_if(marks.begin(), marks.end(),
                                 [&](const StopMarks &m) { return m.stop == stop; });
    return it == marks.end() ? nullptr : &*it;
}

Assessment::Assessment(const Build &build, std::string_view today)
    : Figures(build)
    , Judgement(build, static_cast<const Figures &>(*this), today)
{
}

Assessment assess(const Build &build, std::string_view today)
{
    return Assessment(build, today);
}

} // namespace mildpath
