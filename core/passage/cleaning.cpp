// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/cleaning.h"

#include "quantity/dates.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <unordered_map>

namespace mildpath {
namespace {

bool ofPart(std::string_view part, std::string_view wanted)
{
    return part == wanted || (wanted == "head" && part.starts_with("head"));
}

/// Whether a hole of the machined part opens where the job cuts.
bool opensWhere(const PassageNetwork &network, const PassageEnd &end, const MachiningJob &job,
                const std::map<std::string, StopKind> &stopKinds)
{
    const Passage *mate = findPassage(network.passages(), end.passage);
    if (!job.facing.empty())
        return mate && ofPart(mate->part, job.facing);
    const auto kind = stopKinds.find(end.stop);
    return kind != stopKinds.end()
        && std::find(job.stopKinds.begin(), job.stopKinds.end(), kind->second)
        != job.stopKinds.end();
}

/// What the fold keeps of a passage.
struct Run
{
    bool touched = false;
    bool white = false, clear = false, through = false; ///< since it was last made dirty
    bool greyBrush = false, cloudyFlush = false, blocked = false; ///< the last of each
    const CleanEvent *dirtiedBy = nullptr;
    const Soiling *soiledBy = nullptr; ///< instead
    std::string_view stoodInTheWay {}; ///< plug past which the last brush or look did not get
    const CleanEvent *cleanedSince = nullptr; ///< anything that cleans
    double openDays = 0, coveredDays = 0;
    bool closed = false; ///< assembled
};

class Reader
{
public:
    Reader(const PassageNetwork &network, const std::map<std::string, StopKind> &stopKinds)
        : m_network(network)
        , m_stopKinds(stopKinds)
        , m_runs(network.passages().size())
    {
        m_out.passages.resize(network.passages().size());
        m_out.plugs.resize(network.plugs().size());
        for (size_t i = 0; i < network.passages().size(); ++i)
            m_out.passages[i].passage = network.passages()[i].id;
        for (size_t i = 0; i < network.plugs().size(); ++i)
            m_out.plugs[i].plug = network.plugs()[i].id;
    }

    CleaningBook read(const SharedList<CleanEvent> &events, std::vector<Soiling> soilings)
    {
        std::stable_sort(soilings.begin(), soilings.end(), [](const Soiling &a, const Soiling &b) {
            return a.at.empty() != b.at.empty() ? b.at.empty() : a.at < b.at;
        });
        auto soiling = soilings.begin();
        std::map<std::string_view, int> entered;
        for (size_t i = 0; i < events.size(); ++i) {
            entered[events[i].id] = static_cast<int>(i);
            m_numberOf[&events[i]] = static_cast<int>(i);
        }
        const auto order = inOrder(events);
        // What the proof needs follows from the plugs as they are at the end.
        for (const CleanEvent *e : order)
            if (findEventKind(e->kind) && findEventKind(e->kind)->does == Does::Plug)
                plug(*e);
        needs();
        for (PlugState &p : m_out.plugs)
            p = { p.plug, PlugPlace::NotTouched, false, {}, {}, {}, {}, {}, {} };
        std::string now;
        for (const CleanEvent *e : order) {
            now = std::max(now, e->at);
            for (; soiling != soilings.end() && !soiling->at.empty() && soiling->at < now;
                 ++soiling)
                soil(*soiling);
            take(*e, firstEntry(events, entered, *e));
        }
        for (; soiling != soilings.end(); ++soiling)
            soil(*soiling);
        for (size_t i = 0; i < m_runs.size(); ++i)
            conclude(i);
        return std::move(m_out);
    }

private:
    /// A correction counts as entered when what it corrects was.
    static int firstEntry(const SharedList<CleanEvent> &events,
                          const std::map<std::string_view, int> &entered, const CleanEvent &e)
    {
        int at = entered.at(e.id);
        for (size_t guard = 0; guard < events.size(); ++guard) {
            const auto before = entered.find(events[static_cast<size_t>(at)].replaces);
            if (before == entered.end() || before->second >= at)
                break;
            at = before->second;
        }
        return at;
    }

