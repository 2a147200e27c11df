// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

#include "assess/figuremarks.h"
#include "assess/figures.h"
#include "checks/signing.h"
#include "document/logbook.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// Done while something they hide is open, these are closed over it.
constexpr std::array<std::string_view, 4> closingKinds { "plugin", "torq", "pan", "oilin" };
/// Oil was looked for there: where it did not come, no signature helps.
constexpr std::array<std::string_view, 4> oilKinds { "press", "seelif", "seeroc", "seejet" };

template <size_t n> bool isOneOf(const std::array<std::string_view, n> &kinds, const Check &c)
{
    return std::find(kinds.begin(), kinds.end(), c.kind->id) != kinds.end();
}

bool isSettled(const Check &c)
{
    return c.state == CheckState::Proven || c.state == CheckState::SignedOff;
}

/// What stands where nothing was said.
std::string_view undone(const CheckKind &kind)
{
    switch (kind.by.empty() ? 'D' : kind.by.front()) {
    case 'G':
    case 'B':
        return "not measured";
    case 'L':
    case 'W':
        return "not looked at";
    case 'P':
        return "no paper";
    case 'C':
        return "not computed";
    default:
        return "not done";
    }
}

CheckState stateOf(Evident evident)
{
    switch (evident) {
    case Evident::Yes:
        return CheckState::Proven;
    case Evident::Unsure:
        return CheckState::LookAgain;
    case Evident::No:
        return CheckState::Hold;
    case Evident::None:
        break;
    }
    return CheckState::NotDone;
}

class Settling
{
public:
    explicit Settling(CheckBoard &board)
        : m_board(board)
        , m_done(board.checks.size())
        , m_signing(board.build)
    {
    }

    void run()
    {
        for (size_t i = 0; i < m_done.size(); ++i)
            settle(i);
    }

private:
    void settle(size_t i)
    {
        if (m_done[i])
            return;
        m_done[i] = true;
        Check &c = m_board.checks[i];
        for (const size_t before : c.after)
            settle(before);
        judge(c);
        if (c.evident == Evident::Yes && isOneOf(closingKinds, c))
            closedOver(c);
        if (c.evident == Evident::No && isOneOf(oilKinds, c))
            c.cls = CheckClass::Never;
        c.state = stateOf(c.evident);
        if (c.reason.empty())
            c.reason = std::string(undone(*c.kind));
        if (c.asked && !c.none)
            m_signing.apply(c);
    }

    void judge(Check &c)
    {
        const Finds f = findsOf(c.timeline);
        c.evident = f.evident;
        if (!f.reason.empty())
            c.reason = f.reason;
        if (f.last && !f.spoilt)
            c.next = f.last->next;
        if (f.last && f.last->figure) {
            c.margin = f.last->figure->margin();
            c.expanded = f.last->figure->expanded;
        }
        if (c.kind->id == "job")
            job(c);
        else if (c.kind->id == "find")
            find(c);
        else if (c.kind->id == "spread")
            spread(c);
        else if (c.kind->id == "shell" && c.evident != Evident::Yes && isClearanceRight(c))
            c.evident = Evident::Yes;
        else if (c.kind->isComputed() && c.evident == Evident::Yes)
            rests(c);
    }
    /// A clearance on target proves the choice of its shells as well.
    bool isClearanceRight(Check &c)
    {
        const Check *clr = m_board.find("clr", c.place.id);
        if (!clr || findsOf(clr->timeline).evident != Evident::Yes)
            return false;
        c.reason = findsOf(clr->timeline).reason;
        return true;
    }

    void job(Check &c) const
    {
        const Job *job = currentJob(m_board.build);
        if (!job) {
            c.reason = "say what the job is";
            return;
        }
        std::string text;
        for (const std::string &k : job->kinds)
            if (const JobKind *kind = findJobKind(k))
                text += (text.empty() ? "" : "; ") + std::string(kind->name);
        const bool touches = job->kinds != std::vector<std::string> { "S" } || !job->scope.empty();
        c.evident = job->by.empty() || !touches ? Evident::None : Evident::Yes;
        c.reason = job->by.empty() ? "say who says so: the job needs a name"
            : !touches             ? "say what the repair touches"
                                   : text;
    }

