// SPDX-License-Identifier: GPL-3.0-or-later
#include "checks/places.h"

#include "assess/spread.h"
#include "circuit/need.h"
#include "document/logbook.h"
#include "passage/cleaningplan.h"

#include <algorithm>
#include <array>
#include <set>

namespace mildpath {
namespace {

using Places = std::vector<CheckPlace>;

/// Whether any stop is of one of these kinds.
bool has(const Build &build, std::initializer_list<StopKind> kinds)
{
    return std::any_of(kinds.begin(), kinds.end(),
                       [&](StopKind k) { return build.engine.ofKind(k) != nullptr; });
}

/// A part that carries checks of its own.
struct Part
{
    std::string_view id, name;
    std::string_view kinds; ///< of check, by blanks
    bool (*on)(const Build &); ///< whether this engine has it
};
bool always(const Build &)
{
    return true;
}
bool hasCams(const Build &b)
{
    return has(b, { StopKind::CamBearing, StopKind::Lifter });
}
bool hasLifters(const Build &b)
{
    return has(b, { StopKind::Lifter });
}
bool hasCooler(const Build &b)
{
    return has(b, { StopKind::Cooler });
}
bool hasPlainMains(const Build &b)
{
    return has(b, { StopKind::Main });
}
constexpr std::array<Part, 10> parts { {
    { "block", "Block", "final", always },
    { "crank", "Crank", "crack newpart final rearseal", hasPlainMains },
    { "rods", "Rods", "crack", always },
    { "cam", "Camshaft", "newpart", hasCams },
    { "lifters", "Lifters", "newpart", hasLifters },
    { "pump", "Oil pump", "newpart wash", always },
    { "cooler", "Oil cooler", "newpart", hasCooler },
    { "pan", "Oil pan", "wash", always },
    { "covers", "Covers", "wash", always },
    { "pistons", "Pistons", "wash", always },
} };

class Finder
{
public:
    Finder(const Build &build, const CheckKind &kind)
        : m_build(build)
        , m_kind(kind)
    {
    }

    Places run()
    {
        for (const std::string_view word : m_kind.placeWords())
            add(word);
        return std::move(m_out);
    }

private:
    CheckPlace &put(std::string id, std::string name, std::string stop = {},
                    std::vector<std::string> ids = {})
    {
        ids.insert(ids.begin(), id);
        return m_out.emplace_back(
            CheckPlace { std::move(id), std::move(name), std::move(stop), std::move(ids) });
    }

    void add(std::string_view word)
    {
        if (word == "E")
            engine();
        else if (word == "P")
            passages();
        else if (word == "G")
            plugs();
        else if (word == "L")
            lines();
        else if (word == "T")
            fasteners();
        else if (word == "X")
            partsOf();
        else if (word == "C")
            for (int i = 1; i <= m_build.engine.cylinders; ++i)
                put("cylinder_" + std::to_string(i), "Cylinder " + std::to_string(i));
        else if (word == "J")
            for (const ShopJob *j : standing(m_build.shopJobs)) {
                const MachiningJob *k = findMachiningJob(j->job);
                put(firstEntry(m_build.shopJobs, *j).id, shopJobName(*j), {},
                    k ? std::vector<std::string> { std::string(k->part) }
                      : std::vector<std::string> {});
            }
        else if (word == "B")
            ordered();
        else if (word == "own")
            return; // each is a kind by itself (checks/ownkinds.h)
        else if (word == "sign" || word == "find" || word == "failure")
            noted(word);
        else
            stops(word);
    }

    /// Things to buy that somebody wrote down; jobs for the shop have checks of their own.
    void ordered()
    {
        for (const Order *o : ordersOf(m_build.orders)) {
            if (isShopJob(m_build, o->row))
                continue;
            std::string stop;
            for (const std::string &place : o->places)
                if (stop.empty() && m_build.engine.find(place))
                    stop = place;
            put(o->row, o->what.empty() ? o->row : o->what, std::move(stop), o->places);
        }
    }

