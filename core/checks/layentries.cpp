// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

#include "assess/figures.h"
#include "checks/visible.h"
#include "document/logbook.h"
#include "quantity/dates.h"
#include "rules/rules.h"

#include <algorithm>

namespace mildpath {
namespace {

using Kind = Evidence::Kind;

bool names(const std::vector<std::string> &list, const CheckPlace &place)
{
    return std::any_of(list.begin(), list.end(),
                       [&](const std::string &id) { return place.isMeantBy(id); });
}

/// Evidence of one entry for one check.
Evidence evidenceOf(const CheckBoard &board, const CheckEntry &e, const Check &check)
{
    Evidence out;
    out.at = e.at;
    out.by = e.by;
    out.seenBy = e.seenBy;
    out.means = e.means;
    const std::string note = e.note.empty() ? "" : ": " + e.note;
    if (e.says == "no") {
        out.kind = Kind::No;
        out.text = "seen to be wrong" + note;
        return out;
    }
    const CheckMeans *means = findCheckMeans(e.means);
    const std::string who = e.by.empty() ? "" : " by " + e.by;
    out.text = (means ? std::string(means->name) : std::string("seen so")) + who + note;
    const auto by
        = [&](char letter) { return check.kind->by.find(letter) != std::string_view::npos; };
    const Job *job = currentJob(board.build);
    const bool photo = job && job->alone && !e.photos.empty();
    if (by('W') && !photo && (e.seenBy.empty() || e.seenBy == e.by)) {
        out.kind = Kind::Unsure;
        out.text = "done" + who + ", seen by nobody else" + note;
    } else if (e.means == "paper" && !by('P') && !paperIsEnough(board, check)) {
        out.kind = Kind::Unsure;
        out.text = "only paper says so" + note;
    }
    return out;
}

/// A figure stands against the limits the place has; without limits it says no more than yes.
void figureOf(const CheckBoard &board, const CheckEntry &e, const Check &check, Evidence &said)
{
    const CheckPlace &p = check.place;
    if (!takesFigure(check))
        return;
    for (const GaugedSize &s : board.figures.sizes) {
        const bool here = p.family.empty()
            ? s.stop == p.stop && findFamily(s.family)->shells
            : (s.stop == p.stop && s.family == p.family && s.item == p.item);
        if (!here || !s.limits)
            continue;
        LimitedFigure f { *e.value, 2 * e.u.value_or(0), {}, s.limits->max_um };
        if (s.limits->min_um > 0)
            f.least = s.limits->min_um;
        said.figure = f;
        said.text = { "check.figure",
                      "{0}, limits {1}",
                      { Quantity { f.value * 1e-6, Shows::Clearance, f.expanded / 2 * 1e-6, -1,
                                   Form::PlusMinus },
                        QuantityRange { asLimit(s.limits->min_um), asLimit(*f.most) } } };
        if (e.says != "no")
            said.kind = Kind::Figure;
        return;
    }
}

} // namespace

void layEntries(CheckBoard &board)
{
    EntryClock clock;
    for (const CheckEntry *e : standing(board.build.checkEntries)) {
        const std::string &at = clock(e->at);
        // What is computed nobody can say; but whose engine was computed, and what has no passage.
        const CheckKind *kind = findCheckKind(e->kind);
        if (!kind || (kind->isComputed() && kind->id != "solved" && kind->id != "spread"))
            continue;
        board.each(e->kind, [&](Check &c) {
            if ((!e->places.empty() && !names(e->places, c.place)) || names(e->except, c.place))
                return;
            if (e->says == "none") {
                c.none = mayBeNone(*c.kind);
                return;
            }
            c.none = false;
            Evidence said = evidenceOf(board, *e, c);
            said.at = at;
            if (e->value)
                figureOf(board, *e, c, said);
            c.timeline.push_back(std::move(said));
        });
    }
}

namespace {

/// What an act says of a check: "filed".
Evidence evidenceOf(const Act &act, const ActKind &kind)
{
    Evidence out;
    out.at = act.at;
    out.by = act.by;
    const bool always = kind.letter == 'M' || kind.letter == 'F';
    const bool undoes = kind.letter == 'X' || kind.letter == 'R';
    out.kind = always ? Kind::Breaks : undoes ? Kind::Undoes : Kind::Ages;
    std::string text(kind.name);
    text[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(text[0])));
    out.text = text;
    return out;
}

/// What swarf and bearing metal do to passages the cleaning ledger works out.
bool isOfTheLedger(const Check &c)
{
    return hasWord("clean pocket restr", c.kind->id);
}

/// Instruments that were out of true take their readings since they were last good with them.
void outOfTrue(CheckBoard &board, const Act &act, const Evidence &evidence)
{
    for (Check &c : board.checks)
        if (c.kind->isSpoiltBy('i')
            && std::any_of(c.timeline.begin(), c.timeline.end(),
                           [&](const Evidence &e) { return e.means == act.instrument; }))
            c.timeline.push_back(evidence);
    for (const Reading *r : standingReadings(board.build)) {
        const Family *f = findFamily(r->family);
        if (r->instrument != act.instrument || !f)
            continue;
        board.eachAt(r->stop, [&](Check &c) {
            if (c.kind->isSpoiltBy('i') && c.kind->aspect == Aspect::Size)
                c.timeline.push_back(evidence);
        });
    }
}

/// Days make proofs old until what they guard was passed.
void age(CheckBoard &board)
{
    const auto passed = [&](const Check &c) {
        const Check *closed = nullptr;
        // Until it is closed up, or the engine has fired.
        const Check *fired = board.find("fire", wholeEngine);
        if (c.kind->id == "final" || c.kind->id == "lube" || c.kind->id == "roll")
            board.each("pan", [&](Check &pan) { closed = &pan; });
        for (const Check *by : { fired, closed })
            if (by && findsOf(by->timeline).evident == Evident::Yes)
                return true;
        return false;
    };
    for (Check &c : board.checks) {
        const auto days = c.kind->freshDays();
        if (!days || c.timeline.empty())
            continue;
        const Evidence &last = c.timeline.back();
        const auto since = daysBetween(last.at, board.today);
        if (!since || last.kind >= Kind::Breaks || passed(c))
            continue;
        const bool covered = isCovered(board, c);
        const double fresh = *days > 0 ? *days : covered ? coveredDaysToWash : openDaysToWash;
        if (*since <= fresh)
            continue;
        Evidence old;
        old.kind = Kind::Ages;
        old.text = { "check.old",
                     covered ? "{0} {0|day|days} covered since" : "{0} {0|day|days} since",
                     { asCount(*since) } };
        c.timeline.push_back(std::move(old));
    }
}

} // namespace

