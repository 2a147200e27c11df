// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/checksreport.h"

#include "document/logbook.h"

#include <map>

namespace mildpath {
namespace {

bool isShown(const Check &c, const ChecksShown &shown)
{
    if (!c.asked && !shown.all)
        return false;
    if (shown.openOnly && !(c.asked && c.isOpen()))
        return false;
    return !shown.gate || c.kind->gate() <= *shown.gate;
}

constexpr std::array<std::string_view, 7> evidenceWords { "yes",    "no",     "unsure", "figure",
                                                          "breaks", "undoes", "ages" };

constexpr std::array<std::string_view, 4> evidentWords { "none", "yes", "unsure", "no" };

Json orNull(const std::optional<double> &v)
{
    return v ? Json(*v) : Json();
}

Json evidenceToJson(const Evidence &e)
{
    Json out = { { "says", evidenceWords[static_cast<size_t>(e.kind)] },
                 { "at", e.at },
                 { "by", e.by },
                 { "means", e.means },
                 { "text", render(e.text, fileStyle) } };
    if (e.figure) {
        out["value"] = e.figure->value;
        out["expanded"] = e.figure->expanded;
        out["least"] = orNull(e.figure->least);
        out["most"] = orNull(e.figure->most);
    }
    return out;
}

Json checkToJson(const CheckList &list, const Check &c, const ChecksShown &shown)
{
    Json out = { { "id", c.id() },
                 { "kind", c.kind->id },
                 { "place", c.place.id },
                 { "state", wordOf(c.state) },
                 { "class", wordOf(c.cls) },
                 { "gate", wordOf(c.kind->gate()) },
                 { "reason", render(c.reason, fileStyle) } };
    if (const auto cost = shown.costs.find(c.id()); cost != shown.costs.end())
        out["cost"] = { { "harm", cost->second.harm },
                        { "state", cost->second.state },
                        { "stop", cost->second.stop },
                        { "text", render(cost->second.text, fileStyle) } };
    if (shown.all)
        out["asked"] = c.asked;
    if (!shown.evidence)
        return out;
    out["computed"] = c.kind->isComputed();
    out["evident"] = evidentWords[static_cast<size_t>(c.evident)];
    out["own_class"] = wordOf(c.kind->cls);
    out["on_assumed"] = c.onAssumed;
    out["evidence"] = Json::array();
    for (const Evidence &e : c.timeline)
        out["evidence"].push_back(evidenceToJson(e));
    out["after"] = Json::array();
    for (const size_t i : c.after)
        out["after"].push_back(list.all()[i].id());
    out["signatures"] = Json::array();
    for (const CheckSignature &s : c.signatures)
        out["signatures"].push_back(
            { { "by", s.signOff.by }, { "void", render(s.voidBecause, fileStyle) } });
    return out;
}

} // namespace

Json checksToJson(const Build &build, const CheckList &list, const ChecksShown &shown)
{
    Json out;
    out["checks"] = Json::array();
    for (const Check &c : list.all())
        if (isShown(c, shown))
            out["checks"].push_back(checkToJson(list, c, shown));
    for (const std::string_view word : enumWords<CheckGate>()) {
        const GateState &g = list.gate(*fromWord<CheckGate>(word));
        out["gates"][std::string(word)]
            = { { "open", g.open }, { "open_checks", g.openChecks }, { "holds", g.holds } };
    }
    if (shown.evidence) {
        const Job *job = currentJob(build);
        out["alone"] = job && job->alone;
    }
    return out;
}

std::string checksText(const Build &build, const CheckList &list, const ChecksShown &shown,
                       const UnitStyle &style)
{
    std::string out;
    const auto line = [&](const Phrase &p) { out += render(p, style) + "\n"; };
    if (!currentJob(build))
        line("Say what the job is: until then nothing else is asked, and every gate is closed");
    std::optional<Stage> stage;
    for (const Check &c : list.all()) {
        if (!isShown(c, shown))
            continue;
        if (stage != c.kind->stage) {
            stage = c.kind->stage;
            out += "\n";
            line(std::string(aboutStage(*stage).name));
            if (!aboutStage(*stage).caution.empty())
                line({ "checks.caution", "  Caution: {0}", { aboutStage(*stage).caution } });
        }
        line({ "checks.row",
               "  {0}  {1}: {2}. {3}",
               { c.id(), c.place.id == wholeEngine ? c.kind->statement : c.place.name,
                 markWord(markOf(c)), c.reason } });
        if (const auto cost = shown.costs.find(c.id());
            cost != shown.costs.end() && cost->second.harm > 0)
            line({ "checks.cost",
                   "      if false, harm {0}: {1}",
                   { asCount(cost->second.harm), cost->second.text } });
    }
    out += "\n";
    for (const std::string_view word : enumWords<CheckGate>())
        line(list.says(*fromWord<CheckGate>(word)));
    for (const SignOff &s : list.stray())
        line({ "checks.stray",
               "Signed by {0} for what is no check any more, and void: {1}",
               { s.by, s.said.empty() ? s.hold : s.said } });
    return out;
}

} // namespace mildpath
