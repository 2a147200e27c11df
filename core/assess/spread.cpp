// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/spread.h"

#include "document/engineedit.h"

#include <algorithm>
#include <deque>
#include <map>
#include <set>

namespace mildpath {
namespace {

/// Parts with passages of their own that no stop stands for.
constexpr std::array<std::string_view, 3> heads { "head", "head_left", "head_right" };

class Tracer
{
public:
    Tracer(const Build &build, const BearingFailure &failure)
        : m_build(build)
    {
        m_out.failure = failure.id;
        m_out.stop = failure.stop;
    }

    Spread run()
    {
        const Stop *failed = m_build.engine.find(m_out.stop);
        if (!failed)
            return std::move(m_out);
        add(failed->id, failed->id, failed->name, "failed", "it failed");
        backToGallery(*failed);
        withTheOil();
        for (const Stop &s : m_build.engine.stops)
            // What the circuit does not feed is wetted by splash and return.
            if (!s.elements.empty() || s.kind == StopKind::SmallEnd || s.kind == StopKind::Scavenge
                || s.kind == StopKind::Tank)
                addStop(s, "splash and the oil that returns");
        return std::move(m_out);
    }

private:
    void add(const std::string &id, const std::string &stop, const std::string &name,
             const std::string &kind, const std::string &way)
    {
        if (!m_seen.insert(id).second)
            return;
        const SpreadRule &rule = spreadRule(kind);
        SpreadItem item;
        item.id = id;
        item.stop = stop;
        item.name = name;
        item.rule = rule.rule;
        item.reason = rule.reason;
        item.way = way;
        for (const char *done : { "cleaned", "flushed", "replaced" })
            if (settles(rule, done))
                item.choices.emplace_back(done);
        item.buy = rule.buy;
        for (const Repair *r : standing(m_build.repairs))
            if (r->failure == m_out.failure && r->item == id) {
                item.done = r->done;
                item.by = r->by;
                item.at = r->at;
                item.note = r->note;
                // Against the rule it stays open; with a reason somebody put his name to, it is for
                // another look.
                item.mark = settles(rule, r->done) ? Mark::Proven
                    : r->note.empty()              ? Mark::Hold
                                                   : Mark::LookAgain;
            }
        m_out.items.push_back(std::move(item));
    }

    void addStop(const Stop &s, const std::string &way)
    {
        add(s.id, s.id, s.name, std::string(wordOf(s.kind)), way);
        if (s.kind == StopKind::Phaser)
            add("solenoids", s.id, "Phaser solenoids", "solenoid", "with the phasers' oil");
        for (const Passage &p : m_build.passages)
            if (p.stop == s.id && std::find(heads.begin(), heads.end(), p.part) != heads.end())
                add(p.part, s.id,
                    p.part == "head"            ? "Head"
                        : p.part == "head_left" ? "Left head"
                                                : "Right head",
                    "head", "through " + s.name);
    }

    /// Metal is worked back along the drillings of the crank and its main's feed.
    void backToGallery(const Stop &failed)
    {
        const Stop *at = &failed;
        if (failed.kind == StopKind::BigEnd || failed.kind == StopKind::Main)
            add("crank", failed.id, "Crank", "crank", "flung out along its drillings");
        for (size_t guard = 0; guard < m_build.engine.stops.size(); ++guard) {
            at = feederOf(m_build, *at);
            if (!at || at->kind == StopKind::Filter || at->kind == StopKind::Pump)
                return;
            addStop(*at, "worked back along the feed");
            if (at->kind == StopKind::Gallery)
                return;
        }
    }

    /// Out of the bearing into the sump, and from there through the circuit: breadth first, so
    /// what is nearer along the oil's way comes first; alike, by the order of the stops.
    void withTheOil()
    {
        for (const StopKind kind : { StopKind::Scavenge, StopKind::Tank, StopKind::Pickup })
            for (const Stop &s : m_build.engine.stops)
                if (s.kind == kind)
                    addStop(s, "fell into the pan and went with the oil");
        std::map<std::string, int> far;
        std::deque<std::string> queue;
        for (const Stop &s : m_build.engine.stops)
            if (s.kind == StopKind::Pickup)
                for (const std::string &id : s.elements)
                    if (const Element *e = m_build.circuit.find(id))
                        if (far.try_emplace(e->from, 0).second)
                            queue.push_back(e->from);
        while (!queue.empty()) {
            const std::string node = queue.front();
            queue.pop_front();
            for (const Element &e : m_build.circuit.elements)
                // A relief valve runs back to where the oil came from.
                if (e.from == node && e.to != sumpNode && e.kind != ElementKind::Relief
                    && far.try_emplace(e.to, far[node] + 1).second)
                    queue.push_back(e.to);
        }
        std::vector<std::pair<int, const Stop *>> order;
        for (const Stop &s : m_build.engine.stops) {
            int nearest = -1;
            for (const std::string &id : s.elements)
                if (const Element *e = m_build.circuit.find(id); e && far.contains(e->from)) {
                    const int d = far[e->from];
                    nearest = nearest < 0 ? d : std::min(nearest, d);
                }
            if (nearest >= 0)
                order.push_back({ nearest, &s });
        }
        std::stable_sort(order.begin(), order.end(),
                         [](const auto &a, const auto &b) { return a.first < b.first; });
        for (const auto &[distance, s] : order)
            addStop(*s,
                    s->kind == StopKind::Filter ? "caught here, past the bypass when it opened"
                                                : "with the oil");
    }

    const Build &m_build;
    std::set<std::string> m_seen;
    Spread m_out;
};

} // namespace

std::vector<Spread> spreadsOf(const Build &build)
{
    std::vector<Spread> out;
    for (const BearingFailure *f : standing(build.failures))
        out.push_back(Tracer(build, *f).run());
    return out;
}

} // namespace mildpath
