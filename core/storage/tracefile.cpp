// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/tracefile.h"

#include "quantity/rounding.h"
#include "storage/cells.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

namespace mildpath {
namespace {

constexpr double evenWithin = 0.01, gapFrom = 1.5;
/// No stylus trace of a bore is shorter or longer (mm). Own choice: to find units mixed up.
constexpr double shortest_mm = 0.2, longest_mm = 300;

struct Line
{
    size_t number;
    std::vector<std::string> cells;
};

std::vector<std::string> cellsOfLine(std::string_view line, char separator)
{
    std::vector<std::string> out;
    if (separator == ' ') {
        for (size_t at = 0; at < line.size();) {
            const size_t from = line.find_first_not_of(" \t", at);
            if (from == line.npos)
                break;
            at = std::min(line.find_first_of(" \t", from), line.size());
            out.emplace_back(line.substr(from, at - from));
        }
        return out;
    }
    for (size_t at = 0; at <= line.size();) {
        const size_t end = std::min(line.find(separator, at), line.size());
        out.push_back(trimmedCell(std::string(line.substr(at, end - at))));
        at = end + 1;
    }
    return out;
}

template <class Visit> void eachLine(std::string_view text, Visit visit)
{
    size_t number = 0;
    while (!text.empty()) {
        const size_t end = std::min(text.find('\n'), text.size());
        std::string_view line = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        if (!line.empty() && line.back() == '\r')
            line.remove_suffix(1);
        visit(++number, line);
    }
}

bool isData(std::string_view line, bool decimalComma)
{
    const std::string first = trimmedCell(std::string(line));
    return !first.empty()
        && (std::isdigit(static_cast<unsigned char>(first[0])) || first[0] == '-' || first[0] == '+'
            || first[0] == '.' || (decimalComma && first[0] == ','));
}

/// What cells are cut by: the first data line tells.
char separatorIn(std::string_view line, bool decimalComma)
{
    for (const char c : { '\t', ';' })
        if (line.find(c) != line.npos)
            return c;
    if (!decimalComma && line.find(',') != line.npos)
        return ',';
    return ' ';
}

/// The first line of data, and what stood before it.
std::pair<std::string, std::string> headAndFirst(std::string_view text)
{
    std::pair<std::string, std::string> out;
    eachLine(text, [&](size_t, std::string_view line) {
        if (!out.second.empty() || line.starts_with('#'))
            return;
        if (isData(line, false))
            out.second = line;
        else
            out.first += std::string(line) + '\n';
    });
    return out;
}

double unitInUm(const std::string &unit)
{
    return unit == "mm" ? 1000 : unit == "nm" ? 0.001 : 1;
}

class Reader
{
public:
    Reader(std::string_view text, const TraceFormat &format)
        : m_format(format)
    {
        const std::string first = headAndFirst(text).second;
        m_separator = separatorIn(first, format.decimalComma);
        bool begun = false;
        size_t emptyAt = 0;
        eachLine(text, [&](size_t number, std::string_view line) {
            if (line.starts_with('#') || (!begun && !isData(line, format.decimalComma)))
                return;
            begun = true;
            if (trimmedCell(std::string(line)).empty()) {
                emptyAt = emptyAt == 0 ? number : emptyAt;
                return;
            }
            if (emptyAt != 0)
                fault(emptyAt, "is empty: the trace has a gap");
            emptyAt = 0;
            read(number, cellsOfLine(line, m_separator));
        });
    }

    TraceImport finish()
    {
        if (m_z.empty() && m_out.errors.empty())
            m_out.errors.push_back({ "line 1", "holds no heights" });
        if (!m_out.errors.empty())
            return std::move(m_out);
        if (m_format.columns == 1) {
            if (!m_format.spacing_um || !(*m_format.spacing_um > 0))
                m_out.errors.push_back(
                    { "spacing", "is not known: enter the step between heights" });
            else
                m_out.spacing_um = *m_format.spacing_um;
            m_out.z_um = std::move(m_z);
        } else
            place();
        if (m_out.errors.empty())
            length();
        return std::move(m_out);
    }

private:
    void fault(size_t line, Phrase message)
    {
        if (m_out.errors.size() < mostTraceErrors)
            m_out.errors.push_back({ "line " + std::to_string(line), std::move(message) });
    }

    void read(size_t number, const std::vector<std::string> &cells)
    {
        const auto columns = static_cast<size_t>(m_format.columns);
        if (cells.size() < columns || cells[columns - 1].empty())
            return fault(number, "has no height: the trace has a gap");
        if (cells.size() > columns)
            return fault(number,
                         "has " + std::to_string(cells.size()) + " cells, "
                             + std::to_string(columns) + " are expected");
        std::array<double, 2> values {};
        for (size_t i = 0; i < columns; ++i) {
            const auto v = numberOfCell(cells[i], m_format.decimalComma);
            if (!v)
                return fault(number,
                             "“" + cells[i] + "” is no number"
                                 + (!cells[i].empty()
                                            && std::isdigit(static_cast<unsigned char>(cells[i][0]))
                                        ? ": units belong in the header, one for all"
                                        : ""));
            values[i] = *v;
        }
        if (columns == 2)
            m_x.push_back(values[0] * unitInUm(m_format.xUnit));
        m_z.push_back(values[columns - 1] * unitInUm(m_format.zUnit));
        m_lines.push_back(number);
    }

