// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/engineedit.h"

#include "circuit/elementtypes.h"
#include "document/dimensions.h"
#include "document/enginevalue.h"
#include "document/recipes.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

size_t indexOf(const Build &build, const std::string &id)
{
    const auto &stops = build.engine.stops;
    return static_cast<size_t>(
        std::find_if(stops.begin(), stops.end(), [&](const Stop &s) { return s.id == id; })
        - stops.begin());
}

Result<size_t> known(const Build &build, const std::string &id)
{
    const size_t i = indexOf(build, id);
    if (i == build.engine.stops.size())
        return fail(id, "there is no such stop");
    return i;
}

bool owns(const Stop &stop, const std::string &element)
{
    return std::find(stop.elements.begin(), stop.elements.end(), element) != stop.elements.end();
}

/// What was recorded at a stop and would be lost with it.
std::string recordsOf(const Build &build, const std::string &stop)
{
    const auto count = [&](const auto &records) {
        return std::count_if(records.begin(), records.end(),
                             [&](const auto &r) { return r.stop == stop; });
    };
    if (const auto n = count(build.readings))
        return std::to_string(n) + " readings";
    if (const auto n = count(build.proofs))
        return std::to_string(n) + " proofs";
    if (const auto n = count(build.heatPoints))
        return std::to_string(n) + " points of the heated-block log";
    if (const auto n = count(build.finds) + count(build.signs) + count(build.failures))
        return std::to_string(n) + " findings of the tear-down";
    if (const auto n = count(build.flows))
        return std::to_string(n) + " entries of oil seen to flow";
    for (const Scenario &s : build.scenarios)
        if (count(s.faults))
            return "a what-if kept with the build";
    for (const TorqueTick &t : build.ticks)
        for (const TorqueCard &c : build.torqueCards)
            if (c.id == t.card && t.fastener >= 1
                && t.fastener <= static_cast<int>(c.fasteners.size())
                && c.fasteners[static_cast<size_t>(t.fastener - 1)].stop == stop)
                return "ticked bolts";
    return {};
}

void takeFastenersOf(Build &build, const std::string &stop)
{
    for (TorqueCard &c : build.torqueCards)
        std::erase_if(c.fasteners, [&](const Fastener &f) { return f.stop == stop; });
    std::erase_if(build.torqueCards, [](const TorqueCard &c) { return c.fasteners.empty(); });
    for (auto &[family, stock] : build.shells)
        stock.fitted.erase(stop);
}

/// Its drillings stay in the metal, and belong to no stop any more.
void leavePassages(Build &build, const std::string &stop)
{
    const auto leave = [&](std::string &of) {
        if (of == stop)
            of.clear();
    };
    for (Passage &p : build.passages) {
        leave(p.stop);
        for (PassageEnd &e : p.ends)
            leave(e.stop);
    }
    for (Plug &p : build.plugs)
        leave(p.stop);
}

std::string freeId(const Build &build, std::string_view kind)
{
    const auto taken = [&](const std::string &id) {
        if (build.engine.find(id))
            return true;
        return std::any_of(build.circuit.elements.begin(), build.circuit.elements.end(),
                           [&](const Element &e) { return e.id.starts_with(id + "_"); });
    };
    std::string id(kind);
    for (int n = 2; taken(id); ++n)
        id = std::string(kind) + "_" + std::to_string(n);
    return id;
}

std::string freeName(const Build &build, const std::string &wanted)
{
    const auto taken = [&](const std::string &name) {
        return std::any_of(build.engine.stops.begin(), build.engine.stops.end(),
                           [&](const Stop &s) { return s.name == name; });
    };
    std::string name = wanted;
    for (int n = 2; taken(name); ++n)
        name = wanted + " " + std::to_string(n);
    return name;
}

void put(Build &build, size_t at, MadeStop made)
{
    build.engine.stops.insert(build.engine.stops.begin() + static_cast<long>(at),
                              std::move(made.stop));
    for (Element &e : made.elements)
        build.circuit.elements.push_back(std::move(e));
}

void takeElements(Build &build, const Stop &stop)
{
    std::erase_if(build.circuit.elements, [&](const Element &e) { return owns(stop, e.id); });
}

std::set<std::string> nodesOf(const Circuit &circuit)
{
    std::set<std::string> out { std::string(sumpNode) };
    for (const Element &e : circuit.elements) {
        out.insert(e.from);
        out.insert(e.to);
    }
    return out;
}

