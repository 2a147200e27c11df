// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "quantity/fields.h"
#include "quantity/result.h"
#include "storage/passagetables.h"

#include <initializer_list>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mildpath {

// Tables that list records: their columns are the members the description tells, by key.

using Row = std::vector<std::string>;

/// The members of a kind of record that hold one value each. The id stands first, what every entry
/// of the logbook ends with last; lists and maps are left to who writes the table.
class RecordColumns
{
public:
    explicit RecordColumns(const RecordType &type);
    /// @param between  further columns, before what every entry ends with
    Row header(const Row &between = {}) const;
    /// The same of a record; a number in full, as a file has it.
    Row row(const void *record, const Row &between = {}) const;

private:
    std::vector<const Field *> m_own, m_last;
};

/// A table being read: cells by the name of their column, faults with the line.
class TableReader
{
public:
    TableReader(std::string_view text, std::vector<Error> &errors);

    size_t rows() const { return m_rows.empty() ? 0 : m_rows.size() - 1; }
    const Row &names() const { return m_names; }
    /// @return -1 without one
    int column(std::string_view name) const;
    std::string text(size_t row, int column) const;
    std::string text(size_t row, std::string_view name) const { return text(row, column(name)); }
    bool empty(size_t row) const;
    /// @return nothing where the cell is empty, or at fault
    std::optional<double> number(size_t row, int column, double least, double most,
                                 std::string_view unit = {});
    std::optional<double> number(size_t row, std::string_view name, double least, double most);
    /// Fills a record's single values. Faults: no number, out of its range, none of its words, or
    /// one of those that must be there and is not. Ids and what strikes an entry are not taken.
    void read(size_t row, const RecordType &type, void *record,
              std::initializer_list<std::string_view> needed);
    void fault(size_t row, std::string_view name, Phrase message);

private:
    void readNumber(size_t row, const Field &field, void *record, bool needed);

    std::vector<Row> m_rows;
    Row m_names;
    std::vector<Error> &m_errors;
};

/// Records without anything else, as CSV.
template <class List> std::string recordsToCsv(const List &records)
{
    const RecordColumns columns(recordType<typename List::value_type>());
    std::vector<Row> rows { columns.header() };
    for (const auto &r : records)
        rows.push_back(columns.row(&r));
    return tableToCsv(rows);
}

} // namespace mildpath
