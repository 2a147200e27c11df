// SPDX-License-Identifier: GPL-3.0-or-later
#include "plan/schedule.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>

namespace mildpath {
namespace {

constexpr double hours_d = 24, minutes_d = 24 * 60;
constexpr double tiny_d = 1e-9; ///< moments nearer than this are one
constexpr double longWait_d = 0.5; ///< a wait worth beginning first

/// The next moment a person works.
double nextWorking_d(double from_d, const WorkHand &hand)
{
    const double day = std::floor(from_d + tiny_d);
    const double begins = day + hand.from_h / hours_d;
    const double ends = begins + hand.hours_d / hours_d;
    if (from_d < begins - tiny_d) {
        // A late shift reaches over midnight.
        const double still = ends - 1;
        return from_d < still - tiny_d ? from_d : begins;
    }
    return from_d < ends - tiny_d ? from_d : begins + 1;
}

class Scheduler
{
public:
    Scheduler(std::span<const WorkItem> items, std::span<const WorkHand> hands, double begin_d)
        : m_items(items)
        , m_hands(hands)
        , m_begin_d(begin_d)
    {
    }

    Result<Schedule> run()
    {
        if (m_hands.empty())
            return fail("people", "nobody works on it");
        for (const WorkItem &i : m_items)
            if (!i.who.empty()
                && std::ranges::find(m_hands, i.who, &WorkHand::name) == m_hands.end())
                return fail(i.id, "is given to " + i.who + ", who does not work on it");
        if (auto ok = sort(); !ok)
            return tl::unexpected(ok.error());
        for (const WorkItem &i : m_items)
            m_setups = std::max(m_setups, setupIndex(i) + 1);
        tails();
        pass();
        return std::move(m_out);
    }

private:
    /// Topological order (Kahn 1962).
    Result<void> sort()
    {
        std::vector<size_t> left(m_items.size());
        m_behind.resize(m_items.size());
        for (size_t i = 0; i < m_items.size(); ++i) {
            left[i] = m_items[i].after.size();
            for (const size_t before : m_items[i].after)
                m_behind[before].push_back(i);
            if (left[i] == 0)
                m_sorted.push_back(i);
        }
        for (size_t n = 0; n < m_sorted.size(); ++n)
            for (const size_t next : m_behind[m_sorted[n]])
                if (--left[next] == 0)
                    m_sorted.push_back(next);
        if (m_sorted.size() == m_items.size())
            return {};
        const auto at = std::ranges::find_if(left, [](size_t n) { return n > 0; });
        return fail(m_items[static_cast<size_t>(at - left.begin())].id, "comes before itself");
    }

    /// Hands in days of whoever works longest, and the wait.
    double days(const WorkItem &i) const { return i.minutes / 60 / m_longest_h + i.wait_d; }

    /// The longest chain behind each, itself included, and how far each may slip.
    void tails()
    {
        for (const WorkHand &h : m_hands)
            m_longest_h = std::max(m_longest_h, h.hours_d);
        std::vector<double> earliest(m_items.size(), 0.0);
        m_tail.assign(m_items.size(), 0.0);
        double longest = 0;
        for (const size_t i : m_sorted) {
            earliest[i] = std::max(earliest[i], m_items[i].from_d - m_begin_d);
            for (const size_t next : m_behind[i])
                earliest[next] = std::max(earliest[next], earliest[i] + days(m_items[i]));
        }
        for (auto i = m_sorted.rbegin(); i != m_sorted.rend(); ++i) {
            double behind = 0;
            for (const size_t next : m_behind[*i])
                if (m_items[next].leadsToStart)
                    behind = std::max(behind, m_tail[next]);
            m_tail[*i] = days(m_items[*i]) + behind;
            if (m_items[*i].leadsToStart)
                longest = std::max(longest, earliest[*i] + m_tail[*i]);
        }
        m_out.times.resize(m_items.size());
        for (size_t i = 0; i < m_items.size(); ++i)
            if (m_items[i].leadsToStart)
                m_out.times[i].slack_d = std::max(0.0, longest - earliest[i] - m_tail[i]);
    }

    using Rank = std::tuple<bool, bool, double, bool, double, int, bool, int, int, int, int,
                            std::string_view>;

    /// What is taken first is the smallest.
    Rank rank(size_t index, int setup, const std::vector<int> &firstOfSetup) const
    {
        const WorkItem &i = m_items[index];
        const bool waits = i.wait_d >= longWait_d || i.due_d;
        const bool urgent = m_out.times[index].isUrgent();
        return { !i.first,
                 !waits,
                 waits ? -m_tail[index] : 0,
                 !urgent,
                 urgent ? -m_tail[index] : 0,
                 i.stage,
                 i.setup != setup,
                 i.setup == setup ? 0 : firstOfSetup[setupIndex(i)],
                 i.place,
                 -i.harm,
                 i.row,
                 i.id };
    }

