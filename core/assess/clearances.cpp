// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/assessment.h"

#include "bearing/thermal.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double expansionOf(const std::string &material)
{
    const Material *m = findMaterial(material);
    return m ? m->expansion_per_k : 0;
}

/// Expansions of the parts around a journal.
struct Parts
{
    double housing, journal;
    std::optional<double> cap;
    double capFraction = 0.5;
};

Parts partsOf(const Engine &engine, const Stop &stop)
{
    Parts p { expansionOf(engine.block), expansionOf(engine.crank), {}, engine.mainCapFraction };
    if (stop.kind == "big_end")
        p.housing = expansionOf(engine.rod);
    else if (stop.kind == "main" && !engine.mainCap.empty())
        p.cap = expansionOf(engine.mainCap);
    return p;
}

double changeAt_um(const Stop &stop, const Parts &parts, double cold_um, Celsius housing,
                   Celsius journal)
{
    ThermalBearing b { .cold = { cold_um * 1e-6 },
                       .journalDiameter_m = stop.journal_mm * 1e-3,
                       .shellWall_m = stop.shellWall_mm * 1e-3,
                       .housingExpansion_per_k = parts.housing,
                       .housing = housing,
                       .journalExpansion_per_k = parts.journal,
                       .journal = journal,
                       .cap = {} };
    if (parts.cap)
        b.cap = CapShare { *parts.cap, housing, parts.capFraction };
    return thermalClearance(b).change_m * 1e6;
}

JudgedReading judgeReading(const Reading &r, const Stop &stop, const Parts &parts,
                           const std::optional<Limits> &limits)
{
    const PartsWhileGauging gauging { .bore = { r.housing_c },
                                      .journal = { r.journal_c },
                                      .boreExpansion_per_k = parts.housing,
                                      .journalExpansion_per_k = parts.journal };
    const ClearanceAt20 c = clearanceFromZeroedGauge(*r.value_um * 1e-6, stop.journal_mm * 1e-3,
                                                     r.u_um * 1e-6, 0, gauging);
    JudgedReading out { r.id,
                        r.station,
                        r.angle_deg,
                        *r.value_um,
                        c.clearance.value_m * 1e6,
                        r.u_um,
                        readingUse(r.angle_deg),
                        false,
                        false };
    if (limits) {
        const double margin = unlikelyWidths * (limits->max_um - limits->min_um);
        const bool counts = out.use == ReadingUse::Clearance || out.use == ReadingUse::Form;
        out.pastLimit = counts && (out.at20_um > limits->max_um || out.at20_um < limits->min_um);
        out.unlikely = out.at20_um > limits->max_um + margin
            || out.at20_um < std::max(1.0, limits->min_um - margin);
    }
    return out;
}

std::string um(double value, double u = 0)
{
    return formatPlain(value, std::min(1, decimalsFor(u, 1)));
}

/// A limit as it was given: no decimals that nobody wrote.
std::string limit(double um)
{
    return formatPlain(um, um == std::round(um) ? 0 : 1);
}