    void place()
    {
        if (m_x.size() < 2) {
            m_out.errors.push_back({ "line 1", "holds fewer than two heights" });
            return;
        }
        std::vector<double> steps;
        for (size_t i = 1; i < m_x.size(); ++i)
            steps.push_back(m_x[i] - m_x[i - 1]);
        std::vector<double> sorted = steps;
        std::ranges::nth_element(sorted, sorted.begin() + std::ssize(sorted) / 2);
        const double usual = sorted[sorted.size() / 2];
        bool even = true;
        for (size_t i = 0; i < steps.size(); ++i) {
            if (!(steps[i] > 0))
                fault(m_lines[i + 1], "x does not rise");
            else if (steps[i] > gapFrom * usual)
                fault(m_lines[i + 1],
                      { "trace.gap",
                        "x jumps by {0} where the step is {1}: the trace has a gap",
                        { surface(steps[i]), surface(usual) } });
            even = even && std::abs(steps[i] - usual) <= evenWithin * usual;
        }
        if (!m_out.errors.empty())
            return;
        m_out.spacing_um = (m_x.back() - m_x.front()) / static_cast<double>(m_x.size() - 1);
        if (even) {
            m_out.z_um = std::move(m_z);
            return;
        }
        m_out.said = { "trace.uneven",
                       "the step was uneven by more than {0}: heights were interpolated to an even "
                       "step of {1}",
                       { asShare(evenWithin), surface(m_out.spacing_um) } };
        size_t k = 0;
        for (size_t i = 0; i < m_x.size(); ++i) {
            const double x = m_x.front() + static_cast<double>(i) * m_out.spacing_um;
            while (k + 2 < m_x.size() && m_x[k + 1] < x)
                ++k;
            const double part = std::clamp((x - m_x[k]) / (m_x[k + 1] - m_x[k]), 0.0, 1.0);
            m_out.z_um.push_back(m_z[k] + part * (m_z[k + 1] - m_z[k]));
        }
    }

    static Quantity surface(double um) { return { um * 1e-6, Shows::Roughness, 0, 3 }; }

    void length()
    {
        const double mm = static_cast<double>(m_out.z_um.size() - 1) * m_out.spacing_um / 1000;
        if (mm < shortest_mm || mm > longest_mm)
            m_out.errors.push_back(
                { m_format.columns == 1 ? "spacing" : "line " + std::to_string(m_lines.front()),
                  { "trace.length",
                    "the trace would be {0} long: are units mixed?",
                    { asLength(mm, mm < 1 ? 4 : 0) } } });
    }

    const TraceFormat &m_format;
    char m_separator = ',';
    std::vector<double> m_x, m_z; ///< µm
    std::vector<size_t> m_lines;
    TraceImport m_out;
};

} // namespace

TraceFormat guessTraceFormat(std::string_view text)
{
    TraceFormat out;
    auto [head, first] = headAndFirst(text);
    // "5,6 0,12" and "5,6;0,12": commas that cannot part cells are decimals.
    out.decimalComma = first.find(',') != first.npos && first.find('.') == first.npos
        && (first.find(';') != first.npos || first.find('\t') != first.npos
            || trimmedCell(first).find(' ') != std::string::npos)
        && first.find(", ") == first.npos;
    out.columns = cellsOfLine(first, separatorIn(first, out.decimalComma)).size() == 1 ? 1 : 2;
    std::ranges::transform(head, head.begin(), [](unsigned char c) { return std::tolower(c); });
    const size_t lineEnd = head.find_last_not_of('\n');
    const std::string last
        = lineEnd == head.npos ? std::string() : head.substr(head.find_last_of('\n', lineEnd) + 1);
    const std::vector<std::string> names = cellsOfLine(last, separatorIn(last, false));
    const auto unit = [](const std::string &name, const std::string &fallback) {
        for (const char *micro : { "um", "µm", "μm", "micro" })
            if (name.find(micro) != name.npos)
                return std::string("µm");
        for (const char *u : { "mm", "nm" })
            if (name.find(u) != name.npos)
                return std::string(u);
        return fallback;
    };
    // "x (µm) z (µm)" parted by blanks: units stand by themselves.
    std::vector<std::string> units;
    for (const std::string &name : names)
        if (std::string u = unit(name, ""); !u.empty())
            units.push_back(std::move(u));
    if (out.columns == 2 && units.size() >= 2) {
        out.xUnit = units.front();
        out.zUnit = units.back();
    } else if (!names.empty()) {
        out.zUnit = unit(names.back(), out.zUnit);
        if (out.columns == 2 && names.size() > 1)
            out.xUnit = unit(names.front(), out.xUnit);
    }
    return out;
}

TraceImport traceFromText(std::string_view text, const TraceFormat &format)
{
    return Reader(text, format).finish();
}

std::string traceToCsv(double spacing_um, const std::vector<double> &z_um)
{
    std::string out = "x_mm,z_um\n";
    std::array<char, 64> digits {};
    const auto number = [&](double v) {
        const auto end = std::to_chars(digits.data(), digits.data() + digits.size(), v);
        out.append(digits.data(), end.ptr);
    };
    for (size_t i = 0; i < z_um.size(); ++i) {
        number(std::round(static_cast<double>(i) * spacing_um * 1e3) / 1e6);
        out += ',';
        number(z_um[i]);
        out += '\n';
    }
    return out;
}

} // namespace mildpath
