// SPDX-License-Identifier: GPL-3.0-or-later
#include "study/shellplan.h"

#include "assess/sizes.h"
#include "document/enginevalue.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

const SizeClass *findClass(const std::vector<SizeClass> &classes, const std::string &name)
{
    const auto it = std::find_if(classes.begin(), classes.end(),
                                 [&](const SizeClass &c) { return c.name == name; });
    return it == classes.end() ? nullptr : &*it;
}

std::optional<double> wallsOf(const ShellStock &stock, const std::string &upper,
                              const std::string &lower)
{
    const ShellStockRow *u = stock.find(upper), *l = stock.find(lower);
    return u && l ? std::optional((u->wall_mm + l->wall_mm) * 1e-3) : std::nullopt;
}

/// Housing less journal (m), and where that comes from.
struct Space
{
    double space_m;
    std::string from;
};

/// Best first: gauged with known shells in place, then what is stamped.
std::optional<Space> spaceOf(const ShellStock &stock, const GaugedSize &size, const Build &build)
{
    const auto it = stock.fitted.find(size.stop);
    if (it == stock.fitted.end())
        return std::nullopt;
    const FittedShells &f = it->second;
    if (size.measured) {
        std::string upper = f.upper, lower = f.lower;
        // What was in place when it was gauged, if that was noted, is what the reading holds.
        for (const Reading *r : standingReadings(build))
            if (r->stop == size.stop && r->family == size.family && !r->shells.empty())
                if (const auto slash = r->shells.find('/'); slash != std::string::npos) {
                    upper = r->shells.substr(0, slash);
                    lower = r->shells.substr(slash + 1);
                }
        if (const auto walls = wallsOf(stock, upper, lower))
            return Space { size.cold_um.value * 1e-6 + *walls,
                           "gauged with " + upper + "/" + lower };
    }
    const SizeClass *h = findClass(stock.housings, f.housingClass);
    const SizeClass *j = findClass(stock.journals, f.journalClass);
    if (h && j)
        return Space { (h->middle_mm() - j->middle_mm()) * 1e-3,
                       "stamped " + h->name + " and " + j->name };
    return std::nullopt;
}

/// Where a bearing's clearance may lie and should: in the middle, unless a target is set.
ClearanceAim aimOf(const Limits &l)
{
    const double target_um = l.target_um.value_or((l.min_um + l.max_um) / 2);
    return { { l.min_um * 1e-6 }, { l.max_um * 1e-6 }, { target_um * 1e-6 } };
}

/// Regrind steps of the journal that no shell brings inside.
void addRegrind(const Build &build, const ShellStock &stock, ShellPlan &plan)
{
    int worst = -1;
    for (size_t i = 0; i < plan.best.journals.size(); ++i)
        if (plan.best.journals[i].outside
            && (worst < 0
                || std::abs(plan.best.journals[i].deviation_m)
                    > std::abs(plan.best.journals[static_cast<size_t>(worst)].deviation_m)))
            worst = static_cast<int>(i);
    if (worst < 0 || stock.shells.empty())
        return;
    const auto w = static_cast<size_t>(worst);
    plan.regrindFor = plan.spaces[w].name;
    double wall = 0;
    for (const ShellStockRow &row : stock.shells)
        wall += row.wall_mm * 1e-3 / static_cast<double>(stock.shells.size());
    const double journal_m = journalOf_mm(build, *build.engine.find(plan.stops[w])) * 1e-3;
    std::vector<double> steps;
    for (const double u : stock.undersizes_mm)
        steps.push_back(u * 1e-3);
    const ClearanceAim &aim = *plan.spaces[w].own;
    plan.regrind = regrindSteps(journal_m + plan.spaces[w].space_m, wall, aim.least, aim.most,
                                aim.target, steps);
}

} // namespace

Result<ShellPlan> shellChoice(const Build &build, const std::vector<GaugedSize> &sizes,
                              const std::string &family)
{
    const auto it = build.shells.find(family);
    if (it == build.shells.end() || it->second.shells.empty())
        return fail("shells", "no shells are entered to choose from");
    const Limits *limits = limitsFor(build, family, {});
    if (!limits)
        return fail("limits", "there are no limits to choose by");
    const ShellStock &stock = it->second;
    ShellPlan out;
    for (const ShellStockRow &row : stock.shells)
        out.classes.push_back({ row.name, row.wall_mm * 1e-3, row.halves });
    for (const GaugedSize &s : sizes) {
        if (s.family != family)
            continue;
        const auto space = spaceOf(stock, s, build);
        if (!space)
            return fail("journals",
                        s.name + ": neither gauged with known shells nor stamped with classes");
        out.stops.push_back(s.stop);
        out.spaces.push_back({ s.name, space->space_m, aimOf(*limitsFor(build, family, s.stop)) });
        out.from.push_back(space->from);
    }
    auto best = selectShells(out.classes, out.spaces, aimOf(*limits));
    if (!best)
        return tl::unexpected(best.error());
    out.best = std::move(*best);
    addRegrind(build, stock, out);
    return out;
}

Result<ShellPlan> shellPlan(const Build &build, const std::vector<GaugedSize> &sizes,
                            const std::string &family)
{
    auto out = shellChoice(build, sizes, family);
    if (!out)
        return out;
    std::map<size_t, double> changed;
    for (size_t i = 0, n = 0; i < sizes.size(); ++i)
        if (sizes[i].family == family)
            changed[i] = out->best.journals[n++].clearance.value_m * 1e6;
    auto idle = hotIdleWith(build, sizes, changed);
    if (!idle)
        return tl::unexpected(idle.error());
    out->hotIdle = std::move(*idle);
    return out;
}

} // namespace mildpath
