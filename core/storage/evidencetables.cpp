// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/evidencetables.h"

#include "evidence/usedoil.h"
#include "quantity/rounding.h"
#include "rules/rules.h"
#include "storage/recordtable.h"

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
    for (const OilElement &k : knownOilElements())
        if (seen.erase(std::string(k.symbol)) > 0)
            out.emplace_back(k.symbol);
    out.insert(out.end(), seen.begin(), seen.end());
    return out;
}

/// Hours that are taken: by what of the build, or by which line.
class Taken
{
public:
    void add(double h, std::string by) { m_by.emplace_back(h, std::move(by)); }
    void check(TableReader &table, size_t row, double h)
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
std::vector<ElementColumn> elementColumns(TableReader &table)
{
    std::vector<ElementColumn> out;
    for (size_t i = 0; i < table.names().size(); ++i) {
        const std::string &name = table.names()[i];
        const std::string symbol = name.substr(0, name.find_first_of(" _([/"));
        if (!findOilElement(symbol))
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
    const RecordColumns columns(recordType<FilterCut>());
    Row names;
    for (const CutKind &k : cutKinds()) {
        for (const char *where : { "pleats", "can" })
            names.push_back(countColumn(k.id, where));
        names.push_back(std::string(k.id) + "_largest_mm");
    }
    std::vector<Row> rows { columns.header(names) };
    for (const FilterCut &c : build.filterCuts) {
        Row counts;
        for (const CutKind &k : cutKinds()) {
            std::optional<double> largest;
            for (const char *where : { "pleats", "can" }) {
                const auto n = c.count(k.id, where);
                counts.push_back(n ? std::to_string(*n) : "");
            }
            for (const DebrisCount &d : c.counts)
                if (d.kind == k.id && d.largest_mm)
                    largest = std::max(largest.value_or(0), *d.largest_mm);
            counts.push_back(largest ? formatPlain(*largest, 2) : "");
        }
        rows.push_back(columns.row(&c, counts));
    }
    return tableToCsv(rows);
}

std::string oilSamplesToCsv(const Build &build)
{
    const RecordColumns columns(recordType<OilSample>());
    const std::vector<std::string> elements = elementsOf(build);
    Row names;
    for (const std::string &symbol : elements)
        names.push_back(symbol + "_mg_kg");
    std::vector<Row> rows { columns.header(names) };
    for (const OilSample &s : build.oilSamples) {
        Row found;
        for (const std::string &symbol : elements) {
            const auto it = s.elements.find(symbol);
            found.push_back(it == s.elements.end() ? "" : formatPlain(it->second, 1));
        }
        rows.push_back(columns.row(&s, found));
    }
    return tableToCsv(rows);
}

std::string sealChecksToCsv(const Build &build)
{
    return recordsToCsv(build.sealChecks);
}

CutImport cutsFromTable(const Build &build, std::string_view text)
{
    CutImport out;
    TableReader table(text, out.errors);
    Taken taken;
    for (const FilterCut *c : standing(build.filterCuts))
        taken.add(c->engine_h, "cut " + c->id);
    for (size_t row = 0; row < table.rows(); ++row) {
        if (table.empty(row))
            continue;
        FilterCut c;
        const size_t faults = out.errors.size();
        table.read(row, recordType<FilterCut>(), &c, {});
        for (const CutKind &k : cutKinds())
            for (const char *where : { "pleats", "can" })
                if (const auto n = table.number(row, countColumn(k.id, where), 0, 1e6)) {
                    if (*n != std::floor(*n))
                        table.fault(row, countColumn(k.id, where), "must be a whole number");
                    c.counts.push_back(
                        { std::string(k.id), where, static_cast<int>(*n),
                          table.number(row, std::string(k.id) + "_largest_mm", 0, 100) });
                }
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
    TableReader table(text, out.errors);
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
        table.read(row, recordType<OilSample>(), &s, { "engine_hours_h", "oil_hours_h" });
        for (const ElementColumn &e : elements)
            if (const auto v = table.number(row, e.column, 0, 1e6))
                s.elements[e.symbol] = *v;
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
