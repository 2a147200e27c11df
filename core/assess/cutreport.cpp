// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/cutreport.h"

#include "assess/finding.h"
#include "assess/rules.h"
#include "quantity/hours.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

Quantity times(double ratio)
{
    return asNumber(ratio, ratio < 10 ? 1 : 0);
}

/// Kinds that running in sheds, where more later than at first is news.
bool metal(std::string_view kind)
{
    return kind == "bright" || kind == "magnetic";
}

void judgeKind(const Build &build, const CutKind &kind, const JudgedCut &cut, JudgedKind &k)
{
    const double specks = *valueOf(build.after.values, afterKeys(), "speck_count");
    if (!k.count) {
        k.verdict = "not looked for";
        return;
    }
    k.verdict = { "cut.count",
                  k.inCan > 0 ? "{0} ({1} in the can)" : "{0}",
                  { asCount(*k.count), asCount(k.inCan) } };
    if (k.largest_mm)
        append(k.verdict, { "cut.size", "up to {0}", { asLength(*k.largest_mm, 1) } }, "{*|, }");
    if (k.against)
        append(k.verdict, comparisonText(*k.against));
    if (kind.always && *k.count > 0) {
        k.mark = Mark::Hold;
        return;
    }
    k.mark = Mark::Proven;
    const bool risen = k.against && k.against->low95 && *k.against->low95 > 1;
    if (risen || (metal(kind.id) && k.largest_mm.value_or(0) >= bigFlake_mm))
        k.mark = Mark::LookAgain;
    if (!cut.firstHours && *k.count > specks && metal(kind.id)) {
        k.mark = Mark::LookAgain;
        append(k.verdict, "more than a speck after the first hours");
    }
}

void addFindings(const Build &build, const CutReport &report, const FilterCut &cut,
                 const JudgedCut &judged, std::vector<Finding> &out)
{
    if (!cut.settled.empty())
        return;
    const Stop *filter = build.engine.ofKind(StopKind::Filter);
    const std::string stop = filter ? filter->id : "";
    const std::string at = " in the filter cut at " + hoursText(cut.engine_h);
    if (const JudgedKind &copper = judged.kind("copper"); copper.mark == Mark::Hold)
        out.push_back({ "copper_in_filter@" + cut.id, Mark::Hold, stop,
                        named("Copper colour" + at, copper.verdict),
                        "Do not run it further. Remove big-end caps, then mains: look for the "
                        "underlayer of the shells, then for worn bushes" });
    if (report.cuts.back().id != cut.id)
        return;
    for (const JudgedKind &k : judged.kinds)
        if (k.mark == Mark::LookAgain)
            out.push_back({ k.kind + "_in_filter@" + cut.id, Mark::LookAgain, stop,
                            named(capitalised(findCutKind(k.kind)->name) + at, k.verdict),
                            "It may be " + std::string(findCutKind(k.kind)->means)
                                + ". Cut the next filter early and compare" });
}

} // namespace

const JudgedKind &JudgedCut::kind(std::string_view kindId) const
{
    return *std::ranges::find_if(kinds, [&](const JudgedKind &k) { return k.kind == kindId; });
}

JudgedCut comparedWith(const Build &build, JudgedCut cut, const std::string &other)
{
    const FilterCut *own = nullptr, *before = nullptr;
    for (const FilterCut *c : standing(build.filterCuts)) {
        own = c->id == cut.id ? c : own;
        before = c->id == other ? c : before;
    }
    for (JudgedKind &k : cut.kinds) {
        k.against.reset();
        k.againstCut.clear();
        const std::optional<int> then = before ? before->count(k.kind) : std::nullopt;
        if (!own || !k.count || !then)
            continue;
        k.against = compareCounts(exposureOf(*before, *then), exposureOf(*own, *k.count));
        k.againstCut = other;
    }
    return cut;
}

Exposure exposureOf(const FilterCut &cut, int count)
{
    return { count, cut.filter_h, cut.area_cm2 };
}

