// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/prime.h"

#include "assess/assessment.h"
#include "quantity/dates.h"

#include <algorithm>
#include <array>

namespace mildpath {
namespace {

/// What a build has shown of a cause: proven, and what shows it.
struct Shown
{
    bool proven;
    Phrase why;
};

struct Known
{
    const Build &build;
    const Assessment &assessment;

    bool stepDone(std::string_view step) const
    {
        bool done = false;
        for (const CardStep *s : standing(build.cardSteps))
            if (s->step == step)
                done = s->outcome == "done";
        return done;
    }
    bool ticked(StopKind stopKind, std::string_view check) const
    {
        const Stop *s = build.engine.ofKind(stopKind);
        const Proof *p = s ? standingCheck(build, s->id, check) : nullptr;
        return p && p->verdict == "proven";
    }
    Mark size(const Stop &s) const
    {
        const StopMarks *m = assessment.marksOf(s.id);
        return m ? m->size : Mark::NotDone;
    }
    Mark flow(const Stop &s) const
    {
        const StopMarks *m = assessment.marksOf(s.id);
        return m ? m->flow : Mark::NotDone;
    }
    std::string idOf(StopKind kind) const
    {
        const Stop *s = build.engine.ofKind(kind);
        return s ? s->id : std::string();
    }
    /// Names of the stops of some kinds whose mark is not yet proven.
    template <class Which>
    std::string unproven(std::initializer_list<StopKind> kinds, Which which) const
    {
        std::string out;
        int more = 0;
        for (const Stop &s : build.engine.stops)
            if (std::find(kinds.begin(), kinds.end(), s.kind) != kinds.end()
                && which(s) != Mark::Proven) {
                if (out.empty())
                    out = s.name;
                else
                    ++more;
            }
        return more > 0 ? out + " and " + std::to_string(more) + " more" : out;
    }
};

Shown gauge(const Known &k)
{
    for (const RunLog *r : standing(k.build.runs))
        if (r->firstPressure_s)
            return { true, "it showed pressure in a run of " + dayText(r->at.substr(0, 10)) };
    return { false, "never seen to show pressure on this engine" };
}
Shown oilIn(const Known &k)
{
    return k.stepDone("oil_in") ? Shown { true, "level seen, on the run card" }
                                : Shown { false, "not ticked on the run card" };
}
Shown drive(const Known &k)
{
    return k.stepDone("drive") ? Shown { true, "direction and drive seen, on the run card" }
                               : Shown { false, "not ticked on the run card" };
}
Shown wetted(const Known &k)
{
    const std::string how = choiceOf(k.build, question::packing);
    if (how == "packed" || how == "poured")
        return { true, how == "packed" ? "packed" : "oil poured into it" };
    return { false, "put together dry, or nothing said" };
}
Shown pickup(const Known &k)
{
    if (!k.ticked(StopKind::Pickup, "pan_rests"))
        return { false, "pan and pickup not ticked" };
    const Stop *s = k.build.engine.ofKind(StopKind::Pickup);
    return s && k.size(*s) == Mark::Proven ? Shown { true, "gap measured, pan sits free" }
                                           : Shown { false, "its sizes are not all proven" };
}
Shown joint(const Known &k)
{
    for (const FitVerdict &f : k.assessment.fits)
        if (f.id == "oring" && f.mark != Mark::Proven)
            return { false, f.title };
    return k.ticked(StopKind::Pickup, "pickup_locked")
        ? Shown { true, "new ring, bolts locked" }
        : Shown { false, "ring and bolts not ticked" };
}
Shown gasket(const Known &k)
{
    return k.ticked(StopKind::Pump, "pump_gasket") ? Shown { true, "laid on the pump's own base" }
                                                   : Shown { false, "not ticked" };
}
Shown relief(const Known &k)
{
    const bool both
        = k.ticked(StopKind::Relief, "relief_free") && k.ticked(StopKind::Relief, "relief_seat");
    return both ? Shown { true, "piston free, seat clean" } : Shown { false, "not ticked" };
}
Shown plugs(const Known &k)
{
    for (const LineFault &f : k.assessment.lines.faults)
        if (f.mark == Mark::Hold)
            return { false, f.text };
    const std::string open = k.unproven({ StopKind::Plug, StopKind::Gallery },
                                        [&](const Stop &s) { return k.flow(s); });
    return open.empty() ? Shown { true, "plugs and galleries proven" }
                        : Shown { false, open + " not proven" };
}
Shown clearances(const Known &k)
{
    const std::string open = k.unproven({ StopKind::Main, StopKind::BigEnd, StopKind::Jet },
                                        [&](const Stop &s) { return k.size(s); });
    return open.empty() ? Shown { true, "all measured, within limits" }
                        : Shown { false, open + " not proven" };
}

struct CauseRow
{
    std::string_view id, name, text, effort;
    std::optional<StopKind> stopKind; ///< where it is looked at
    Shown (*shown)(const Known &);
};
// Order: common practice, no source. Efforts: own choice.
constexpr std::array<CauseRow, 10> causeRows { {
    { "gauge",
      "Gauge, sender, port, wiring",
      "Gauge, sender, its port and wiring: put a mechanical gauge on",
      "a minute",
      {},
      gauge },
    { "oil", "Oil in, drain plug, filter on",
      "Oil really in the sump, drain plug in, filter fitted", "seconds", StopKind::Pickup, oilIn },
    { "drive", "Drive, key, way it turns", "Shaft engaged, key in, drill turning the right way",
      "a minute", StopKind::Pump, drive },
    { "dry_pump", "Pump dry: pack it, pour oil in",
      "Pump dry: pre-fill, pack, or fill through the gallery", "minutes", StopKind::Pump, wetted },
    { "pickup", "Pickup: plug out, gap, level", "Pickup: transport plug, gap, level over its mouth",
      "pan off", StopKind::Pickup, pickup },
    { "joint", "Pickup joint: ring, crack, bracket",
      "Pickup joint: ring, gasket, crack, loose bracket", "pan off", StopKind::Pickup, joint },
    { "cover", "Pump gasket leaves a port open",
      "Pump cover or gasket leaves a port open: it sucks only air", "pump off", StopKind::Pump,
      gasket },
    { "relief", "Relief: stuck, chip, no piston",
      "Relief stuck, a chip beside it, or without its piston", "plug out", StopKind::Relief,
      relief },
    { "plug", "Gallery plug, lines, filter",
      "Gallery plug missing, cooler lines swapped, filter or bypass", "look along it",
      StopKind::Gallery, plugs },
    { "clearance", "Bearing or jet missing, or wide", "Bearing or jet missing, a clearance far out",
      "pan off", StopKind::Main, clearances },
} };

} // namespace

std::vector<PrimeCause> primeCauses(const Build &build, const Assessment &assessment)
{
    const Known known { build, assessment };
    std::vector<PrimeCause> out;
    for (const CauseRow &r : causeRows) {
        Shown s = r.shown(known);
        out.push_back({ r.id, r.name, r.text, r.effort, r.stopKind ? known.idOf(*r.stopKind) : "",
                        s.proven, std::move(s.why) });
    }
    std::stable_partition(out.begin(), out.end(), [](const PrimeCause &c) { return !c.proven; });
    return out;
}

} // namespace mildpath
