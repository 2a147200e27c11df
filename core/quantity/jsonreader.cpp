// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/jsonreader.h"

#include "quantity/json.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

const Json emptyObject = Json::object();
const Json emptyArray = Json::array();

} // namespace

JsonReader::JsonReader(const Json &object, std::string place, std::vector<Error> &errors)
    : m_object(&object)
    , m_place(std::move(place))
    , m_errors(errors)
{
    if (!object.is_object()) {
        m_errors.push_back({ m_place.empty() ? "/" : m_place,
                             std::string("must be an object, is ") + object.type_name() });
        m_object = &emptyObject;
    }
}

bool JsonReader::has(const std::string &key) const
{
    const auto it = m_object->find(key);
    return it != m_object->end() && !it->is_null();
}

const Json *JsonReader::find(const std::string &key)
{
    const auto it = m_object->find(key);
    if (it == m_object->end())
        return nullptr;
    m_read.push_back(&*it);
    return it->is_null() ? nullptr : &*it;
}

void JsonReader::error(const std::string &key, std::string message)
{
    m_errors.push_back({ placeOf(key), std::move(message) });
}

std::optional<double> JsonReader::optionalNumber(const std::string &key)
{
    const Json *value = find(key);
    if (!value)
        return std::nullopt;
    if (!value->is_number()) {
        error(key, std::string("must be a number, is ") + value->type_name());
        return std::nullopt;
    }
    const double number = value->get<double>();
    if (!std::isfinite(number)) {
        error(key, "must be a finite number");
        return std::nullopt;
    }
    return number;
}

double JsonReader::number(const std::string &key, double fallback)
{
    return optionalNumber(key).value_or(fallback);
}

double JsonReader::number(const std::string &key)
{
    if (!find(key)) {
        error(key, "is missing");
        return 0;
    }
    return number(key, 0);
}

int JsonReader::integer(const std::string &key, int fallback)
{
    const auto value = optionalNumber(key);
    if (!value)
        return fallback;
    if (*value != std::floor(*value) || std::abs(*value) > 1e9) {
        error(key, "must be a whole number");
        return fallback;
    }
    return static_cast<int>(*value);
}

std::string JsonReader::text(const std::string &key, const std::string &fallback)
{
    const Json *value = find(key);
    if (!value)
        return fallback;
    if (!value->is_string()) {
        error(key, std::string("must be text, is ") + value->type_name());
        return fallback;
    }
    return value->get<std::string>();
}

std::string JsonReader::text(const std::string &key)
{
    if (!find(key)) {
        error(key, "is missing");
        return {};
    }
    return text(key, {});
}

bool JsonReader::boolean(const std::string &key, bool fallback)
{
    const Json *value = find(key);
    if (!value)
        return fallback;
    if (!value->is_boolean()) {
        error(key, std::string("must be true or false, is ") + value->type_name());
        return fallback;
    }
    return value->get<bool>();
}

const Json &JsonReader::array(const std::string &key)
{
    const Json *value = find(key);
    if (!value)
        return emptyArray;
    if (!value->is_array()) {
        error(key, std::string("must be a list, is ") + value->type_name());
        return emptyArray;
    }
    return *value;
}

const Json &JsonReader::object(const std::string &key)
{
    const Json *value = find(key);
    if (!value)
        return emptyObject;
    if (!value->is_object()) {
        error(key, std::string("must be an object, is ") + value->type_name());
        return emptyObject;
    }
    return *value;
}

Json JsonReader::leftOver() const
{
    Json rest = Json::object();
    for (auto it = m_object->begin(); it != m_object->end(); ++it)
        if (std::find(m_read.begin(), m_read.end(), &*it) == m_read.end())
            rest[it.key()] = *it;
    return rest;
}

Result<Json> parseJson(const std::string &text)
{
    if (text.find_first_not_of(" \t\r\n") == std::string::npos)
        return fail("line 1, column 1", "the file is empty");
    try {
        return Json::parse(text);
    } catch (const Json::parse_error &e) {
        const size_t at = std::min(e.byte > 0 ? e.byte - 1 : 0, text.size());
        const auto head = std::string_view(text).substr(0, at);
        const auto line = 1 + std::count(head.begin(), head.end(), '\n');
        const auto lineStart = head.rfind('\n') == head.npos ? 0 : head.rfind('\n') + 1;
        const bool atEnd = e.byte > text.size();
        return fail("line " + std::to_string(line) + ", column "
                        + std::to_string(at - lineStart + 1),
                    atEnd ? "the text ends before the JSON is complete (a truncated file?)"
                          : "this is not JSON");
    } catch (const Json::exception &e) {
        return fail("", std::string("this is not JSON: ") + e.what());
    }
}

} // namespace mildpath