    void needs()
    {
        std::set<int> staying;
        for (size_t i = 0; i < m_out.plugs.size(); ++i)
            if (m_out.plugs[i].place == PlugPlace::Left)
                staying.insert(static_cast<int>(i));
        m_staysLeft = staying;
        m_needed = waysToClean(m_network, staying);
        m_brushed.resize(m_needed.size());
        m_flushed.resize(m_needed.size());
        const auto &ways = m_needed;
        for (size_t i = 0; i < ways.size(); ++i) {
            const Stretch &s = m_network.stretches()[i];
            PassageState &p = m_out.passages[static_cast<size_t>(s.passage)];
            p.brush = p.brush || ways[i] == CleanBy::Brush;
            p.flush = p.flush || ways[i] == CleanBy::Flush;
            if (ways[i] == CleanBy::Nothing)
                p.unreached_mm += s.length_mm();
        }
    }

    /// What brush and fluid reach with the plugs as they are now.
    const std::vector<CleanBy> &reachNow()
    {
        std::set<int> in;
        for (size_t i = 0; i < m_out.plugs.size(); ++i)
            if (plugIn(static_cast<int>(i)))
                in.insert(static_cast<int>(i));
        auto [at, fresh] = m_reach.try_emplace(in);
        if (fresh)
            at->second = waysToClean(m_network, in);
        return at->second;
    }
    /// Marks what of a passage was got at. @return whether all of it that asks for it now is
    bool cover(size_t passage, CleanBy by, std::vector<bool> &done, std::string_view &inTheWay)
    {
        const auto &ways = reachNow();
        bool all = true;
        for (size_t i = 0; i < ways.size(); ++i) {
            if (m_network.stretches()[i].passage != static_cast<int>(passage) || m_needed[i] != by)
                continue;
            if (by == CleanBy::Brush ? ways[i] == CleanBy::Brush : ways[i] != CleanBy::Nothing)
                done[i] = true;
            all = all && done[i];
        }
        inTheWay = all ? std::string_view() : plugOf(passage);
        return all;
    }
    void forget(size_t passage)
    {
        for (size_t i = 0; i < m_needed.size(); ++i)
            if (m_network.stretches()[i].passage == static_cast<int>(passage))
                m_brushed[i] = m_flushed[i] = false;
    }
    /// A plug of the passage that is in its place though it is to come out; empty: none.
    std::string_view plugOf(size_t passage) const
    {
        for (size_t i = 0; i < m_out.plugs.size(); ++i) {
            const PlugPlace place = m_out.plugs[i].place;
            if (m_network.plugs()[i].passage == m_network.passages()[passage].id
                && place != PlugPlace::Out && !m_staysLeft.contains(static_cast<int>(i)))
                return m_network.plugs()[i].name;
        }
        return {};
    }
    void soil(const Soiling &soiling)
    {
        const auto on = soiling.reaches([this](int p) { return plugIn(p); });
        for (size_t i = 0; i < on.size(); ++i)
            if (on[i]) {
                Run &r = m_runs[i];
                r = Run { .touched = true, .soiledBy = &soiling, .closed = r.closed };
                forget(i);
                m_out.passages[i].machined = true;
                m_out.passages[i].provenAt = soiling.at;
            }
    }
    bool plugIn(int plug) const
    {
        return m_out.plugs[static_cast<size_t>(plug)].place != PlugPlace::Out;
    }

    void plug(const CleanEvent &e)
    {
        for (PlugState &p : m_out.plugs) {
            if (p.plug != e.target)
                continue;
            if (e.kind == "plug_out")
                p = { p.plug, PlugPlace::Out, false, {}, {}, e.by, e.at, {}, {} };
            else if (e.kind == "plug_left")
                p = { p.plug, PlugPlace::Left, p.seen, {}, e.note, e.by, e.at, p.seenBy, p.seenAt };
            else if (e.kind == "plug_in")
                p = { p.plug, PlugPlace::In, false, e.note, {}, e.by, e.at, {}, {} };
            if ((e.kind == "plug_seen" && p.place != PlugPlace::Out)
                || (e.seen && e.kind != "plug_out")) {
                p.seen = true;
                p.seenBy = e.by;
                p.seenAt = e.at;
            }
        }
    }

