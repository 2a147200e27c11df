// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/sheetrecords.h"

#include "assess/cleanmarks.h"
#include "checks/assessment.h"
#include "checks/ownkinds.h"
#include "checks/places.h"
#include "document/logbook.h"
#include "passage/plugs.h"
#include "quantity/dates.h"
#include "study/looks.h"
#include "study/weights.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

std::vector<SheetBlock> under(Phrase heading, SheetTable table)
{
    if (table.rows.empty())
        return {};
    std::vector<SheetBlock> out;
    out.emplace_back(SheetHeading { std::move(heading) });
    out.emplace_back(std::move(table));
    return out;
}

/// "T. Quill, 12 Mar 2026"; empty where nobody and no day is known.
Phrase whoWhen(const std::string &by, const std::string &at)
{
    if (by.empty() && at.empty())
        return {};
    return { "sheet.who",
             at.empty() ? "{0}" : "{0}, {1}",
             { whoText(by), dayText(at.substr(0, 10)) } };
}

/// Who saw a plug in its place: by the logbook of the passages, or as it was said of the check.
Phrase seenText(const CheckList &checks, const PlugState &state)
{
    if (!state.seenBy.empty())
        return whoWhen(state.seenBy, state.seenAt);
    const Check *c = checks.find("plugseen@" + state.plug);
    const Evidence *last = nullptr;
    if (c && c->state == CheckState::Proven)
        for (const Evidence &e : c->timeline)
            if (e.kind == Evidence::Kind::Yes)
                last = &e;
    if (last)
        return whoWhen(last->seenBy.empty() ? last->by : last->seenBy, last->at);
    return state.place == PlugPlace::In ? Phrase("not seen") : Phrase();
}

} // namespace

std::vector<SheetBlock> instrumentBlocks(const Build &build)
{
    SheetTable t { { "instrument", "kind", "± U, k = 2", "zero", "held against a standard" },
                   { 0.28, 0.22, 0.14, 0.12, 0.24 },
                   {} };
    std::set<std::string> described;
    for (const Instrument *i : standing(build.instruments)) {
        const InstrumentKind *kind = findInstrumentKind(i->kind);
        described.insert(i->name);
        const auto figure = [&](const std::optional<double> &value, double times) {
            return value && kind ? asPhrase(kind->figure(*value * times)) : Phrase("not said");
        };
        t.rows.push_back({ { i->name },
                           { kind ? std::string(kind->name) : i->kind },
                           { figure(i->u, 2) },
                           { figure(i->zero, 1) },
                           { i->checked.empty() ? Phrase("not said")
                                                : joinedBy({ Phrase(dayText(i->checked)),
                                                             Phrase(i->standard) }) } });
    }
    std::set<std::string> named;
    for (const Reading *r : standingReadings(build))
        if (!r->instrument.empty() && !described.contains(r->instrument))
            named.insert(r->instrument);
    for (const std::string &name : named)
        t.rows.push_back({ { name }, { "named in readings" }, { "not said" }, {}, {} });
    return under("Measured with", std::move(t));
}

std::vector<SheetBlock> weightBlocks(const Build &build)
{
    SheetTable t { { "part", "how far apart", "weighed", "who allows it" },
                   { 0.26, 0.42, 0.1, 0.22 },
                   {} };
    for (const WeightSpread &w : judgeWeights(build))
        if (!w.grams.empty())
            t.rows.push_back({ { w.name, w.mark },
                               { w.verdict },
                               { asPhrase(asCount(w.grams.size())) },
                               { w.source } });
    return under("Weights", std::move(t));
}

std::vector<SheetBlock> ownBlocks(const Assessment &assessment)
{
    SheetTable t { { "check", "at", "state" }, { 0.46, 0.2, 0.34 }, {} };
    for (const Check &c : assessment.checks.all())
        if (c.kind->id == ownKind && c.asked)
            t.rows.push_back(
                { { std::string(c.kind->statement), markOf(c) }, { c.place.name }, { c.reason } });
    return under("Checks of one's own", std::move(t));
}

std::vector<SheetBlock> lookBlocks(const Build &build, const std::string &date)
{
    SheetTable t { { "what is looked at again", "every", "when", "since" },
                   { 0.34, 0.26, 0.26, 0.14 },
                   {} };
    for (const LookToCome &l : looksToCome(build, std::string_view(date).substr(0, 10)))
        t.rows.push_back({ { l.look->item, l.mark() },
                           { l.every },
                           { l.says },
                           { dayText(l.look->at.substr(0, 10)) } });
    return under("Next looks", std::move(t));
}

std::vector<SheetBlock> plugBlocks(const Build &build, const Assessment &assessment)
{
    SheetTable t { { "plug", "in", "kind", "state", "fitted", "seen in its place" },
                   { 0.13, 0.2, 0.18, 0.15, 0.17, 0.17 },
                   {} };
    for (const PlugState &s : assessment.cleaning.plugs) {
        const Plug *plug = findPlug(build.plugs, s.plug);
        if (!plug)
            continue;
        const Passage *passage = findPassage(build.passages, plug->passage);
        const PlugKind *kind = findPlugKind(plug->kind);
        const bool out = s.place == PlugPlace::Out, in = s.place == PlugPlace::In;
        std::string state = out                ? "out"
            : in                               ? "in" + (s.seal.empty() ? "" : ", " + s.seal)
            : s.place == PlugPlace::NotTouched ? "not touched"
                                               : "left in, " + s.reason;
        t.rows.push_back(
            { { plug->name, worstAsked(assessment.checks, { "plugin", "plugseen" }, s.plug) },
              { passage ? passage->name : plug->passage },
              { (kind ? std::string(kind->name) : plug->kind)
                + (plug->thread.empty() ? "" : ", " + plug->thread) },
              { std::move(state) },
              { in ? whoWhen(s.by, s.at) : Phrase() },
              { seenText(assessment.checks, s) } });
    }
    return under("Plugs", std::move(t));
}

