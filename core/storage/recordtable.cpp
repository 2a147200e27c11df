// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/recordtable.h"

#include "quantity/rounding.h"
#include "storage/cells.h"
#include "storage/readingtable.h"

#include <algorithm>
#include <array>
#include <charconv>

namespace mildpath {
namespace {

/// What every entry ends with.
constexpr std::array<std::string_view, 5> lastKeys { "note", "by", "at", "replaces", "taken_back" };
/// Given anew to what is read in.
constexpr std::array<std::string_view, 3> notTaken { "id", "replaces", "taken_back" };

bool isOneOf(std::span<const std::string_view> keys, std::string_view key)
{
    return std::ranges::find(keys, key) != keys.end();
}

bool isSingle(const Field &f)
{
    switch (f.shape) {
    case MemberShape::Number:
    case MemberShape::OptionalNumber:
    case MemberShape::Integer:
    case MemberShape::OptionalInteger:
    case MemberShape::Boolean:
    case MemberShape::OptionalBoolean:
    case MemberShape::Text:
    case MemberShape::Word:
        return true;
    default:
        return false;
    }
}

std::string inFull(double v)
{
    std::array<char, 64> digits {};
    const auto end
        = std::to_chars(digits.data(), digits.data() + digits.size(), v, std::chars_format::fixed);
    return end.ec == std::errc() ? std::string(digits.data(), end.ptr) : formatPlain(v, 6);
}

template <class T> const T &member(const Field &f, const void *record)
{
    return *static_cast<const T *>(f.at(record));
}

std::string cell(const Field &f, const void *record)
{
    if (f.when && !f.when(record))
        return {};
    switch (f.shape) {
    case MemberShape::Number:
        return inFull(f.number(record));
    case MemberShape::OptionalNumber: {
        const auto &v = member<std::optional<double>>(f, record);
        return v ? inFull(*v) : "";
    }
    case MemberShape::Integer:
        return std::to_string(member<int>(f, record));
    case MemberShape::OptionalInteger: {
        const auto &v = member<std::optional<int>>(f, record);
        return v ? std::to_string(*v) : "";
    }
    case MemberShape::Boolean:
        return member<bool>(f, record) ? "yes" : "";
    case MemberShape::OptionalBoolean: {
        const auto &v = member<std::optional<bool>>(f, record);
        return v ? (*v ? "yes" : "no") : "";
    }
    case MemberShape::Word:
        return std::string(f.words()[member<unsigned char>(f, record)]);
    default:
        return member<std::string>(f, record);
    }
}

} // namespace

RecordColumns::RecordColumns(const RecordType &type)
{
    for (const Field &f : type.fields)
        if (isSingle(f) && !isOneOf(lastKeys, f.key))
            m_own.push_back(&f);
    for (const std::string_view key : lastKeys)
        if (const Field *f = type.find(key))
            m_last.push_back(f);
}

Row RecordColumns::header(const Row &between) const
{
    Row out;
    for (const Field *f : m_own)
        out.emplace_back(f->key);
    out.insert(out.end(), between.begin(), between.end());
    for (const Field *f : m_last)
        out.emplace_back(f->key);
    return out;
}

Row RecordColumns::row(const void *record, const Row &between) const
{
    Row out;
    for (const Field *f : m_own)
        out.push_back(cell(*f, record));
    out.insert(out.end(), between.begin(), between.end());
    for (const Field *f : m_last)
        out.push_back(cell(*f, record));
    return out;
}

TableReader::TableReader(std::string_view text, std::vector<Error> &errors)
    : m_errors(errors)
{
    auto rows = cellsOf(text, separatorOf(text));
    if (!rows) {
        errors.push_back(rows.error());
        return;
    }
    m_rows = std::move(*rows);
    if (m_rows.empty())
        return;
    for (const std::string &name : m_rows.front())
        m_names.push_back(trimmedCell(name));
}

int TableReader::column(std::string_view name) const
{
    const auto it = std::ranges::find(m_names, name);
    return it == m_names.end() ? -1 : static_cast<int>(it - m_names.begin());
}

std::string TableReader::text(size_t row, int column) const
{
    const auto &cells = m_rows[row + 1];
    return column < 0 || static_cast<size_t>(column) >= cells.size()
        ? std::string()
        : trimmedCell(cells[static_cast<size_t>(column)]);
}

bool TableReader::empty(size_t row) const
{
    return std::ranges::all_of(m_rows[row + 1],
                               [](const std::string &c) { return trimmedCell(c).empty(); });
}

std::optional<double> TableReader::number(size_t row, int column, double least, double most,
                                          std::string_view unit)
{
    const std::string cell = text(row, column);
    if (cell.empty())
        return std::nullopt;
    const std::string &name = m_names[static_cast<size_t>(column)];
    const auto v = numberOfCell(cell);
    if (!v) {
        const size_t digits = cell.find_first_not_of("0123456789.+-");
        const bool hasUnit = digits != cell.npos && digits > 0;
        fault(row, name,
              "“" + cell + "” is no number"
                  + (hasUnit ? ": the column has one unit for all, by its name" : ""));
    } else if (!(*v >= least && *v <= most)) {
        fault(row, name, mustBe(least, most, *v, unit));
        return std::nullopt;
    }
    return v;
}

std::optional<double> TableReader::number(size_t row, std::string_view name, double least,
                                          double most)
{
    return column(name) < 0 ? std::nullopt : number(row, column(name), least, most);
}

void TableReader::readNumber(size_t row, const Field &f, void *record, bool needed)
{
    const size_t before = m_errors.size();
    const int at = column(f.key);
    const auto v = at < 0 ? std::nullopt : number(row, at, f.least, f.most, f.unit);
    if (!v) {
        if (needed && m_errors.size() == before)
            fault(row, f.key, "is missing");
        return;
    }
    if (f.aboveLeast && *v == f.least)
        return fault(row, f.key, mustBeAbove(f.least, f.most, *v, f.unit));
    void *member = const_cast<void *>(f.at(record));
    const bool whole = f.shape == MemberShape::Integer || f.shape == MemberShape::OptionalInteger;
    if (whole && *v != static_cast<int>(*v))
        return fault(row, f.key, "must be a whole number");
    if (f.shape == MemberShape::Number)
        *static_cast<double *>(member) = *v;
    else if (f.shape == MemberShape::OptionalNumber)
        *static_cast<std::optional<double> *>(member) = *v;
    else if (f.shape == MemberShape::Integer)
        *static_cast<int *>(member) = static_cast<int>(*v);
    else
        *static_cast<std::optional<int> *>(member) = static_cast<int>(*v);
}

void TableReader::read(size_t row, const RecordType &type, void *record,
                       std::initializer_list<std::string_view> needed)
{
    for (const Field &f : type.fields) {
        if (!isSingle(f) || isOneOf(notTaken, f.key) || (f.when && !f.when(record)))
            continue;
        const bool must = f.required || std::ranges::find(needed, f.key) != needed.end();
        if (f.shape != MemberShape::Text) {
            if (f.shape != MemberShape::Boolean && f.shape != MemberShape::OptionalBoolean
                && f.shape != MemberShape::Word)
                readNumber(row, f, record, must);
            continue;
        }
        const std::string is = text(row, f.key);
        if (is.empty()) {
            if (must)
                fault(row, f.key, "is missing");
            continue;
        }
        *static_cast<std::string *>(const_cast<void *>(f.at(record))) = is;
        const Words words = f.words ? f.words() : Words {};
        if (!words.empty() && std::ranges::find(words, is) == words.end())
            fault(row, f.key, noSuchWord(words, is));
    }
}

void TableReader::fault(size_t row, std::string_view name, Phrase message)
{
    m_errors.push_back(
        { "line " + std::to_string(row + 2) + (name.empty() ? "" : ", " + std::string(name)),
          std::move(message) });
}

} // namespace mildpath
