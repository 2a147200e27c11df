// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/cleaningplan.h"

#include "passage/passageways.h"
#include "passage/plugs.h"

#include <algorithm>
#include <numeric>
#include <tuple>

namespace mildpath {
namespace {

using Plugs = std::set<int>;

Plugs joined(const Plugs &a, const Plugs &b)
{
    Plugs out = a;
    out.insert(b.begin(), b.end());
    return out;
}

/// One way to brush all of a line that brushes reach.
struct PullChoice
{
    size_t left = 0, right = 0; ///< cells pulled from each end; 0: no pull from there
    Plugs plugs;
};

class Planner
{
public:
    Planner(const PassageNetwork &network, const CleaningWishes &wishes)
        : m_network(network)
        , m_wishes(wishes)
        , m_runs(straightRuns(network))
    {
        for (const auto &[plug, why] : wishes.staying)
            m_staying.insert(plug);
        m_staying = withHidden(network, m_staying);
    }

    CleaningPlan run()
    {
        m_ways = waysToClean(m_network, m_staying);
        for (const StraightRun &r : m_runs)
            m_choices.push_back(choicesOf(r));
        findFlushes();
        choose();
        addPulls();
        for (const size_t f : m_best.flushes)
            addFlush(m_flushes[f]);
        order();
        fillPlugs();
        fillLeft();
        return std::move(m_out);
    }

private:
    Plugs gatesOfPull(const StraightRun &run, bool left, size_t cells) const
    {
        Plugs out;
        const auto add = [&](int gate) {
            if (gate >= 0)
                addWithOuter(m_network, m_network.gates()[static_cast<size_t>(gate)].plug, out);
        };
        for (const int g : left ? run.leftGates : run.rightGates)
            add(g);
        for (size_t i = 1; i < cells; ++i)
            add(run.between[left ? i - 1 : run.between.size() - i]);
        return out;
    }

    /// All ways to do it with the fewest pulls; those that draw more than another are left out.
    std::vector<PullChoice> choicesOf(const StraightRun &run) const
    {
        const size_t n = run.cells.size();
        const BrushReach reach = brushReach(m_network, run, m_staying);
        std::vector<PullChoice> out;
        const auto add = [&](size_t left, size_t right) {
            PullChoice c { left, right, {} };
            if (left > 0)
                c.plugs = gatesOfPull(run, true, left);
            if (right > 0)
                c.plugs = joined(c.plugs, gatesOfPull(run, false, right));
            out.push_back(std::move(c));
        };
        if (reach.left > 0 && (reach.left == n || reach.right == 0))
            add(reach.left, 0);
        if (reach.right > 0 && (reach.right == n || reach.left == 0))
            add(0, reach.right);
        if (out.empty() && reach.left > 0 && reach.right > 0) {
            if (reach.left + reach.right <= n)
                add(reach.left, reach.right);
            else
                for (size_t k = n - reach.right; k <= reach.left; ++k)
                    if (k > 0 && k < n)
                        add(k, n - k);
        }
        preferEntering(run, out);
        return withoutDearer(std::move(out));
    }

    int rankOf(int end) const
    {
        const OpenEnd &e = m_network.openEnds()[static_cast<size_t>(end)];
        const auto it = m_wishes.rank.find(m_network.passages()[static_cast<size_t>(e.passage)]
                                               .ends[static_cast<size_t>(e.end)]
                                               .stop);
        return it == m_wishes.rank.end() ? -1 : it->second;
    }

    /// Dirt goes away from what is fed: the end later in the oil's order is the one to enter at.
    void preferEntering(const StraightRun &run, std::vector<PullChoice> &choices) const
    {
        if (choices.size() == 2 && choices[0].right == 0 && choices[1].left == 0
            && rankOf(run.rightEnd) > rankOf(run.leftEnd))
            std::swap(choices[0], choices[1]);
    }

    template <class Choice> static std::vector<Choice> withoutDearer(std::vector<Choice> all)
    {
        std::vector<Choice> out;
        for (size_t i = 0; i < all.size(); ++i) {
            const bool dearer = [&] {
                for (size_t k = 0; k < all.size(); ++k)
                    if (k != i && covers(all[k], all[i])
                        && std::includes(all[i].plugs.begin(), all[i].plugs.end(),
                                         all[k].plugs.begin(), all[k].plugs.end())
                        && (k < i || !covers(all[i], all[k]) || all[k].plugs != all[i].plugs))
                        return true;
                return false;
            }();
            if (!dearer)
                out.push_back(all[i]);
        }
        return out;
    }
    static bool covers(const PullChoice &, const PullChoice &) { return true; }

