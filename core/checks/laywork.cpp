// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

#include "assess/cleanmarks.h"
#include "assess/figuremarks.h"
#include "assess/figures.h"
#include "checks/buying.h"
#include "document/logbook.h"
#include "passage/cleaningplan.h"
#include "quantity/dates.h"
#include "rules/rules.h"
#include "study/looks.h"
#include "study/weights.h"

#include <algorithm>

namespace mildpath {
namespace {

using Kind = Evidence::Kind;

Evidence made(Kind kind, const Record &record, Phrase text)
{
    Evidence out;
    out.kind = kind;
    out.at = record.at;
    out.by = record.by;
    out.text = std::move(text);
    return out;
}

class Work
{
public:
    explicit Work(CheckBoard &board)
        : m_board(board)
        , m_build(board.build)
        , m_in(board.figures)
    {
    }

    void run()
    {
        for (size_t i = 0; i < m_in.cleaning.passages.size(); ++i)
            passage(m_in.cleaning.passages[i]);
        EntryClock clock;
        for (const CleanEvent *e : inOrder(m_build.events))
            event(*e, e->dated ? e->at : clock(e->at));
        for (const DebrisFind *f : standing(m_build.finds))
            find(*f);
        signs();
        shop();
        orders();
        lines();
        proofs();
        looks();
        weights();
    }

private:
    /// The cleaning logbook is the ledger of what is clean; what it comes to is evidence here.
    void passage(const PassageState &p)
    {
        Evidence e;
        e.at = p.provenAt;
        e.text = p.reason;
        e.next = nextFor(p);
        switch (p.state) {
        case CleanState::Clean:
            e.kind = Kind::Yes;
            m_board.say("pocket", p.passage, e);
            break;
        case CleanState::Grey:
        case CleanState::Blocked:
            e.kind = Kind::No;
            break;
        case CleanState::Dirty:
            e.kind = Kind::Breaks;
            e.text = p.soiled;
            m_board.say("pocket", p.passage, e);
            m_board.say("restr", p.passage, e);
            break;
        case CleanState::Aged: // days are the last wash's to count
            e.kind = Kind::Yes;
            break;
        case CleanState::NothingDone:
        case CleanState::Begun:
            if (Check *c = m_board.find("clean", p.passage); c && p.state == CleanState::Begun)
                c->reason = p.reason; // kept where nothing else is said
            return;
        }
        m_board.say("clean", p.passage, std::move(e));
    }

    void event(const CleanEvent &e, const std::string &at)
    {
        const EventKind *kind = findEventKind(e.kind);
        if (!kind)
            return;
        if (kind->does == Does::Plug)
            return plug(e, at);
        if (kind->does == Does::Ages && e.days > (e.covered ? coveredDaysToWash : openDaysToWash))
            m_board.each("final", [&](Check &c) {
                if (e.scope == "all" || c.place.id == e.target)
                    c.timeline.push_back({ Kind::Ages,
                                           at,
                                           e.by,
                                           {},
                                           {},
                                           { "check.stored",
                                             e.covered ? "stored for {0} {0|day|days}, covered"
                                                       : "stored open for {0} {0|day|days}",
                                             { asCount(e.days) } } });
            });
        const bool washes = kind->does == Does::Washes;
        if (!washes && (kind->does != Does::Cleans || e.scope != "part"))
            return;
        Evidence done = made(Kind::Yes, e, std::string(kind->name));
        done.at = at;
        const auto on = [&](Check &c) {
            if (e.scope == "all" || c.place.id == e.target)
                c.timeline.push_back(done);
        };
        m_board.each("wash", on);
        if (washes)
            m_board.each("final", on);
    }

