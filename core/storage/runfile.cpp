// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/runfile.h"

#include "quantity/rounding.h"
#include "storage/appendfile.h"
#include "storage/cells.h"
#include "storage/files.h"
#include "storage/readingtable.h"

#include <algorithm>
#include <unistd.h>
#include <utility>

namespace mildpath {
namespace {

std::string line(const RunPoint &p)
{
    const auto cell = [](const std::optional<double> &v, int decimals) {
        return v ? formatPlain(*v, decimals) : std::string();
    };
    return formatPlain(p.t_s, 3) + "," + cell(p.pressure_kpa, 2) + "," + cell(p.rpm, 0) + ","
        + cell(p.oil_c, 1) + ",\n";
}

std::string line(const RunMark &m)
{
    // A mark without a word still has to be told from a reading without values.
    return formatPlain(m.t_s, 3) + ",,,," + cellText(m.text.empty() ? "mark" : m.text, ',') + "\n";
}

std::string lower(std::string s)
{
    std::transform(s.begin(), s.end(), s.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return s;
}

struct Range
{
    double least, most;
};

/// Reads the rows of a table by its columns.
class RunReader
{
public:
    RunReader(const RunTable &table, const RunColumns &columns)
        : m_table(table)
        , m_columns(columns)
    {
    }

    RunImport run(int markColumn)
    {
        if (m_columns.time < 0)
            m_out.errors.push_back({ "time", "no column is named for it" });
        if (m_columns.pressure < 0)
            m_out.errors.push_back({ "pressure", "no column is named for it" });
        if (!m_out.errors.empty())
            return std::move(m_out);
        for (size_t r = 0; r < m_table.rows.size(); ++r)
            row(r, markColumn);
        if (m_out.errors.empty() && m_out.points.empty())
            m_out.errors.push_back({ "line 2", "holds no readings" });
        return std::move(m_out);
    }

private:
    void row(size_t r, int markColumn)
    {
        const auto &cells = m_table.rows[r];
        if (std::all_of(cells.begin(), cells.end(),
                        [](const std::string &c) { return trimmedCell(c).empty(); }))
            return;
        m_line = "line " + std::to_string(r + 2);
        const size_t before = m_out.errors.size();
        const double perSecond = m_columns.timeUnit == "ms" ? 1e-3
            : m_columns.timeUnit == "min"                   ? 60
                                                            : 1;
        const auto t = number(cells, m_columns.time, { -1e9, 1e9 });
        const auto p = number(cells, m_columns.pressure, { -100, 1e5 });
        const auto n = number(cells, m_columns.rpm, { 0, 30000 });
        const auto oil = number(cells, m_columns.oil, { -100, 600 });
        if (m_out.errors.size() > before)
            return;
        if (!t) {
            error(m_columns.time, "the time is missing");
            return;
        }
        const double t_s = *t * perSecond;
        if (!m_first_s)
            m_first_s = t_s;
        if (t_s < m_last_s) {
            error(m_columns.time, "the time goes back");
            return;
        }
        m_last_s = t_s;
        const std::string mark = markColumn >= 0 && static_cast<size_t>(markColumn) < cells.size()
            ? trimmedCell(cells[static_cast<size_t>(markColumn)])
            : "";
        if (!mark.empty())
            m_out.marks.push_back({ t_s - *m_first_s, mark == "mark" ? "" : mark });
        if (p || n || oil)
            m_out.points.push_back(
                { t_s - *m_first_s, in(p, m_columns.pressureUnit), n, in(oil, m_columns.oilUnit) });
    }

    static std::optional<double> in(const std::optional<double> &v, const std::string &unit)
    {
        if (!v)
            return v;
        return unit == "bar" ? *v * 100
            : unit == "psi"  ? *v * 6.894757293168
            : unit == "°F"   ? (*v - 32) * 5 / 9
                             : *v;
    }

    std::optional<double> number(const std::vector<std::string> &cells, int column, Range range)
    {
        if (column < 0)
            return std::nullopt;
        const auto c = static_cast<size_t>(column);
        const std::string cell = c < cells.size() ? trimmedCell(cells[c]) : "";
        if (cell.empty())
            return std::nullopt;
        const auto v = numberOfCell(cell, m_columns.decimalComma);
        if (!v)
            error(column, "\"" + cell + "\" is not a number");
        else if (!(*v >= range.least && *v <= range.most))
            error(column, cell + " cannot be");
        return v;
    }

    void error(int column, std::string why)
    {
        m_out.errors.push_back(
            { m_line + ", " + trimmedCell(m_table.header[static_cast<size_t>(column)]),
              std::move(why) });
    }

    const RunTable &m_table;
    const RunColumns &m_columns;
    RunImport m_out;
    std::string m_line;
    std::optional<double> m_first_s;
    double m_last_s = -1e12;
};

/// A column whose name holds one of these words; a word of one letter must be all of it, but for a
/// unit behind.
int columnOf(const RunTable &table, std::initializer_list<std::string_view> words)
{
    for (const std::string_view w : words)
        for (size_t i = 0; i < table.header.size(); ++i) {
            const std::string name = lower(trimmedCell(table.header[i]));
            const bool found = w.size() > 1 ? name.find(w) != std::string::npos
                                            : name.substr(0, name.find(' ')) == w;
            if (found)
                return static_cast<int>(i);
        }
    return -1;
}

bool names(const RunTable &table, int column, std::string_view word)
{
    return column >= 0
        && lower(table.header[static_cast<size_t>(column)]).find(word) != std::string::npos;
}

} // namespace

Result<RunFile> RunFile::start(const std::filesystem::path &folder, const std::string &kind,
                               const std::string &date)
{
    auto file = startAppending(folder, [&](int number) {
        return kind + "-" + date + "-" + std::to_string(number) + ".csv";
    });
    if (!file)
        return tl::unexpected(file.error());
    RunFile out;
    out.m_path = std::move(file->path);
    out.m_fd = file->fd;
    if (auto ok = out.write(std::string(runHeader) + "\n"); !ok)
        return tl::unexpected(ok.error());
    return out;
}

RunFile::RunFile(RunFile &&other) noexcept
    : m_path(std::move(other.m_path))
    , m_fd(std::exchange(other.m_fd, -1))
{
}

RunFile &RunFile::operator=(RunFile &&other) noexcept
{
    std::swap(m_path, other.m_path);
    std::swap(m_fd, other.m_fd);
    return *this;
}

RunFile::~RunFile()
{
    if (m_fd >= 0)
        ::close(m_fd);
}

Result<void> RunFile::write(const std::string &text)
{
    return appendText(m_fd, m_path, text);
}

Result<void> RunFile::append(const RunPoint &point)
{
    return write(line(point));
}

Result<void> RunFile::mark(const RunMark &m)
{
    return write(line(m));
}

void RunFile::sync()
{
    if (m_fd >= 0)
        ::fdatasync(m_fd);
}

Result<std::filesystem::path> setRunAside(const std::filesystem::path &path)
{
    const std::filesystem::path folder = path.parent_path() / "kept", to = folder / path.filename();
    std::error_code code;
    std::filesystem::create_directories(folder, code);
    if (!code)
        std::filesystem::rename(path, to, code);
    if (code)
        return fail(to.string(), code.message());
    return to;
}

Result<void> RunFile::setAside()
{
    auto to = setRunAside(m_path);
    if (!to)
        return tl::unexpected(to.error());
    m_path = std::move(*to);
    return {};
}

void RunFile::discard()
{
    if (m_fd < 0)
        return;
    ::unlink(m_path.c_str());
    ::close(std::exchange(m_fd, -1));
}

std::string runToCsv(std::span<const RunPoint> points, std::span<const RunMark> marks)
{
    std::string out = std::string(runHeader) + "\n";
    size_t m = 0;
    for (const RunPoint &p : points) {
        for (; m < marks.size() && marks[m].t_s <= p.t_s; ++m)
            out += line(marks[m]);
        out += line(p);
    }
    for (; m < marks.size(); ++m)
        out += line(marks[m]);
    return out;
}

std::vector<UnfinishedRun> findUnfinishedRuns(const std::filesystem::path &folder)
{
    std::vector<UnfinishedRun> out;
    std::error_code code;
    for (const auto &entry : std::filesystem::directory_iterator(folder, code)) {
        if (entry.path().extension() != ".csv")
            continue;
        auto text = heldByAnother(entry.path()) ? Result<std::string>(fail("", "held"))
                                                : readTextFile(entry.path());
        if (!text)
            continue;
        text->resize(text->find_last_of('\n') + 1); // npos + 1: nothing
        const auto table = runTable(*text);
        if (!table)
            continue;
        const std::string name = entry.path().stem().string();
        UnfinishedRun run { entry.path(), name.substr(0, name.find('-')),
                            runFromTable(*table, guessColumns(*table)) };
        if (!run.run.points.empty())
            out.push_back(std::move(run));
    }
    std::sort(out.begin(), out.end(),
              [](const UnfinishedRun &a, const UnfinishedRun &b) { return a.path < b.path; });
    return out;
}

Result<RunTable> runTable(std::string_view text)
{
    auto rows = cellsOf(text, separatorOf(text));
    if (!rows)
        return tl::unexpected(rows.error());
    if (rows->empty() || rows->front().size() < 2)
        return fail("line 1", "is no header: names of columns, with commas, semicolons or tabs");
    RunTable out;
    out.header = rows->front();
    out.rows.assign(rows->begin() + 1, rows->end());
    if (out.rows.empty())
        return fail("line 2", "holds no readings");
    return out;
}

RunColumns guessColumns(const RunTable &table)
{
    RunColumns out;
    out.time = columnOf(table, { "time", "sec" });
    out.pressure = columnOf(table, { "press", "kpa", "psi", "bar", "p" });
    out.rpm = columnOf(table, { "rpm", "rev", "speed", "n" });
    out.oil = columnOf(table, { "oil_temp", "oil temp", "temp", "°c", "°f" });
    out.timeUnit = names(table, out.time, "ms") || names(table, out.time, "milli") ? "ms"
        : names(table, out.time, "min")                                            ? "min"
                                                                                   : "s";
    out.pressureUnit = names(table, out.pressure, "psi") ? "psi"
        : names(table, out.pressure, "bar")              ? "bar"
                                                         : "kPa";
    out.oilUnit = names(table, out.oil, "°f") || names(table, out.oil, "_f")
            || names(table, out.oil, "(f)") || names(table, out.oil, "[f]")
        ? "°F"
        : "°C";
    // A table cut at semicolons usually has its decimals behind commas.
    if (!table.rows.empty())
        for (const std::string &cell : table.rows.front())
            out.decimalComma = out.decimalComma
                || (!numberOfCell(trimmedCell(cell)) && numberOfCell(trimmedCell(cell), true));
    return out;
}

RunImport runFromTable(const RunTable &table, const RunColumns &columns)
{
    return RunReader(table, columns).run(columnOf(table, { "mark", "note" }));
}

} // namespace mildpath
