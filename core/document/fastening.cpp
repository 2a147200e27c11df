// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/fastening.h"

#include "document/document.h"
#include "quantity/json.h"
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

std::string stageText(const TorqueStage &stage)
{
    return stage.torque_nm > 0 ? formatPlain(stage.torque_nm, 0) + " Nm"
                               : "+ " + formatPlain(stage.angle_deg, 0) + "°";
}

TorqueCard torqueCardFromJson(const Json &json, const std::string &place,
                              std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    TorqueCard c;
    c.id = in.text("id");
    c.name = in.text("name", c.id);
    c.threads = in.text("threads", "");
    c.capByCap = in.boolean("cap_by_cap", false);
    c.singleUse = in.boolean("single_use", false);
    const Json &stages = in.array("stages");
    for (size_t i = 0; i < stages.size(); ++i) {
        JsonReader s(stages[i], in.placeOf("stages") + "/" + std::to_string(i), errors);
        c.stages.push_back({ s.number("torque_nm", 0), s.number("angle_deg", 0) });
    }
    const Json &fasteners = in.array("fasteners");
    for (size_t i = 0; i < fasteners.size(); ++i) {
        JsonReader f(fasteners[i], in.placeOf("fasteners") + "/" + std::to_string(i), errors);
        c.fasteners.push_back({ f.text("stop"), f.number("x_mm", 0), f.number("y_mm", 0) });
    }
    c.source = in.text("source", "");
    c.extra = in.leftOver();
    return c;
}

Json torqueCardToJson(const TorqueCard &c)
{
    Json out = { { "id", c.id },
                 { "name", c.name },
                 { "threads", c.threads },
                 { "cap_by_cap", c.capByCap },
                 { "single_use", c.singleUse } };
    out["stages"] = Json::array();
    for (const TorqueStage &s : c.stages) {
        Json stage = Json::object();
        stage[s.torque_nm > 0 ? "torque_nm" : "angle_deg"]
            = s.torque_nm > 0 ? s.torque_nm : s.angle_deg;
        out["stages"].push_back(std::move(stage));
    }
    out["fasteners"] = Json::array();
    for (const Fastener &f : c.fasteners)
        out["fasteners"].push_back({ { "stop", f.stop }, { "x_mm", f.x_mm }, { "y_mm", f.y_mm } });
    out["source"] = c.source;
    out.update(c.extra.json());
    return out;
}

TorqueTick torqueTickFromJson(const Json &json, const std::string &place,
                              std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    TorqueTick t;
    t.id = in.text("id");
    t.card = in.text("card");
    t.fastener = in.integer("fastener", 0);
    t.stage = in.integer("stage", -1);
    t.newBolt = in.boolean("new_bolt", false);
    t.by = in.text("by", "");
    t.at = in.text("at", "");
    t.extra = in.leftOver();
    return t;
}

Json torqueTickToJson(const TorqueTick &t)
{
    Json out
        = { { "id", t.id }, { "card", t.card }, { "fastener", t.fastener }, { "stage", t.stage } };
    if (t.newBolt)
        out["new_bolt"] = true;
    out["by"] = t.by;
    out["at"] = t.at;
    out.update(t.extra.json());
    return out;
}

} // namespace mildpath
