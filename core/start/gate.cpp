// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/gate.h"

#include "assess/assessment.h"
#include "assess/figuremarks.h"

#include <algorithm>

namespace mildpath {

Mark GateHold::mark() const
{
    return open() ? Mark::Hold : Mark::LookAgain;
}

Mark StartGate::mark(int notDone) const
{
    if (holds.empty())
        return doneMark(notDone == 0);
    return mayStart() ? Mark::LookAgain : Mark::Hold;
}

int StartGate::open() const
{
    return static_cast<int>(
        std::count_if(holds.begin(), holds.end(), [](const GateHold &h) { return h.open(); }));
}

const GateHold *StartGate::find(std::string_view finding) const
{
    for (const GateHold &h : holds)
        if (h.finding->id == finding)
            return &h;
    return nullptr;
}

StartGate gateOf(const Build &build, const Assessment &assessment)
{
    const auto signatures = standing(build.signOffs);
    StartGate out;
    for (const Finding &f : assessment.findings) {
        if (f.mark != Mark::Hold)
            continue;
        GateHold hold { &f };
        for (const SignOff *s : signatures)
            if (s->hold == f.id)
                (s->said == render(f.text, fileStyle) ? hold.signature : hold.outdated) = s;
        out.holds.push_back(hold);
    }
    return out;
}

Result<SignOff> signFor(const Finding &hold, const std::string &by, const std::string &why)
{
    const auto blank
        = [](const std::string &s) { return s.find_first_not_of(" \t") == std::string::npos; };
    if (blank(by))
        return fail("by", "Who signs?");
    if (blank(why))
        return fail("note", "Enter the reason");
    SignOff out;
    out.by = by;
    out.note = why;
    out.hold = hold.id;
    out.said = render(hold.text, fileStyle);
    return out;
}

} // namespace mildpath
