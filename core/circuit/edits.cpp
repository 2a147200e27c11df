// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/edits.h"

#include "circuit/elementtypes.h"
#include "quantity/json.h"

#include <algorithm>

namespace mildpath {
namespace {

/// The element as JSON with changed keys, read back: so a changed `type` is checked by its own
/// rules.
Result<Element> withValues(const Element &element, const Json &values, bool scale,
                           const std::string &place)
{
    Json json = elementToJson(element);
    for (const auto &[key, value] : values.items()) {
        if (!scale) {
            json[key] = value;
            continue;
        }
        if (!value.is_number() || !json.contains(key) || !json[key].is_number())
            return fail(place + "/values/" + key,
                        "cannot be scaled: element \"" + element.id + "\" has no such number");
        json[key] = json[key].get<double>() * value.get<double>();
    }
    std::vector<Error> errors;
    Element out = elementFromJson(json, place + "/values", errors);
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return out;
}

Result<std::vector<std::string>> idsOf(const Json &edit, const std::string &place)
{
    std::vector<std::string> out;
    const Json id = edit.contains("id") ? edit["id"] : Json();
    if (id.is_string())
        out.push_back(id.get<std::string>());
    else if (id.is_array()
             && std::all_of(id.begin(), id.end(), [](const Json &j) { return j.is_string(); }))
        for (const Json &one : id)
            out.push_back(one.get<std::string>());
    if (out.empty())
        return fail(place + "/id", "must be an element's id or a list of them");
    return out;
}

Result<void> applyToElements(Circuit &c, const std::string &op, const Json &edit,
                             const std::string &place)
{
    const auto ids = idsOf(edit, place);
    if (!ids)
        return tl::unexpected(ids.error());
    for (const std::string &id : *ids) {
        Element *element = c.find(id);
        if (!element)
            return fail(place + "/id", "there is no element \"" + id + "\"");
        if (op == "remove") {
            std::erase_if(c.elements, [&](const Element &e) { return e.id == id; });
        } else if (op == "reverse") {
            std::swap(element->from, element->to);
        } else {
            if (!edit.contains("values") || !edit["values"].is_object())
                return fail(place + "/values", "must be an object of keys");
            auto changed = withValues(*element, edit["values"], op == "scale", place);
            if (!changed)
                return tl::unexpected(changed.error());
            *element = std::move(*changed);
        }
    }
    return {};
}

/// Values of the circuit as a whole; those of the pump may stand here too. Errors: a key of
/// neither.
Result<void> applyToEngine(Circuit &c, const Json &values, const std::string &place)
{
    Json json = circuitToJson(c);
    for (const auto &[key, value] : values.items()) {
        if (key == "bearing_dt" || key == "taps" || key == "fixed_kpa") {
            json[key] = value;
            continue;
        }
        const auto isPump = [](const Json &e) { return e.value("type", Json()) == "pump"; };
        Json &elements = json["elements"];
        const auto pump = std::find_if(elements.begin(), elements.end(), isPump);
        if (pump == elements.end() || !findElementKey(ElementKind::Pump, key))
            return fail(place + "/" + key,
                        "is not known here: bearing_dt, taps, fixed_kpa or a key of the pump");
        (*pump)[key] = value;
    }
    std::vector<Error> errors;
    c = circuitFromJson(json, place, errors);
    return errors.empty() ? Result<void>() : tl::unexpected(errors.front());
}

Result<void> applyOne(Circuit &c, const Json &edit, const std::string &place)
{
    if (!edit.is_object())
        return fail(place, "must be an object");
    const std::string op = edit.contains("op") && edit["op"].is_string() ? edit["op"] : "";
    std::vector<Error> errors;
    if (op == "add") {
        const Json element = edit.contains("element") ? edit["element"] : Json();
        c.elements.push_back(elementFromJson(element, place + "/element", errors));
    } else if (op == "engine") {
        if (!edit.contains("values") || !edit["values"].is_object())
            return fail(place + "/values", "must be an object of keys");
        return applyToEngine(c, edit["values"], place + "/values");
    } else if (op == "set" || op == "scale" || op == "remove" || op == "reverse") {
        return applyToElements(c, op, edit, place);
    } else {
        return fail(place + "/op", "must be set, scale, add, remove, reverse or engine");
    }
    if (!errors.empty())
        return tl::unexpected(errors.front());
    return {};
}

} // namespace

Result<Circuit> applyEdits(const Circuit &circuit, const Json &edits)
{
    if (!edits.is_array())
        return fail("/", "edits must be a list");
    Circuit out = circuit;
    for (size_t i = 0; i < edits.size(); ++i)
        if (auto ok = applyOne(out, edits[i], "/" + std::to_string(i)); !ok)
            return tl::unexpected(ok.error());
    return out;
}

} // namespace mildpath