/// Mark and words from mean ± U against the limits.
void judge(BearingClearance &b)
{
    if (!b.limits) {
        b.verdict = b.measured ? "no limits to judge by" : "not gauged";
        b.mark = b.measured ? Mark::LookAgain : Mark::NotDone;
        b.next = "Enter the maker's limits";
        return;
    }
    const Limits &l = *b.limits;
    if (!b.measured) {
        b.mark = Mark::NotDone;
        b.verdict
            = "not gauged; the middle of the limits, " + limit(b.cold_um.value) + " µm, is assumed";
        b.next = "Gauge it upright, front and rear";
        return;
    }
    const double u = b.cold_um.expanded();
    const double low = b.cold_um.value - u, high = b.cold_um.value + u;
    const std::string value = um(b.cold_um.value) + " ± " + um(u) + " µm";
    const auto past = std::find_if(b.readings.begin(), b.readings.end(),
                                   [](const JudgedReading &r) { return r.pastLimit; });
    bool front = false, rear = false;
    for (const JudgedReading &r : b.readings)
        if (r.use == ReadingUse::Clearance)
            (r.station == 1 ? front : rear) = true;
    if (low > l.max_um || high < l.min_um) {
        b.mark = Mark::Hold;
        b.verdict = value
            + (low > l.max_um ? " is past the limit of " + limit(l.max_um)
                              : " is below the limit of " + limit(l.min_um));
        b.next = low > l.max_um
            ? "Gauge again; then swap the shells or have the journal seen to"
            : "Gauge again; look for dirt behind the shell; then swap the shells";
    } else if (high > l.max_um || low < l.min_um) {
        b.mark = Mark::LookAgain;
        b.verdict = value + " lies across the limit of "
            + limit(high > l.max_um ? l.max_um : l.min_um) + ": cannot say yet";
        b.next = "Gauge again, or with a better instrument";
    } else if (past != b.readings.end()) {
        b.mark = Mark::LookAgain;
        b.verdict = um(past->at20_um) + " µm at one position is past the limit of "
            + limit(past->at20_um > l.max_um ? l.max_um : l.min_um);
        b.next = "The mean is inside. Gauge that position again; then swap the shells";
    } else if (!front || !rear) {
        b.mark = Mark::LookAgain;
        b.verdict = value + " upright at one end only";
        b.next = std::string("Gauge it upright at the ") + (front ? "rear" : "front") + " too";
    } else {
        b.mark = Mark::Proven;
        b.verdict = value + " is inside " + limit(l.min_um) + " to " + limit(l.max_um);
    }
}

BearingClearance judgeBearing(const Build &build, const Stop &stop)
{
    BearingClearance out;
    out.stop = stop.id;
    out.kind = stop.kind;
    for (const std::string &id : stop.elements)
        if (const Element *e = build.circuit.find(id); e && e->type == "bearing")
            out.element = id;
    if (const auto it = build.limits.find(stop.kind); it != build.limits.end())
        out.limits = it->second;
    const Parts parts = partsOf(build.engine, stop);

    std::vector<PositionReading> positions;
    double u = 0;
    for (const Reading *r : standingReadings(build, stop.id)) {
        out.readings.push_back(judgeReading(*r, stop, parts, out.limits));
        const JudgedReading &j = out.readings.back();
        positions.push_back({ j.angle_deg, j.station, j.at20_um * 1e-6 });
        if (j.use == ReadingUse::Clearance)
            u = std::max(u, j.u_um);
    }
    if (auto form = boreForm(positions))
        out.form = *form;
    // One instrument's error is common to its readings, so their number does not shrink it.
    out.measured = u > 0
        || std::any_of(out.readings.begin(), out.readings.end(),
                       [](const JudgedReading &r) { return r.use == ReadingUse::Clearance; });
    if (out.measured)
        out.cold_um = { out.form->mean_m * 1e6, u };
    else if (out.limits)
        out.cold_um = { (out.limits->min_um + out.limits->max_um) / 2,
                        (out.limits->max_um - out.limits->min_um) / std::sqrt(12.0) };
    else
        out.cold_um = { build.circuit.find(out.element)->value("clearance_um"), 0 };

    const double cold = out.cold_um.value;
    const auto settled = [&](double oil_c) {
        return cold + changeAt_um(stop, parts, cold, { oil_c - housingBelowOil_k }, { oil_c });
    };
    // Growth is linear in temperature, so two points hold the whole line.
    out.thermalRate_um_per_k = (settled(120) - settled(20)) / 100;
    out.thermalOffset_um = settled(20) - out.thermalRate_um_per_k * 20;
    out.running_um = out.runningAt(build.use.hotOil_c);
    const Celsius start { build.use.coldestStart_c };
    out.coldestStart_um = cold + changeAt_um(stop, parts, cold, start, start);
    judge(out);
    return out;
}

} // namespace

double BearingClearance::runningAt(double oil_c) const
{
    return thermalOffset_um + thermalRate_um_per_k * oil_c;
}

std::vector<BearingClearance> judgeClearances(const Build &build)
{
    std::vector<BearingClearance> out;
    for (const Stop &stop : build.engine.stops)
        if (const StopKind *kind = findStopKind(stop.kind); kind && kind->gauged)
            out.push_back(judgeBearing(build, stop));
    return out;
}

} // namespace mildpath
