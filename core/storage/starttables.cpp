// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/starttables.h"

#include "quantity/rounding.h"
#include "storage/passagetables.h"

namespace mildpath {
namespace {

using Row = std::vector<std::string>;

std::string plain(const std::optional<double> &value, int decimals)
{
    return value ? formatPlain(*value, decimals) : "";
}

/// What every entry ends with.
void addRecord(Row &row, const Record &r)
{
    for (const std::string *s : { &r.note, &r.by, &r.at, &r.replaces })
        row.push_back(*s);
    row.push_back(r.takenBack ? "yes" : "");
}
Row header(Row own)
{
    for (const char *name : { "note", "by", "at", "replaces", "taken_back" })
        own.push_back(name);
    return own;
}

} // namespace

std::string signOffsToCsv(const Build &build)
{
    std::vector<Row> rows { header({ "id", "hold", "said" }) };
    for (const SignOff &s : build.signOffs) {
        Row row { s.id, s.hold, s.said };
        addRecord(row, s);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

std::string cardStepsToCsv(const Build &build)
{
    std::vector<Row> rows { header(
        { "id", "step", "outcome", "pressure_kpa", "rpm", "oil_temp_c", "time_s" }) };
    for (const CardStep &s : build.cardSteps) {
        Row row { s.id,
                  s.step,
                  s.outcome,
                  plain(s.pressure_kpa, 1),
                  plain(s.rpm, 0),
                  plain(s.oil_c, 1),
                  plain(s.seconds, 1) };
        addRecord(row, s);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

std::string gaugeReadingsToCsv(const Build &build)
{
    std::vector<Row> rows { header(
        { "id", "tap", "rpm", "oil_temp_c", "pressure_kpa", "u_kpa", "oil" }) };
    for (const GaugeReading &r : build.gaugeReadings) {
        Row row { r.id,
                  r.tap,
                  formatPlain(r.rpm, 0),
                  formatPlain(r.oil_c, 1),
                  formatPlain(r.pressure_kpa, 1),
                  formatPlain(r.u_kpa, 1),
                  r.oil };
        addRecord(row, r);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

} // namespace mildpath
