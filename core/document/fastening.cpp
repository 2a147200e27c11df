// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/fastening.h"

#include "document/document.h"
#include "quantity/rounding.h"

#include <algorithm>

namespace mildpath {

bool TorqueState::allNew() const
{
    return std::all_of(bolts.begin(), bolts.end(), [](const Bolt &b) { return b.newBolt; });
}

namespace {

/// Fasteners that are tightened together, by index and in order.
std::vector<std::vector<size_t>> setsOf(const TorqueCard &card)
{
    std::vector<std::vector<size_t>> out;
    for (size_t i = 0; i < card.fasteners.size(); ++i) {
        auto same = out.begin();
        if (card.capByCap)
            same = std::find_if(out.begin(), out.end(), [&](const std::vector<size_t> &set) {
                return card.fasteners[set.front()].stop == card.fasteners[i].stop;
            });
        if (same == out.end())
            same = out.insert(out.end(), std::vector<size_t> {});
        same->push_back(i);
    }
    return out;
}

} // namespace

TorqueState torqueState(const Build &build, const TorqueCard &card)
{
    TorqueState out;
    out.bolts.resize(card.fasteners.size());
    const auto sets = setsOf(card);
    std::vector<bool> ahead(sets.size(), false);
    const auto loose = [&](size_t i) { return out.bolts[i].stage == 0; };
    for (const TorqueTick &t : build.ticks) {
        if (t.card != card.id || t.fastener < 1 || t.fastener > static_cast<int>(out.bolts.size()))
            continue;
        const auto bolt = static_cast<size_t>(t.fastener - 1);
        for (size_t s = 0; s < sets.size(); ++s) {
            const auto self = std::find(sets[s].begin(), sets[s].end(), bolt);
            if (self == sets[s].end())
                continue;
            if (t.stage > 0 && std::any_of(sets[s].begin(), self, [&](size_t earlier) {
                    return out.bolts[earlier].stage < t.stage;
                }))
                ahead[s] = true;
            out.bolts[bolt] = { t.stage, t.stage > 0 && t.newBolt };
            if (std::all_of(sets[s].begin(), sets[s].end(), loose))
                ahead[s] = false;
        }
    }
    const int last = static_cast<int>(card.stages.size());
    for (size_t s = 0; s < sets.size(); ++s) {
        std::optional<TorqueState::Next> next;
        for (int stage = 1; stage <= last && !next; ++stage)
            for (const size_t i : sets[s])
                if (!next && out.bolts[i].stage < stage)
                    next = TorqueState::Next { static_cast<int>(i) + 1, stage };
        out.halfWay = out.halfWay || (next && !std::all_of(sets[s].begin(), sets[s].end(), loose));
        if (!out.tighten)
            out.tighten = next;
        out.outOfOrder = out.outOfOrder || ahead[s];
    }
    for (size_t i = out.bolts.size(); i-- > 0 && !out.loosen;)
        if (!loose(i))
            out.loosen = static_cast<int>(i) + 1;
    return out;
}

std::optional<bool> capTorqued(const Build &build, std::string_view stop)
{
    for (const TorqueCard &card : build.torqueCards) {
        std::optional<TorqueState> state;
        std::optional<bool> torqued;
        for (size_t i = 0; i < card.fasteners.size(); ++i) {
            if (card.fasteners[i].stop != stop)
                continue;
            if (!state)
                state = torqueState(build, card);
            torqued = torqued.value_or(true)
                && state->bolts[i].stage == static_cast<int>(card.stages.size());
        }
        if (torqued)
            return torqued;
    }
    return std::nullopt;
}

Phrase stageText(const TorqueStage &stage)
{
    if (stage.torque_nm > 0)
        return asPhrase({ stage.torque_nm, Shows::Torque });
    return asPhrase(asChange({ stage.angle_deg, Shows::Angle }));
}

} // namespace mildpath