std::vector<SheetBlock> cleaningBlocks(const Build &build)
{
    SheetTable t { { "when", "what", "where", "found", "by" }, { 0.2, 0.2, 0.26, 0.18, 0.16 }, {} };
    for (const CleanEvent *e : inOrder(build.events)) {
        const EventKind *kind = findEventKind(e->kind);
        if (e->scope == "plug") // plugs have a table of their own
            continue;
        Phrase found = e->result;
        if (!e->means.empty())
            found = joinedBy({ Phrase(e->result), Phrase(e->means) });
        if (e->days > 0)
            found = { "sheet.stored", "{0} {0|day|days}", { asCount(static_cast<int>(e->days)) } };
        t.rows.push_back({ { dayText(e->at) },
                           { kind ? std::string(kind->name) : e->kind },
                           { targetName(build, *e) },
                           { std::move(found) },
                           { whoText(e->by) } });
    }
    return under("Cleaning", std::move(t));
}

std::vector<SheetBlock> torqueBlocks(const Build &build, const Assessment &assessment)
{
    SheetTable t { { "bolts", "stages", "source", "at the last stage", "last turned" },
                   { 0.2, 0.28, 0.16, 0.18, 0.18 },
                   {} };
    for (const TorqueCard &card : build.torqueCards) {
        const TorqueState state = torqueState(build, card);
        const auto last = static_cast<int>(card.stages.size());
        const auto done = std::ranges::count(state.bolts, last, &TorqueState::Bolt::stage);
        std::vector<Phrase> stages;
        for (const TorqueStage &s : card.stages)
            stages.push_back(stageText(s));
        const TorqueTick *tick = nullptr;
        for (const TorqueTick &k : build.ticks)
            if (k.card == card.id)
                tick = &k;
        t.rows.push_back(
            { { card.name
                    + (card.singleUse() ? state.allNew() ? ", new bolts" : ", used once: new wanted"
                                        : ""),
                worstAsked(assessment.checks, { "torq", "bolts" }, card.id) },
              { joinedBy(stages, "{*|, then }") },
              { joinedBy({ Phrase(cardSource(card)), Phrase(card.threads) }) },
              { { "sheet.of", "{0} of {1}", { asCount(done), asCount(state.bolts.size()) } } },
              { tick ? whoWhen(tick->by, tick->at) : Phrase() } });
    }
    return under("Bolts", std::move(t));
}

std::vector<SheetBlock> lineBlocks(const Build &build, const Assessment &assessment)
{
    SheetTable t { { "from", "to", "made for", "followed by hand" }, { 0.3, 0.3, 0.16, 0.24 }, {} };
    for (const ExternalLine &l : linesOf(build))
        t.rows.push_back(
            { { portName(build, l.from),
                worstAsked(assessment.checks, { "lway", "lhose", "lclean" }, l.id) },
              { portName(build, l.to) },
              { l.rating.empty() ? "not known" : l.rating },
              { l.by.empty() && l.at.empty() ? Phrase("nobody yet") : whoWhen(l.by, l.at) } });
    return under("Lines", std::move(t));
}

std::vector<SheetBlock> findBlocks(const Build &build)
{
    SheetTable t { { "found", "where", "may be", "settled", "photos", "by" },
                   { 0.18, 0.16, 0.2, 0.16, 0.14, 0.16 },
                   {} };
    for (const DebrisFind *f : standing(build.finds)) {
        const Stop *stop = build.engine.find(f->stop);
        const auto guesses = guessDebris(*f);
        std::string photos;
        for (const std::string &p : f->photos)
            photos += (photos.empty() ? "" : ", ") + p;
        t.rows.push_back({ { f->colour + ", " + f->size, markOf(*f) },
                           { stop ? stop->name : f->place },
                           { guesses.empty() ? "" : std::string(guesses.front().kind) },
                           { f->settled },
                           { photos },
                           { whoWhen(f->by, f->at) } });
    }
    return under("Found in the engine", std::move(t));
}

std::vector<SheetBlock> failureBlocks(const Build &build, const Assessment &assessment)
{
    std::vector<SheetBlock> out;
    for (const Spread &spread : assessment.spreads) {
        const Stop *stop = build.engine.find(spread.stop);
        SheetTable t { { "part", "rule", "done", "by" }, { 0.24, 0.34, 0.2, 0.22 }, {} };
        for (const SpreadItem &i : spread.items)
            t.rows.push_back({ { i.name, i.mark },
                               { i.rule },
                               { i.done.empty() ? Phrase("open")
                                                : joinedBy({ Phrase(i.done), Phrase(i.note) }) },
                               { i.done.empty() ? Phrase() : whoWhen(i.by, i.at) } });
        for (SheetBlock &b : under({ "sheet.failed",
                                     "{0} failed: the oil's way from there",
                                     { stop ? stop->name : spread.stop } },
                                   std::move(t)))
            out.push_back(std::move(b));
    }
    return out;
}

} // namespace mildpath
