// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/readingtable.h"

#include "document/edit.h"
#include "quantity/rounding.h"
#include "storage/cells.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <functional>
#include <map>

namespace mildpath {
namespace {

std::optional<double> numberOf(std::string text)
{
    std::replace(text.begin(), text.end(), ',', '.');
    const char *begin = text.data(), *end = begin + text.size();
    if (begin != end && *begin == '+')
        ++begin;
    double value = 0;
    const auto r = std::from_chars(begin, end, value);
    return r.ec == std::errc() && r.ptr == end && std::isfinite(value) ? std::optional(value)
                                                                       : std::nullopt;
}

/// A number with as many digits as it needs and no more.
std::string plain(double v)
{
    char buffer[40];
    const auto r = std::to_chars(buffer, buffer + sizeof buffer, v);
    return { buffer, r.ptr };
}

std::string optionalText(const std::optional<double> &v)
{
    return v ? plain(*v) : "";
}

/// One column: its header, how it is written, how it is read.
struct Column
{
    std::string_view header;
    std::function<std::string(const Reading &)> write;
    /// @return the reason when the text cannot be
    std::function<std::string(Reading &, const std::string &)> read;
    bool required = false;
};

std::function<std::string(Reading &, const std::string &)> intoText(std::string Reading::*member)
{
    return [member](Reading &r, const std::string &text) {
        r.*member = text;
        return std::string();
    };
}

std::function<std::string(Reading &, const std::string &)>
into(const std::function<void(Reading &, double)> &set)
{
    return [set](Reading &r, const std::string &text) -> std::string {
        if (text.empty())
            return "";
        const auto v = numberOf(text);
        if (!v)
            return "\"" + text + "\" is not a number";
        set(r, *v);
        return "";
    };
}

const std::vector<Column> &columns()
{
    static const std::vector<Column> all {
        { "stop", [](const Reading &r) { return r.stop; }, intoText(&Reading::stop), true },
        { "family", [](const Reading &r) { return r.family; }, intoText(&Reading::family) },
        { "item", [](const Reading &r) { return std::to_string(r.item); },
          into([](Reading &r, double v) { r.item = static_cast<int>(v); }) },
        { "method", [](const Reading &r) { return r.method; }, intoText(&Reading::method) },
        { "station", [](const Reading &r) { return std::to_string(r.station); },
          into([](Reading &r, double v) { r.station = static_cast<int>(v); }) },
        { "angle_deg", [](const Reading &r) { return plain(r.angle_deg); },
          into([](Reading &r, double v) { r.angle_deg = v; }) },
        { "value_um", [](const Reading &r) { return optionalText(r.value_um); },
          into([](Reading &r, double v) { r.value_um = v; }), true },
        { "u_um", [](const Reading &r) { return plain(r.u_um); },
          into([](Reading &r, double v) { r.u_um = v; }) },
        { "housing_temp_c", [](const Reading &r) { return plain(r.housing_c); },
          into([](Reading &r, double v) { r.housing_c = v; }) },
        { "journal_temp_c", [](const Reading &r) { return plain(r.journal_c); },
          into([](Reading &r, double v) { r.journal_c = v; }) },
        { "bore_mm", [](const Reading &r) { return optionalText(r.bore_mm); },
          into([](Reading &r, double v) { r.bore_mm = v; }) },
        { "journal_mm", [](const Reading &r) { return optionalText(r.journal_mm); },
          into([](Reading &r, double v) { r.journal_mm = v; }) },
        { "journal_u_um", [](const Reading &r) { return plain(r.journalU_um); },
          into([](Reading &r, double v) { r.journalU_um = v; }) },
        { "over_oil_hole", [](const Reading &r) { return std::string(r.overOilHole ? "1" : "0"); },
          into([](Reading &r, double v) { r.overOilHole = v != 0; }) },
        { "feel", [](const Reading &r) { return r.feel; }, intoText(&Reading::feel) },
        { "repeats_um",
          [](const Reading &r) {
              std::string out;
              for (const double v : r.repeats_um)
                  out += (out.empty() ? "" : " ") + plain(v);
              return out;
          },
          [](Reading &r, const std::string &text) -> std::string {
              for (size_t from = 0; from < text.size();) {
                  const size_t to = std::min(text.find(' ', from), text.size());
                  const auto v = numberOf(text.substr(from, to - from));
                  if (!v)
                      return "\"" + text + "\" is not a list of numbers";
                  r.repeats_um.push_back(*v);
                  from = to + 1;
              }
              return "";
          } },
        { "cap_torqued",
          [](const Reading &r) {
              return std::string(!r.capTorqued ? "" : *r.capTorqued ? "1" : "0");
          },
          into([](Reading &r, double v) { r.capTorqued = v != 0; }) },
        { "shells", [](const Reading &r) { return r.shells; }, intoText(&Reading::shells) },
        { "instrument", [](const Reading &r) { return r.instrument; },
          intoText(&Reading::instrument) },
        { "by", [](const Reading &r) { return r.by; }, intoText(&Reading::by) },
        { "at", [](const Reading &r) { return r.at; }, intoText(&Reading::at) },
    };
    return all;
}

std::string withoutMark(std::string_view text)
{
    if (text.substr(0, 3) == "\xEF\xBB\xBF")
        text.remove_prefix(3);
    return std::string(text);
}

/// Whether an entry makes sense on its own; the document is asked again when it is entered.
Phrase senseOf(const Build &build, Reading &r)
{
    const Stop *stop = build.engine.find(r.stop);
    if (!stop)
        return "there is no stop \"" + r.stop + "\"";
    if (r.family.empty())
        r.family = wordOf(stop->kind);
    const Family *family = findFamily(r.family);
    if (!family)
        return "\"" + r.family + "\" is nothing that is gauged at \"" + r.stop + "\"";
    if (std::find(family->methods.begin(), family->methods.end(), r.method)
        == family->methods.end())
        return "\"" + r.method + "\" does not measure " + std::string(family->plural);
    const auto ok = checkReadingValue(*family, *r.value_um);
    return ok ? Phrase() : ok.error().message;
}

} // namespace

Result<std::vector<std::vector<std::string>>> cellsOf(std::string_view text, char separator)
{
    std::vector<std::vector<std::string>> rows;
    std::vector<std::string> row;
    std::string cell;
    bool quoted = false, any = false;
    size_t line = 1, quoteLine = 1;
    const auto endRow = [&] {
        if (any || !cell.empty() || !row.empty()) {
            row.push_back(std::move(cell));
            rows.push_back(std::move(row));
        }
        cell.clear();
        row.clear();
        any = false;
    };
    for (size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (c == '\n')
            ++line;
        if (quoted) {
            if (c != '"')
                cell += c;
            else if (i + 1 < text.size() && text[i + 1] == '"')
                cell += text[++i];
            else
                quoted = false;
        } else if (c == '"' && cell.empty()) {
            quoted = any = true;
            quoteLine = line;
        } else if (c == separator) {
            row.push_back(std::move(cell));
            cell.clear();
            any = true;
        } else if (c == '\n') {
            endRow();
        } else if (c != '\r') {
            cell += c;
        }
    }
    if (quoted)
        return fail("line " + std::to_string(quoteLine), "a quote is not closed");
    endRow();
    return rows;
}

std::string cellText(std::string_view value, char separator)
{
    std::string out(value);
    if (!out.empty() && std::string_view("=+-@\t\r").find(out.front()) != std::string_view::npos
        && !numberOf(out))
        out.insert(out.begin(), '\'');
    if (out.find_first_of("\"\r\n") == std::string::npos
        && out.find(separator) == std::string::npos)
        return out;
    std::string quoted = "\"";
    for (const char c : out)
        quoted += c == '"' ? "\"\"" : std::string(1, c);
    return quoted + "\"";
}

std::string readingsToCsv(const Build &build)
{
    std::string out = "id";
    for (const Column &c : columns())
        out += "," + std::string(c.header);
    out += ",replaces\r\n";
    for (const Reading &r : build.readings) {
        out += cellText(r.id, ',');
        for (const Column &c : columns())
            out += "," + cellText(c.write(r), ',');
        out += "," + cellText(r.replaces, ',') + "\r\n";
    }
    return out;
}

bool isReadingTable(std::string_view text)
{
    const std::string clean = withoutMark(text);
    const auto rows
        = cellsOf(std::string_view(clean).substr(0, clean.find('\n')), separatorOf(clean));
    if (!rows || rows->empty())
        return false;
    const auto has = [&](const char *name) {
        return std::find(rows->front().begin(), rows->front().end(), name) != rows->front().end();
    };
    return has("stop") && has("value_um");
}

ReadingImport readingsFromTable(const Build &build, std::string_view text)
{
    ReadingImport out;
    const std::string clean = withoutMark(text);
    const auto rows = cellsOf(clean, separatorOf(clean));
    if (!rows || rows->empty()) {
        out.errors.push_back(rows ? Error { "line 1", "is empty" } : rows.error());
        return out;
    }
    std::vector<const Column *> use;
    for (const std::string &header : rows->front()) {
        const auto it = std::find_if(columns().begin(), columns().end(),
                                     [&](const Column &c) { return c.header == header; });
        use.push_back(it == columns().end() ? nullptr : &*it);
        if (!use.back() && header != "id" && header != "replaces")
            out.errors.push_back({ "line 1, " + header, "is no column of readings" });
    }
    for (const Column &c : columns())
        if (c.required && std::find(use.begin(), use.end(), &c) == use.end())
            out.errors.push_back(
                { "line 1", "the column " + std::string(c.header) + " is missing" });
    if (!out.errors.empty())
        return out;
    for (size_t i = 1; i < rows->size(); ++i) {
        const auto &row = (*rows)[i];
        const std::string place = "line " + std::to_string(i + 1);
        if (row.size() != use.size()) {
            out.errors.push_back({ place,
                                   "has " + std::to_string(row.size()) + " cells, the header has "
                                       + std::to_string(use.size()) });
            continue;
        }
        Reading r;
        std::string why;
        for (size_t c = 0; c < row.size() && why.empty(); ++c) {
            if (!use[c])
                continue;
            std::string cell = row[c];
            if (cell.size() > 1 && cell.front() == '\'')
                cell.erase(cell.begin());
            why = use[c]->read(r, cell);
            if (!why.empty())
                out.errors.push_back({ place + ", " + std::string(use[c]->header), why });
        }
        // A withdrawn reading has no value; what it struck is not in the table as standing either.
        if (!why.empty() || !r.value_um)
            continue;
        if (Phrase sense = senseOf(build, r); !sense.empty())
            out.errors.push_back({ place, std::move(sense) });
        else
            out.readings.push_back(std::move(r));
    }
    return out;
}

std::vector<double> numbersOf(std::string_view text)
{
    const char separator = text.find('\t') != std::string_view::npos ? '\t' : ';';
    const auto rows = cellsOf(text, separator);
    std::vector<double> out;
    if (!rows)
        return {};
    for (const auto &row : *rows)
        for (std::string cell : row) {
            cell.erase(std::remove(cell.begin(), cell.end(), ' '), cell.end());
            if (cell.empty())
                continue;
            const auto v = numberOf(cell);
            if (!v)
                return {};
            out.push_back(*v);
        }
    return out;
}

} // namespace mildpath
