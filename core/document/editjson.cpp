// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/edit.h"

#include "quantity/json.h"
#include "quantity/overloaded.h"

namespace mildpath {

Json editToJson(const Edit &edit)
{
    return std::visit(
        Overloaded {
            [](const EnterReading &e) {
                return Json { { "edit", "reading" }, { "reading", readingToJson(e.reading) } };
            },
            [](const EnterReadings &e) {
                Json all = Json::array();
                for (const Reading &r : e.readings)
                    all.push_back(readingToJson(r));
                return Json { { "edit", "readings" }, { "readings", std::move(all) } };
            },
            [](const WithdrawReading &e) {
                return Json { { "edit", "withdraw" },
                              { "stop", e.place.stop },
                              { "family", e.place.family },
                              { "item", e.place.item },
                              { "method", e.place.method },
                              { "station", e.place.station },
                              { "angle_deg", e.place.angle_deg },
                              { "by", e.by },
                              { "at", e.at } };
            },
            [](const EditAll &e) {
                Json all = Json::array();
                for (const Edit &one : e.edits)
                    all.push_back(editToJson(one));
                return Json { { "edit", "all" }, { "name", e.name }, { "edits", std::move(all) } };
            },
            [](const SetOil &e) {
                return Json { { "edit", "oil" }, { "oil", oilToJson(e.oil) } };
            },
            [](const SetUse &e) {
                return Json { { "edit", "use" }, { "key", e.key }, { "value", e.value } };
            },
            [](const SetLimit &e) {
                return Json {
                    { "edit", "limit" }, { "kind", e.kind }, { "key", e.key }, { "value", e.value }
                };
            },
            [](const SetElementValue &e) {
                return Json { { "edit", "element" },
                              { "element", e.element },
                              { "key", e.key },
                              { "value", e.value } };
            },
            [](const SetStopValue &e) {
                return Json { { "edit", "stop" },
                              { "stop", e.stop },
                              { "key", e.key },
                              { "value", e.value ? Json(*e.value) : Json() } };
            },
            [](const TickFastener &e) {
                return Json { { "edit", "tick" }, { "tick", torqueTickToJson(e.tick) } };
            },
            [](const FitShells &e) {
                ShellStock one;
                one.fitted[e.stop] = e.fitted;
                return Json { { "edit", "fit_shells" },
                              { "family", e.family },
                              { "stop", e.stop },
                              { "stock", shellStockToJson(one) } };
            },
            [](const SetShellRow &e) {
                ShellStock one;
                one.shells.push_back(e.row);
                return Json { { "edit", "shell_row" },
                              { "family", e.family },
                              { "stock", shellStockToJson(one) } };
            },
            [](const SetSizeClass &e) {
                ShellStock one;
                (e.journal ? one.journals : one.housings).push_back(e.sizeClass);
                return Json { { "edit", "size_class" },
                              { "family", e.family },
                              { "stock", shellStockToJson(one) } };
            },
            [](const WeighPart &e) {
                return Json { { "edit", "weigh" }, { "weighing", weighingToJson(e.weighing) } };
            },
            [](const Choose &e) {
                return Json { { "edit", "choose" }, { "choice", choiceToJson(e.choice) } };
            },
            [](const SetHeat &e) {
                return Json { { "edit", "heat" }, { "key", e.key }, { "value", e.value } };
            },
            [](const SetMaterial &e) {
                return Json { { "edit", "material" },
                              { "part", e.part },
                              { "material", e.material },
                              { "fraction", e.fraction ? Json(*e.fraction) : Json() } };
            },
            [](const SetExpansion &e) {
                return Json { { "edit", "expansion" },
                              { "material", e.material },
                              { "expansion",
                                e.expansion ? ownExpansionToJson(*e.expansion) : Json() } };
            },
            [](const EnterHeatPoint &e) {
                return Json { { "edit", "heat_point" }, { "point", heatPointToJson(e.point) } };
            },
            [](const AddProof &e) {
                return Json { { "edit", "proof" }, { "proof", proofToJson(e.proof) } };
            },
            [](const Rename &e) {
                return Json { { "edit", "rename" }, { "name", e.name } };
            },
            [](const SetEngine &e) {
                return Json { { "edit", "engine" }, { "key", e.key }, { "value", e.value } };
            },
            [](const KeepOil &e) {
                return Json { { "edit", "keep_oil" }, { "oil", oilToJson(e.oil) } };
            },
            [](const DropOil &e) {
                return Json { { "edit", "drop_oil" }, { "name", e.name } };
            },
            [](const AddStop &e) {
                return Json { { "edit", "add_stop" },
                              { "kind", e.kind },
                              { "name", e.name },
                              { "behind", e.behind } };
            },
            [](const RemoveStop &e) {
                return Json { { "edit", "remove_stop" }, { "stop", e.stop } };
            },
            [](const MoveStop &e) {
                return Json { { "edit", "move_stop" }, { "stop", e.stop }, { "by", e.by } };
            },
            [](const TurnStop &e) {
                return Json { { "edit", "turn_stop" }, { "stop", e.stop }, { "kind", e.kind } };
            },
            [](const FeedStop &e) {
                return Json { { "edit", "feed_stop" }, { "stop", e.stop }, { "from", e.from } };
            },
            [](const NameStop &e) {
                return Json { { "edit", "name_stop" }, { "stop", e.stop }, { "name", e.name } };
            },
            [](const MoveGauge &e) {
                return Json { { "edit", "gauge" }, { "stop", e.stop }, { "point", e.point } };
            },
            [](const SetAlike &e) {
                return Json { { "edit", "alike" },
                              { "stop", e.stop },
                              { "type", e.type },
                              { "key", e.key },
                              { "value", e.value } };
            },
            [](const PassageEdit &e) { return passageEditToJson(e); },
            [](const LineEdit &e) { return lineEditToJson(e); },
            [](const SumpEdit &e) { return sumpEditToJson(e); },
            [](const SetSectionValue &e) {
                return Json { { "edit", "section" },
                              { "section", e.section },
                              { "key", e.key },
                              { "value", e.value ? Json(*e.value) : Json() } };
            },
            [](const SetStartValue &e) {
                return Json { { "edit", "start" },
                              { "key", e.key },
                              { "value", e.value ? Json(*e.value) : Json() } };
            },
        },
        edit);
}

namespace {

std::optional<Edit> shellEditFromJson(const std::string &kind, JsonReader &in,
                                      std::vector<Error> &errors)
{
    const std::string family = in.text("family");
    const ShellStock stock = shellStockFromJson(in.object("stock"), "/stock", errors);
    if (kind == "shell_row" && !stock.shells.empty())
        return SetShellRow { family, stock.shells.front() };
    if (kind == "size_class" && !stock.journals.empty())
        return SetSizeClass { family, true, stock.journals.front() };
    if (kind == "size_class" && !stock.housings.empty())
        return SetSizeClass { family, false, stock.housings.front() };
    if (kind == "fit_shells" && !stock.fitted.empty())
        return FitShells { family, in.text("stop"), stock.fitted.begin()->second };
    in.error("stock", "is empty");
    return std::nullopt;
}

} // namespace

Result<Edit> editFromJson(const Json &json)
{
    std::vector<Error> errors;
    JsonReader in(json, "", errors);
    const std::string kind = in.text("edit");
    std::optional<Edit> out;
    if (kind == "reading")
        out = EnterReading { readingFromJson(in.object("reading"), "/reading", errors) };
    else if (kind == "readings") {
        EnterReadings all;
        for (const Json &r : in.array("readings"))
            all.readings.push_back(readingFromJson(r, "/readings", errors));
        out = std::move(all);
    } else if (kind == "all") {
        EditAll all { in.text("name"), {} };
        const Json &edits = in.array("edits");
        for (size_t i = 0; i < edits.size(); ++i) {
            const std::string place = "/edits/" + std::to_string(i);
            if (edits[i].is_object() && edits[i].value("edit", Json()) == "all") {
                errors.push_back({ place, "edits made as one cannot be made as one again" });
                continue;
            }
            if (auto one = editFromJson(edits[i]))
                all.edits.push_back(std::move(*one));
            else
                errors.push_back({ place + one.error().place, one.error().message });
        }
        out = std::move(all);
    } else if (kind == "withdraw")
        out = WithdrawReading { { in.text("stop"), in.text("family"), in.integer("item", 1),
                                  in.text("method"), in.integer("station", 1),
                                  in.number("angle_deg") },
                                in.text("by", ""),
                                in.text("at", "") };
    else if (kind == "oil")
        out = SetOil { oilFromJson(in.object("oil"), "/oil", errors) };
    else if (kind == "use")
        out = SetUse { in.text("key"), in.number("value") };
    else if (kind == "limit")
        out = SetLimit { in.text("kind"), in.text("key"), in.number("value") };
    else if (kind == "element")
        out = SetElementValue { in.text("element"), in.text("key"), in.number("value") };
    else if (kind == "stop")
        out = SetStopValue { in.text("stop"), in.text("key"), in.optionalNumber("value") };
    else if (kind == "tick")
        out = TickFastener { torqueTickFromJson(in.object("tick"), "/tick", errors) };
    else if (kind == "fit_shells" || kind == "shell_row" || kind == "size_class")
        out = shellEditFromJson(kind, in, errors);
    else if (kind == "weigh")
        out = WeighPart { weighingFromJson(in.object("weighing"), "/weighing", errors) };
    else if (kind == "choose")
        out = Choose { choiceFromJson(in.object("choice"), "/choice", errors) };
    else if (kind == "heat")
        out = SetHeat { in.text("key"), in.number("value") };
    else if (kind == "material")
        out = SetMaterial { in.text("part"), in.text("material"), in.optionalNumber("fraction") };
    else if (kind == "expansion")
        out = SetExpansion { in.text("material"),
                             json.contains("expansion") && !json["expansion"].is_null()
                                 ? std::optional(ownExpansionFromJson(in.object("expansion"),
                                                                      "/expansion", errors))
                                 : std::nullopt };
    else if (kind == "heat_point")
        out = EnterHeatPoint { heatPointFromJson(in.object("point"), "/point", errors) };
    else if (kind == "proof")
        out = AddProof { proofFromJson(in.object("proof"), "/proof", errors) };
    else if (kind == "rename")
        out = Rename { in.text("name") };
    else if (kind == "engine")
        out = SetEngine { in.text("key"), in.number("value") };
    else if (kind == "keep_oil")
        out = KeepOil { oilFromJson(in.object("oil"), "/oil", errors) };
    else if (kind == "drop_oil")
        out = DropOil { in.text("name") };
    else if (kind == "add_stop")
        out = AddStop { in.text("kind"), in.text("name", ""), in.text("behind") };
    else if (kind == "remove_stop")
        out = RemoveStop { in.text("stop") };
    else if (kind == "move_stop")
        out = MoveStop { in.text("stop"), in.integer("by", 0) };
    else if (kind == "turn_stop")
        out = TurnStop { in.text("stop"), in.text("kind") };
    else if (kind == "feed_stop")
        out = FeedStop { in.text("stop"), in.text("from") };
    else if (kind == "name_stop")
        out = NameStop { in.text("stop"), in.text("name") };
    else if (kind == "alike")
        out = SetAlike { in.text("stop"), in.text("type"), in.text("key"), in.number("value") };
    else if (kind == "gauge")
        out = MoveGauge { in.text("stop"), in.integer("point", 0) };
    else if (auto passageEdit = passageEditFromJson(kind, in, errors))
        out = std::move(*passageEdit);
    else if (auto lineEdit = lineEditFromJson(kind, in, errors))
        out = std::move(*lineEdit);
    else if (kind == "section")
        out = SetSectionValue { in.text("section"), in.text("key"), in.optionalNumber("value") };
    else if (kind == "start")
        out = SetStartValue { in.text("key"), in.optionalNumber("value") };
    else if (auto sumpEdit = sumpEditFromJson(kind, in))
        out = std::move(*sumpEdit);
    else
        in.error("edit", "unknown edit \"" + kind + "\"");
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return *out;
}

} // namespace mildpath
