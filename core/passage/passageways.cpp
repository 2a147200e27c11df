// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/passageways.h"

#include "passage/plugs.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// Steps after which the search for ways is given up; far above what engines need.
constexpr int mostSteps = 2'000'000;

template <class T> T &at(std::vector<T> &v, int i)
{
    return v[static_cast<size_t>(i)];
}
template <class T> const T &at(const std::vector<T> &v, int i)
{
    return v[static_cast<size_t>(i)];
}

/// The passage that runs on in line from an end, and at which of its ends; −1: none.
struct Onward
{
    int passage = -1, end = 0;
};

std::vector<std::array<Onward, 2>> lineOn(const PassageNetwork &network)
{
    std::vector<std::array<Onward, 2>> out(network.passages().size());
    for (int p = 0; p < static_cast<int>(network.passages().size()); ++p)
        for (int e = 0; e < 2; ++e) {
            const PassageEnd &end
                = network.passages()[static_cast<size_t>(p)].ends[static_cast<size_t>(e)];
            const int q = end.kind == "joint" && end.straight ? network.indexOf(end.passage) : -1;
            if (q < 0)
                continue;
            const int there
                = end.at_mm < network.passages()[static_cast<size_t>(q)].l_mm / 2 ? 0 : 1;
            at(out, p)[static_cast<size_t>(e)] = { q, there };
            at(out, q)[static_cast<size_t>(there)] = { p, e };
        }
    return out;
}

int gateAt(const PassageNetwork &network, int passage, double at_mm)
{
    for (size_t i = 0; i < network.gates().size(); ++i) {
        const Gate &g = network.gates()[i];
        if (g.passage == passage && samePlace(g.at_mm, at_mm))
            return static_cast<int>(i);
    }
    return -1;
}

int openEndOf(const PassageNetwork &network, int passage, int end)
{
    for (size_t i = 0; i < network.openEnds().size(); ++i)
        if (network.openEnds()[i].passage == passage && network.openEnds()[i].end == end)
            return static_cast<int>(i);
    return -1;
}

/// Adds the cells of a passage, entered at one of its ends.
void addCells(const PassageNetwork &network, int passage, int enteredAt, StraightRun &run)
{
    std::vector<int> own;
    for (size_t i = 0; i < network.stretches().size(); ++i)
        if (network.stretches()[i].passage == passage)
            own.push_back(static_cast<int>(i));
    if (enteredAt == 1)
        std::reverse(own.begin(), own.end());
    for (const int s : own) {
        const Stretch &stretch = at(network.stretches(), s);
        if (!run.cells.empty()) {
            const double joint_mm = enteredAt == 0 ? stretch.from_mm : stretch.to_mm;
            run.between.push_back(s == own.front() ? -1 : gateAt(network, passage, joint_mm));
        }
        run.cells.push_back({ s, enteredAt == 1 });
    }
}

double bore(const PassageNetwork &network, const StraightRun::Cell &cell)
{
    return network.passages()[static_cast<size_t>(at(network.stretches(), cell.stretch).passage)]
        .d_mm;
}

bool curved(const PassageNetwork &network, const StraightRun::Cell &cell)
{
    return network.passages()[static_cast<size_t>(at(network.stretches(), cell.stretch).passage)]
        .curved;
}

bool lets(const PassageNetwork &network, int gate, const std::set<int> &staying)
{
    if (gate < 0)
        return true;
    const int plug = at(network.gates(), gate).plug;
    return plug >= 0 && !staying.contains(plug);
}

/// Two ways that share no node, from both ends of a stretch to two different open ends: a flow of
/// two units where every node carries one (Menger's theorem).
class TwoWays
{
public:
    explicit TwoWays(int nodes)
        : m_out(static_cast<size_t>(2 * nodes + 2))
        , m_source(2 * nodes)
        , m_sink(2 * nodes + 1)
    {
        for (int n = 0; n < nodes; ++n)
            arc(2 * n, 2 * n + 1);
    }
    void link(int a, int b)
    {
        arc(2 * a + 1, 2 * b);
        arc(2 * b + 1, 2 * a);
    }
    void start(int n) { arc(m_source, 2 * n); }
    void end(int n) { arc(2 * n + 1, m_sink); }
    bool exist() { return augment() && augment(); }

private:
    struct Arc
    {
        int to;
        int room;
    };
    void arc(int from, int to)
    {
        at(m_out, from).push_back(static_cast<int>(m_arcs.size()));
        m_arcs.push_back({ to, 1 });
        at(m_out, to).push_back(static_cast<int>(m_arcs.size()));
        m_arcs.push_back({ from, 0 });
    }
    bool augment()
    {
        std::vector<int> by(m_out.size(), -1), queue { m_source };
        for (size_t i = 0; i < queue.size() && by[static_cast<size_t>(m_sink)] < 0; ++i)
            for (const int a : at(m_out, queue[i])) {
                const int to = at(m_arcs, a).to;
                if (at(m_arcs, a).room > 0 && to != m_source && at(by, to) < 0) {
                    at(by, to) = a;
                    queue.push_back(to);
                }
            }
        if (at(by, m_sink) < 0)
            return false;
        for (int n = m_sink; n != m_source;) {
            const int a = at(by, n);
            --at(m_arcs, a).room;
            ++at(m_arcs, a ^ 1).room;
            n = at(m_arcs, a ^ 1).to;
        }
        return true;
    }

