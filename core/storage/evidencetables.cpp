// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/evidencetables.h"

#include "evidence/usedoil.h"
#include "quantity/rounding.h"
#include "rules/rules.h"
#include "storage/cells.h"
#include "storage/passagetables.h"
#include "storage/readingtable.h"
#include "storage/recordcells.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace mildpath {
namespace {

std::string countColumn(std::string_view kind, std::string_view where)
{
    return std::string(kind) + "_" + std::string(where);
}

/// Elements some entry of the build has, those of the table first.
std::vector<std::string> elementsOf(const Build &build)
{
    std::vector<std::string> out;
    std::set<std::string> seen;
    for (const OilSample &s : build.oilSamples)
        for (const auto &[symbol, value] : s.elements)
            seen.insert(symbol);
    for (const ElementKind &k : elementKinds())
        if (seen.erase(std::string(k.symbol)) > 0)
            out.emplace_back(k.symbol);
    out.insert(out.end(), seen.begin(), seen.end());
    return out;
}

/// A table being read: cells by the name of their column, faults with the line.
class Table
{
public:
    Table(std::string_view text, std::vector<Error> &errors)
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

    size_t rows() const { return m_rows.empty() ? 0 : m_rows.size() - 1; }
    const std::vector<std::string> &names() const { return m_names; }
    int column(std::string_view name) const
    {
        const auto it = std::ranges::find(m_names, name);
        return it == m_names.end() ? -1 : static_cast<int>(it - m_names.begin());
    }
    std::string text(size_t row, int column) const
    {
        const auto &cells = m_rows[row + 1];
        return column < 0 || static_cast<size_t>(column) >= cells.size()
            ? std::string()
            : trimmedCell(cells[static_cast<size_t>(column)]);
    }
    std::string text(size_t row, std::string_view name) const { return text(row, column(name)); }
    bool empty(size_t row) const
    {
        return std::ranges::all_of(m_rows[row + 1],
                                   [](const std::string &c) { return trimmedCell(c).empty(); });
    }

    std::optional<double> number(size_t row, int column, double least, double most)
    {
        const std::string cell = text(row, column);
        if (cell.empty())
            return std::nullopt;
        const std::string &name = m_names[static_cast<size_t>(column)];
        const auto v = numberOfCell(cell);
        if (!v) {
            const size_t digits = cell.find_first_not_of("0123456789.+-");
            const bool unit = digits != cell.npos && digits > 0;
            fault(row, name,
                  "“" + cell + "” is no number"
                      + (unit ? ": the column has one unit for all, by its name" : ""));
        } else if (!(*v >= least && *v <= most)) {
            fault(row, name,
                  "must be " + formatPlain(least, 0) + " to " + formatPlain(most, 0) + ", is "
                      + cell);
            return std::nullopt;
        }
        return v;
    }
    std::optional<double> number(size_t row, std::string_view name, double least, double most)
    {
        return column(name) < 0 ? std::nullopt : number(row, column(name), least, most);
    }
    double needed(size_t row, std::string_view name, double least, double most)
    {
        const size_t before = m_errors.size();
        const auto v = number(row, name, least, most);
        if (!v && m_errors.size() == before)
            fault(row, std::string(name), "is missing");
        return v.value_or(least);
    }
    void fault(size_t row, const std::string &name, Phrase message)
    {
        m_errors.push_back({ "line " + std::to_string(row + 2) + (name.empty() ? "" : ", " + name),
                             std::move(message) });
    }

private:
    std::vector<std::vector<std::string>> m_rows;
    std::vector<std::string> m_names;
    std::vector<Error> &m_errors;
};

/// Hours that are taken: by what of the build, or by which line.
class Taken
{
public:
    void add(double h, std::string by) { m_by.emplace_back(h, std::move(by)); }
    void check(Table &table, size_t row, double h)
    {
        for (const auto &[other, by] : m_by)
            if (other == h) {
                table.fault(row, "engine_hours_h",
                            formatPlain(h, 1) + " h is there already: " + by);
                return;
            }
        add(h, "line " + std::to_string(row + 2));
    }

private:
    std::vector<std::pair<double, std::string>> m_by;
};

/// The element a column is of: "Fe", "Fe_mg_kg", "Fe (ppm)".
struct ElementColumn
{
    int column;
    std::string symbol;
};
std::vector<ElementColumn> elementColumns(Table &table)
{
    std::vector<ElementColumn> out;
    for (size_t i = 0; i < table.names().size(); ++i) {
        const std::string &name = table.names()[i];
        const std::string symbol = name.substr(0, name.find_first_of(" _([/"));
        if (!findElementKind(symbol))
            continue;
        std::string unit = name.substr(symbol.size());
        std::erase_if(
            unit, [](char c) { return c == ' ' || c == '(' || c == ')' || c == '[' || c == ']'; });
        if (unit.starts_with('_'))
            unit.erase(0, 1);
        if (!unit.empty() && unit != "mg/kg" && unit != "mg_kg" && unit != "ppm") {
            table.fault(static_cast<size_t>(-1), name,
                        "is in " + unit + "; elements are taken in mg/kg (ppm)");
            continue;
        }
        out.push_back({ static_cast<int>(i), symbol });
    }
    return out;
}

} // namespace

