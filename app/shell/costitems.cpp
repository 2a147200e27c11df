// SPDX-License-Identifier: GPL-3.0-or-later
#include "shell/costitems.h"

#include "checks/cost.h"
#include "open/questions.h"

#include <algorithm>

namespace mildpath {

void addCost(OpenBuild &open, const std::vector<const Check *> &checks, PanelContent &out)
{
    const bool solved = std::ranges::any_of(
        checks, [&](const Check *c) { return faultBehind(open.build(), *c).has_value(); });
    if (!solved)
        return;
    out.push_back(PanelRule {});
    out.push_back(PanelHeading { QObject::tr("If it were false") });
    const auto costs = open.answers().ask(ask::checkCosts());
    if (!costs) {
        out.push_back(PanelText { QObject::tr("Being solved…"), Tone::Muted });
        return;
    }
    const CheckCost *worst = nullptr;
    for (const Check *c : checks)
        if (const auto at = costs->answer.find(c->id()); at != costs->answer.end()
            && (!worst || at->second.harm > worst->harm
                || (at->second.harm == worst->harm && at->second.ratio < worst->ratio)))
            worst = &at->second;
    if (!worst)
        return;
    constexpr int silent = 3; // harm nobody would see at the gauge
    out.push_back(PanelText { qs(worst->text), worst->harm >= silent ? Tone::Warn : Tone::Plain });
}

} // namespace mildpath