    void plug(const CleanEvent &e, const std::string &at)
    {
        const auto say = [&](std::string_view check, Kind kind, Phrase text) {
            Evidence out = made(kind, e, std::move(text));
            out.at = at;
            out.means = e.means;
            m_board.say(check, e.target, std::move(out));
        };
        if (e.kind != "plug_seen")
            m_isOut[e.target] = e.kind == "plug_out";
        if (e.kind == "plug_out") {
            say("plugout", Kind::Yes, "drawn");
            say("plugin", Kind::Undoes, "drawn");
            say("plugseen", Kind::Undoes, "drawn");
        }
        if (e.kind == "plug_left") {
            const bool reasoned = !e.note.empty();
            say("plugout", reasoned ? Kind::Yes : Kind::Unsure,
                reasoned ? "left in: " + e.note : std::string("left in, no reason said"));
            say("plugin", Kind::Yes, "left in");
        }
        if (e.kind == "plug_in") {
            m_fittedBy[e.target] = e.by;
            say("plugin", Kind::Yes, "in" + (e.note.empty() ? "" : ", " + e.note));
        }
        // What is out nobody can have seen in its place.
        if ((e.kind == "plug_seen" || (e.seen && e.kind != "plug_out")) && !m_isOut[e.target])
            seen(e, at);
    }
    /// Seen by another than who fitted it; alone, a photo stands for the other.
    void seen(const CleanEvent &e, const std::string &at)
    {
        const auto by = m_fittedBy.find(e.target);
        const Job *job = currentJob(m_build);
        const bool own = by != m_fittedBy.end() && by->second == e.by;
        const bool photo = job && job->alone && !e.photos.empty();
        Evidence out = made(own && !photo ? Kind::Unsure : Kind::Yes, e,
                            own && !photo ? "seen only by " + (e.by.empty() ? "whoever" : e.by)
                                    + ", who fitted it"
                                          : "seen" + (e.by.empty() ? "" : " by " + e.by));
        out.at = at;
        out.means = e.means;
        m_board.say("plugseen", e.target, std::move(out));
    }

    void find(const DebrisFind &f)
    {
        const std::string what(guessDebris(f).empty() ? std::string_view(f.colour)
                                                      : guessDebris(f).front().kind);
        if (!f.settled.empty())
            m_board.say("find", f.id, made(Kind::Yes, f, f.settled));
        else if (markOf(f) == Mark::Hold)
            m_board.say("find", f.id, made(Kind::No, f, what));
        else if (markOf(f) == Mark::LookAgain)
            m_board.say("find", f.id, made(Kind::Unsure, f, what));
        else if (markOf(f) == Mark::Proven)
            m_board.say("find", f.id, made(Kind::Yes, f, what));
    }

    void signs()
    {
        for (const Sign *s : standing(m_build.signs)) {
            const SignKind *k = findSignKind(s->sign);
            if (!k || standingSign(m_build.signs, s->stop, s->sign) != s)
                continue;
            const std::string place = s->stop + "#" + s->sign;
            if (!s->there)
                m_board.say("sign", place, made(Kind::Yes, *s, "looked for, not there"));
            else if (!s->settled.empty())
                m_board.say("sign", place, made(Kind::Yes, *s, s->settled));
            else
                m_board.say("sign", place,
                            made(k->holds ? Kind::No : Kind::Unsure, *s, std::string(k->meaning)));
        }
    }

    /// A sheet is out once it was sent; that it came back says the logbook of the passages.
    void shop()
    {
        for (const ShopJob *j : standing(m_build.shopJobs)) {
            const std::string &id = firstEntry(m_build.shopJobs, *j).id;
            const Order *sent = orderOf(m_build.orders, id);
            const auto back = std::find_if(m_build.events.begin(), m_build.events.end(),
                                           [&](const CleanEvent &e) { return e.id == j->event; });
            if (sent && sent->isOut())
                m_board.say("ask", id, made(Kind::Yes, *sent, "sent" + from(*sent)));
            else if (!j->event.empty())
                m_board.say("ask", id, made(Kind::Yes, *j, "sheet written, and back"));
            else if (Check *c = m_board.find("ask", id))
                c->reason = "sheet written, not sent";
            if (back != m_build.events.end())
                m_board.say("back", id, made(Kind::Yes, *back, "back"));
            else if (!j->event.empty())
                m_board.say("back", id, made(Kind::Yes, *j, "back"));
            else
                wait("back", id, sent, findCheckKind("ask")->waitDays, "at the shop");
        }
    }