/// Where a stop takes its oil: the node its first element comes from.
std::string inletOf(const Build &build, const Stop &stop)
{
    std::set<std::string> made;
    for (const std::string &id : stop.elements)
        if (const Element *e = build.circuit.find(id))
            made.insert(e->to);
    for (const std::string &id : stop.elements)
        if (const Element *e = build.circuit.find(id); e && !made.contains(e->from))
            return e->from;
    return {};
}

/// Taps whose node has gone; the gauge's own may not go.
Result<void> dropTaps(Build &build, const std::string &stop)
{
    const auto nodes = nodesOf(build.circuit);
    for (auto it = build.circuit.taps.begin(); it != build.circuit.taps.end();) {
        if (nodes.contains(it->second)) {
            ++it;
            continue;
        }
        if (it->first == build.gaugeTap)
            return fail(stop, "the gauge sits here: put it elsewhere first");
        it = build.circuit.taps.erase(it);
    }
    return {};
}

/// Closes the way over an inline stop: what it fed is fed by what fed it.
void bridge(Build &build, const std::string &from, const std::string &to)
{
    const auto moved = [&](std::string &node) {
        if (node == to)
            node = from;
    };
    for (Element &e : build.circuit.elements) {
        moved(e.from);
        moved(e.to);
    }
    for (Stop &s : build.engine.stops)
        for (StopPoint &p : s.points)
            moved(p.node);
    for (auto &[tap, node] : build.circuit.taps)
        moved(node);
}

} // namespace

std::string outletOf(const Build &build, const Stop &stop)
{
    if (formOf(stop.kind) == StopForm::Bare || stop.points.empty())
        return {};
    if (stop.kind == StopKind::Tensioner)
        return {};
    // The pump's own passage ends where the next stop begins.
    if (stop.kind == StopKind::Pump)
        for (const std::string &id : stop.elements)
            if (const Element *e = build.circuit.find(id);
                e && e->kind == ElementKind::Pipe && e->from == stop.points.front().node)
                return e->to;
    return stop.points.back().node;
}

const Stop *feederOf(const Build &build, const Stop &stop)
{
    const std::string inlet = inletOf(build, stop);
    for (const Stop &s : build.engine.stops) {
        if (s.id == stop.id)
            continue;
        for (const std::string &id : s.elements)
            if (const Element *e = build.circuit.find(id);
                e && e->to == inlet && inlet != sumpNode && e->kind != ElementKind::Relief)
                return &s;
    }
    return nullptr;
}

std::vector<StopKind> kindsInstead(const Stop &stop)
{
    const StopForm form = formOf(stop.kind);
    std::vector<StopKind> out { stop.kind };
    if (form != StopForm::Branch && form != StopForm::Inline)
        return out;
    // Rows of many alike and the crank's own bearings keep their kind.
    if (stop.points.size() > 2 || stop.elements.size() > 6)
        return out;
    for (const StopKind k : everyKind<StopKind>())
        if (k != stop.kind && formOf(k) == form)
            out.push_back(k);
    return out;
}

