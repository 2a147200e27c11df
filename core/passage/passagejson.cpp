// SPDX-License-Identifier: GPL-3.0-or-later
#include "passage/passage.h"
#include "quantity/json.h"

namespace mildpath {
namespace {

PassageEnd endFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    PassageEnd e;
    e.kind = in.text("kind");
    e.passage = in.text("passage", "");
    e.at_mm = in.number("at_mm", 0);
    e.straight = in.boolean("straight", false);
    e.stop = in.text("stop", "");
    e.extra = in.leftOver();
    return e;
}

Json endToJson(const PassageEnd &e)
{
    Json out = { { "kind", e.kind } };
    if (!e.passage.empty()) {
        out["passage"] = e.passage;
        out["at_mm"] = e.at_mm;
    }
    if (e.straight)
        out["straight"] = true;
    if (!e.stop.empty())
        out["stop"] = e.stop;
    out.update(e.extra.json());
    return out;
}

} // namespace

Passage passageFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Passage p;
    p.id = in.text("id");
    p.name = in.text("name", p.id);
    p.part = in.text("part");
    p.stop = in.text("stop", "");
    p.made = in.text("made", p.made);
    p.curved = in.boolean("curved", false);
    p.d_mm = in.number("d_mm");
    p.l_mm = in.number("l_mm");
    const Json &ends = in.array("ends");
    if (ends.size() != 2)
        in.error("ends", "a passage has two ends");
    else
        for (size_t i = 0; i < 2; ++i)
            p.ends[i] = endFromJson(ends[i], in.placeOf("ends") + "/" + std::to_string(i), errors);
    const Json &crossings = in.array("crossings");
    for (size_t i = 0; i < crossings.size(); ++i) {
        JsonReader c(crossings[i], in.placeOf("crossings") + "/" + std::to_string(i), errors);
        const double at = c.number("at_mm"), there = c.number("there_mm");
        p.crossings.push_back({ at, c.text("passage"), there });
    }
    const Json &restrictors = in.array("restrictors");
    for (size_t i = 0; i < restrictors.size(); ++i) {
        JsonReader r(restrictors[i], in.placeOf("restrictors") + "/" + std::to_string(i), errors);
        const double at = r.number("at_mm");
        p.restrictors.push_back({ at, r.number("d_mm") });
    }
    p.splitFrom = in.text("split_from", "");
    p.splitAfter = in.integer("split_after_events", 0);
    p.extra = in.leftOver();
    return p;
}

Json passageToJson(const Passage &p)
{
    Json out = { { "id", p.id },     { "name", p.name }, { "part", p.part }, { "stop", p.stop },
                 { "made", p.made }, { "d_mm", p.d_mm }, { "l_mm", p.l_mm } };
    if (p.curved)
        out["curved"] = true;
    out["ends"] = { endToJson(p.ends[0]), endToJson(p.ends[1]) };
    for (const Crossing &c : p.crossings)
        out["crossings"].push_back(
            { { "at_mm", c.at_mm }, { "passage", c.passage }, { "there_mm", c.there_mm } });
    for (const Restrictor &r : p.restrictors)
        out["restrictors"].push_back({ { "at_mm", r.at_mm }, { "d_mm", r.d_mm } });
    if (!p.splitFrom.empty()) {
        out["split_from"] = p.splitFrom;
        out["split_after_events"] = p.splitAfter;
    }
    out.update(p.extra.json());
    return out;
}

Plug plugFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Plug p;
    p.id = in.text("id");
    p.name = in.text("name", p.id);
    p.kind = in.text("kind");
    p.passage = in.text("passage");
    p.at_mm = in.number("at_mm");
    p.d_mm = in.number("d_mm");
    p.thread = in.text("thread", "");
    p.behind = in.text("behind", "");
    p.stop = in.text("stop", "");
    p.extra = in.leftOver();
    return p;
}

Json plugToJson(const Plug &p)
{
    Json out = { { "id", p.id },           { "name", p.name },   { "kind", p.kind },
                 { "passage", p.passage }, { "at_mm", p.at_mm }, { "d_mm", p.d_mm } };
    for (const auto &[key, text] : { std::pair("thread", &p.thread), std::pair("behind", &p.behind),
                                     std::pair("stop", &p.stop) })
        if (!text->empty())
            out[key] = *text;
    out.update(p.extra.json());
    return out;
}

} // namespace mildpath