    /// What was ordered is in hand once somebody says so; until then it is under way.
    void orders()
    {
        std::vector<BuyRow> rows; // only where something was ordered
        for (const Order *o : ordersOf(m_build.orders)) {
            if (isShopJob(m_build, o->row))
                continue;
            if (rows.empty())
                rows = buyRowsOf(m_build, m_in);
            Check *c = m_board.find("hand", o->row);
            if (!c)
                continue;
            c->reason = "to be ordered";
            wait("hand", o->row, o, findCheckKind("hand")->waitDays, "ordered");
            // What came before it was ordered again is another lot.
            m_board.say("hand", o->row, made(Kind::Undoes, *o, c->reason));
            if (Phrase differs = orderDiffers(*o, rows); !differs.empty())
                m_board.say("hand", o->row,
                            { Kind::Unsure, asItIsNow, {}, {}, {}, std::move(differs) });
        }
    }
    static std::string from(const Order &o) { return o.from.empty() ? "" : ", " + o.from; }

    /// What is out: when it should be here, and that somebody should ring once that day is past.
    void wait(std::string_view kind, const std::string &place, const Order *order, int usual_d,
              std::string_view where)
    {
        Check *c = m_board.find(kind, place);
        const auto out = underway(order, usual_d);
        if (!c || !out)
            return;
        c->due = out->due;
        c->promised = out->promised;
        // Nothing else was said of it yet.
        const bool late = c->isLate(std::string_view(m_board.today).substr(0, 10));
        c->reason = { late ? "order.late" : "order.due",
                      late ? "{0} since {1}{2}; was due {3}" : "{0} since {1}{2}; due {3}",
                      { std::string(where), nearDayText(out->since), from(*order),
                        nearDayText(out->due) } };
        if (late)
            c->next = { "order.ring",
                        "Ring {0}: {1} was due {2}",
                        { out->from.empty() ? std::string("them") : out->from, c->place.name,
                          nearDayText(out->due) } };
    }

    void lines()
    {
        for (const ExternalLine &l : linesOf(m_build)) {
            const auto fault = [&](std::string_view id) -> const LineFault * {
                for (const LineFault &f : m_in.lines.faults)
                    if (f.id == id && ends(f, l))
                        return &f;
                return nullptr;
            };
            Evidence e;
            e.at = l.at;
            e.by = l.by;
            if (const LineFault *vacuum = fault("no_vacuum")) {
                e.kind = Kind::No;
                e.text = vacuum->text;
                m_board.say("lhose", l.id, e);
            } else if (!l.rating.empty() && !l.by.empty()) {
                e.kind = Kind::Yes;
                e.text = "made for " + l.rating;
                m_board.say("lhose", l.id, e);
            }
            if (!l.by.empty() || !l.at.empty()) {
                e.kind = Kind::Yes;
                e.text = l.by.empty() ? "followed by hand" : "followed by hand by " + l.by;
                m_board.say("lway", l.id, e);
            }
            for (const LineFault &f : m_in.lines.faults)
                if (ends(f, l) && f.id != "no_vacuum" && f.id != "vacuum_unknown"
                    && f.id != "gauge_on_filter")
                    m_board.say("lway", l.id,
                                { f.mark == Mark::Hold ? Kind::No : Kind::Unsure,
                                  l.at,
                                  l.by,
                                  {},
                                  {},
                                  f.text });
        }
        // What no line is at fault for is a port's: open, or closed where oil should go.
        const auto lines = linesOf(m_build);
        for (const LineFault &f : m_in.lines.faults)
            if (f.id != "gauge_on_filter"
                && std::none_of(lines.begin(), lines.end(),
                                [&](const ExternalLine &l) { return ends(f, l); }))
                m_board.say("blank", wholeEngine,
                            { f.mark == Mark::Hold ? Kind::No : Kind::Unsure,
                              {},
                              {},
                              {},
                              {},
                              f.text,
                              {},
                              f.action });
        caps();
        if (gaugeOnFilterHead(m_build))
            m_board.say("gauge", wholeEngine,
                        { Kind::Unsure,
                          {},
                          {},
                          {},
                          {},
                          "on the filter head: there it reads well while the engine starves" });
    }
    /// Every port that wants one has a cap, somebody saw each, and no other port is at fault: what
    /// is open now is not closed by a cap seen later elsewhere.
    void caps()
    {
        Evidence e { Kind::Yes, {}, {}, {}, {}, "caps seen" };
        bool any = false;
        for (const Port &p : m_in.lines.ports) {
            const PortCap *cap = m_build.plumbing.capOf(p.id);
            any = any || cap;
            const bool unseen = cap && cap->by.empty() && cap->at.empty();
            if (unseen || portMark(m_in.lines, p.id) == Mark::Hold)
                return;
            if (cap && cap->at > e.at) {
                e.at = cap->at;
                e.by = cap->by;
            }
        }
        if (any)
            m_board.say("blank", wholeEngine, e);
    }
    static bool ends(const LineFault &f, const ExternalLine &l)
    {
        return std::find(f.ports.begin(), f.ports.end(), l.from) != f.ports.end()
            || std::find(f.ports.begin(), f.ports.end(), l.to) != f.ports.end();
    }

