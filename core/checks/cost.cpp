// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/cost.h"

#include "assess/figures.h"
#include "assess/operatingmodel.h"
#include "assess/states.h"
#include "diagnose/faults.h"
#include "evidence/flow.h"
#include "rules/rules.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace mildpath {
namespace {

/// The fault that a kind of check guards against. Own choice; severities as docs/theory/checks.md.
struct KindFault
{
    std::string_view kinds; ///< of check, by blanks
    std::string_view fault;
    double severity; ///< 0: the usual one of the fault
};
constexpr std::array<KindFault, 18> kindFaults { {
    { "clean restr pocket newpart", "swarf", 0.9 },
    { "plugin plugseen", "plug_missing", 0 },
    { "feed camhole top", "feed_hole_covered", 0.9 },
    { "clr form jrnl bore", "bearing_worn", 0 },
    { "tang crush torq capway", "shell_spun", 0 },
    { "bush", "cams_worn", 0 },
    { "lifclr", "lifter_bores_worn", 0 },
    { "ptip pend pflat", "pump_worn", 0 },
    { "pgask", "pump_gasket", 0 },
    { "rfree", "relief_stuck_open", 0 },
    { "rseat", "relief_leaking", 0 },
    { "kring klock", "suction_air", 0 },
    { "kgap panfit", "pickup_blocked", 0.7 },
    { "lway", "lines_swapped", 0 },
    { "lhose", "hose_collapsed", 0 },
    { "jets", "jet_lost", 0 },
    { "oilok", "oil_too_thin", 0 },
    { "oilin", "low_fill", 0 },
} };

const KindFault *faultOfKind(std::string_view kind)
{
    for (const KindFault &f : kindFaults)
        if (hasWord(f.kinds, kind))
            return &f;
    return nullptr;
}

/// The stop the fault befalls: the check's own, else the first it can befall.
const Stop *stopFor(const Build &build, const FaultKind &kind, const Check &check)
{
    for (const std::string &id : check.place.ids)
        if (const Stop *s = build.engine.find(id); s && happensAt(kind, *s))
            return s;
    if (const Stop *s = build.engine.find(check.place.stop))
        return happensAt(kind, *s) ? s : nullptr;
    for (const Stop &s : build.engine.stops)
        if (happensAt(kind, s))
            return &s;
    return nullptr;
}

/// Which of several alike at the stop the check is about; 0: the usual one.
int itemFor(const Build &build, const FaultKind &kind, const Stop &stop, const Check &check)
{
    const auto items = faultItems(build, kind, stop);
    const auto at = std::find(items.begin(), items.end(), check.place.name);
    return at == items.end() ? 0 : static_cast<int>(at - items.begin()) + 1;
}

double severityFor(const Build &build, const FaultKind &kind, const Check &check, double usual)
{
    if (check.kind->id == "feed")
        if (const Stop *s = build.engine.find(check.place.stop))
            for (const FeedHole &f : judgeFeedHoles(build))
                if (f.stop == s->id && s->has("hole_offset_mm"))
                    return std::clamp(1 - f.openShare, 0.0, 1.0);
    // A bearing is as wide as it was read.
    if (check.kind->id == "clr" && check.margin && *check.margin < 0 && kind.most > 0)
        return std::clamp(-*check.margin / kind.most, 0.05, 1.0);
    return usual > 0 ? usual : kind.usual;
}

/// Less than twice what the gauge itself is good for cannot be seen.
bool silent(const CheckCost &cost)
{
    return std::abs(cost.gauge_pa) < 2 * GaugeReading::usualGaugeU_kpa * 1e3;
}

/// What a fault does at one operating point.
CheckCost between(const OperatingResult &before, const OperatingResult &after)
{
    CheckCost out;
    out.gauge_pa = after.gauge.value_pa - before.gauge.value_pa;
    out.ratio = 1e9;
    for (size_t i = 0; i < after.points.size() && i < before.points.size(); ++i) {
        const PointPressure &was = before.points[i], &is = after.points[i];
        if (!(is.need_pa > 0) || is.ratio() >= out.ratio)
            continue;
        const bool falls = is.ratio() < 1 && was.ratio() >= 1;
        const bool loses = is.ratio() < 0.9 * was.ratio();
        if (!falls && !loses)
            continue;
        out.harm = std::max(out.harm, falls ? (silent(out) ? 3 : 2) : 1);
        out.stop = is.stop;
        out.ratio = is.ratio();
    }
    return out;
}

Phrase told(const Build &build, const CheckCost &cost, const OperatingResult &after)
{
    const Stop *stop = build.engine.find(cost.stop);
    if (!stop)
        return "no stop is starved by it";
    return { "cost.starves",
             silent(cost)
                 ? "{0} gets {1} × what it needs at {2}, oil {3}; the pressure gauge moves {4} and "
                   "shows nothing"
                 : "{0} gets {1} × what it needs at {2}, oil {3}; the pressure gauge moves {4}",
             { stop->name, Quantity { cost.ratio, Shows::Number }, turnedText(build, after),
               asTemperature(after.oil_c), asChange(asPressure(cost.gauge_pa)) } };
}

} // namespace