    void engine()
    {
        auto &ids = put(std::string(wholeEngine), "Engine").ids;
        // What closes or holds the oil belongs to these as well.
        if (m_kind.id == "oilin" || m_kind.id == "press")
            ids.insert(ids.end(), { "pan", "oil" });
        if (m_kind.id == "dry" || m_kind.id == "leaks" || m_kind.id == "oilok")
            ids.emplace_back("oil");
        if (m_kind.id == "blank")
            ids.emplace_back("lines");
    }

    void passages()
    {
        const PassageNetwork network(m_build.passages, m_build.plugs);
        std::vector<bool> on(m_build.passages.size());
        if (m_kind.id == "restr") {
            for (size_t i = 0; i < on.size(); ++i)
                on[i] = !m_build.passages[i].restrictors.empty();
        } else if (m_kind.id == "pocket") {
            const auto dead = pockets(network);
            for (size_t i = 0; i < dead.size(); ++i)
                if (dead[i])
                    on[static_cast<size_t>(network.stretches()[i].passage)] = true;
        } else {
            on.assign(on.size(), true);
        }
        for (size_t i = 0; i < on.size(); ++i)
            if (const Passage &p = m_build.passages[i]; on[i])
                put(p.id, p.name, p.stop, { p.stop, p.part });
    }

    void plugs()
    {
        for (const Plug &p : m_build.plugs) {
            const Passage *in = findPassage(m_build.passages, p.passage);
            put(p.id, p.name, p.stop.empty() && in ? in->stop : p.stop,
                in ? std::vector<std::string> { p.passage, in->part }
                   : std::vector<std::string> {});
        }
    }

    void lines()
    {
        for (const ExternalLine &l : linesOf(m_build)) {
            std::vector<std::string> ids;
            for (const std::string &port : { l.from, l.to })
                ids.push_back(port.substr(0, port.find('.')));
            std::erase(ids, std::string(wholeEngine));
            put(l.id, portName(m_build, l.from) + " to " + portName(m_build, l.to), {},
                std::move(ids));
        }
    }

    void fasteners()
    {
        for (const TorqueCard &c : m_build.torqueCards) {
            if (m_kind.id == "bolts" && !c.singleUse())
                continue;
            if (m_kind.id == "turns" && !holdsMains(c))
                continue;
            std::set<std::string> held;
            for (const Fastener &f : c.fasteners)
                held.insert(f.stop);
            put(c.id, c.name, c.fasteners.empty() ? "" : c.fasteners.front().stop,
                { held.begin(), held.end() });
        }
    }
    bool holdsMains(const TorqueCard &card) const
    {
        return std::any_of(card.fasteners.begin(), card.fasteners.end(), [&](const Fastener &f) {
            const Stop *s = m_build.engine.find(f.stop);
            return s && (s->kind == StopKind::Main || s->kind == StopKind::BigEnd);
        });
    }

    void partsOf()
    {
        if (m_kind.id == "spread") {
            std::set<std::string> seen;
            for (const Spread &s : spreadsOf(m_build))
                for (const SpreadItem &i : s.items)
                    if (seen.insert(i.id).second)
                        put(i.id, i.name, i.stop, { i.stop });
            return;
        }
        for (const Part &p : parts)
            if (hasWord(p.kinds, m_kind.id) && p.on(m_build))
                put(std::string(p.id), std::string(p.name));
        if (m_kind.id == "final") // heads and whatever else has passages of its own
            for (const PassagePart &p : passageParts())
                if (p.id.starts_with("head")
                    && std::any_of(m_build.passages.begin(), m_build.passages.end(),
                                   [&](const Passage &in) { return in.part == p.id; }))
                    put(std::string(p.id), capitalised(p.name));
    }

    void noted(std::string_view word)
    {
        if (word == "find")
            for (const DebrisFind *f : standing(m_build.finds))
                put(f->id, "Found: " + f->colour + " " + f->size, f->stop, { f->stop });
        if (word == "failure")
            for (const BearingFailure *f : standing(m_build.failures))
                if (const Stop *s = m_build.engine.find(f->stop))
                    put(f->id, s->name + " failed", f->stop, { f->stop });
        if (word == "sign")
            for (const Stop &s : m_build.engine.stops)
                for (const SignKind &k : signKinds())
                    if (k.stopKind == s.kind)
                        put(s.id + "#" + std::string(k.id), s.name + ": " + std::string(k.text),
                            s.id, { s.id });
    }

