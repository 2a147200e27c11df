// SPDX-License-Identifier: GPL-3.0-or-later
#include "assess/soilings.h"

#include "assess/spread.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

bool anyIs(const std::vector<std::string> &places, std::string_view id)
{
    return !id.empty() && std::find(places.begin(), places.end(), id) != places.end();
}

/// Chips get in where a hole opens at the place, or where the passage itself was worked on.
std::vector<int> whereChipsGetIn(const Build &build, const PassageNetwork &network,
                                 const std::vector<std::string> &places)
{
    std::vector<int> out;
    for (const OpenEnd &o : network.openEnds()) {
        const Passage &p = network.passages()[static_cast<size_t>(o.passage)];
        const PassageEnd &end = p.ends[static_cast<size_t>(o.end)];
        if (!o.plugged && (anyIs(places, end.stop) || anyIs(places, p.part)))
            out.push_back(o.node);
    }
    for (const Stretch &s : network.stretches())
        if (anyIs(places, network.passages()[static_cast<size_t>(s.passage)].id)) {
            out.push_back(s.a);
            out.push_back(s.b);
        }
    // A plug that is drilled drops its chips into what it closes.
    for (size_t i = 0; i < build.plugs.size(); ++i)
        for (const Gate &g : network.gates())
            if (g.plug == static_cast<int>(i) && anyIs(places, build.plugs[i].id)) {
                out.push_back(g.a);
                out.push_back(g.b);
            }
    return out;
}

/// "feed@main_2" names one check at a place: chips fall at the place.
std::vector<std::string> bare(std::vector<std::string> places)
{
    for (std::string &p : places)
        p = p.substr(p.find('@') + 1);
    return places;
}

} // namespace

std::vector<bool> passagesAt(const Build &build, const std::vector<std::string> &places)
{
    std::vector<bool> out(build.passages.size());
    for (size_t i = 0; i < out.size(); ++i) {
        const Passage &p = build.passages[i];
        out[i] = anyIs(places, p.id) || anyIs(places, p.stop) || anyIs(places, p.part);
    }
    return out;
}

std::vector<Soiling> soilingsOf(const Build &build, const PassageNetwork &network,
                                const std::vector<Spread> &spreads)
{
    std::vector<Soiling> out;
    for (const Act *a : standing(build.acts)) {
        const ActKind *kind = findActKind(a->act);
        if (!kind || a->stopped || (!kind->chips && kind->letter != 'F'))
            continue;
        const auto places = bare(a->places);
        Soiling s { a->at, std::string(kind->name), {} };
        if (kind->chips)
            s.reaches = [&network, from = whereChipsGetIn(build, network, places)](
                            const auto &plugIn) { return network.reached(from, plugIn); };
        else
            s.reaches = [on = passagesAt(build, places)](const auto &) { return on; };
        out.push_back(std::move(s));
    }
    for (const Spread &spread : spreads) {
        std::vector<std::string> ids;
        for (const SpreadItem &i : spread.items)
            ids.push_back(i.id);
        const Stop *stop = build.engine.find(spread.stop);
        for (const BearingFailure *f : standing(build.failures))
            if (f->id == spread.failure)
                out.push_back({ f->at, (stop ? stop->name : spread.stop) + " failed",
                                [on = passagesAt(build, ids)](const auto &) { return on; } });
    }
    for (const DebrisFind *f : standing(build.finds))
        if (!f->stop.empty())
            out.push_back({ f->at, "found in it: " + f->colour + " " + f->size,
                            [on = passagesAt(build, { f->stop })](const auto &) { return on; } });
    return out;
}

} // namespace mildpath
