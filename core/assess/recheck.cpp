// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/recheck.h"

#include "assess/rules.h"
#include "assess/sizes.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

/// The build as if only these readings had been written.
std::vector<GaugedSize> sizesFrom(Build build, size_t from, size_t to)
{
    std::vector<Reading> some;
    for (size_t i = from; i < std::min(to, build.readings.size()); ++i) {
        some.push_back(std::as_const(build).readings[i]);
        // What it strikes may lie on the other side.
        if (some.back().value_um)
            some.back().replaces.clear();
    }
    build.readings = std::move(some);
    return judgeSizes(build);
}

void judge(Rechecked &r)
{
    r.mark = Mark::Proven;
    if (r.limits && (r.after_um.value < r.limits->min_um || r.after_um.value > r.limits->max_um)) {
        r.mark = Mark::Hold;
        r.verdict = { "recheck.outside",
                      "{0} is outside {1}",
                      { asClearance(r.after_um.value),
                        QuantityRange { asLimit(r.limits->min_um), asLimit(r.limits->max_um) } } };
    }
    if (!r.before_um) {
        append(r.verdict, "not measured before the run");
        return;
    }
    r.change_um = r.after_um.value - r.before_um->value;
    r.u_um = std::hypot(r.after_um.standardUncertainty, r.before_um->standardUncertainty);
    r.changed = std::abs(r.change_um) > 2 * r.u_um;
    append(r.verdict,
           { "recheck.change",
             r.changed ? "{0} {1}, more than both measurements can be off ({2})"
                       : "{0} {1}, within measuring error ({2})",
             { asClearance(std::abs(r.change_um)), r.change_um > 0 ? "wider" : "closer",
               asClearance(2 * r.u_um) } });
    if (r.changed && r.mark == Mark::Proven)
        r.mark = Mark::LookAgain;
}

} // namespace

Recheck recheckOf(const Build &build, const Opening &opening)
{
    Recheck out { .opening = opening.id, .engine_h = opening.engine_h, .sizes = {} };
    const auto from = static_cast<size_t>(opening.readings);
    size_t to = build.readings.size();
    for (const Opening *o : standing(build.openings))
        if (o->readings > opening.readings)
            to = std::min(to, static_cast<size_t>(o->readings));
    // Before: what stood then, corrections among them resolved.
    Build then = build;
    const auto first = build.readings.begin();
    then.readings.assign(
        first, first + static_cast<std::ptrdiff_t>(std::min(from, build.readings.size())));
    const std::vector<GaugedSize> before = judgeSizes(then), after = sizesFrom(build, from, to);
    for (size_t i = 0; i < after.size(); ++i) {
        const GaugedSize &a = after[i], &b = before[i];
        if (!a.measured) {
            out.notAgain += b.measured;
            continue;
        }
        Rechecked r { .stop = a.stop,
                      .family = a.family,
                      .item = a.item,
                      .name = a.name,
                      .before_um = {},
                      .limits = a.limits,
                      .verdict = {} };
        r.after_um = a.cold_um;
        if (b.measured)
            r.before_um = b.cold_um;
        judge(r);
        out.sizes.push_back(std::move(r));
    }
    return out;
}

} // namespace mildpath
