// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/parts.h"
#include "quantity/json.h"

#include <algorithm>

namespace mildpath {
namespace {

std::vector<SizeClass> classesFromJson(const Json &json, const std::string &place,
                                       std::vector<Error> &errors)
{
    std::vector<SizeClass> out;
    for (size_t i = 0; i < json.size(); ++i) {
        JsonReader in(json[i], place + "/" + std::to_string(i), errors);
        out.push_back({ in.text("name"), in.number("least_mm"), in.number("most_mm") });
    }
    return out;
}

Json classesToJson(const std::vector<SizeClass> &classes)
{
    Json out = Json::array();
    for (const SizeClass &c : classes)
        out.push_back({ { "name", c.name }, { "least_mm", c.least_mm }, { "most_mm", c.most_mm } });
    return out;
}

} // namespace

const ShellStockRow *ShellStock::find(const std::string &name) const
{
    const auto it = std::find_if(shells.begin(), shells.end(),
                                 [&](const ShellStockRow &s) { return s.name == name; });
    return it == shells.end() ? nullptr : &*it;
}

ShellStock shellStockFromJson(const Json &json, const std::string &place,
                              std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    ShellStock s;
    const Json &shells = in.array("shells");
    for (size_t i = 0; i < shells.size(); ++i) {
        JsonReader row(shells[i], in.placeOf("shells") + "/" + std::to_string(i), errors);
        s.shells.push_back({ row.text("name"), row.number("wall_mm"), {} });
        if (row.has("halves"))
            s.shells.back().halves = row.integer("halves", 0);
    }
    s.housings
        = classesFromJson(in.array("housing_classes"), in.placeOf("housing_classes"), errors);
    s.journals
        = classesFromJson(in.array("journal_classes"), in.placeOf("journal_classes"), errors);
    const Json &undersizes = in.array("undersizes_mm");
    for (size_t i = 0; i < undersizes.size(); ++i) {
        if (undersizes[i].is_number())
            s.undersizes_mm.push_back(undersizes[i].get<double>());
        else
            in.error("undersizes_mm/" + std::to_string(i), "must be a number");
    }
    for (const auto &[stop, value] : in.object("fitted").items()) {
        JsonReader f(value, in.placeOf("fitted") + "/" + stop, errors);
        s.fitted[stop] = { f.text("upper", ""), f.text("lower", ""), f.text("housing_class", ""),
                           f.text("journal_class", "") };
    }
    s.source = in.text("source", "");
    s.extra = in.leftOver();
    return s;
}

Json shellStockToJson(const ShellStock &s)
{
    Json out = Json::object();
    out["shells"] = Json::array();
    for (const ShellStockRow &row : s.shells) {
        Json r { { "name", row.name }, { "wall_mm", row.wall_mm } };
        if (row.halves)
            r["halves"] = *row.halves;
        out["shells"].push_back(std::move(r));
    }
    out["housing_classes"] = classesToJson(s.housings);
    out["journal_classes"] = classesToJson(s.journals);
    out["undersizes_mm"] = s.undersizes_mm;
    out["fitted"] = Json::object();
    for (const auto &[stop, f] : s.fitted) {
        Json one = Json::object();
        for (const auto &[key, text] : { std::pair("upper", f.upper), std::pair("lower", f.lower),
                                         std::pair("housing_class", f.housingClass),
                                         std::pair("journal_class", f.journalClass) })
            if (!text.empty())
                one[key] = text;
        out["fitted"][stop] = std::move(one);
    }
    out["source"] = s.source;
    out.update(s.extra.json());
    return out;
}

Weighing weighingFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Weighing w;
    w.id = in.text("id");
    w.part = in.text("part");
    w.item = in.integer("item", 0);
    w.grams = in.number("grams");
    w.by = in.text("by", "");
    w.at = in.text("at", "");
    w.extra = in.leftOver();
    return w;
}

Json weighingToJson(const Weighing &w)
{
    Json out { { "id", w.id },       { "part", w.part }, { "item", w.item },
               { "grams", w.grams }, { "by", w.by },     { "at", w.at } };
    out.update(w.extra.json());
    return out;
}

Choice choiceFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Choice c { in.text("question"), in.text("answer"), in.text("reason", ""),
               in.text("by", ""),   in.text("at", ""), {} };
    c.extra = in.leftOver();
    return c;
}

Json choiceToJson(const Choice &c)
{
    Json out { { "question", c.question },
               { "answer", c.answer },
               { "reason", c.reason },
               { "by", c.by },
               { "at", c.at } };
    out.update(c.extra.json());
    return out;
}

} // namespace mildpath