std::string filterCutsToCsv(const Build &build)
{
    Row names { "id", "engine_hours_h", "filter_hours_h", "area_cm2" };
    for (const CutKind &k : cutKinds()) {
        for (const char *where : { "pleats", "can" })
            names.push_back(countColumn(k.id, where));
        names.push_back(std::string(k.id) + "_largest_mm");
    }
    names.emplace_back("settled");
    std::vector<Row> rows { recordHeader(std::move(names)) };
    for (const FilterCut &c : build.filterCuts) {
        Row row { c.id, formatPlain(c.engine_h, 1), formatPlain(c.filter_h, 1),
                  formatPlain(c.area_cm2, 1) };
        for (const CutKind &k : cutKinds()) {
            std::optional<double> largest;
            for (const char *where : { "pleats", "can" }) {
                const auto n = c.count(k.id, where);
                row.push_back(n ? std::to_string(*n) : "");
            }
            for (const DebrisCount &d : c.counts)
                if (d.kind == k.id && d.largest_mm)
                    largest = std::max(largest.value_or(0), *d.largest_mm);
            row.push_back(plainCell(largest, 2));
        }
        row.push_back(c.settled);
        addRecordCells(row, c);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

std::string oilSamplesToCsv(const Build &build)
{
    const std::vector<std::string> elements = elementsOf(build);
    Row names { "id",          "of",           "oil",           "engine_hours_h",
                "oil_hours_h", "oil_added_kg", "water_percent", "fuel_percent",
                "kv40_mm2_s",  "kv100_mm2_s" };
    for (const std::string &symbol : elements)
        names.push_back(symbol + "_mg_kg");
    names.emplace_back("settled");
    std::vector<Row> rows { recordHeader(std::move(names)) };
    for (const OilSample &s : build.oilSamples) {
        const bool used = s.of == "used";
        Row row { s.id,
                  s.of,
                  s.oil,
                  used ? formatPlain(s.engine_h, 1) : "",
                  used ? formatPlain(s.oil_h, 1) : "",
                  used ? formatPlain(s.added_kg, 2) : "",
                  plainCell(s.water_percent, 2),
                  plainCell(s.fuel_percent, 2),
                  plainCell(s.kv40_mm2_s, 2),
                  plainCell(s.kv100_mm2_s, 2) };
        for (const std::string &symbol : elements) {
            const auto it = s.elements.find(symbol);
            row.push_back(it == s.elements.end() ? "" : formatPlain(it->second, 1));
        }
        row.push_back(s.settled);
        addRecordCells(row, s);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

std::string sealChecksToCsv(const Build &build)
{
    std::vector<Row> rows { recordHeader({ "id", "kind", "phase", "rpm", "load_percent",
                                           "flow_l_min", "gas_temp_c", "gas_absolute_kpa",
                                           "vacuum_kpa", "pump_rpm", "relief_kpa" }) };
    for (const SealCheck &c : build.sealChecks) {
        const bool vacuum = c.kind == "vacuum";
        Row row { c.id,
                  c.kind,
                  c.phase,
                  formatPlain(c.rpm, 0),
                  formatPlain(c.load_percent, 0),
                  vacuum ? "" : formatPlain(c.value, 2),
                  vacuum ? "" : formatPlain(c.gas_c, 1),
                  vacuum ? "" : formatPlain(c.gas_kpa, 2),
                  vacuum ? formatPlain(c.value, 2) : "",
                  plainCell(c.pump_rpm, 0),
                  plainCell(c.relief_kpa, 1) };
        addRecordCells(row, c);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

CutImport cutsFromTable(const Build &build, std::string_view text)
{
    CutImport out;
    Table table(text, out.errors);
    Taken taken;
    for (const FilterCut *c : standing(build.filterCuts))
        taken.add(c->engine_h, "cut " + c->id);
    for (size_t row = 0; row < table.rows(); ++row) {
        if (table.empty(row))
            continue;
        FilterCut c;
        const size_t faults = out.errors.size();
        c.engine_h = table.needed(row, "engine_hours_h", 0, mostHours_h);
        c.filter_h = table.needed(row, "filter_hours_h", 0, mostHours_h);
        c.area_cm2 = table.needed(row, "area_cm2", 0, 1e5);
        for (const CutKind &k : cutKinds())
            for (const char *where : { "pleats", "can" })
                if (const auto n = table.number(row, countColumn(k.id, where), 0, 1e6)) {
                    if (*n != std::floor(*n))
                        table.fault(row, countColumn(k.id, where), "must be a whole number");
                    c.counts.push_back(
                        { std::string(k.id), where, static_cast<int>(*n),
                          table.number(row, std::string(k.id) + "_largest_mm", 0, 100) });
                }
        c.settled = table.text(row, "settled");
        c.note = table.text(row, "note");
        c.by = table.text(row, "by");
        c.at = table.text(row, "at");
        if (out.errors.size() == faults && c.counts.empty())
            table.fault(row, "", "counts nothing");
        if (out.errors.size() == faults)
            taken.check(table, row, c.engine_h);
        out.cuts.push_back(std::move(c));
    }
    if (table.rows() == 0 && out.errors.empty())
        out.errors.push_back({ "line 2", "holds no cuts" });
    return out;
}

SampleImport samplesFromTable(const Build &build, std::string_view text)
{
    SampleImport out;
    Table table(text, out.errors);
    Taken taken;
    for (const OilSample *s : standing(build.oilSamples))
        if (s->of == "used")
            taken.add(s->engine_h, "sample " + s->id);
    const std::vector<ElementColumn> elements = elementColumns(table);
    for (size_t row = 0; row < table.rows(); ++row) {
        if (table.empty(row))
            continue;
        OilSample s;
        const size_t faults = out.errors.size();
        if (const std::string of = table.text(row, "of"); !of.empty())
            s.of = of;
        if (s.of != "used" && s.of != "new")
            table.fault(row, "of", "must be used or new, is “" + s.of + "”");
        s.oil = table.text(row, "oil");
        if (s.of == "used") {
            s.engine_h = table.needed(row, "engine_hours_h", 0, mostHours_h);
            s.oil_h = table.needed(row, "oil_hours_h", 0, mostHours_h);
            s.added_kg = table.number(row, "oil_added_kg", 0, 10000).value_or(0);
        }
        for (const ElementColumn &e : elements)
            if (const auto v = table.number(row, e.column, 0, 1e6))
                s.elements[e.symbol] = *v;
        s.water_percent = table.number(row, "water_percent", 0, 100);
        s.fuel_percent = table.number(row, "fuel_percent", 0, 50);
        s.kv40_mm2_s = table.number(row, "kv40_mm2_s", 1, 5000);
        s.kv100_mm2_s = table.number(row, "kv100_mm2_s", 1, 500);
        s.settled = table.text(row, "settled");
        s.note = table.text(row, "note");
        s.by = table.text(row, "by");
        s.at = table.text(row, "at");
        if (out.errors.size() == faults && s.elements.empty() && !s.kv100_mm2_s)
            table.fault(row, "", "holds neither elements nor a viscosity");
        if (out.errors.size() == faults && s.of == "used")
            taken.check(table, row, s.engine_h);
        out.samples.push_back(std::move(s));
    }
    if (table.rows() == 0 && out.errors.empty())
        out.errors.push_back({ "line 2", "holds no samples" });
    return out;
}

bool isCutTable(std::string_view text)
{
    return text.substr(0, text.find('\n')).find("filter_hours_h") != text.npos;
}

bool isSampleTable(std::string_view text)
{
    return text.substr(0, text.find('\n')).find("oil_hours_h") != text.npos;
}

} // namespace mildpath
