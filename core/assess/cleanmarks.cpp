// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/cleanmarks.h"

#include "assess/figuremarks.h"
#include "document/logbook.h"
#include "passage/plugs.h"
#include "quantity/dates.h"
#include "quantity/json.h"

#include <algorithm>

namespace mildpath {
namespace {

constexpr std::array bodies { StopKind::Pickup, StopKind::Pump,   StopKind::Relief,
                              StopKind::Filter, StopKind::Cooler, StopKind::Tank,
                              StopKind::Turbo,  StopKind::Phaser, StopKind::Scavenge };

std::string dayOf(const std::string &at)
{
    return at.empty() ? "" : ", " + dayText(at.substr(0, 10));
}

Json lengthToJson(const PassageNetwork &n, const Length &l)
{
    return { { "passage", n.passages()[static_cast<size_t>(l.passage)].id },
             { "from_mm", l.from_mm },
             { "to_mm", l.to_mm } };
}

std::string placeName(const PassageNetwork &n, const CleaningStep &s)
{
    return s.out ? endName(n, *s.out) : s.word;
}

} // namespace

std::string nextFor(const PassageState &passage)
{
    std::string out;
    for (const std::string &m : passage.missing)
        out += (out.empty() ? "" : ", then ") + m;
    return out.empty() ? "Swarf left there stays: take the plug out that closes it"
                       : "Asked for: " + out;
}

Mark markOf(const PassageState &p)
{
    switch (p.state) {
    case CleanState::NothingDone:
        return Mark::NotDone;
    case CleanState::Begun:
        // Known to be dirty and cleaned half way is more than not begun.
        return p.machined ? Mark::LookAgain : Mark::NotDone;
    case CleanState::Grey:
    case CleanState::Aged:
        return Mark::LookAgain;
    case CleanState::Dirty:
    case CleanState::Blocked:
        return Mark::Hold;
    case CleanState::Clean:
        break;
    }
    return p.machined && p.unreached_mm > 0 ? Mark::LookAgain : Mark::Proven;
}

Mark markOf(const CleaningStep &step, const CleaningBook &book)
{
    Mark worst = Mark::Proven;
    for (const Length &l : step.lengths)
        worst = worse(worst, markOf(book.passages[static_cast<size_t>(l.passage)]));
    return worst;
}

Mark markOf(const PlugState &p)
{
    return p.seen && p.place != PlugPlace::Out ? Mark::Proven : Mark::Hold;
}

Mark markOf(const ChainLink &link, const CleanEvent &event)
{
    switch (link.after) {
    case CleanState::Clean:
        return Mark::Proven;
    case CleanState::Dirty:
    case CleanState::Blocked:
        return Mark::Hold;
    case CleanState::Grey:
    case CleanState::Aged:
        return Mark::LookAgain;
    case CleanState::NothingDone:
    case CleanState::Begun:
        break;
    }
    return doneMark(event.result == "white" || event.result == "clear"
                    || event.result == "through");
}

Mark missingMark(const PassageState &state)
{
    return state.state == CleanState::Aged ? Mark::LookAgain : Mark::NotDone;
}

Mark markOf(const DebrisFind &find)
{
    const auto guesses = guessDebris(find);
    if (!find.settled.empty() || (!guesses.empty() && !guesses.front().warning))
        return Mark::Proven;
    if (guesses.empty())
        return Mark::NotDone;
    return find.colour == "copper" ? Mark::Hold : Mark::LookAgain;
}

std::string plugVerdict(const PlugState &p)
{
    const std::string who = p.by.empty() ? "" : " by " + p.by + dayOf(p.at);
    std::string out;
    switch (p.place) {
    case PlugPlace::NotTouched:
        out = "as it came";
        break;
    case PlugPlace::Out:
        return "out, drawn" + who;
    case PlugPlace::Left:
        out = "left in" + who + (p.reason.empty() ? "" : ": " + p.reason);
        break;
    case PlugPlace::In:
        out = "in" + (p.seal.empty() ? "" : ", " + p.seal) + who;
        break;
    }
    return out
        + (p.seen ? "; seen by " + (p.seenBy.empty() ? "somebody" : p.seenBy)
                  : "; not seen in its place");
}

bool hasBodyToClean(StopKind stopKind)
{
    return std::find(bodies.begin(), bodies.end(), stopKind) != bodies.end();
}

BuildPlan cleaningPlanOf(const Build &build)
{
    BuildPlan out { PassageNetwork(build.passages, build.plugs), {} };
    const CleaningBook book = readBook(out.network, build.events, stopKindsOf(build));
    CleaningWishes wishes;
    for (size_t i = 0; i < book.plugs.size(); ++i)
        if (book.plugs[i].place == PlugPlace::Left)
            wishes.staying[static_cast<int>(i)] = book.plugs[i].reason;
    for (size_t i = 0; i < build.engine.stops.size(); ++i)
        wishes.rank[build.engine.stops[i].id] = static_cast<int>(i);
    wishes.drawAll = choiceOf(build, "plugs_drawn") == "all";
    out.plan = planCleaning(out.network, wishes);
    return out;
}

Json cleaningPlanToJson(const BuildPlan &p)
{
    const PassageNetwork &n = p.network;
    const auto plugIds = [&](const std::vector<int> &plugs) {
        Json out = Json::array();
        for (const int i : plugs)
            out.push_back(n.plugs()[static_cast<size_t>(i)].id);
        return out;
    };
    Json out = { { "pulls", p.plan.pulls },
                 { "flushes", p.plan.flushes },
                 { "passable_mm", p.plan.passable_mm },
                 { "covered_mm", p.plan.covered_mm },
                 { "minimal", p.plan.minimal } };
    out["draw"] = plugIds(p.plan.draw);
    out["steps"] = Json::array();
    for (const CleaningStep &s : p.plan.steps) {
        Json step = { { "kind", s.flush ? "flush" : "pull" },
                      { "in", endName(n, s.in) },
                      { "to", placeName(n, s) },
                      { "narrowest_mm", s.narrowest_mm } };
        if (!s.flush)
            step["brush_mm"] = s.brush_mm;
        step["plugs_out"] = plugIds(s.plugs);
        step["lengths"] = Json::array();
        for (const Length &l : s.lengths)
            step["lengths"].push_back(lengthToJson(n, l));
        out["steps"].push_back(std::move(step));
    }
    out["left"] = Json::array();
    for (const LeftLength &l : p.plan.left) {
        Json left = lengthToJson(n, l.length);
        left["why"] = l.why;
        out["left"].push_back(std::move(left));
    }
    return out;
}

Phrase cleaningPlanSummary(const BuildPlan &p)
{
    return {
        "clean.plan",
        p.plan.minimal
            ? "{0} brush {0|pass|passes} and {1} {1|flush|flushes} cover {2} of {3} that can be "
              "reached; no fewer will do."
            : "{0} brush {0|pass|passes} and {1} {1|flush|flushes} cover {2} of {3} that can be "
              "reached; fewer might do.",
        { asCount(p.plan.pulls), asCount(p.plan.flushes), asLength(p.plan.covered_mm, 0),
          asLength(p.plan.passable_mm, 0) }
    };
}

std::string cleaningPlanText(const BuildPlan &p, const UnitStyle &style)
{
    const PassageNetwork &n = p.network;
    std::string out = render(cleaningPlanSummary(p), style) + "\n";
    if (!p.plan.draw.empty())
        out += "\nPlugs to remove first:\n";
    std::vector<std::string> cautions;
    for (const int i : p.plan.draw) {
        const Plug &plug = n.plugs()[static_cast<size_t>(i)];
        const Passage *in = findPassage(n.passages(), plug.passage);
        out += "  " + plug.name + "  " + std::string(findPlugKind(plug.kind)->name) + ", "
            + in->name + "\n";
        const DrawingAdvice how = howToDraw(plug);
        for (const Phrase &line : how.steps)
            out += "      " + render(line, style) + "\n";
        for (const std::string &line : how.cautions)
            if (std::find(cautions.begin(), cautions.end(), line) == cautions.end())
                cautions.push_back(line);
    }
    for (const std::string &line : cautions)
        out += "  " + line + "\n";
    std::string part;
    int number = 0;
    for (const CleaningStep &s : p.plan.steps) {
        const Passage &in = n.passages()[static_cast<size_t>(s.in.passage)];
        if (in.part != part) {
            part = in.part;
            out += "\n" + std::string(partName(part)) + "\n";
        }
        out += "  " + std::to_string(++number) + "  " + endName(n, s.in)
            + (s.out || s.word.starts_with("into") ? " -> " : ", ") + placeName(n, s)
            + (s.flush ? "  flush" : "  brush " + render(asLength(s.brush_mm, 0), style)) + "\n";
    }
    if (!p.plan.left.empty())
        out += "\nNot reached:\n";
    for (const LeftLength &l : p.plan.left)
        out += "  " + n.passages()[static_cast<size_t>(l.length.passage)].name + ", "
            + render(asLength(l.length.length_mm(), 0), style) + ": " + l.why + "\n";
    return out;
}

} // namespace mildpath