    /// A flush with what it covers of the lengths that want one.
    struct Flush
    {
        FlushWay way;
        std::set<int> cover; ///< stretches
        Plugs plugs;
        double length_mm = 0;
    };
    static bool covers(const Flush &a, const Flush &b)
    {
        return std::includes(a.cover.begin(), a.cover.end(), b.cover.begin(), b.cover.end());
    }

    void findFlushes()
    {
        std::vector<bool> wanted(m_ways.size());
        for (size_t i = 0; i < m_ways.size(); ++i) {
            wanted[i] = m_ways[i] == CleanBy::Flush;
            if (wanted[i])
                m_wanted.insert(static_cast<int>(i));
        }
        if (m_wanted.empty())
            return;
        // Of ways alike in what they cover and draw, the one entered latest in the oil's order,
        // then the shortest.
        std::map<std::pair<std::set<int>, Plugs>, Flush> kinds;
        for (FlushWay &w : flushWays(m_network, wanted, m_staying, m_out.minimal)) {
            if (rankOf(w.out) > rankOf(w.in)) {
                std::swap(w.in, w.out);
                std::reverse(w.stretches.begin(), w.stretches.end());
            }
            Flush f { {}, {}, w.plugs, 0 };
            for (const int s : w.stretches) {
                f.length_mm += m_network.stretches()[static_cast<size_t>(s)].length_mm();
                if (wanted[static_cast<size_t>(s)])
                    f.cover.insert(s);
            }
            f.way = std::move(w);
            const auto key = std::pair(f.cover, f.plugs);
            const auto [it, isNew] = kinds.try_emplace(key, f);
            const auto dear = [&](const Flush &x) {
                return std::tuple(-rankOf(x.way.in), x.length_mm, x.way.in, x.way.out);
            };
            if (!isNew && dear(f) < dear(it->second))
                it->second = std::move(f);
        }
        std::vector<Flush> all;
        for (auto &[key, f] : kinds)
            all.push_back(std::move(f));
        m_flushes = withoutDearer(std::move(all));
    }

    struct Chosen
    {
        std::vector<size_t> pulls; ///< choice of each run
        std::vector<size_t> flushes;
        Plugs plugs;
    };

    /// Fewest pulls are in the choices already; then fewest flushes, then fewest plugs, each found
    /// by going through all that is left and giving up a branch that cannot be better.
    void choose()
    {
        m_best.pulls.assign(m_runs.size(), 0);
        for (size_t piece = 0; piece < m_runs.size(); ++piece)
            m_open.push_back(piece);
        std::erase_if(m_open, [&](size_t r) { return m_choices[r].size() < 2; });
        Chosen so;
        so.pulls.assign(m_runs.size(), 0);
        for (size_t r = 0; r < m_runs.size(); ++r)
            if (m_choices[r].size() == 1)
                so.plugs = joined(so.plugs, m_choices[r][0].plugs);
        for (m_most = 0;; ++m_most) {
            m_found = false;
            std::vector<size_t> none;
            if (coverable(m_wanted, none))
                break;
        }
        m_found = false;
        pickFlushes(m_wanted, so);
    }

    /// The wanted stretch fewest flushes go through: the sooner it is settled the fewer branches.
    int hardest(const std::set<int> &left) const
    {
        int best = -1;
        long fewest = 0;
        for (const int s : left) {
            const long n = std::count_if(m_flushes.begin(), m_flushes.end(),
                                         [&](const Flush &f) { return f.cover.contains(s); });
            if (n > 0 && (best < 0 || n < fewest)) {
                best = s;
                fewest = n;
            }
        }
        return best;
    }
    static std::set<int> without(std::set<int> left, const std::set<int> &covered)
    {
        for (const int s : covered)
            left.erase(s);
        return left;
    }

    bool coverable(const std::set<int> &left, std::vector<size_t> &taken) const
    {
        const int s = hardest(left);
        if (s < 0)
            return true;
        if (taken.size() >= m_most)
            return false;
        for (size_t f = 0; f < m_flushes.size(); ++f)
            if (m_flushes[f].cover.contains(s)) {
                taken.push_back(f);
                if (coverable(without(left, m_flushes[f].cover), taken))
                    return true;
                taken.pop_back();
            }
        return false;
    }

