// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

#include "assess/figuremarks.h"
#include "assess/figures.h"
#include "document/fastening.h"

#include <algorithm>
#include <map>

namespace mildpath {
namespace {

using Kind = Evidence::Kind;

/// What a mark of something seen or fitted says.
std::optional<Kind> saidBy(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return Kind::Yes;
    case Mark::LookAgain:
        return Kind::Unsure;
    case Mark::Hold:
        return Kind::No;
    default:
        return std::nullopt;
    }
}

class Sizes
{
public:
    explicit Sizes(CheckBoard &board)
        : m_board(board)
        , m_build(board.build)
        , m_in(board.figures)
    {
        EntryClock clock;
        for (const Reading &r : m_build.readings)
            m_when[r.id] = { clock(r.at), r.by };
    }

    void run()
    {
        for (const GaugedSize &s : m_in.sizes)
            size(s);
        for (auto &[where, sizes] : m_bySize)
            together(where.first, where.second, sizes);
        for (const FitVerdict &f : m_in.fits)
            fit(f);
        for (const FeedHole &f : m_in.feedHoles)
            feedHole(f);
        journals();
        ticks();
        fasteners();
    }

private:
    struct When
    {
        std::string at, by;
    };
    /// What is measured of one check.
    struct Of
    {
        int items = 0; ///< that must be read
        std::vector<Evidence> read;
    };

    /// The check a family's readings are about.
    static std::string_view checkOf(const Family &f)
    {
        if (f.id == "end_float")
            return "float";
        if (f.id == "run_out")
            return "runout";
        if (f.id == "pump_tip" || f.id == "pump_body")
            return "ptip";
        if (f.id == "pump_end")
            return "pend";
        if (f.id == "pump_backlash")
            return "pdrive";
        if (f.id == "lifter")
            return "lifclr";
        return f.shells ? "clr" : "bush";
    }
    static std::string placeOf(const Family &f, const GaugedSize &s)
    {
        const auto check = checkOf(f);
        if (check == "float" || check == "runout")
            return std::string(wholeEngine);
        if (check == "lifclr" || check == "bush")
            return s.stop + "#" + std::to_string(s.item);
        return s.stop;
    }

    void size(const GaugedSize &s)
    {
        const Family &family = *findFamily(s.family);
        // A drive's backlash alone says nothing of the rest of it: only a bad one counts.
        if (s.family == "pump_backlash" && s.mark != Mark::Hold)
            return;
        Of &of = m_bySize[{ checkOf(family), placeOf(family, s) }];
        of.items += !family.optional;
        if (s.methods.empty())
            return; // not measured
        Evidence e = latest(s);
        e.means = s.method();
        e.text = s.verdict;
        e.next = s.next;
        if (!s.measured) {
            e.kind = Kind::Unsure;
        } else {
            LimitedFigure f { s.cold_um.value, s.cold_um.expanded(), {}, {} };
            if (s.limits) {
                f.most = s.limits->max_um;
                if (s.limits->min_um > 0)
                    f.least = s.limits->min_um;
            }
            // What keeps a figure that is inside from being proof, the sizes say.
            e.kind = s.mark == Mark::LookAgain && evidentOf(f) == Evident::Yes ? Kind::Unsure
                                                                               : Kind::Figure;
            e.figure = f;
        }
        of.read.push_back(std::move(e));
    }
    /// Tips and body are one check: the worse speaks, and all must have been read.
    void together(std::string_view check, const std::string &place, const Of &of)
    {
        if (of.read.empty())
            return;
        const auto says = [](const Evidence &e) {
            return e.kind == Kind::Figure ? evidentOf(*e.figure) : Evident::Unsure;
        };
        const auto worst = std::max_element(
            of.read.begin(), of.read.end(),
            [&](const Evidence &a, const Evidence &b) { return says(a) < says(b); });
        Evidence out = *worst;
        for (const Evidence &e : of.read)
            out.at = std::max(out.at, e.at);
        if (static_cast<int>(of.read.size()) >= of.items || says(*worst) == Evident::No)
            m_board.say(check, place, std::move(out));
    }

    Evidence latest(const GaugedSize &s) const
    {
        Evidence out;
        for (const JudgedReading &r : s.readings)
            if (const auto at = m_when.find(r.id); at != m_when.end() && at->second.at >= out.at) {
                out.at = at->second.at;
                out.by = at->second.by;
            }
        return out;
    }

    /// A dimension of the document has no day: it is so now. What somebody said earlier does not
    /// outweigh one that is wrong; one that is right outweighs nobody.
    static std::string asEntered(Kind kind) { return kind == Kind::Yes ? "" : asItIsNow; }

