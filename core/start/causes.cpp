// SPDX-License-Identifier: GPL-3.0-or-later
#include "start/prime.h"

#include "assess/figuremarks.h"
#include "checks/assessment.h"
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

    std::string idOf(StopKind kind) const
    {
        const Stop *s = build.engine.ofKind(kind);
        return s ? s->id : std::string();
    }
};

/// A cause is ruled out when every check of some kinds is proven; the first that is not says why.
Shown proven(const Known &k, std::initializer_list<std::string_view> kinds)
{
    const Check *shown = nullptr;
    for (const Check &c : k.assessment.checks.all()) {
        if (!c.asked || std::find(kinds.begin(), kinds.end(), c.kind->id) == kinds.end())
            continue;
        if (c.state != CheckState::Proven)
            return { false, joinedBy({ c.statement(), c.reason }, "{*|: }") };
        shown = &c;
    }
    return shown ? Shown { true, shown->reason } : Shown { false, "not asked by this job" };
}

Shown gauge(const Known &k)
{
    for (const RunLog *r : standing(k.build.runs))
        if (r->firstPressure_s)
            return { true, "it showed pressure in a run of " + dayText(r->at.substr(0, 10)) };
    return { false, "never seen to show pressure on this engine" };
}
Shown oilIn(const Known &k)
{
    return proven(k, { "oilin" });
}
Shown drive(const Known &k)
{
    return proven(k, { "pdrive", "off" });
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
    return proven(k, { "kgap", "panfit" });
}
Shown joint(const Known &k)
{
    return proven(k, { "kring", "klock" });
}
Shown gasket(const Known &k)
{
    return proven(k, { "pgask" });
}
Shown relief(const Known &k)
{
    return proven(k, { "rfree", "rseat" });
}
Shown plugs(const Known &k)
{
    return proven(k, { "plugin", "plugseen", "lway", "filt" });
}
Shown clearances(const Known &k)
{
    return proven(k, { "clr", "jets" });
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

Mark PrimeCause::mark() const
{
    return doneMark(proven);
}

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