    bool worthwhile(const Plugs &plugs) const
    {
        return !m_found || plugs.size() < m_best.plugs.size();
    }

    void pickFlushes(const std::set<int> &left, Chosen so)
    {
        if (!worthwhile(so.plugs) || ++m_looked > mostLooks) {
            m_out.minimal = m_out.minimal && m_looked <= mostLooks;
            return;
        }
        const int s = hardest(left);
        if (s < 0) {
            pickPulls(0, std::move(so));
            return;
        }
        if (so.flushes.size() >= m_most)
            return;
        for (size_t f = 0; f < m_flushes.size(); ++f)
            if (m_flushes[f].cover.contains(s)) {
                Chosen next = so;
                next.flushes.push_back(f);
                next.plugs = joined(so.plugs, m_flushes[f].plugs);
                pickFlushes(without(left, m_flushes[f].cover), std::move(next));
            }
    }

    void pickPulls(size_t i, Chosen so)
    {
        if (!worthwhile(so.plugs) || ++m_looked > mostLooks) {
            m_out.minimal = m_out.minimal && m_looked <= mostLooks;
            return;
        }
        if (i == m_open.size()) {
            m_best = std::move(so);
            m_found = true;
            return;
        }
        const size_t r = m_open[i];
        for (size_t c = 0; c < m_choices[r].size(); ++c) {
            Chosen next = so;
            next.pulls[r] = c;
            next.plugs = joined(so.plugs, m_choices[r][c].plugs);
            pickPulls(i + 1, std::move(next));
        }
    }

    Length lengthOf(int stretch, bool reversed) const
    {
        const Stretch &s = m_network.stretches()[static_cast<size_t>(stretch)];
        return reversed ? Length { s.passage, s.to_mm, s.from_mm }
                        : Length { s.passage, s.from_mm, s.to_mm };
    }

    /// Adds a length, joined to the one before where they touch.
    static void append(std::vector<Length> &to, const Length &l)
    {
        if (!to.empty() && to.back().passage == l.passage && to.back().to_mm == l.from_mm)
            to.back().to_mm = l.to_mm;
        else
            to.push_back(l);
    }

    void bores(CleaningStep &step) const
    {
        double most = 0;
        step.narrowest_mm = 1e9;
        for (const Length &l : step.lengths) {
            const double d = m_network.passages()[static_cast<size_t>(l.passage)].d_mm;
            most = std::max(most, d);
            step.narrowest_mm = std::min(step.narrowest_mm, d);
        }
        if (!step.flush)
            step.brush_mm = brushFor_mm(most);
    }

    void addPulls()
    {
        for (size_t r = 0; r < m_runs.size(); ++r) {
            if (m_choices[r].empty())
                continue;
            const PullChoice &c = m_choices[r][m_best.pulls[r]];
            if (c.left > 0)
                addPull(m_runs[r], true, c.left);
            if (c.right > 0)
                addPull(m_runs[r], false, c.right);
        }
    }

    void addPull(const StraightRun &run, bool left, size_t cells)
    {
        CleaningStep step;
        step.in = m_network.openEnds()[static_cast<size_t>(left ? run.leftEnd : run.rightEnd)];
        const size_t n = run.cells.size();
        for (size_t i = 0; i < cells; ++i) {
            const StraightRun::Cell &cell = run.cells[left ? i : n - 1 - i];
            append(step.lengths, lengthOf(cell.stretch, cell.reversed == left));
        }
        const Plugs plugs = gatesOfPull(run, left, cells);
        step.plugs.assign(plugs.begin(), plugs.end());
        const int far = left ? run.rightEnd : run.leftEnd;
        const auto &farGates = left ? run.rightGates : run.leftGates;
        if (cells < n)
            step.word = blockedBy(run.between[left ? cells - 1 : n - 1 - cells]);
        else if (far >= 0 && comesOut(farGates))
            step.out = m_network.openEnds()[static_cast<size_t>(far)];
        else
            step.word = farWord(step.lengths.back(), farGates);
        bores(step);
        m_out.steps.push_back(std::move(step));
        ++m_out.pulls;
    }

