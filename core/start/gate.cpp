// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/gate.h"

#include <algorithm>

namespace mildpath {

Mark GateGroup::mark() const
{
    Mark out = Mark::Proven;
    for (const Check *c : checks)
        out = worse(out, markOf(*c));
    return out;
}

Phrase GateGroup::where() const
{
    if (checks.front()->place.id == wholeEngine)
        return {};
    std::vector<Phrase> names;
    for (size_t i = 0; i < std::min<size_t>(checks.size(), 2); ++i)
        names.emplace_back(checks[i]->place.name);
    Phrase out = joinedBy(names);
    if (checks.size() > 2)
        out = { "gate.more", "{0} and {1} more", { out, asCount(checks.size() - 2) } };
    return out;
}

StartGate gateOf(const Judgement &judgement)
{
    StartGate out { &judgement.checks, {}, {} };
    for (const Check &c : judgement.checks.all()) {
        if (!c.asked || c.kind->gate() > CheckGate::Fire)
            continue;
        if (c.state == CheckState::SignedOff)
            out.signedOff.push_back(&c);
        if (!CheckList::shuts(c))
            continue;
        if (out.open.empty() || out.open.back().kind != c.kind)
            out.open.push_back({ c.kind, {}, 0 });
        out.open.back().checks.push_back(&c);
        out.open.back().holds += c.state == CheckState::Hold;
    }
    return out;
}

} // namespace mildpath
