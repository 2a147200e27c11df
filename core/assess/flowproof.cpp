// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/flowproof.h"

#include "document/logbook.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

std::string listed(const std::vector<std::string> &names)
{
    constexpr size_t most = 3;
    std::string out;
    for (size_t i = 0; i < std::min(names.size(), most); ++i)
        out += (i ? ", " : "") + names[i];
    if (names.size() > most)
        out += " and " + std::to_string(names.size() - most) + " more";
    return out;
}

std::optional<double> caught_l_min(const FlowSeen &f)
{
    if (!f.litres || !f.seconds)
        return std::nullopt;
    return *f.litres / *f.seconds * 60;
}

/// The words two logbooks use for one thing, where they differ.
template <class Word>
void differ(const FlowComparison &c, const char *what, Word word, std::vector<std::string> &out)
{
    std::set<std::string> here, there;
    bool unsaid = false;
    for (const FlowPair &p : c.pairs) {
        const std::string a = word(*p.here), b = word(*p.there);
        unsaid = unsaid || a.empty() || b.empty();
        here.insert(a);
        there.insert(b);
    }
    const auto all = [](const std::set<std::string> &words) {
        std::string text;
        for (const std::string &w : words)
            text += (text.empty() ? "" : ", ") + w;
        return text;
    };
    if (unsaid)
        out.push_back(std::string(what) + " not said everywhere");
    else if (here != there || here.size() > 1)
        out.push_back(std::string(what) + " differs: " + all(here) + " here, " + all(there)
                      + " there");
}

} // namespace

Mark markOfSight(std::string_view saw)
{
    return saw == "flows" ? Mark::Proven : saw == "weak" ? Mark::LookAgain : Mark::Hold;
}

Mark FlowOutlet::mark() const
{
    return seen ? markOfSight(seen->saw) : Mark::NotDone;
}

FlowProof flowProof(const Build &build, const Stop &stop)
{
    return flowProof(build, stop, standing(build.flows));
}

FlowProof flowProof(const Build &build, const Stop &stop,
                    const std::vector<const FlowSeen *> &standing)
{
    FlowProof out;
    for (const std::string &name : flowOutlets(build, stop))
        out.outlets.push_back({ name, nullptr });
    for (const FlowSeen *f : standing) {
        if (f->stop != stop.id)
            continue;
        for (size_t i = 0; i < out.outlets.size(); ++i)
            if (f->outlet == 0 || f->outlet == static_cast<int>(i) + 1)
                out.outlets[i].seen = f;
    }
    std::vector<std::string> dry, weak;
    for (const FlowOutlet &o : out.outlets) {
        if (!o.seen)
            continue;
        ++out.seen;
        if (o.mark() == Mark::Hold)
            dry.push_back(o.name);
        else if (o.mark() == Mark::LookAgain)
            weak.push_back(o.name);
    }
    const size_t all = out.outlets.size();
    if (!dry.empty()) {
        out.mark = Mark::Hold;
        out.text = "no oil at " + listed(dry);
        out.next = "Find what shuts it or lets it out before it; What if shows where to look";
    } else if (!weak.empty()) {
        out.mark = Mark::LookAgain;
        out.text = "little oil at " + listed(weak);
        out.next = "Look again with warm oil; compare with its neighbours";
    } else if (out.seen == static_cast<int>(all)) {
        out.mark = Mark::Proven;
        out.text = all > 1 ? "oil seen at all " + std::to_string(all) : "oil seen";
    } else if (out.seen > 0) {
        out.text = "oil seen at " + std::to_string(out.seen) + " of " + std::to_string(all);
    } else {
        out.text = "nobody looked";
    }
    return out;
}

FlowComparison compareFlows(const Build &here, const Build &there)
{
    FlowComparison out;
    for (const Stop &stop : here.engine.stops) {
        const Stop *other = there.engine.find(stop.id);
        const FlowProof a = flowProof(here, stop);
        const FlowProof b = other ? flowProof(there, *other) : FlowProof {};
        for (size_t i = 0; i < a.outlets.size(); ++i) {
            const FlowSeen *mine = a.outlets[i].seen;
            const FlowSeen *theirs = i < b.outlets.size() ? b.outlets[i].seen : nullptr;
            if (mine && theirs)
                out.pairs.push_back({ stop.name, a.outlets[i].name, mine, theirs,
                                      caught_l_min(*mine), caught_l_min(*theirs) });
            else if (mine || theirs)
                out.onlyOne.push_back(stop.name == a.outlets[i].name
                                          ? stop.name
                                          : stop.name + ", " + a.outlets[i].name);
        }
    }
    if (out.pairs.empty())
        return out;
    differ(
        out, "oil", [](const FlowSeen &f) { return f.oil; }, out.cautions);
    differ(
        out, "filter", [](const FlowSeen &f) { return f.filter; }, out.cautions);
    differ(
        out, "way of bringing pressure", [](const FlowSeen &f) { return f.means; }, out.cautions);
    for (const FlowPair &p : out.pairs)
        if (!p.here->oil_c || !p.there->oil_c) {
            out.cautions.push_back("oil temperature not said everywhere");
            break;
        } else if (std::abs(*p.here->oil_c - *p.there->oil_c) > sameWarmth_k) {
            out.cautions.push_back("the oil was not as warm");
            break;
        }
    return out;
}

} // namespace mildpath