Result<Build> addStop(Build build, const AddStop &edit)
{
    const auto at = known(build, edit.behind);
    if (!at)
        return tl::unexpected(at.error());
    const Stop behind = build.engine.stops[*at];
    const std::string id = freeId(build, std::string(wordOf(edit.kind)));
    const std::string name = freeName(build, edit.name.empty() ? usualName(edit.kind) : edit.name);
    const RecipeScale scale = scaleOf(build);
    const std::string node = outletOf(build, behind);
    switch (formOf(edit.kind)) {
    case StopForm::Fixed:
        return fail(edit.behind,
                    "a " + usualName(edit.kind)
                        + " belongs to the engine's frame: describe the engine anew");
    case StopForm::Bare: {
        MadeStop made;
        made.stop.id = id;
        made.stop.name = name;
        made.stop.kind = edit.kind;
        if (edit.kind == StopKind::Plug) {
            if (node.empty())
                return fail(edit.behind, "has no passage a plug could close");
            made.stop.points.push_back({ name, node });
            made.stop.values["plug_bore_mm"] = 8;
        }
        put(build, *at + 1, std::move(made));
        return build;
    }
    case StopForm::Branch:
        if (node.empty())
            return fail(edit.behind, "has no oil to give on");
        if (edit.kind == StopKind::Jet && behind.kind == StopKind::BigEnd) {
            // A hole in that one rod: nothing opens it, and there is one.
            MadeStop made;
            made.stop.id = id;
            made.stop.name = edit.name.empty() ? freeName(build, "Squirt hole") : name;
            made.stop.kind = edit.kind;
            made.elements.push_back(squirtHole(id + "_hole", node, scale.bore));
            made.stop.elements.push_back(made.elements.front().id);
            put(build, *at + 1, std::move(made));
            return build;
        }
        put(build, *at + 1, makeBranch(edit.kind, id, name, node, scale, build.engine.cylinders));
        return build;
    case StopForm::Inline:
        break;
    }
    if (aboutStopKind(behind.kind).level > 0 || node.empty() || behind.kind == StopKind::Pickup
        || behind.kind == StopKind::Tank || behind.kind == StopKind::Gallery)
        return fail(edit.behind,
                    "nothing passes through here on its way: put it behind the pump, "
                    "the filter or a line");
    // What started here starts behind the new stop.
    const std::string behindNode = id + "_out";
    for (Element &e : build.circuit.elements)
        if (e.from == node && e.kind != ElementKind::Relief && !owns(behind, e.id))
            e.from = behindNode;
    for (Stop &s : build.engine.stops)
        if (s.id != behind.id)
            for (StopPoint &p : s.points)
                if (p.node == node)
                    p.node = behindNode;
    put(build, *at + 1, makeInline(edit.kind, id, name, node, behindNode, scale));
    return build;
}

Result<Build> removeStop(Build build, const RemoveStop &edit)
{
    const auto at = known(build, edit.stop);
    if (!at)
        return tl::unexpected(at.error());
    const Stop stop = build.engine.stops[*at];
    const StopForm form = formOf(stop.kind);
    if (form == StopForm::Fixed)
        return fail(stop.id, stop.name + " belongs to the engine's frame");
    if (const std::string records = recordsOf(build, stop.id); !records.empty())
        return fail(stop.id, stop.name + " has " + records + "; they would be lost with it");
    const std::string inlet = inletOf(build, stop), outlet = outletOf(build, stop);
    for (const Stop &s : build.engine.stops)
        if (form == StopForm::Branch && s.id != stop.id && !s.elements.empty())
            if (const Stop *feeder = feederOf(build, s); feeder && feeder->id == stop.id)
                return fail(stop.id, s.name + " is fed through it: feed that from elsewhere first");
    takeElements(build, stop);
    build.engine.stops.erase(build.engine.stops.begin() + static_cast<long>(*at));
    takeFastenersOf(build, stop.id);
    leavePassages(build, stop.id);
    if (form == StopForm::Inline)
        bridge(build, inlet, outlet);
    if (form == StopForm::Branch) {
        // Plugs and taps on what has gone.
        const auto nodes = nodesOf(build.circuit);
        for (const Stop &s : build.engine.stops)
            for (const StopPoint &p : s.points)
                if (!nodes.contains(p.node))
                    return fail(stop.id, s.name + " stands on it: remove that first");
    }
    if (auto ok = dropTaps(build, stop.id); !ok)
        return tl::unexpected(ok.error());
    return build;
}

Result<Build> moveStop(Build build, const MoveStop &edit)
{
    const auto at = known(build, edit.stop);
    if (!at)
        return tl::unexpected(at.error());
    auto &stops = build.engine.stops;
    const long to = static_cast<long>(*at) + edit.by;
    if (to < 0 || to >= static_cast<long>(stops.size()))
        return fail(edit.stop, edit.by < 0 ? "is the first already" : "is the last already");
    const Stop stop = stops[*at];
    stops.erase(stops.begin() + static_cast<long>(*at));
    stops.insert(stops.begin() + to, stop);
    return build;
}