    /// Next looks are set once something is to be looked at again; what is due asks for it.
    void looks()
    {
        const auto looks = looksToCome(m_build, std::string_view(m_board.today).substr(0, 10));
        if (looks.empty())
            return;
        const LookToCome *latest = &looks.front(), *due = &looks.front();
        for (const LookToCome &l : looks)
            if (l.look->at > latest->look->at)
                latest = &l;
        m_board.say("again", wholeEngine,
                    made(Kind::Yes, *latest->look,
                         { "look.set", "{0}: every {1}", { latest->look->item, latest->every } }));
        if (!due->isDue())
            return;
        Evidence e { Kind::Unsure, asItIsNow, {}, {}, {}, named(due->look->item, due->says) };
        e.next = e.text;
        m_board.say("again", wholeEngine, std::move(e));
    }

    /// What is too far apart in weight is not as asked; that it is alike says nothing of the bores.
    void weights()
    {
        for (const WeightSpread &s : judgeWeights(m_build))
            if (s.mark == Mark::LookAgain && s.tolerance_g)
                m_board.say("asked", wholeEngine,
                            { Kind::Unsure, asItIsNow, {}, {}, {}, named(s.name, s.verdict) });
    }

    /// What older versions recorded of a stop as a whole. Good news counts only for what it names;
    /// bad news keeps the first check of its kind at the stop.
    void proofs()
    {
        EntryClock clock;
        for (const Proof &p : m_build.proofs) {
            const std::string &at = clock(p.at);
            if (!p.check.empty() || standingProof(m_build, p.stop, p.aspect) != &p)
                continue;
            const Stop *stop = m_build.engine.find(p.stop);
            if (!stop)
                continue;
            Evidence e { Kind::Yes, at, p.by, {}, {}, p.how.empty() ? "seen" : p.how };
            if (proofMark(p) != Mark::Proven) {
                e.kind = proofMark(p) == Mark::Hold ? Kind::No : Kind::Unsure;
                badNews(*stop, p.aspect, std::move(e));
            } else if (p.aspect == "clean") {
                goodNews(*stop, std::move(e));
            } else if (p.aspect == "size" && stop->kind == StopKind::Relief) {
                m_board.say("rfree", p.stop, std::move(e));
            }
        }
    }
    void goodNews(const Stop &stop, Evidence e)
    {
        if (stop.kind == StopKind::Relief)
            m_board.say("rseat", stop.id, std::move(e));
        else if (stop.kind == StopKind::Pump)
            m_board.say("wash", "pump", std::move(e));
        else if (stop.kind == StopKind::Pickup)
            m_board.say("wash", "pan", std::move(e));
    }
    void badNews(const Stop &stop, const std::string &aspect, Evidence e)
    {
        const Aspect of = aspect == "size" ? Aspect::Size
            : aspect == "clean"            ? Aspect::Clean
                                           : Aspect::Flow;
        const std::string_view first
            = of == Aspect::Size && (stop.kind == StopKind::Main || stop.kind == StopKind::BigEnd)
            ? "clr"
            : "";
        for (Check &c : m_board.checks)
            if (c.kind->aspect == of && c.place.stop == stop.id
                && (first.empty() || c.kind->id == first)) {
                c.timeline.push_back(std::move(e));
                return;
            }
    }

    CheckBoard &m_board;
    const Build &m_build;
    const Figures &m_in;
    std::map<std::string, std::string> m_fittedBy; ///< plug → who
    std::map<std::string, bool> m_isOut; ///< plugs that were drawn
};

} // namespace

void layWork(CheckBoard &board)
{
    Work(board).run();
}

} // namespace mildpath