Phrase comparisonText(const CountComparison &c)
{
    if (!c.low95)
        return "none in either";
    if (!c.ratio && *c.low95 > 1)
        return { "cut.none_before",
                 "none before: at least {0} times the rate",
                 { times(*c.low95) } };
    if (!c.ratio)
        return "none before: too few to say how much more";
    if (*c.ratio == 0)
        return { "cut.none_now",
                 "none now: at most {0} times the rate, {1}",
                 { times(*c.high95), *c.high95 < 1 ? "fallen" : "too few to tell" } };
    return { "cut.rate",
             "{0} times the rate ({1} to {2}), {3}",
             { times(*c.ratio), times(*c.low95), times(*c.high95),
               *c.low95 > 1        ? "risen"
                   : *c.high95 < 1 ? "fallen"
                                   : "too few to tell" } };
}

CutReport reportCuts(const Build &build)
{
    CutReport out;
    std::vector<const FilterCut *> cuts = standing(build.filterCuts);
    std::ranges::stable_sort(cuts, {}, [](const FilterCut *c) { return c->engine_h; });
    const double first_h = *valueOf(build.after.values, afterKeys(), "first_hours_h");
    for (size_t i = 0; i < cuts.size(); ++i) {
        const FilterCut &c = *cuts[i];
        JudgedCut judged {
            .id = c.id, .engine_h = c.engine_h, .kinds = {}, .remarks = {}, .verdict = {}
        };
        const double inFirst
            = std::max(0.0, std::min(c.engine_h, first_h) - (c.engine_h - c.filter_h));
        judged.firstHours = inFirst > c.filter_h / 2;
        if (i > 0 && cuts[i - 1]->engine_h == c.engine_h)
            judged.remarks.push_back("cut at the same hours as " + cuts[i - 1]->id
                                     + ": correct one of them; it is not compared");
        else if (i > 0 && c.engine_h - c.filter_h < cuts[i - 1]->engine_h - 1e-9)
            judged.remarks.push_back("saw oil before " + cuts[i - 1]->id
                                     + " was cut: were there two filters?");
        for (const CutKind &kind : cutKinds()) {
            JudgedKind k { .kind = std::string(kind.id),
                           .count = c.count(kind.id),
                           .againstCut = {},
                           .verdict = {} };
            k.inCan = c.count(kind.id, "can").value_or(0);
            for (const DebrisCount &d : c.counts)
                if (d.kind == kind.id && d.largest_mm)
                    k.largest_mm = std::max(k.largest_mm.value_or(0), *d.largest_mm);
            if (k.count)
                k.per100h_100cm2 = exposureOf(c, *k.count).rate_per_h_cm2() * 1e4;
            for (size_t j = i; k.count && j-- > 0;) {
                const std::optional<int> before = cuts[j]->count(kind.id);
                if (cuts[j]->engine_h == c.engine_h || !before
                    || out.cuts[j].firstHours != judged.firstHours)
                    continue;
                k.against = compareCounts(exposureOf(*cuts[j], *before), exposureOf(c, *k.count));
                k.againstCut = cuts[j]->id;
                break;
            }
            judgeKind(build, kind, judged, k);
            judged.mark = judged.kinds.empty() ? k.mark : worse(judged.mark, k.mark);
            judged.kinds.push_back(std::move(k));
        }
        const bool anything = std::ranges::any_of(
            judged.kinds, [](const JudgedKind &k) { return k.count.value_or(0) > 0; });
        judged.verdict = judged.mark == Mark::Hold ? "copper colour: bearings first"
            : judged.mark == Mark::LookAgain       ? "more than it should be"
            : !anything                            ? "nothing found"
            : judged.firstHours                    ? "what the first hours shed"
                                                   : "as it should be";
        out.cuts.push_back(std::move(judged));
    }
    for (size_t i = 0; i < cuts.size(); ++i)
        addFindings(build, out, *cuts[i], out.cuts[i], out.findings);
    return out;
}

} // namespace mildpath