    /// The moment an item could begin; absent while something before it has no time.
    void pass()
    {
        const size_t n = m_items.size();
        std::vector<size_t> left(n);
        std::vector<double> ready(n, m_begin_d);
        std::vector<size_t> open; // nothing before them is without a time
        for (size_t i = 0; i < n; ++i) {
            ready[i] = std::max(m_begin_d, m_items[i].from_d);
            if ((left[i] = m_items[i].after.size()) == 0)
                open.push_back(i);
        }
        std::vector<double> free;
        for (const WorkHand &h : m_hands)
            free.push_back(nextWorking_d(m_begin_d, h));
        std::vector<int> setup(m_hands.size(), -1);
        while (!open.empty()) {
            const auto [hand, at_d] = nextHand(open, ready, free);
            const size_t chosen = choose(open, ready, hand, at_d, setup[hand]);
            std::erase(open, chosen);
            const WorkItem &item = m_items[chosen];
            WorkTime &time = m_out.times[chosen];
            time.hand = hand;
            time.start_d = at_d;
            time.hands_d = afterHands_d(at_d, item.minutes, m_hands[hand]);
            time.done_d = time.hands_d + item.wait_d;
            if (item.due_d)
                time.done_d = std::max(time.hands_d, *item.due_d);
            free[hand] = nextWorking_d(time.hands_d, m_hands[hand]);
            if (item.minutes > 0)
                setup[hand] = item.setup;
            m_out.end_d = std::max(m_out.end_d, time.done_d);
            m_out.order.push_back(chosen);
            for (const size_t next : m_behind[chosen]) {
                ready[next] = std::max(ready[next], time.done_d);
                if (--left[next] == 0)
                    open.push_back(next);
            }
        }
        std::ranges::stable_sort(m_out.order, {}, [&](size_t i) { return m_out.times[i].start_d; });
    }

    static size_t setupIndex(const WorkItem &i)
    {
        return static_cast<size_t>(std::max(0, i.setup));
    }
    bool mayDo(const WorkItem &item, size_t hand) const
    {
        return item.who.empty() || item.who == m_hands[hand].name;
    }

    /// Whoever is the first to find something ready, and when.
    std::pair<size_t, double> nextHand(const std::vector<size_t> &open,
                                       const std::vector<double> &ready,
                                       const std::vector<double> &free) const
    {
        std::pair<size_t, double> out { 0, INFINITY };
        for (size_t h = 0; h < m_hands.size(); ++h)
            for (const size_t i : open) {
                if (!mayDo(m_items[i], h))
                    continue;
                const double at = nextWorking_d(std::max(free[h], ready[i]), m_hands[h]);
                if (at < out.second - tiny_d)
                    out = { h, at };
            }
        return out;
    }

    size_t choose(const std::vector<size_t> &open, const std::vector<double> &ready, size_t hand,
                  double at_d, int setup) const
    {
        const auto isReady
            = [&](size_t i) { return mayDo(m_items[i], hand) && ready[i] <= at_d + tiny_d; };
        std::vector<int> firstOfSetup(m_setups, std::numeric_limits<int>::max());
        for (const size_t i : open)
            if (isReady(i)) {
                int &first = firstOfSetup[setupIndex(m_items[i])];
                first = std::min(first, m_items[i].place);
            }
        size_t out = m_items.size();
        std::optional<Rank> best;
        for (const size_t i : open)
            if (isReady(i))
                if (const Rank r = rank(i, setup, firstOfSetup); !best || r < *best) {
                    best = r;
                    out = i;
                }
        return out;
    }

    std::span<const WorkItem> m_items;
    std::span<const WorkHand> m_hands;
    double m_begin_d, m_longest_h = 0;
    size_t m_setups = 1;
    std::vector<std::vector<size_t>> m_behind;
    std::vector<size_t> m_sorted;
    std::vector<double> m_tail;
    Schedule m_out;
};

} // namespace

double afterHands_d(double from_d, double minutes, const WorkHand &hand)
{
    double at = nextWorking_d(from_d, hand), left = minutes / minutes_d;
    if (left <= 0)
        return std::max(from_d, at);
    while (true) {
        const double day = std::floor(at + tiny_d - hand.from_h / hours_d);
        const double ends = day + (hand.from_h + hand.hours_d) / hours_d;
        if (at + left <= ends + tiny_d)
            return at + left;
        left -= ends - at;
        at = nextWorking_d(ends, hand);
    }
}

Result<Schedule> schedule(std::span<const WorkItem> items, std::span<const WorkHand> hands,
                          double begin_d)
{
    return Scheduler(items, hands, begin_d).run();
}

} // namespace mildpath
