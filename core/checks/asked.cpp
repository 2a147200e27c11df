// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/board.h"

#include "assess/figures.h"
#include "document/logbook.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

/// What was touched since the job began, by id.
class Touched
{
public:
    Touched(const Build &build, const Figures &figures, const Job &job)
        : m_began(beginOf(build, job))
        , m_ids(job.scope.begin(), job.scope.end())
    {
        for (const Act *a : standing(build.acts))
            if (since(a->at))
                m_ids.insert(a->places.begin(), a->places.end());
        const std::map<std::string, StopKind> stopKinds = stopKindsOf(build);
        for (const CleanEvent *e : inOrder(build.events))
            if (since(e->at))
                event(*e, build, stopKinds);
        for (const Opening *o : standing(build.openings))
            if (since(o->at))
                m_ids.insert("pan");
        for (const Spread &s : figures.spreads)
            for (const SpreadItem &i : s.items)
                m_ids.insert(i.id);
    }

    bool operator()(const CheckPlace &place) const
    {
        // A row of the whole engine: when the oil's way was opened anywhere.
        if (place.id == wholeEngine)
            return !m_ids.empty();
        return std::any_of(place.ids.begin(), place.ids.end(),
                           [&](const std::string &id) { return m_ids.contains(id); });
    }

private:
    /// A job that was said anew began when it was first said.
    static std::string beginOf(const Build &build, const Job &job)
    {
        std::string at = job.at, before = job.replaces;
        for (auto i = build.jobs.rbegin(); i != build.jobs.rend(); ++i)
            if (i->id == before) {
                at = i->at;
                before = i->replaces;
            }
        return at;
    }
    bool since(const std::string &at) const { return at >= m_began; }

    void event(const CleanEvent &e, const Build &build,
               const std::map<std::string, StopKind> &stopKinds)
    {
        if (e.kind == "plug_out" || e.kind == "taken_apart")
            m_ids.insert(e.target);
        if (e.kind != "machining")
            return;
        if (e.scope != "job") {
            m_ids.insert(e.target);
            return;
        }
        const MachiningJob *job = findMachiningJob(e.target);
        for (const Stop &s : build.engine.stops)
            if (job
                && std::find(job->stopKinds.begin(), job->stopKinds.end(), stopKinds.at(s.id))
                    != job->stopKinds.end())
                m_ids.insert(s.id);
    }

    std::string m_began;
    std::set<std::string> m_ids;
};

/// Rows that stand only where the engine or its records give them something to ask.
bool hasSubject(const CheckBoard &board, const Check &c)
{
    const std::string_view id = c.kind->id;
    if (id == "clean") { // what neither brush nor fluid reaches is another row's
        for (const PassageState &p : board.figures.cleaning.passages)
            if (p.passage == c.place.id)
                return p.brush || p.flush;
        return false;
    }
    if (id == "form") { // two stations or directions were read
        const GaugedSize *s = board.figures.size(c.place.stop);
        return s && s->form && s->form->counted > 1;
    }
    if (id == "newpart") { // bought parts of a new build, and what was replaced
        const Job *job = currentJob(board.build);
        const bool newBuild
            = job && std::find(job->kinds.begin(), job->kinds.end(), "N") != job->kinds.end();
        return newBuild || wasReplaced(board.build, c.place);
    }
    if (id == "reopen") // where a reading, a find or a noise asks
        return !c.timeline.empty();
    if (id == "retorq")
        return !c.timeline.empty();
    return true;
}

/// Its passage, its card, its pump; of a stop also the part its passages run through.
bool belongs(const CheckPlace &before, const CheckPlace &place)
{
    return before.shares(place) || std::ranges::find(place.parts, before.id) != place.parts.end();
}

/// What an engine has one of comes before whatever names it; before what is asked of the engine as
/// a whole comes all of a kind. A thing to buy is for its own place alone.
bool isTheEngines(const CheckKind &before, const Check &check)
{
    constexpr std::string_view ofTheEngine = "E pump relief pickup filter tank turbo";
    return hasWord(ofTheEngine, before.at) || (check.place.id == wholeEngine && before.at != "B");
}

} // namespace

bool wasReplaced(const Build &build, const CheckPlace &place)
{
    const auto means = [&](const std::string &id) { return place.isMeantBy(id); };
    for (const Act *a : standing(build.acts))
        if (a->act == "replaced" && std::any_of(a->places.begin(), a->places.end(), means))
            return true;
    for (const Repair *r : standing(build.repairs))
        if (r->done == "replaced" && means(r->item))
            return true;
    return false;
}

void markAsked(CheckBoard &board)
{
    const Job *job = currentJob(board.build);
    if (!job) {
        if (Check *c = board.find("job", wholeEngine))
            c->asked = true;
        return;
    }
    const Touched touched(board.build, board.figures, *job);
    std::set<std::string> onTheWay;
    for (const Spread &s : board.figures.spreads)
        for (const SpreadItem &i : s.items)
            onTheWay.insert(i.id);
    for (Check &c : board.checks) {
        const bool here = touched(c.place);
        for (const std::string &letter : job->kinds)
            c.asked = c.asked || c.kind->asked(letter.front(), here);
        // A failure recorded under any job adds its checks at the places it reaches.
        if (!onTheWay.empty() && c.kind->asked('F', true)) {
            const bool reached
                = std::any_of(c.place.ids.begin(), c.place.ids.end(),
                              [&](const std::string &id) { return onTheWay.contains(id); });
            c.asked = c.asked
                || (reached && (c.kind->aspect == Aspect::Clean || c.kind->id == "cause"));
        }
        c.asked = c.asked && !c.none && hasSubject(board, c);
    }
}

void linkAfter(CheckBoard &board)
{
    std::map<const CheckKind *, std::vector<size_t>> ofKind;
    for (size_t i = 0; i < board.checks.size(); ++i)
        if (board.checks[i].asked)
            ofKind[board.checks[i].kind].push_back(i);
    for (Check &c : board.checks) {
        if (!c.asked)
            continue;
        for (const CheckKind::After &before : c.kind->comesAfter()) {
            const auto &all = ofKind[before.kind];
            std::vector<size_t> found;
            for (const size_t i : all)
                if (before.all || board.checks[i].place.id == c.place.id)
                    found.push_back(i);
            if (found.empty()) // else at what belongs to it
                for (const size_t i : all)
                    if (belongs(board.checks[i].place, c.place))
                        found.push_back(i);
            const bool engines = isTheEngines(*before.kind, c) || c.kind->id == ownKind;
            if (found.empty() && engines) // else the engine's
                found = all;
            c.after.insert(c.after.end(), found.begin(), found.end());
        }
        if (c.kind->id == ownKind)
            for (const OwnKinds::Own &o : board.own->all())
                if (&o.kind == c.kind)
                    for (const std::string &id : o.after)
                        if (const Check *first = board.find(ownKind, id); first && first->asked)
                            c.after.push_back(static_cast<size_t>(first - board.checks.data()));
        if (c.kind->id == "plugin") // a hidden plug before the one that hides it
            for (const Plug &p : board.build.plugs)
                if (p.behind == c.place.id)
                    for (const char *kind : { "plugin", "plugseen" })
                        if (const Check *hidden = board.find(kind, p.id); hidden && hidden->asked)
                            c.after.push_back(static_cast<size_t>(hidden - board.checks.data()));
    }
}

} // namespace mildpath
