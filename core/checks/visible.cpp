// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/visible.h"

#include "document/logbook.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// What closes a place, and what it hides there.
struct Closing
{
    std::string_view closes; ///< kind of check that is done when it is shut
    std::string_view hides; ///< kinds, by blanks
};
constexpr std::array<Closing, 2> closings { {
    { "torq", "tang crush capway lube thrust groove feed" },
    { "pan", "kring klock kgap panfit baffle float rearseal pdrive pgask" },
} };

/// Whether it stood shut at a moment: done before, and not undone since.
bool shutAt(const Check &closer, const std::string &at)
{
    bool shut = false;
    for (const Evidence &e : closer.timeline) {
        if (e.at >= at)
            break;
        if (e.kind == Evidence::Kind::Yes)
            shut = true;
        else if (e.kind >= Evidence::Kind::Breaks && e.kind != Evidence::Kind::Ages)
            shut = false;
    }
    return shut;
}

} // namespace

bool takesFigure(const Check &check)
{
    return check.kind->by.find('G') != std::string_view::npos
        && (check.kind->id == "clr" || !check.place.family.empty());
}

std::string sizeFamilyOf(const Build &build, const Check &check)
{
    if (!check.place.family.empty())
        return check.place.family;
    if (check.kind->id != "clr" && check.kind->id != "form")
        return {};
    const Stop *s = build.engine.find(check.place.stop);
    return s && s->kind == StopKind::BigEnd ? "big_end" : "main";
}

bool isDeclared(const CheckKind &kind)
{
    return kind.id == "solved" || kind.id == "spread";
}

bool isAnsweredInList(const Check &check)
{
    return !takesFigure(check) && (!check.kind->isComputed() || isDeclared(*check.kind));
}

bool mayBeNone(const CheckKind &kind)
{
    for (const std::string_view word : kind.placeWords())
        if (word == "E" || word == "L" || word == "X")
            return kind.id != "job" && !kind.isComputed();
    return false;
}

bool paperIsEnough(const CheckBoard &board, const Check &check)
{
    const Job *job = currentJob(board.build);
    if (!job || std::find(job->kinds.begin(), job->kinds.end(), "B") == job->kinds.end())
        return false;
    return check.kind->aspect == Aspect::Size || check.kind->id == "torq";
}

namespace {

/// Drops what was said of a check at moments when its closer stood shut.
void dropBehind(const Check &closer, Check &check)
{
    std::erase_if(check.timeline, [&](const Evidence &e) {
        const CheckMeans *means = findCheckMeans(e.means);
        return e.kind == Evidence::Kind::Yes && !(means && means->seesHidden) && !e.at.empty()
            && shutAt(closer, e.at);
    });
}

} // namespace

void dropUnseen(CheckBoard &board)
{
    for (const Plug &p : board.build.plugs)
        if (const Check *outer = p.hidden() ? board.find("plugin", p.behind) : nullptr)
            for (const char *kind : { "plugin", "plugseen" })
                if (Check *inner = board.find(kind, p.id))
                    dropBehind(*outer, *inner);
    for (const Closing &c : closings)
        board.each(c.closes, [&](Check &closer) {
            for (Check &check : board.checks) {
                if (!hasWord(c.hides, check.kind->id))
                    continue;
                if (c.closes == "pan" || closer.place.shares(check.place))
                    dropBehind(closer, check);
            }
        });
}

bool isCovered(const CheckBoard &board, const Check &check)
{
    bool covered = false;
    for (const CleanEvent *e : inOrder(board.build.events))
        if (e->kind == "storage" && (e->scope == "all" || check.place.isMeantBy(e->target)))
            covered = e->covered;
    return covered;
}

} // namespace mildpath