    /// A value that is good is worth what it rests on.
    void rests(Check &c) const
    {
        std::vector<std::string> open;
        for (const size_t i : c.after)
            if (const Check &on = m_board.checks[i]; on.asked && !isSettled(on))
                open.push_back(on.place.id == wholeEngine ? std::string(on.kind->statement)
                                                          : on.place.name);
        if (!open.empty()) {
            open.erase(std::unique(open.begin(), open.end()), open.end());
            c.evident = Evident::None;
            const bool sizes = restsOnSizes(c);
            std::string names = open.front();
            for (size_t i = 1; i < std::min<size_t>(open.size(), 2); ++i)
                names += ", " + open[i];
            c.reason = { sizes ? "check.assumed" : "check.rests",
                         sizes             ? "good on assumed sizes: {0}{1}"
                             : open.size() ? "good, and rests on what is open: {0}{1}"
                                           : "",
                         { names,
                           open.size() > 2
                               ? Phrase("check.more", " and {0} more", { asCount(open.size() - 2) })
                               : Phrase("") } };
            return;
        }
        c.onAssumed = assumesSizes(c);
    }
    bool restsOnSizes(const Check &c) const
    {
        return std::any_of(c.after.begin(), c.after.end(), [&](size_t i) {
            const Check &on = m_board.checks[i];
            return !isSettled(on) && on.kind->aspect == Aspect::Size;
        });
    }
    bool assumesSizes(const Check &c) const
    {
        const std::vector<GaugedSize> &sizes = m_board.figures.sizes;
        if (!hasWord("cold heat film form shell", c.kind->id))
            return mildpath::assumesSizes(sizes);
        return std::any_of(sizes.begin(), sizes.end(), [&](const GaugedSize &s) {
            return s.known && !s.measured && s.stop == c.place.stop
                && (c.place.item == 0 || s.item == c.place.item);
        });
    }

    /// Settled, and its passages proven since.
    void find(Check &c)
    {
        if (c.evident != Evident::Yes || c.place.stop.empty())
            return;
        if (const std::string open = notCleanAt({ c.place.stop }); !open.empty()) {
            c.evident = Evident::None;
            c.reason = { "check.find", "{0}; {1} not proven clean since", { c.reason, open } };
        }
    }
    /// The first passage of these places that is not proven clean; empty: all are.
    std::string notCleanAt(const std::vector<std::string> &ids, bool *any = nullptr)
    {
        std::string out;
        m_board.each("clean", [&](Check &c) {
            const bool here = std::any_of(ids.begin(), ids.end(), [&](const std::string &id) {
                return c.place.isMeantBy(id);
            });
            if (!here || !c.asked)
                return;
            if (any)
                *any = true;
            settle(static_cast<size_t>(&c - m_board.checks.data()));
            if (out.empty() && !isSettled(c))
                out = c.place.name;
        });
        return out;
    }

    /// One ledger: what a failure reached is settled by its passages, by a flush that can be seen
    /// to be clear, or by a new part; never by what was chosen for it.
    void spread(Check &c)
    {
        const SpreadItem *item = nullptr;
        std::string since;
        for (const Spread &s : m_board.figures.spreads)
            for (const SpreadItem &i : s.items)
                if (i.id == c.place.id) {
                    item = &i;
                    for (const BearingFailure *f : standing(m_board.build.failures))
                        if (f->id == s.failure)
                            since = std::max(since, f->at);
                }
        if (!item)
            return;
        const auto may = [&](std::string_view done) {
            return std::find(item->choices.begin(), item->choices.end(), done)
                != item->choices.end();
        };
        const bool sealed = !may("cleaned") && !may("flushed");
        if (sealed && c.kind->id == "spread" && may("replaced") && isSealed(item->id))
            c.cls = CheckClass::Never;
        bool replaced = item->done == "replaced";
        for (const Act *a : standing(m_board.build.acts))
            replaced = replaced
                || (a->act == "replaced" && a->at >= since
                    && std::find(a->places.begin(), a->places.end(), item->id) != a->places.end());
        if (replaced)
            return newPart(c);
        bool passages = false;
        const std::string open = notCleanAt({ item->id }, &passages);
        if (passages && !sealed) {
            c.evident = open.empty() ? Evident::Yes : Evident::No;
            c.reason = open.empty() ? "its passages proven clean since the failure"
                                    : "no brush since the failure: " + open;
            return;
        }
        if (!sealed && c.evident == Evident::Yes)
            return; // it has no passage: somebody saw it clean or flushed clear
        c.evident = Evident::No;
        c.reason = "bearing metal reached it: " + item->rule;
    }
    bool isSealed(const std::string &id) const
    {
        const Stop *s = m_board.build.engine.find(id);
        return s && (s->kind == StopKind::Cooler || s->kind == StopKind::Line);
    }
    void newPart(Check &c)
    {
        Check *part = m_board.find("newpart", c.place.id);
        if (!part)
            for (const std::string &id : c.place.ids)
                part = part ? part : m_board.find("newpart", id);
        if (!part || !part->asked) {
            c.evident = Evident::Yes;
            c.reason = "new";
            return;
        }
        settle(static_cast<size_t>(part - m_board.checks.data()));
        c.evident = isSettled(*part) ? Evident::Yes : Evident::None;
        c.reason = isSettled(*part) ? "new, opened and clean"
                                    : "new, not yet opened and proven clean: " + part->id();
    }

    void closedOver(Check &c) const
    {
        for (const size_t i : c.after)
            if (const Check &hidden = m_board.checks[i]; hidden.isOpen()) {
                c.evident = Evident::Unsure;
                c.reason = { "check.closed",
                             "closed over what is open: {0}: {1}",
                             { hidden.statement(), hidden.reason } };
                return;
            }
    }

    CheckBoard &m_board;
    std::vector<char> m_done;
    Signing m_signing;
};

} // namespace

void settle(CheckBoard &board)
{
    Settling(board).run();
}

} // namespace mildpath
