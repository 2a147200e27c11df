// SPDX-License-Identifier: GPL-3.0-or-later
#include "bearing/shells.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

namespace mildpath {
namespace {

constexpr size_t mostClasses = 12, mostJournals = 20;
/// Deviations closer than this are the same: a thousandth of a nanometre is rounding, not oil.
constexpr double same_m = 1e-12;

/// Halves of each class used so far; two bits less than a byte is plenty for 40 halves.
using Used = std::array<unsigned char, mostClasses>;

/// Two numbers compared one after the other; both only grow along an assignment.
struct Cost
{
    double first = 0, second = 0;
    bool operator<(const Cost &o) const
    {
        return first != o.first ? first < o.first : second < o.second;
    }
};

class Selection
{
public:
    Selection(const std::vector<ShellClass> &classes, const std::vector<JournalSpace> &journals,
              const ClearanceAim &all)
        : m_classes(classes)
    {
        std::vector<int> bySize(classes.size());
        std::iota(bySize.begin(), bySize.end(), 0);
        std::sort(bySize.begin(), bySize.end(), [&](int a, int b) {
            return classes[static_cast<size_t>(a)].wall_m < classes[static_cast<size_t>(b)].wall_m;
        });
        for (const JournalSpace &j : journals) {
            std::vector<ShellChoice> options;
            const ClearanceAim &aim = j.own ? *j.own : all;
            const auto add = [&](int upper, int lower) {
                const double c = j.space_m - classes[static_cast<size_t>(upper)].wall_m
                    - classes[static_cast<size_t>(lower)].wall_m;
                options.push_back(
                    { upper,
                      lower,
                      { c },
                      c - aim.target.value_m,
                      c < aim.least.value_m - same_m || c > aim.most.value_m + same_m });
            };
            for (size_t i = 0; i < bySize.size(); ++i) {
                add(bySize[i], bySize[i]);
                if (i + 1 < bySize.size())
                    add(bySize[i], bySize[i + 1]);
            }
            m_options.push_back(std::move(options));
        }
    }

    std::optional<ShellSelection> best()
    {
        // One goal after the other: the largest deviation is no sum, so it cannot share a table
        // with the squares that come after it.
        m_ceiling = std::numeric_limits<double>::infinity();
        const auto first = run([](const ShellChoice &c, const Cost &so) {
            return Cost { so.first + (c.outside ? 1 : 0),
                          std::max(so.second, std::abs(c.deviation_m)) };
        });
        if (!first)
            return std::nullopt;
        m_ceiling = first->cost.second + same_m;
        const auto second = run([](const ShellChoice &c, const Cost &so) {
            return Cost { so.first + (c.outside ? 1 : 0),
                          so.second + c.deviation_m * c.deviation_m };
        });
        ShellSelection out { {}, static_cast<int>(second->cost.first), 0, second->cost.second };
        for (size_t j = 0; j < m_options.size(); ++j) {
            out.journals.push_back(m_options[j][second->options[j]]);
            out.largestDeviation_m
                = std::max(out.largestDeviation_m, std::abs(out.journals.back().deviation_m));
        }
        return out;
    }

private:
    struct Reached
    {
        Cost cost;
        Used from {};
        size_t option = 0;
    };
    struct Found
    {
        Cost cost;
        std::vector<size_t> options;
    };

    bool fits(Used &used, const ShellChoice &c) const
    {
        for (const int k : { c.upper, c.lower }) {
            const auto i = static_cast<size_t>(k);
            // What is never short need not be counted; that keeps the table small.
            if (!m_classes[i].halves)
                continue;
            if (++used[i] > *m_classes[i].halves)
                return false;
        }
        return true;
    }

    template <class Extend> std::optional<Found> run(Extend extend) const
    {
        std::vector<std::map<Used, Reached>> layers(1);
        layers[0][Used {}] = {};
        for (const auto &options : m_options) {
            std::map<Used, Reached> next;
            for (const auto &[used, so] : layers.back())
                for (size_t o = 0; o < options.size(); ++o) {
                    Used now = used;
                    if (std::abs(options[o].deviation_m) > m_ceiling || !fits(now, options[o]))
                        continue;
                    const Reached reached { extend(options[o], so.cost), used, o };
                    const auto [it, fresh] = next.try_emplace(now, reached);
                    if (!fresh && reached.cost < it->second.cost)
                        it->second = reached;
                }
            layers.push_back(std::move(next));
        }
        if (layers.back().empty())
            return std::nullopt;
        auto end = std::min_element(
            layers.back().begin(), layers.back().end(),
            [](const auto &a, const auto &b) { return a.second.cost < b.second.cost; });
        Found out { end->second.cost, std::vector<size_t>(m_options.size()) };
        Reached at = end->second;
        for (size_t j = m_options.size(); j-- > 0;) {
            out.options[j] = at.option;
            at = layers[j].at(at.from);
        }
        return out;
    }

    const std::vector<ShellClass> &m_classes;
    std::vector<std::vector<ShellChoice>> m_options; ///< per journal
    double m_ceiling = 0; ///< no larger deviation is looked at
};

} // namespace

Result<ShellSelection> selectShells(const std::vector<ShellClass> &classes,
                                    const std::vector<JournalSpace> &journals,
                                    const ClearanceAim &aim)
{
    if (classes.empty() || classes.size() > mostClasses)
        return fail("classes", "needs 1 to 12 classes of shells");
    if (journals.empty() || journals.size() > mostJournals)
        return fail("journals", "needs 1 to 20 journals");
    for (size_t i = 0; i < classes.size(); ++i)
        for (size_t k = i + 1; k < classes.size(); ++k)
            if (std::abs(classes[i].wall_m - classes[k].wall_m) < 1e-9)
                return fail("classes",
                            classes[i].name + " and " + classes[k].name + " have the same wall");
    auto best = Selection(classes, journals, aim).best();
    if (!best)
        return fail("stock", "there are not enough halves for every journal");
    return *best;
}

std::vector<RegrindStep> regrindSteps(double housing_m, double wall_m, DiametralClearance least,
                                      DiametralClearance most, DiametralClearance target,
                                      const std::vector<double> &undersizes_m)
{
    std::vector<RegrindStep> out;
    for (const double u : undersizes_m) {
        const double wall = wall_m + u / 2, inside = housing_m - 2 * wall;
        out.push_back(
            { u, wall, inside - most.value_m, inside - least.value_m, inside - target.value_m });
    }
    return out;
}

} // namespace mildpath