void layActs(CheckBoard &board)
{
    EntryClock clock;
    for (const Act *a : standing(board.build.acts)) {
        const std::string &at = clock(a->at);
        const ActKind *kind = findActKind(a->act);
        if (!kind)
            continue;
        Evidence e = evidenceOf(*a, *kind);
        e.at = at;
        if (kind->letter == 'i') {
            outOfTrue(board, *a, e);
            continue;
        }
        for (const std::string &place : a->places)
            board.eachAt(place, [&](Check &c) {
                // Swarf of such an act is in the ledger; whatever else it does is said here.
                const bool told = kind->letter == 'M' && isOfTheLedger(c);
                // Which looks the running makes due is counted by their intervals.
                const bool counted = kind->letter == 't' && c.kind->id == "again"
                    && !standing(board.build.nextLooks).empty();
                if (!told && !counted && c.kind->isSpoiltBy(kind->letter))
                    c.timeline.push_back(e);
                // What was said of the part before it is not said of the new one.
                if (kind->letter == 'R' && c.kind->id == "newpart")
                    std::erase_if(c.timeline, [&](const Evidence &old) { return old.at <= at; });
            });
    }
    // An engine that was opened again had its pan off.
    for (const Opening *o : standing(board.build.openings))
        board.eachAt("pan", [&](Check &c) {
            if (c.kind->isSpoiltBy('X'))
                c.timeline.push_back({ Kind::Undoes, o->at, o->by, {}, {}, "opened" });
        });
    for (const BearingFailure *f : standing(board.build.failures))
        for (const Spread &s : spreadsOf(board.build))
            if (s.failure == f->id)
                for (const SpreadItem &i : s.items)
                    board.eachAt(i.id, [&](Check &c) {
                        if (c.kind->isSpoiltBy('F') && c.kind->id != "spread" && !isOfTheLedger(c))
                            c.timeline.push_back(
                                { Kind::Breaks, f->at, f->by, {}, {}, "a bearing failed" });
                    });
    for (Check &c : board.checks)
        std::stable_sort(c.timeline.begin(), c.timeline.end(),
                         [](const Evidence &a, const Evidence &b) { return a.at < b.at; });
    dropUnseen(board);
    if (!board.today.empty())
        age(board);
}

} // namespace mildpath