    /// The passages an event is about, one flag each.
    std::vector<bool> meant(const CleanEvent &e, Does does, int entry) const
    {
        const auto assembled = [this](int a, int b) {
            return m_runs[static_cast<size_t>(a)].closed && m_runs[static_cast<size_t>(b)].closed;
        };
        if (does == Does::Dirties)
            return dirtied(e, entry, assembled);
        std::vector<bool> out(m_network.passages().size());
        for (size_t i = 0; i < out.size(); ++i) {
            const Passage &p = m_network.passages()[i];
            out[i] = e.scope == "all" || (e.scope == "part" && ofPart(p.part, e.target))
                || (e.scope == "passage" && isOrWas(p, e.target, entry));
        }
        return out;
    }

    std::vector<bool> dirtied(const CleanEvent &e, int entry,
                              const std::function<bool(int, int)> &assembled) const
    {
        const auto in = [this](int p) { return plugIn(p); };
        auto out = dirtiedBy(m_network, e, m_stopKinds, in, assembled);
        if (e.scope != "passage")
            return out;
        // A passage that was split later was one then: swarf in it was in both parts.
        for (size_t i = 0; i < out.size(); ++i)
            if (!out[i] && isOrWas(m_network.passages()[i], e.target, entry)) {
                CleanEvent part = e;
                part.target = m_network.passages()[i].id;
                const auto more = dirtiedBy(m_network, part, m_stopKinds, in, assembled);
                for (size_t k = 0; k < out.size(); ++k)
                    out[k] = out[k] || more[k];
            }
        return out;
    }

    bool isOrWas(const Passage &p, const std::string &id, int entry) const
    {
        const Passage *now = &p;
        for (size_t guard = 0; guard <= m_network.passages().size() && now; ++guard) {
            if (now->id == id)
                return true;
            if (now->splitFrom.empty() || entry >= now->splitAfter)
                return false;
            now = findPassage(m_network.passages(), now->splitFrom);
        }
        return false;
    }

    void take(const CleanEvent &e, int entry)
    {
        const EventKind *kind = findEventKind(e.kind);
        if (!kind)
            return;
        if (kind->does == Does::Plug)
            return plug(e);
        const std::vector<bool> on = meant(e, kind->does, entry);
        for (size_t i = 0; i < on.size(); ++i)
            if (on[i])
                apply(i, e, kind->does);
    }

    void apply(size_t passage, const CleanEvent &e, Does does)
    {
        Run &r = m_runs[passage];
        PassageState &p = m_out.passages[passage];
        r.touched = true;
        switch (does) {
        case Does::Dirties:
            r = Run { .touched = true, .dirtiedBy = &e, .closed = r.closed };
            forget(passage);
            p.machined = true;
            break;
        case Does::Cleans:
            cleaned(passage, e);
            break;
        case Does::Looks:
            looked(passage, e);
            break;
        case Does::Washes:
            r.openDays = r.coveredDays = 0;
            r.cleanedSince = &e;
            break;
        case Does::Ages:
            if (!r.closed)
                (e.covered ? r.coveredDays : r.openDays) += e.days;
            break;
        case Does::Closes:
            r.closed = true;
            break;
        case Does::Opens:
            r.closed = false;
            break;
        case Does::Plug:
            break;
        }
        p.provenAt = std::max(p.provenAt, e.at);
        p.chain.push_back({ m_numberOf.at(&e), stateOf(r, p) });
    }

