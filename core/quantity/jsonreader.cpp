// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/jsonreader.h"

#include "quantity/json.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <string_view>

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

void JsonReader::error(const std::string &key, Phrase message)
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

namespace {

/// No document of this program is nested deeper; what is would overrun the stack when copied.
constexpr size_t mostNested = 64;

/// "line 3, column 7" of a place in a text.
std::string lineAndColumn(std::string_view text, size_t at)
{
    const auto head = text.substr(0, at);
    const auto line = 1 + std::count(head.begin(), head.end(), '\n');
    const auto lineStart = head.rfind('\n') == head.npos ? 0 : head.rfind('\n') + 1;
    return "line " + std::to_string(line) + ", column " + std::to_string(at - lineStart + 1);
}

/// Behind the closing quote of the text that begins at `from`.
size_t behindString(std::string_view text, size_t from)
{
    size_t i = from + 1;
    while (i < text.size() && text[i] != '"')
        i += text[i] == '\\' ? 2 : 1;
    return std::min(i + 1, text.size());
}

/// What the parser lets through and a document must not have: a key twice in one object (the first
/// one's value would be lost without a word), and endless nesting.
Result<void> checkShape(std::string_view text)
{
    std::vector<std::set<std::string_view>> open;
    for (size_t i = 0; i < text.size();) {
        const char c = text[i];
        if (c == '"') {
            const size_t end = behindString(text, i);
            const size_t next = text.find_first_not_of(" \t\r\n", end);
            const auto key = text.substr(i, end - i);
            if (next != text.npos && text[next] == ':' && !open.empty()
                && !open.back().insert(key).second)
                return fail(lineAndColumn(text, i), std::string(key) + " stands here twice");
            i = end;
            continue;
        }
        if (c == '{' || c == '[') {
            if (open.size() == mostNested)
                return fail(lineAndColumn(text, i),
                            "is nested deeper than " + std::to_string(mostNested) + " levels");
            open.emplace_back();
        } else if ((c == '}' || c == ']') && !open.empty()) {
            open.pop_back();
        }
        ++i;
    }
    return {};
}

} // namespace

Result<Json> parseJson(const std::string &text)
{
    if (text.find_first_not_of(" \t\r\n") == std::string::npos)
        return fail("line 1, column 1", "the file is empty");
    if (auto ok = checkShape(text); !ok)
        return tl::unexpected(ok.error());
    try {
        return Json::parse(text);
    } catch (const Json::parse_error &e) {
        const size_t at = std::min(e.byte > 0 ? e.byte - 1 : 0, text.size());
        const bool atEnd = e.byte > text.size();
        return fail(lineAndColumn(text, at),
                    atEnd ? "the text ends before the JSON is complete (a truncated file?)"
                          : "this is not JSON");
    } catch (const Json::out_of_range &e) {
        // The library names the number in quotes, not its place.
        const std::string what = e.what();
        const size_t from = what.find('\'') + 1, to = what.rfind('\'');
        const std::string number = from < to ? what.substr(from, to - from) : std::string();
        const size_t at = number.empty() ? text.npos : text.find(number);
        return fail(at == text.npos ? "" : lineAndColumn(text, at),
                    "the number " + number + " is larger than any a program can hold");
    } catch (const Json::exception &e) {
        return fail("", std::string("this is not JSON: ") + e.what());
    }
}

} // namespace mildpath