    bool comesOut(const std::vector<int> &gates) const
    {
        return std::all_of(gates.begin(), gates.end(), [&](int g) {
            const int plug = m_network.gates()[static_cast<size_t>(g)].plug;
            return m_best.plugs.contains(plug) || (m_wishes.drawAll && !m_staying.contains(plug));
        });
    }
    std::string blockedBy(int gate) const
    {
        if (gate < 0)
            return "as far as a brush of this size goes";
        const int plug = m_network.gates()[static_cast<size_t>(gate)].plug;
        return plug < 0 ? "up to the restrictor"
                        : "up to " + m_network.plugs()[static_cast<size_t>(plug)].name;
    }
    std::string farWord(const Length &last, const std::vector<int> &gates) const
    {
        if (!gates.empty())
            return blockedBy(gates.front());
        const Passage &p = m_network.passages()[static_cast<size_t>(last.passage)];
        const PassageEnd &end = p.ends[last.to_mm > last.from_mm ? 1 : 0];
        const Passage *into = findPassage(m_network.passages(), end.passage);
        return into ? "into " + into->name : "to the blind end";
    }

    void addFlush(const Flush &f)
    {
        CleaningStep step;
        step.flush = true;
        step.in = m_network.openEnds()[static_cast<size_t>(f.way.in)];
        step.out = m_network.openEnds()[static_cast<size_t>(f.way.out)];
        int node = step.in.node;
        for (const int s : f.way.stretches) {
            const Stretch &stretch = m_network.stretches()[static_cast<size_t>(s)];
            // A gate may lie between: then the stretch goes on from the gate's other side.
            const bool forward = stretch.a == node || across(node, stretch.a);
            append(step.lengths, lengthOf(s, !forward));
            node = forward ? stretch.b : stretch.a;
        }
        step.plugs.assign(f.plugs.begin(), f.plugs.end());
        bores(step);
        m_out.steps.push_back(std::move(step));
        ++m_out.flushes;
    }
    bool across(int a, int b) const
    {
        return std::any_of(m_network.gates().begin(), m_network.gates().end(), [&](const Gate &g) {
            return (g.a == a && g.b == b) || (g.a == b && g.b == a);
        });
    }

    /// How many passages run into this one: galleries come after what brings dirt into them.
    int met(int passage) const
    {
        int count = 0;
        const std::string &id = m_network.passages()[static_cast<size_t>(passage)].id;
        for (const Passage &p : m_network.passages())
            for (const PassageEnd &e : p.ends)
                count += e.kind == "joint" && e.passage == id && !e.straight;
        return count;
    }

    void order()
    {
        const auto partOf = [&](const CleaningStep &s) {
            const std::string &part = m_network.passages()[static_cast<size_t>(s.in.passage)].part;
            const auto parts = passageParts();
            return std::find_if(parts.begin(), parts.end(),
                                [&](const PassagePart &p) { return p.id == part; })
                - parts.begin();
        };
        std::stable_sort(m_out.steps.begin(), m_out.steps.end(),
                         [&](const CleaningStep &a, const CleaningStep &b) {
                             return std::tuple(partOf(a), a.flush, met(a.in.passage))
                                 < std::tuple(partOf(b), b.flush, met(b.in.passage));
                         });
    }

    void fillPlugs()
    {
        Plugs draw = m_best.plugs;
        if (m_wishes.drawAll)
            for (int i = 0; i < static_cast<int>(m_network.plugs().size()); ++i)
                if (!m_staying.contains(i))
                    draw.insert(i);
        for (const int p : draw)
            m_out.draw.push_back(p);
        std::stable_sort(m_out.draw.begin(), m_out.draw.end(), [&](int a, int b) {
            const auto depth = [&](int p) {
                Plugs chain;
                addWithOuter(m_network, p, chain);
                return chain.size();
            };
            return depth(a) < depth(b);
        });
    }

    void fillLeft()
    {
        const std::vector<CleanBy> free = waysToClean(m_network, {});
        for (int i = 0; i < static_cast<int>(m_ways.size()); ++i) {
            const double mm = m_network.stretches()[static_cast<size_t>(i)].length_mm();
            if (m_ways[static_cast<size_t>(i)] != CleanBy::Nothing) {
                m_out.passable_mm += mm;
                continue;
            }
            m_out.left.push_back({ lengthOf(i, false), whyLeft(i, free[static_cast<size_t>(i)]) });
        }
        m_out.covered_mm = covered();
    }