    /// A brush proves the lengths that were open when it went through, and so does a flush.
    void cleaned(size_t passage, const CleanEvent &e)
    {
        Run &r = m_runs[passage];
        r.cleanedSince = &e;
        if (e.kind == "brush") {
            r.greyBrush = e.result != "white";
            if (r.greyBrush)
                forget(passage);
            r.white = !r.greyBrush && cover(passage, CleanBy::Brush, m_brushed, r.stoodInTheWay);
        }
        if (e.kind == "flush") {
            r.cloudyFlush = e.result != "clear";
            r.clear = !r.cloudyFlush && cover(passage, CleanBy::Flush, m_flushed, r.stoodInTheWay);
            r.through = r.through || r.clear; // it came out at the far end
        }
    }
    /// Light and wire end at a plug; fluid comes out elsewhere, a camera looks in from one end.
    void looked(size_t passage, const CleanEvent &e)
    {
        Run &r = m_runs[passage];
        const bool endsAtPlug = e.means == "light" || e.means == "wire";
        const std::string_view plug = endsAtPlug ? plugOf(passage) : std::string_view();
        r.blocked = e.result != "through";
        r.through = !r.blocked && plug.empty();
        if (!plug.empty())
            r.stoodInTheWay = plug;
    }
    static bool proven(const Run &r, const PassageState &p)
    {
        return (!p.brush || r.white) && (!p.flush || r.clear) && r.through;
    }

    static CleanState stateOf(const Run &r, const PassageState &p)
    {
        if (!r.touched)
            return CleanState::NothingDone;
        if (r.blocked)
            return CleanState::Blocked;
        if (r.greyBrush || r.cloudyFlush)
            return CleanState::Grey;
        if ((r.dirtiedBy || r.soiledBy) && !r.cleanedSince)
            return CleanState::Dirty;
        if (!proven(r, p))
            return CleanState::Begun;
        if (r.openDays > openDaysToWash || r.coveredDays > coveredDaysToWash)
            return CleanState::Aged;
        return CleanState::Clean;
    }

    static std::string day(const std::string &at) { return dayText(at.substr(0, 10)); }
    static std::string nameOf(const CleanEvent &e)
    {
        const MachiningJob *job = e.scope == "job" ? findMachiningJob(e.target) : nullptr;
        return job ? std::string(job->name) : "machined";
    }
    static Phrase whatDirtied(const CleanEvent &e)
    {
        return Phrase(nameOf(e) + (e.at.empty() ? "" : " on " + day(e.at)));
    }

    static Phrase whatSoiled(const Soiling &s)
    {
        return s.at.empty() ? s.what : joinedBy({ s.what, day(s.at) }, "{*| on }");
    }

    void conclude(size_t i)
    {
        const Run &r = m_runs[i];
        PassageState &p = m_out.passages[i];
        p.state = stateOf(r, p);
        if (p.brush && !r.white)
            p.missing.emplace_back("brush out white");
        if (p.flush && !r.clear)
            p.missing.emplace_back("flush out clear");
        if (!r.through)
            p.missing.emplace_back("light, wire, fluid or camera at the far end");
        if (r.openDays > openDaysToWash || r.coveredDays > coveredDaysToWash)
            p.missing.emplace_back("final wash");
        switch (p.state) {
        case CleanState::NothingDone:
            p.reason = "nothing recorded";
            break;
        case CleanState::Dirty:
            p.soiled = r.soiledBy ? r.soiledBy->what : nameOf(*r.dirtiedBy);
            p.reason = { "clean.dirty",
                         "dirty again: {0}",
                         { r.soiledBy ? whatSoiled(*r.soiledBy) : whatDirtied(*r.dirtiedBy) } };
            break;
        case CleanState::Grey:
            p.reason = std::string(r.greyBrush ? "the last brush" : "the last flush")
                + " did not come out clean";
            break;
        case CleanState::Blocked:
            p.reason = "far end not seen";
            break;
        case CleanState::Begun:
            p.reason = r.stoodInTheWay.empty()
                ? Phrase("still asked for: " + p.missing.front())
                : Phrase("clean.past", "past {0} nothing went; still asked for: {1}",
                         { r.stoodInTheWay, p.missing.front() });
            break;
        case CleanState::Aged:
            p.reason = r.openDays > openDaysToWash
                ? Phrase("clean.open", "stored open for {0} days since it was proven: final wash",
                         { asCount(std::round(r.openDays)) })
                : Phrase("clean.stored", "stored for {0} days since it was proven: final wash",
                         { asCount(std::round(r.coveredDays)) });
            break;
        case CleanState::Clean:
            p.reason = p.brush ? "brush white, far end seen"
                : p.flush      ? "flushed clear, far end seen"
                               : "looked into";
            break;
        }
        if (p.unreached_mm > 0 && p.state != CleanState::NothingDone)
            append(p.reason,
                   { "clean.unreached",
                     "{0} of it no brush and no flush reaches",
                     { asLength(p.unreached_mm, 0) } });
    }