    void stops(std::string_view word)
    {
        if (word == "bush" || word == "lifter_each") {
            for (const SizeItem &i : sizeItems(m_build))
                if (word == "lifter_each" ? i.family->id == "lifter" : isBush(*i.family)) {
                    CheckPlace &p = put(i.stop->id + "#" + std::to_string(i.item), i.name,
                                        i.stop->id, { i.stop->id });
                    p.family = i.family->id;
                    p.item = i.item;
                }
            return;
        }
        for (const Stop &s : m_build.engine.stops) {
            if (!isOf(s, word))
                continue;
            if (word == "rocker_each") {
                const auto outlets = flowOutlets(m_build, s);
                for (size_t i = 0; i < outlets.size(); ++i)
                    put(s.id + "#" + std::to_string(i + 1), outlets[i], s.id, { s.id }).item
                        = static_cast<int>(i + 1);
                continue;
            }
            CheckPlace &place = put(s.id, s.name, s.id);
            for (const Passage &p : m_build.passages)
                if (p.stop == s.id && std::ranges::find(place.parts, p.part) == place.parts.end())
                    place.parts.push_back(p.part);
            auto &ids = place.ids;
            if (s.kind == StopKind::Pickup)
                ids.emplace_back(m_kind.id == "pan" ? "pan" : "pickup");
            if (s.kind == StopKind::Relief)
                ids.emplace_back("pump");
        }
    }
    static bool isBush(const Family &f)
    {
        return f.stopKind == StopKind::SmallEnd || f.stopKind == StopKind::CamBearing
            || f.stopKind == StopKind::BalanceShaft;
    }
    bool isOf(const Stop &s, std::string_view word) const
    {
        const auto is = [&](std::initializer_list<StopKind> kinds) {
            return std::find(kinds.begin(), kinds.end(), s.kind) != kinds.end();
        };
        if (word == "main")
            return is({ StopKind::Main });
        if (word == "rod")
            return is({ StopKind::BigEnd });
        if (word == "cam")
            return is({ StopKind::CamBearing });
        if (word == "thrust")
            return is({ StopKind::Main }) && s.value("thrust_width_mm") > 0;
        if (word == "lifter")
            return is({ StopKind::Lifter });
        if (word == "rocker" || word == "rocker_each")
            return is({ StopKind::Rocker });
        if (word == "jet")
            return is({ StopKind::Jet, StopKind::Chain, StopKind::Tensioner });
        if (word == "pump")
            return is({ StopKind::Pump });
        if (word == "relief")
            return is({ StopKind::Relief });
        if (word == "pickup")
            return is({ StopKind::Pickup });
        if (word == "filter")
            return is({ StopKind::Filter });
        if (word == "tank")
            return is({ StopKind::Tank, StopKind::Scavenge });
        if (word == "turbo")
            return is({ StopKind::Turbo });
        return word == "fed" && !s.points.empty() && isFed(s);
    }
    /// Oil is led there to be used, not only led past.
    static bool isFed(const Stop &s)
    {
        return stopNeed(s.kind) || s.value("need_idle_kpa") > 0 || s.value("need_most_kpa") > 0;
    }

    const Build &m_build;
    const CheckKind &m_kind;
    Places m_out;
};

} // namespace

bool CheckPlace::isMeantBy(std::string_view id) const
{
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

bool CheckPlace::shares(const CheckPlace &other) const
{
    return std::any_of(ids.begin(), ids.end(),
                       [&](const std::string &id) { return other.isMeantBy(id); });
}

std::vector<CheckPlace> placesOf(const Build &build, const CheckKind &kind)
{
    return Finder(build, kind).run();
}

std::vector<ExternalLine> linesOf(const Build &build)
{
    if (!build.plumbing.lines.empty() || !hasLines(build))
        return build.plumbing.lines;
    return usualLines(build);
}

} // namespace mildpath
