// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/starttables.h"

#include "storage/passagetables.h"
#include "storage/recordcells.h"

namespace mildpath {

std::string signOffsToCsv(const Build &build)
{
    std::vector<Row> rows { recordHeader({ "id", "hold", "said" }) };
    for (const SignOff &s : build.signOffs) {
        Row row { s.id, s.hold, s.said };
        addRecordCells(row, s);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

std::string cardStepsToCsv(const Build &build)
{
    std::vector<Row> rows { recordHeader(
        { "id", "step", "outcome", "pressure_kpa", "rpm", "oil_temp_c", "time_s" }) };
    for (const CardStep &s : build.cardSteps) {
        Row row { s.id,
                  s.step,
                  s.outcome,
                  plainCell(s.pressure_kpa, 1),
                  plainCell(s.rpm, 0),
                  plainCell(s.oil_c, 1),
                  plainCell(s.seconds, 1) };
        addRecordCells(row, s);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

std::string gaugeReadingsToCsv(const Build &build)
{
    std::vector<Row> rows { recordHeader(
        { "id", "tap", "rpm", "oil_temp_c", "pressure_kpa", "u_kpa", "oil" }) };
    for (const GaugeReading &r : build.gaugeReadings) {
        Row row { r.id,
                  r.tap,
                  formatPlain(r.rpm, 0),
                  formatPlain(r.oil_c, 1),
                  formatPlain(r.pressure_kpa, 1),
                  formatPlain(r.u_kpa, 1),
                  r.oil };
        addRecordCells(row, r);
        rows.push_back(std::move(row));
    }
    return tableToCsv(rows);
}

} // namespace mildpath