    void fit(const FitVerdict &f)
    {
        const auto kind = saidBy(f.mark);
        if (!kind)
            return;
        const std::string_view check = f.id == "scoring" ? "pflat"
            : f.id == "relief_spring"                    ? "rspring"
            : f.id == "oring"                            ? "kring"
                                                         : "kgap";
        m_board.say(check, f.stop,
                    { *kind,
                      asEntered(*kind),
                      {},
                      {},
                      {},
                      joinedBy({ f.title, f.detail }, "{*|: }"),
                      {},
                      f.next });
    }

    /// Little open is to be looked at again; it holds only where the bearing is starved by it.
    void feedHole(const FeedHole &f)
    {
        const Stop *stop = m_build.engine.find(f.stop);
        if (!stop || !stop->has("hole_offset_mm"))
            return; // nobody looked how they meet
        Kind kind = f.openShare >= feedShareFine ? Kind::Yes : Kind::Unsure;
        if (kind == Kind::Unsure && starves(f.stop))
            kind = Kind::No;
        m_board.say("feed", f.stop, { kind, asEntered(kind), {}, {}, {}, f.verdict, {}, f.next });
    }
    bool starves(const std::string &stop) const
    {
        for (const OperatingResult *r :
             { &m_in.operating.hotIdle, &m_in.operating.highSpeed, &m_in.operating.mostSpeed })
            for (const PointPressure &p : r->points)
                if (p.stop == stop && p.need_pa > 0 && p.ratio() < 1)
                    return true;
        return false;
    }

    /// Two instruments: the journal was read by itself.
    void journals()
    {
        for (const Reading *r : standingReadings(m_build)) {
            const Family *f = findFamily(r->family);
            if (!f || !f->shells || !r->journal_mm)
                continue;
            const When &when = m_when.at(r->id);
            m_board.say("jrnl", r->stop,
                        { Kind::Yes,
                          when.at,
                          when.by,
                          {},
                          r->instrument,
                          { "check.journal", "journal {0}", { asLength(*r->journal_mm, 3) } } });
        }
    }

    /// Points ticked at a stop; where two make one check, both are asked.
    void ticks()
    {
        std::map<std::pair<std::string, std::string_view>, std::vector<const TickKind *>> points;
        for (const Stop &s : m_build.engine.stops)
            for (const TickKind &t : tickKinds())
                if (t.stopKind == s.kind)
                    points[{ s.id, t.check }].push_back(&t);
        for (const auto &[where, kinds] : points)
            tick(where.first, where.second, kinds);
    }
    void tick(const std::string &stop, std::string_view check,
              const std::vector<const TickKind *> &kinds)
    {
        Evidence e;
        size_t done = 0;
        Mark worst = Mark::Proven;
        for (const TickKind *t : kinds)
            if (const Proof *p = standingCheck(m_build, stop, t->id)) {
                ++done;
                worst = worse(worst, proofMark(*p));
                if (p->at >= e.at) {
                    e.at = p->at;
                    e.by = p->by;
                    e.text = p->how.empty() ? std::string(t->text) : p->how;
                }
            }
        if (done < kinds.size() && worst == Mark::Proven)
            return;
        // What nobody may sign for is wrong as soon as somebody doubts it.
        if (worst == Mark::LookAgain && findCheckKind(check)->cls == CheckClass::Never)
            worst = Mark::Hold;
        e.kind = *saidBy(worst);
        m_board.say(check, stop, std::move(e));
    }

    void fasteners()
    {
        for (const TorqueCard &card : m_build.torqueCards) {
            const TorqueState state = torqueState(m_build, card);
            Evidence e;
            EntryClock clock;
            for (const TorqueTick &t : m_build.ticks)
                if (const std::string &at = clock(t.at); t.card == card.id) {
                    e.at = at;
                    e.by = t.by;
                }
            if ((state.complete() || state.outOfOrder) && !state.bolts.empty()) {
                e.kind = state.outOfOrder ? Kind::Unsure : Kind::Yes;
                e.text = state.outOfOrder ? "tightened out of order" : "all at the last stage";
                m_board.say("torq", card.id, e);
            } else if (state.halfWay) {
                const auto last = static_cast<int>(card.stages.size());
                const auto there = std::ranges::count_if(
                    state.bolts, [&](const TorqueState::Bolt &b) { return b.stage == last; });
                e.kind = Kind::No;
                e.text = { "bolts.begun",
                           "begun and not finished: {0} of {1} at the last stage",
                           { asCount(there), asCount(state.bolts.size()) } };
                m_board.say("torq", card.id, e);
            }
            if (card.singleUse() && state.allNew() && !state.bolts.empty()) {
                e.kind = Kind::Yes;
                e.text = "new bolts";
                m_board.say("bolts", card.id, e);
            }
        }
    }

    CheckBoard &m_board;
    const Build &m_build;
    const Figures &m_in;
    std::map<std::string, When> m_when; ///< of readings
    std::map<std::pair<std::string_view, std::string>, Of> m_bySize;
};

} // namespace

void laySizes(CheckBoard &board)
{
    Sizes(board).run();
}

} // namespace mildpath