    std::string whyLeft(int stretch, CleanBy ifAllOut) const
    {
        if (ifAllOut == CleanBy::Nothing)
            return "dead end: no straight way in for a brush, no way out for a flush";
        const int passage = m_network.stretches()[static_cast<size_t>(stretch)].passage;
        std::string out;
        for (const auto &[plug, why] : m_wishes.staying) {
            Plugs others;
            for (const auto &[other, reason] : m_wishes.staying)
                if (other != plug)
                    others.insert(other);
            const bool alone
                = waysToClean(m_network, others)[static_cast<size_t>(stretch)] != CleanBy::Nothing;
            const Plug &p = m_network.plugs()[static_cast<size_t>(plug)];
            if (alone || (out.empty() && m_network.indexOf(p.passage) == passage))
                return p.name + " stays in" + (why.empty() ? "" : " (" + why + ")");
        }
        return "plugs that stay in close it on every side";
    }

    double covered() const
    {
        double sum = 0;
        for (size_t i = 0; i < m_network.stretches().size(); ++i) {
            const Stretch &s = m_network.stretches()[i];
            const bool in = std::any_of(
                m_out.steps.begin(), m_out.steps.end(), [&](const CleaningStep &step) {
                    return std::any_of(step.lengths.begin(), step.lengths.end(),
                                       [&](const Length &l) {
                                           return l.passage == s.passage
                                               && std::min(l.from_mm, l.to_mm) <= s.from_mm
                                               && std::max(l.from_mm, l.to_mm) >= s.to_mm;
                                       });
                });
            sum += in ? s.length_mm() : 0;
        }
        return sum;
    }

    static constexpr int mostLooks = 200'000;

    const PassageNetwork &m_network;
    const CleaningWishes &m_wishes;
    std::vector<StraightRun> m_runs;
    Plugs m_staying;
    std::vector<CleanBy> m_ways;
    std::vector<std::vector<PullChoice>> m_choices; ///< by run
    std::vector<size_t> m_open; ///< runs with more than one
    std::set<int> m_wanted; ///< stretches to flush
    std::vector<Flush> m_flushes;
    size_t m_most = 0; ///< flushes
    int m_looked = 0;
    bool m_found = false;
    Chosen m_best;
    CleaningPlan m_out;
};

} // namespace

std::vector<CleanBy> waysToClean(const PassageNetwork &network, const std::set<int> &plugs)
{
    const Plugs staying = withHidden(network, plugs);
    std::vector<CleanBy> out(network.stretches().size(), CleanBy::Nothing);
    for (const StraightRun &run : straightRuns(network)) {
        const BrushReach reach = brushReach(network, run, staying);
        for (size_t i = 0; i < run.cells.size(); ++i)
            if (i < reach.left || i >= run.cells.size() - reach.right)
                out[static_cast<size_t>(run.cells[i].stretch)] = CleanBy::Brush;
    }
    std::vector<bool> open, usable(network.openEnds().size(), true);
    for (const Gate &g : network.gates())
        open.push_back(g.plug < 0 || !staying.contains(g.plug));
    for (size_t i = 0; i < out.size(); ++i)
        if (out[i] == CleanBy::Nothing && passesThrough(network, static_cast<int>(i), usable, open))
            out[i] = CleanBy::Flush;
    return out;
}

std::vector<bool> pockets(const PassageNetwork &network)
{
    std::vector<bool> open, usable;
    for (const Gate &g : network.gates())
        open.push_back(g.plug < 0);
    for (const OpenEnd &e : network.openEnds())
        usable.push_back(!e.plugged);
    std::vector<bool> out;
    for (int i = 0; i < static_cast<int>(network.stretches().size()); ++i)
        out.push_back(!passesThrough(network, i, usable, open));
    return out;
}

CleaningPlan planCleaning(const PassageNetwork &network, const CleaningWishes &wishes)
{
    return Planner(network, wishes).run();
}

std::string endName(const PassageNetwork &network, const OpenEnd &end)
{
    const Passage &p = network.passages()[static_cast<size_t>(end.passage)];
    const double here = end.end == 0 ? 0 : p.l_mm;
    for (const Plug &plug : network.plugs())
        if (end.plugged && plug.passage == p.id && samePlace(plug.at_mm, here))
            return plug.name;
    const Passage *mate
        = findPassage(network.passages(), p.ends[static_cast<size_t>(end.end)].passage);
    return mate ? p.name + ", face to the " + std::string(partName(mate->part)) : p.name;
}

} // namespace mildpath