    std::vector<std::vector<int>> m_out;
    std::vector<Arc> m_arcs;
    int m_source, m_sink;
};

/// Walks every simple way from an end.
class WaySearch
{
public:
    WaySearch(const PassageNetwork &network, const std::vector<bool> &wanted,
              const std::set<int> &staying)
        : m_network(network)
        , m_wanted(wanted)
        , m_links(static_cast<size_t>(network.nodes()))
        , m_endsAt(static_cast<size_t>(network.nodes()))
        , m_seen(static_cast<size_t>(network.nodes()))
    {
        for (int i = 0; i < static_cast<int>(network.stretches().size()); ++i) {
            const Stretch &s = at(network.stretches(), i);
            at(m_links, s.a).push_back({ s.b, i, -1 });
            at(m_links, s.b).push_back({ s.a, i, -1 });
        }
        for (const Gate &g : network.gates())
            if (g.plug < 0 || !staying.contains(g.plug)) {
                at(m_links, g.a).push_back({ g.b, -1, g.plug });
                at(m_links, g.b).push_back({ g.a, -1, g.plug });
            }
        for (int i = 0; i < static_cast<int>(network.openEnds().size()); ++i)
            at(m_endsAt, at(network.openEnds(), i).node).push_back(i);
    }

    void from(int end)
    {
        m_from = end;
        go(at(m_network.openEnds(), end).node);
    }
    bool complete() const { return m_steps < mostSteps; }
    std::vector<FlushWay> ways;

private:
    struct Link
    {
        int to, stretch, plug;
    };
    void go(int node)
    {
        if (++m_steps >= mostSteps)
            return;
        m_seen[static_cast<size_t>(node)] = true;
        for (const int end : at(m_endsAt, node))
            if (end > m_from && m_useful > 0) {
                FlushWay way { m_from, end, m_stretches, {} };
                for (const int p : m_plugs)
                    addWithOuter(m_network, p, way.plugs);
                ways.push_back(std::move(way));
            }
        for (const Link &l : at(m_links, node)) {
            if (m_seen[static_cast<size_t>(l.to)])
                continue;
            if (l.stretch >= 0) {
                m_stretches.push_back(l.stretch);
                m_useful += m_wanted[static_cast<size_t>(l.stretch)];
            } else if (l.plug >= 0) {
                m_plugs.push_back(l.plug);
            }
            go(l.to);
            if (l.stretch >= 0) {
                m_useful -= m_wanted[static_cast<size_t>(l.stretch)];
                m_stretches.pop_back();
            } else if (l.plug >= 0) {
                m_plugs.pop_back();
            }
        }
        m_seen[static_cast<size_t>(node)] = false;
    }

    const PassageNetwork &m_network;
    const std::vector<bool> &m_wanted;
    std::vector<std::vector<Link>> m_links;
    std::vector<std::vector<int>> m_endsAt;
    std::vector<bool> m_seen;
    std::vector<int> m_stretches, m_plugs;
    int m_from = 0, m_useful = 0, m_steps = 0;
};

/// Parts of the network that hang together when every gate is open: a number for each node.
std::vector<int> pieces(const PassageNetwork &network)
{
    std::vector<int> out(static_cast<size_t>(network.nodes()));
    for (int i = 0; i < network.nodes(); ++i)
        at(out, i) = i;
    for (bool changed = true; changed;) {
        changed = false;
        const auto link = [&](int a, int b) {
            const int least = std::min(at(out, a), at(out, b));
            changed = changed || at(out, a) != at(out, b);
            at(out, a) = at(out, b) = least;
        };
        for (const Stretch &s : network.stretches())
            link(s.a, s.b);
        for (const Gate &g : network.gates())
            link(g.a, g.b);
    }
    return out;
}

} // namespace

void addWithOuter(const PassageNetwork &network, int plug, std::set<int> &out)
{
    while (plug >= 0 && out.insert(plug).second) {
        const std::string &outer = network.plugs()[static_cast<size_t>(plug)].behind;
        plug = -1;
        for (size_t i = 0; i < network.plugs().size(); ++i)
            if (!outer.empty() && network.plugs()[i].id == outer)
                plug = static_cast<int>(i);
    }
}