    const PassageNetwork &m_network;
    const std::map<std::string, StopKind> &m_stopKinds;
    std::unordered_map<const CleanEvent *, int> m_numberOf; ///< in the order of entry
    std::vector<Run> m_runs;
    std::set<int> m_staysLeft; ///< plugs that are left in, at the end
    std::vector<CleanBy> m_needed; ///< by stretch
    std::vector<bool> m_brushed, m_flushed; ///< by stretch, since it was last made dirty
    std::map<std::set<int>, std::vector<CleanBy>> m_reach; ///< by the plugs that are in
    CleaningBook m_out;
};

} // namespace

std::vector<const CleanEvent *> inOrder(const SharedList<CleanEvent> &events)
{
    std::map<std::string_view, size_t> index;
    for (size_t i = 0; i < events.size(); ++i)
        index[events[i].id] = i;
    struct Slot
    {
        size_t entry; ///< where it, or what it corrects, was entered
        const CleanEvent *event;
    };
    std::vector<Slot> slots;
    for (const CleanEvent *e : standing(events)) {
        size_t at = index[e->id];
        while (true) {
            const auto before = index.find(events[at].replaces);
            if (before == index.end() || before->second >= at)
                break;
            at = before->second;
        }
        slots.push_back({ at, e });
    }
    std::stable_sort(slots.begin(), slots.end(),
                     [](const Slot &a, const Slot &b) { return a.entry < b.entry; });
    std::vector<const CleanEvent *> out;
    std::string latest;
    std::vector<std::string> time; // of each in `out`, never falling
    for (const Slot &s : slots)
        if (!s.event->dated) {
            latest = std::max(latest, s.event->at);
            out.push_back(s.event);
            time.push_back(latest);
        }
    for (const Slot &s : slots)
        if (s.event->dated) {
            const auto place = std::upper_bound(time.begin(), time.end(), s.event->at);
            out.insert(out.begin() + (place - time.begin()), s.event);
            time.insert(place, s.event->at);
        }
    return out;
}

bool clockWentBack(const SharedList<CleanEvent> &events)
{
    const CleanEvent *last = nullptr;
    for (const CleanEvent &e : events) {
        if (e.dated || e.at.empty())
            continue;
        if (last && e.at < last->at)
            return true;
        last = &e;
    }
    return false;
}

std::vector<bool> dirtiedBy(const PassageNetwork &network, const CleanEvent &event,
                            const std::map<std::string, StopKind> &stopKinds,
                            const std::function<bool(int)> &plugIn,
                            const std::function<bool(int, int)> &assembled)
{
    std::vector<int> from;
    const MachiningJob *job = event.scope == "job" ? findMachiningJob(event.target) : nullptr;
    if (job) {
        for (const OpenEnd &o : network.openEnds()) {
            const Passage &p = network.passages()[static_cast<size_t>(o.passage)];
            const PassageEnd &end = p.ends[static_cast<size_t>(o.end)];
            if (!o.plugged && ofPart(p.part, job->part)
                && opensWhere(network, end, *job, stopKinds))
                from.push_back(o.node);
        }
    } else {
        for (const Stretch &s : network.stretches()) {
            const Passage &p = network.passages()[static_cast<size_t>(s.passage)];
            if (event.scope == "all" || (event.scope == "part" && ofPart(p.part, event.target))
                || (event.scope == "passage" && p.id == event.target)) {
                from.push_back(s.a);
                from.push_back(s.b);
            }
        }
    }
    return network.reached(from, plugIn, assembled);
}

CleaningBook readBook(const PassageNetwork &network, const SharedList<CleanEvent> &events,
                      const std::map<std::string, StopKind> &stopKinds,
                      std::vector<Soiling> soilings)
{
    return Reader(network, stopKinds).read(events, std::move(soilings));
}

} // namespace mildpath
