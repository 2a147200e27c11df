// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/fastening.h"

#include "document/document.h"
#include "quantity/rounding.h"
#include "quantity/units.h"

#include <algorithm>
#include <cmath>

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
    const auto loose = [&](size_t i) { return out.bolts[i].stage == 0 && !out.bolts[i].older; };
    for (const TorqueCard &before : build.torqueCards)
        if (before.id == card.after && !torqueState(build, before).complete())
            out.waitsFor = before.name;
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
            const bool older = t.stage > 0 && t.edition != card.edition;
            out.bolts[bolt] = { older ? 0 : t.stage, t.stage > 0 && t.newBolt, older };
            if (std::all_of(sets[s].begin(), sets[s].end(), loose))
                ahead[s] = false;
        }
    }
    for (const TorqueState::Bolt &b : out.bolts) {
        out.older = out.older || b.older;
        // Outer bolts before the inner ones are done.
        out.outOfOrder = out.outOfOrder || (!out.waitsFor.empty() && b.stage > 0);
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
    std::optional<bool> torqued;
    for (const TorqueCard &card : build.torqueCards) {
        std::optional<TorqueState> state;
        for (size_t i = 0; i < card.fasteners.size(); ++i) {
            if (card.fasteners[i].stop != stop)
                continue;
            if (!state)
                state = torqueState(build, card);
            torqued = torqued.value_or(true)
                && state->bolts[i].stage == static_cast<int>(card.stages.size());
        }
    }
    return torqued;
}

double TorqueStage::torque_nm() const
{
    return fromUnit(torque, unit.empty() ? "N m" : unit, Dimension::Torque);
}

Result<std::vector<TorqueStage>> readStages(std::string_view text, std::string_view unit)
{
    std::vector<TorqueStage> out;
    std::string wanted(unit);
    for (size_t from = 0; from <= text.size();) {
        size_t end = std::min({ text.find(',', from), text.find(';', from), text.size() });
        const size_t then = text.find("then", from);
        const size_t skip = then < end ? 4 : 1;
        end = std::min(end, then);
        std::string part(text.substr(from, end - from));
        from = end + skip;
        std::erase_if(part, [](char c) { return c == '+'; });
        const auto first = part.find_first_not_of(" \t"), last = part.find_last_not_of(" \t");
        if (first == std::string::npos)
            continue;
        part = part.substr(first, last - first + 1);
        const std::string row = "stage " + std::to_string(out.size() + 1);
        TorqueStage stage;
        for (const std::string_view degrees : { "°", "degrees", "deg" })
            if (part.ends_with(degrees)) {
                const auto angle = parseQuantity(part.substr(0, part.size() - degrees.size()),
                                                 Dimension::Number, "");
                if (!angle)
                    return fail(row, angle.error().message);
                stage.angle_deg = angle->si;
                break;
            }
        if (stage.angle_deg == 0) {
            const auto torque = parseQuantity(part, Dimension::Torque, wanted);
            if (!torque)
                return fail(row, torque.error().message);
            wanted = torque->unit->symbol;
            stage.torque = toUnit(torque->si, wanted, Dimension::Torque);
            stage.torque = std::round(stage.torque * 1e6) / 1e6;
            stage.unit = wanted;
        }
        out.push_back(std::move(stage));
    }
    if (auto ok = checkStages(out); !ok)
        return tl::unexpected(ok.error());
    return out;
}

Result<void> checkStages(const std::vector<TorqueStage> &stages)
{
    if (stages.empty())
        return fail("stages", "there are none: \"30 N m, 60 N m, +90°\" are three");
    double before = 0;
    for (size_t i = 0; i < stages.size(); ++i) {
        const TorqueStage &s = stages[i];
        const std::string row = "stage " + std::to_string(i + 1);
        if ((s.torque > 0) == (s.angle_deg > 0))
            return fail(row, "is either to a torque or on by an angle");
        if (s.angle_deg > 360)
            return fail(row,
                        { "torque.turn",
                          "goes on by {0}; 360° is the most",
                          { Quantity { s.angle_deg, Shows::Angle } } });
        if (s.angle_deg > 0 && before == 0)
            return fail(row, "is an angle before there is any torque");
        if (s.angle_deg > 0)
            continue;
        if (const double nm = s.torque_nm(); nm > 2000)
            return fail(row,
                        { "torque.most", "is above {0}", { Quantity { 2000, Shows::Torque } } });
        else if (nm < before - 1e-9)
            return fail(row, "is less than the stage before it");
        else
            before = nm;
    }
    return {};
}

std::string cardSource(const TorqueCard &card)
{
    return card.isStartingValue() ? "starting value, not the manufacturer's" : card.source;
}

Phrase stagesText(const std::vector<TorqueStage> &stages)
{
    std::vector<Phrase> out;
    for (const TorqueStage &s : stages)
        out.push_back(stageText(s));
    return joinedBy(out, "{*|, }");
}

Phrase stageText(const TorqueStage &stage)
{
    if (stage.torque > 0 && stage.unit.empty())
        return asPhrase({ stage.torque_nm(), Shows::Torque });
    if (stage.torque > 0) {
        // As it was entered: a manual's figure is not turned into another.
        int decimals = 0;
        while (decimals < 3
               && std::abs(std::round(stage.torque * std::pow(10, decimals))
                           - stage.torque * std::pow(10, decimals))
                   > 1e-6)
            ++decimals;
        return { "torque.stage", "{0} {1}", { asNumber(stage.torque, decimals), stage.unit } };
    }
    return asPhrase(asChange({ stage.angle_deg, Shows::Angle }));
}

} // namespace mildpath