std::set<int> withHidden(const PassageNetwork &network, const std::set<int> &plugs)
{
    std::set<int> out = plugs;
    for (int i = 0; i < static_cast<int>(network.plugs().size()); ++i) {
        std::set<int> chain;
        addWithOuter(network, i, chain);
        if (std::any_of(chain.begin(), chain.end(), [&](int p) { return plugs.contains(p); }))
            out.insert(i);
    }
    return out;
}

std::vector<StraightRun> straightRuns(const PassageNetwork &network)
{
    const auto onward = lineOn(network);
    const int count = static_cast<int>(network.passages().size());
    std::vector<bool> used(static_cast<size_t>(count));
    std::vector<StraightRun> out;
    for (int p = 0; p < count; ++p) {
        if (used[static_cast<size_t>(p)])
            continue;
        // Back to where the line begins; a ring of drillings cannot be straight, so it ends.
        int first = p, entered = 0;
        for (int guard = 0; guard < count; ++guard) {
            const Onward before = at(onward, first)[static_cast<size_t>(entered)];
            if (before.passage < 0)
                break;
            first = before.passage;
            entered = 1 - before.end;
        }
        StraightRun run;
        const auto endOf = [&](int passage, int end, int &openEnd, std::vector<int> &gates) {
            openEnd = openEndOf(network, passage, end);
            const double here
                = end == 0 ? 0 : network.passages()[static_cast<size_t>(passage)].l_mm;
            if (const int g = gateAt(network, passage, here); g >= 0)
                gates.push_back(g);
        };
        endOf(first, entered, run.leftEnd, run.leftGates);
        for (int q = first, in = entered;;) {
            used[static_cast<size_t>(q)] = true;
            addCells(network, q, in, run);
            const Onward next = at(onward, q)[static_cast<size_t>(1 - in)];
            if (next.passage < 0 || used[static_cast<size_t>(next.passage)]) {
                endOf(q, 1 - in, run.rightEnd, run.rightGates);
                break;
            }
            q = next.passage;
            in = next.end;
        }
        out.push_back(std::move(run));
    }
    return out;
}

BrushReach brushReach(const PassageNetwork &network, const StraightRun &run,
                      const std::set<int> &staying)
{
    const size_t n = run.cells.size();
    const auto reach = [&](bool left) -> size_t {
        const int end = left ? run.leftEnd : run.rightEnd;
        if (end < 0)
            return 0;
        for (const int g : left ? run.leftGates : run.rightGates)
            if (!lets(network, g, staying))
                return 0;
        double least = 1e9, most = 0;
        for (size_t i = 0; i < n; ++i) {
            const size_t cell = left ? i : n - 1 - i;
            if (i > 0 && !lets(network, run.between[left ? cell - 1 : cell], staying))
                return i;
            least = std::min(least, bore(network, run.cells[cell]));
            most = std::max(most, bore(network, run.cells[cell]));
            if (curved(network, run.cells[cell]) || least < brushYields * brushFor_mm(most))
                return i;
        }
        return n;
    };
    return { reach(true), reach(false) };
}

bool passesThrough(const PassageNetwork &network, int stretch, const std::vector<bool> &usable,
                   const std::vector<bool> &open)
{
    TwoWays ways(network.nodes());
    for (int i = 0; i < static_cast<int>(network.stretches().size()); ++i)
        if (i != stretch)
            ways.link(at(network.stretches(), i).a, at(network.stretches(), i).b);
    for (size_t i = 0; i < network.gates().size(); ++i)
        if (open[i])
            ways.link(network.gates()[i].a, network.gates()[i].b);
    for (size_t i = 0; i < network.openEnds().size(); ++i)
        if (usable[i])
            ways.end(network.openEnds()[i].node);
    ways.start(at(network.stretches(), stretch).a);
    ways.start(at(network.stretches(), stretch).b);
    return ways.exist();
}

std::vector<FlushWay> flushWays(const PassageNetwork &network, const std::vector<bool> &wanted,
                                const std::set<int> &staying, bool &complete)
{
    const std::vector<int> piece = pieces(network);
    std::set<int> wantedPieces;
    for (size_t i = 0; i < wanted.size(); ++i)
        if (wanted[i])
            wantedPieces.insert(at(piece, network.stretches()[i].a));
    WaySearch search(network, wanted, staying);
    for (int i = 0; i < static_cast<int>(network.openEnds().size()); ++i)
        if (wantedPieces.contains(at(piece, at(network.openEnds(), i).node)))
            search.from(i);
    complete = search.complete();
    return std::move(search.ways);
}

} // namespace mildpath
