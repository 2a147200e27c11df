// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/passagetables.h"

#include "document/logbook.h"
#include "quantity/rounding.h"
#include "storage/readingtable.h"
#include "storage/recordtable.h"

namespace mildpath {
namespace {

std::string mmCell(double v)
{
    return formatPlain(v, 2);
}

std::string endText(const PassageEnd &e)
{
    if (e.kind == "joint")
        return (e.straight ? "runs on into " : "joins ") + e.passage + " at " + mmCell(e.at_mm);
    return e.kind + (e.stop.empty() ? "" : " at " + e.stop);
}

} // namespace

std::string tableToCsv(const std::vector<std::vector<std::string>> &rows)
{
    std::string out;
    for (const auto &row : rows) {
        for (size_t i = 0; i < row.size(); ++i)
            out += (i > 0 ? "," : "") + cellText(row[i], ',');
        out += "\r\n";
    }
    return out;
}

std::string passagesToCsv(const Build &build)
{
    std::vector<std::vector<std::string>> rows { { "id", "name", "part", "stop", "made", "d_mm",
                                                   "l_mm", "end_0", "end_1" } };
    for (const Passage &p : build.passages)
        rows.push_back({ p.id, p.name, p.part, p.stop, p.made + (p.curved ? ", curved" : ""),
                         mmCell(p.d_mm), mmCell(p.l_mm), endText(p.ends[0]), endText(p.ends[1]) });
    return tableToCsv(rows);
}

std::string plugsToCsv(const Build &build)
{
    return recordsToCsv(build.plugs);
}

std::string eventsToCsv(const Build &build)
{
    const RecordColumns columns(recordType<CleanEvent>());
    std::vector<Row> rows { columns.header({ "where" }) };
    for (const CleanEvent &e : build.events)
        rows.push_back(columns.row(&e, { targetName(build, e) }));
    return tableToCsv(rows);
}

} // namespace mildpath
