// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/edit.h"
#include "testing.h"

namespace mildpath {

/// The build with an entry written into its logbook; ends the test run when that is refused.
inline Build withEntry(Build build, LogEntry entry)
{
    std::visit(
        [](Record &r) {
            r.by = "tester";
            r.at = "2026-03-01T10:00:00";
        },
        entry);
    auto out = applyEdit(build, AddEntry { std::move(entry) });
    if (!out)
        qFatal("%s %s", out.error().place.c_str(), said(out.error().message).c_str());
    return std::move(*out);
}

/// The gauge of the document read.
inline GaugeReading reading(const Build &b, double rpm, double oil_c, double kpa)
{
    GaugeReading g;
    g.tap = b.gaugeTap;
    g.rpm = rpm;
    g.oil_c = oil_c;
    g.pressure_kpa = kpa;
    return g;
}

} // namespace mildpath
