// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/fields.h"
#include "quantity/json.h"

namespace mildpath {
namespace {

Json typed(const char *type, bool orNull = false)
{
    return { { "type", orNull ? Json { type, "null" } : Json(type) } };
}

Json numberSchema(const Field &f, const char *type, bool orNull = false)
{
    Json out = typed(type, orNull);
    if (f.isRanged()) {
        out[f.aboveLeast ? "exclusiveMinimum" : "minimum"] = f.least;
        out["maximum"] = f.most;
    }
    return out;
}

Json textSchema(const Field &f)
{
    if (!f.words)
        return typed("string");
    Json words = Json::array();
    if (f.onlyIfSet) // as good as not said
        words.push_back("");
    for (const std::string_view w : f.words())
        words.push_back(w);
    return { { "enum", std::move(words) } };
}

Json listOf(Json items, size_t fixed = 0)
{
    Json out = typed("array");
    if (fixed)
        out["minItems"] = out["maxItems"] = fixed;
    out["items"] = std::move(items);
    return out;
}

Json byKey(Json values)
{
    Json out = typed("object");
    out["additionalProperties"] = std::move(values);
    return out;
}

/// A record as a row of its members' values.
Json rowSchema(const RecordType &type)
{
    bool mayLack = false;
    for (const Field &f : type.fields)
        mayLack = mayLack || f.shape == MemberShape::OptionalNumber;
    return listOf(typed("number", mayLack), type.fields.size());
}

Json shapeSchema(const Field &f)
{
    switch (f.shape) {
    case MemberShape::Number:
        return numberSchema(f, "number");
    case MemberShape::OptionalNumber:
        return numberSchema(f, "number", true);
    case MemberShape::Integer:
        return numberSchema(f, "integer");
    case MemberShape::OptionalInteger:
        return numberSchema(f, "integer", true);
    case MemberShape::Boolean:
        return typed("boolean");
    case MemberShape::OptionalBoolean:
        return typed("boolean", true);
    case MemberShape::Text:
    case MemberShape::Word:
        return textSchema(f);
    case MemberShape::Packed:
        return typed("string");
    case MemberShape::Numbers:
        return listOf(numberSchema(f, "number"));
    case MemberShape::Texts:
        return listOf(typed("string"));
    case MemberShape::NumbersByKey:
        return byKey(numberSchema(f, "number"));
    case MemberShape::Record:
        return schemaOf(f.record());
    case MemberShape::OptionalRecord: {
        Json out = schemaOf(f.record());
        out["type"] = { "object", "null" };
        return out;
    }
    case MemberShape::Records:
        if (f.oneStandsAlone)
            return { { "oneOf",
                       Json::array({ schemaOf(f.record()), listOf(schemaOf(f.record())) }) } };
        return listOf(f.asRows ? rowSchema(f.record()) : schemaOf(f.record()), f.entries->fixed);
    case MemberShape::RecordsByKey:
        return byKey(schemaOf(f.record()));
    case MemberShape::Custom:
        return f.schemaOfCustom ? f.schemaOfCustom() : Json::object();
    }
    return {};
}

} // namespace

Json schemaOf(const RecordType &type)
{
    Json required = Json::array(), properties = Json::object();
    for (const Field &f : type.fields) {
        Json one = shapeSchema(f);
        std::string words(f.meaning);
        if (!f.unit.empty())
            words += ", " + std::string(f.unit);
        if (!words.empty())
            one["description"] = std::move(words);
        properties[std::string(f.key)] = std::move(one);
        if (f.required && !f.when)
            required.push_back(f.key);
    }
    Json out = typed("object");
    if (!required.empty())
        out["required"] = std::move(required);
    out["properties"] = std::move(properties);
    if (type.strict)
        out["additionalProperties"] = false;
    return out;
}

} // namespace mildpath