Result<Build> turnStop(Build build, const TurnStop &edit)
{
    const auto at = known(build, edit.stop);
    if (!at)
        return tl::unexpected(at.error());
    const Stop stop = build.engine.stops[*at];
    const auto allowed = kindsInstead(stop);
    if (std::find(allowed.begin(), allowed.end(), edit.kind) == allowed.end())
        return fail(stop.id,
                    stop.name + " cannot become a " + usualName(edit.kind) + " where it is");
    if (stop.kind == edit.kind)
        return build;
    const bool ownName = !stop.name.starts_with(usualName(stop.kind));
    const Stop *feeder = feederOf(build, stop);
    const std::string from = feeder ? feeder->id : std::string();
    if (from.empty())
        return fail(stop.id, stop.name + " is fed by nothing");
    auto without = removeStop(std::move(build), { stop.id });
    if (!without)
        return without;
    auto with = addStop(std::move(*without), { edit.kind, ownName ? stop.name : "", from });
    if (!with)
        return with;
    // Back to its place in oil order.
    const size_t made = indexOf(*with, from) + 1;
    return moveStop(
        *with, { with->engine.stops[made].id, static_cast<int>(*at) - static_cast<int>(made) });
}

Result<Build> feedStop(Build build, const FeedStop &edit)
{
    const auto at = known(build, edit.stop), from = known(build, edit.from);
    if (!at || !from)
        return tl::unexpected(at ? from.error() : at.error());
    const Stop stop = build.engine.stops[*at];
    if (formOf(stop.kind) != StopForm::Branch)
        return fail(stop.id, stop.name + " is no branch that could be fed from elsewhere");
    const std::string node = outletOf(build, build.engine.stops[*from]);
    if (node.empty() || edit.from == edit.stop)
        return fail(edit.from, build.engine.stops[*from].name + " has no oil to give on");
    // Not from something that it feeds itself.
    for (const Stop *up = &build.engine.stops[*from]; up; up = feederOf(build, *up))
        if (up->id == stop.id)
            return fail(edit.from,
                        build.engine.stops[*from].name + " is fed through " + stop.name
                            + " itself");
    const std::string inlet = inletOf(build, stop);
    for (Element &e : build.circuit.elements)
        if (e.from == inlet && owns(stop, e.id))
            e.from = node;
    for (StopPoint &p : build.engine.stops[*at].points)
        if (p.node == inlet)
            p.node = node;
    return build;
}

Result<Build> nameStop(Build build, const NameStop &edit)
{
    const auto at = known(build, edit.stop);
    if (!at)
        return tl::unexpected(at.error());
    if (edit.name.find_first_not_of(" \t") == std::string::npos)
        return fail(edit.stop, "a stop needs a name");
    Stop &stop = build.engine.stops[*at];
    for (StopPoint &p : stop.points)
        if (p.name == stop.name)
            p.name = edit.name;
    stop.name = edit.name;
    return build;
}

Result<Build> setAlike(Build build, const SetAlike &edit)
{
    const auto at = known(build, edit.stop);
    if (!at)
        return tl::unexpected(at.error());
    const Stop &stop = build.engine.stops[*at];
    bool any = false;
    for (Element &e : build.circuit.elements) {
        if (e.kind != edit.elements || !owns(stop, e.id))
            continue;
        if (!findElementKey(e.kind, edit.key))
            return fail(edit.key,
                        "is not a dimension of a " + std::string(elementType(e.kind).meaning));
        const std::string here = "circuit/" + e.id + "/" + edit.key;
        const double before = e.value(edit.key);
        e.values[edit.key] = edit.value;
        noteOrigin(build, here, before, Origin::Shop);
        settleTwoValues(build, e.id, edit.key);
        if (const auto ok = checkElementOf(build, e); !ok)
            return tl::unexpected(ok.error());
        any = true;
    }
    if (!any)
        return fail(edit.stop,
                    stop.name + " has no " + std::string(elementType(edit.elements).meaning));
    return build;
}

Result<Build> moveGauge(Build build, const MoveGauge &edit)
{
    const auto at = known(build, edit.stop);
    if (!at)
        return tl::unexpected(at.error());
    const Stop &stop = build.engine.stops[*at];
    if (edit.point < 0 || edit.point >= static_cast<int>(stop.points.size()))
        return fail(edit.stop, stop.name + " has no place for a gauge");
    const std::string &node = stop.points[static_cast<size_t>(edit.point)].node;
    for (const auto &[tap, tapped] : build.circuit.taps)
        if (tapped == node) {
            build.gaugeTap = tap;
            return build;
        }
    const std::string tap = stop.id + "_" + std::to_string(edit.point + 1);
    build.circuit.taps[tap] = node;
    build.gaugeTap = tap;
    return build;
}

} // namespace mildpath