std::optional<Fault> faultBehind(const Build &build, const Check &check)
{
    const KindFault *of = faultOfKind(check.kind->id);
    const FaultKind *kind = of ? findFaultKind(of->fault) : nullptr;
    const Stop *stop = kind ? stopFor(build, *kind, check) : nullptr;
    if (!stop)
        return std::nullopt;
    Fault out;
    out.kind = kind->id;
    out.stop = stop->id;
    out.item = itemFor(build, *kind, *stop, check);
    out.severity = graded(*kind) ? severityFor(build, *kind, check, of->severity) : 1;
    return out;
}

FaultCosts::FaultCosts(const Build &build, const std::vector<GaugedSize> &sizes)
    : m_build(build)
    , m_sizes(sizes)
    , m_at { { { "hot_idle", build.use.hotIdle_rpm, build.use.hotOil_c },
               { "most", build.use.most_rpm, build.use.hotOil_c },
               { "cold_2000", fast_rpm, build.use.coldestStart_c },
               { "prime", primeTurn(build).turned(), primeOil_c(build) } } }
{
}

/// One after the other, those of one temperature by one model. Absent where there is no solution.
FaultCosts::Results FaultCosts::solved(const Build &build, const CircuitChange &change) const
{
    Results out;
    std::optional<OperatingModel> model;
    double oil_c = 0;
    for (size_t i = 0; i < m_at.size(); ++i) {
        if (!(m_at[i].turned.rpm > 0))
            continue; // nothing turns
        if (!model || oil_c != m_at[i].oil_c) {
            auto made = OperatingModel::make(build, m_sizes, m_at[i].oil_c, change);
            if (!made)
                continue;
            model = std::move(*made);
            oil_c = m_at[i].oil_c;
        }
        if (auto r = model->at(m_at[i].turned, OperatingModel::Detail::Values))
            out[i] = std::move(*r);
    }
    return out;
}

CheckCost FaultCosts::of(const Fault &fault)
{
    // A hole that was measured is in the circuit already: what it costs shows against a free one.
    Build free;
    const bool measured = fault.kind == "feed_hole_covered" && m_build.engine.find(fault.stop)
        && m_build.engine.find(fault.stop)->has("hole_offset_mm");
    Results freed;
    if (measured) {
        free = m_build;
        for (Stop &s : free.engine.stops)
            if (s.id == fault.stop)
                s.values.erase("hole_offset_mm");
        freed = solved(free, {});
    } else if (!m_before) {
        m_before = solved(m_build, {});
    }
    const Build &on = measured ? free : m_build;
    const Results &before = measured ? freed : *m_before;
    const Results after = solved(on, faultChange(on, { fault }));
    CheckCost out;
    out.text = "solved: nothing runs short by it";
    for (size_t i = 0; i < m_at.size(); ++i) {
        if (!before[i] || !after[i])
            continue;
        CheckCost here = between(*before[i], *after[i]);
        here.state = m_at[i].state;
        if (here.harm > out.harm
            || (here.harm == out.harm && here.harm > 0 && here.ratio < out.ratio)) {
            here.text = told(on, here, *after[i]);
            out = here;
        }
    }
    return out;
}

std::map<std::string, CheckCost> costsOf(const Build &build, const Figures &figures,
                                         const CheckList &list, Progress *progress)
{
    std::map<std::string, CheckCost> out, byFault;
    if (figures.operating.unsolved)
        return out;
    FaultCosts costs(build, figures.sizes);
    for (const Check &c : list.all()) {
        const auto fault = c.asked ? faultBehind(build, c) : std::nullopt;
        if (!fault)
            continue;
        if (progress && progress->cancel)
            break;
        const std::string id = faultId(*fault) + "=" + std::to_string(fault->severity);
        auto at = byFault.find(id);
        if (at == byFault.end())
            at = byFault.emplace(id, costs.of(*fault)).first;
        out.emplace(c.id(), at->second);
    }
    return out;
}

} // namespace mildpath
