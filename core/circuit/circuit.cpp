// SPDX-License-Identifier: GPL-3.0-or-later
#include "circuit/circuit.h"

#include "circuit/elementtypes.h"
#include "quantity/json.h"

namespace mildpath {

double Element::value(std::string_view key) const
{
    if (const auto it = values.find(std::string(key)); it != values.end())
        return it->second;
    const NumberKey *k = findElementKey(kind, key);
    return k ? k->usual.value_or(0) : 0;
}

double Element::value(std::string_view key, std::span<const NumberKey> keys) const
{
    if (const auto it = values.find(std::string(key)); it != values.end())
        return it->second;
    const NumberKey *k = findKey(keys, key);
    return k ? k->usual.value_or(0) : 0;
}

const Element *Circuit::find(std::string_view id) const
{
    for (const Element &e : elements)
        if (e.id == id)
            return &e;
    return nullptr;
}

Element *Circuit::find(std::string_view id)
{
    return const_cast<Element *>(std::as_const(*this).find(id));
}

Element elementFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Element e;
    e.id = in.text("id");
    const std::string kind = in.text("type");
    e.from = in.text("from");
    e.to = in.text("to");
    if (const auto known = fromWord<ElementKind>(kind)) {
        e.kind = *known;
        for (const NumberKey &key : elementType(e.kind).keys)
            if (const auto number = in.optionalNumber(std::string(key.key)))
                e.values[std::string(key.key)] = *number;
        for (const NumberKey &key : commonElementKeys())
            if (const auto number = in.optionalNumber(std::string(key.key)))
                e.values[std::string(key.key)] = *number;
    } else if (!kind.empty()) {
        in.error("type", "unknown element type \"" + kind + "\"; known: " + elementTypeNames());
    }
    e.extra = in.leftOver();
    return e;
}

Circuit circuitFromJson(const Json &json, const std::string &place, std::vector<Error> &errors)
{
    JsonReader in(json, place, errors);
    Circuit c;
    const Json &elements = in.array("elements");
    if (!in.has("elements"))
        in.error("elements", "is missing");
    for (size_t i = 0; i < elements.size(); ++i)
        c.elements.push_back(
            elementFromJson(elements[i], in.placeOf("elements") + "/" + std::to_string(i), errors));
    JsonReader rise(in.object("bearing_dt"), in.placeOf("bearing_dt"), errors);
    c.bearingRise.base_k = rise.number("base_k", c.bearingRise.base_k);
    c.bearingRise.perKrpm_k = rise.number("per_krpm_k", c.bearingRise.perKrpm_k);
    JsonReader taps(in.object("taps"), in.placeOf("taps"), errors);
    for (const auto &[name, node] : in.object("taps").items())
        c.taps[name] = taps.text(name);
    JsonReader fixed(in.object("fixed_kpa"), in.placeOf("fixed_kpa"), errors);
    for (const auto &[name, pressure] : in.object("fixed_kpa").items())
        c.fixed_kpa[name] = fixed.number(name);
    c.extra = in.leftOver();
    return c;
}

Json elementToJson(const Element &e)
{
    Json out = { { "id", e.id }, { "type", wordOf(e.kind) }, { "from", e.from }, { "to", e.to } };
    const auto write = [&](std::span<const NumberKey> keys) {
        for (const NumberKey &key : keys)
            if (const auto it = e.values.find(std::string(key.key)); it != e.values.end())
                out[it->first] = it->second;
    };
    write(elementType(e.kind).keys);
    write(commonElementKeys());
    out.update(e.extra.json());
    return out;
}

Json circuitToJson(const Circuit &c)
{
    Json out;
    out["bearing_dt"]
        = { { "base_k", c.bearingRise.base_k }, { "per_krpm_k", c.bearingRise.perKrpm_k } };
    out["taps"] = Json::object();
    for (const auto &[name, node] : c.taps)
        out["taps"][name] = node;
    if (!c.fixed_kpa.empty())
        for (const auto &[name, pressure] : c.fixed_kpa)
            out["fixed_kpa"][name] = pressure;
    out.update(c.extra.json());
    out["elements"] = Json::array();
    for (const Element &e : c.elements)
        out["elements"].push_back(elementToJson(e));
    return out;
}

Json circuitSchema()
{
    const auto text = [] { return Json { { "type", "string" } }; };
    const auto number = [] { return Json { { "type", "number" } }; };
    Json kinds = Json::array(), rules = Json::array();
    for (const ElementType &type : elementTypes()) {
        kinds.push_back(wordOf(type.kind));
        Json required = Json::array(), properties = Json::object();
        const auto add = [&](std::span<const NumberKey> keys) {
            for (const NumberKey &key : keys) {
                Json one = number();
                one[key.aboveLeast ? "exclusiveMinimum" : "minimum"] = key.least;
                one["maximum"] = key.most;
                one["description"] = std::string(key.meaning)
                    + (key.unit().empty() ? "" : ", " + std::string(key.unit()));
                properties[std::string(key.key)] = std::move(one);
            }
        };
        add(type.keys);
        add(commonElementKeys());
        for (const NumberKey &key : type.keys)
            // Where a drilling of the crank begins and ends follows from its build.
            if (!key.usual && !key.key.starts_with("r_"))
                required.push_back(key.key);
        rules.push_back(
            { { "if", { { "properties", { { "type", { { "const", wordOf(type.kind) } } } } } } },
              { "then",
                { { "required", std::move(required) },
                  { "properties", std::move(properties) } } } });
    }
    const Json element = { { "type", "object" },
                           { "required", { "id", "type", "from", "to" } },
                           { "properties",
                             { { "id", text() },
                               { "type", { { "enum", std::move(kinds) } } },
                               { "from", text() },
                               { "to", text() } } },
                           { "allOf", std::move(rules) } };
    return { { "type", "object" },
             { "required", { "elements" } },
             { "properties",
               { { "bearing_dt",
                   { { "type", "object" },
                     { "properties", { { "base_k", number() }, { "per_krpm_k", number() } } } } },
                 { "taps", { { "type", "object" }, { "additionalProperties", text() } } },
                 { "fixed_kpa", { { "type", "object" }, { "additionalProperties", number() } } },
                 { "elements", { { "type", "array" }, { "items", element } } } } } };
}

} // namespace mildpath
