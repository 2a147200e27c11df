// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/passageedit.h"
#include "quantity/rounding.h"

#include "circuit/circuit.h"
#include "rules/rules.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {
namespace {

class Drafter
{
public:
    explicit Drafter(const Build &build)
        : m_build(build)
        , m_cheekDrilled(build.engine.cylinders >= 6)
    {
    }

    PassageSet run()
    {
        for (const Stop &s : m_build.engine.stops)
            gallery(s);
        for (const Stop &s : m_build.engine.stops)
            passagesOf(s);
        return std::move(m_out);
    }

private:
    struct Spot
    {
        std::string passage;
        double at_mm;
    };

    const Element *element(const Stop &stop, ElementKind kind) const
    {
        for (const std::string &id : stop.elements)
            if (const Element *e = m_build.circuit.find(id); e && e->kind == kind)
                return e;
        return nullptr;
    }
    std::vector<const Element *> elements(const Stop &stop, ElementKind kind) const
    {
        std::vector<const Element *> out;
        for (const std::string &id : stop.elements)
            if (const Element *e = m_build.circuit.find(id); e && e->kind == kind)
                out.push_back(e);
        return out;
    }
    /// The stop a node of the circuit belongs to.
    std::string stopAt(const std::string &node) const
    {
        for (const Stop &s : m_build.engine.stops)
            for (const StopPoint &p : s.points)
                if (p.node == node)
                    return s.id;
        return {};
    }
    std::string stopOf(StopKind kind) const
    {
        const Stop *s = m_build.engine.ofKind(kind);
        return s ? s->id : "";
    }
    static std::string sideOf(const std::string &id)
    {
        if (id.find("_left") != std::string::npos)
            return "head_left";
        return id.find("_right") != std::string::npos ? "head_right" : "head";
    }

    static PassageEnd hole(const std::string &stop) { return { "hole", "", 0, false, stop, {} }; }
    static PassageEnd plugged() { return { "plug", "", 0, false, "", {} }; }
    PassageEnd joint(const Spot &s) const { return { "joint", s.passage, s.at_mm, false, "", {} }; }
    /// Where a node lies on a gallery, or a hole at the stop it belongs to.
    PassageEnd from(const std::string &node) const
    {
        const auto it = m_spots.find(node);
        return it == m_spots.end() ? hole(stopAt(node)) : joint(it->second);
    }

    Passage &add(const Stop &stop, const std::string &id, const std::string &name,
                 const std::string &part, double d_mm, double l_mm, PassageEnd a, PassageEnd b)
    {
        Passage p;
        p.id = id;
        p.name = name;
        p.part = part;
        p.stop = stop.id;
        p.d_mm = roundedToStep(d_mm, 0.5);
        p.l_mm = roundedToStep(l_mm, 1);
        p.ends = { std::move(a), std::move(b) };
        m_out.passages.push_back(std::move(p));
        return m_out.passages.back();
    }
    /// One that is an element of the circuit.
    Passage &along(const Stop &stop, const Element &e, const std::string &id,
                   const std::string &name, const std::string &part, PassageEnd a, PassageEnd b)
    {
        Passage &p = add(stop, id, name, part, 0, e.value("l_mm"), std::move(a), std::move(b));
        p.elements = { e.id };
        p.d_mm = e.value("d_mm");
        return p;
    }
    void plug(const std::string &kind, const Passage &in, double at_mm, double d_mm,
              const std::string &behind = {}, const std::string &stop = {})
    {
        Plug p;
        p.name = "P" + std::to_string(m_out.plugs.size() + 1);
        p.id = in.id + (at_mm < in.l_mm / 2 ? "_front" : behind.empty() ? "_rear" : "_rear_inner");
        p.kind = kind;
        p.passage = in.id;
        p.at_mm = at_mm;
        p.d_mm = d_mm;
        p.behind = behind;
        p.stop = stop;
        if (kind == "screw")
            p.thread
                = "M" + std::to_string(static_cast<int>(d_mm)) + "x1" + (d_mm > 12 ? ".5" : "");
        m_out.plugs.push_back(std::move(p));
    }

    /// The pipes of a stop that run straight on, in order.
    std::vector<const Element *> chain(const Stop &stop) const
    {
        std::vector<const Element *> pipes, out;
        for (const Element *e : elements(stop, ElementKind::Pipe))
            if (e->value("k") < straightLoss)
                pipes.push_back(e);
        const auto follows = [&](const Element *e) {
            return std::any_of(pipes.begin(), pipes.end(),
                               [&](const Element *o) { return o->to == e->from; });
        };
        for (const Element *e : pipes)
            if (!follows(e)) {
                out.push_back(e);
                break;
            }
        while (!out.empty() && out.size() < pipes.size()) {
            const auto next = std::find_if(pipes.begin(), pipes.end(), [&](const Element *e) {
                return e->from == out.back()->to;
            });
            if (next == pipes.end())
                break;
            out.push_back(*next);
        }
        return out;
    }

    /// A camshaft that carries the oil in its bore and gives it to its bearings through holes.
    bool isHollow(const Stop &stop) const
    {
        const auto bore = chain(stop);
        return stop.kind == StopKind::CamBearing && !bore.empty() && !stop.points.empty()
            && stop.points.front().node != bore.front()->from;
    }
    void gallery(const Stop &stop)
    {
        const auto pipes = chain(stop);
        if (pipes.empty())
            return;
        double at = stub_mm, d = pipes.front()->value("d_mm");
        std::string last;
        for (const Element *e : pipes) {
            m_spots[e->from] = { stop.id, at };
            at += roundedToStep(e->value("l_mm"), 1);
            m_spots[e->to] = { stop.id, at };
            last = e->to;
        }
        const bool inCam = isHollow(stop), inHead = !inCam && stop.kind == StopKind::CamBearing;
        const Stop *plugStop = nullptr;
        for (const Stop &s : m_build.engine.stops)
            for (const StopPoint &p : s.points)
                if (s.kind == StopKind::Plug && p.node == last)
                    plugStop = &s;
        const double hidden = plugStop ? hiddenDepth_mm : 0;
        const Passage g = add(stop, stop.id, stop.name,
                              inHead      ? sideOf(stop.id)
                                  : inCam ? "cam"
                                          : "block",
                              d, at + stub_mm + hidden, plugged(), plugged());
        for (const Element *e : pipes)
            m_out.passages.back().elements.push_back(e->id);
        m_out.passages.back().d_mm = d;
        const bool alloy
            = m_build.engine.block != "grey_iron" && m_build.engine.block != "nodular_iron";
        const std::string pressed = inHead && d < 9 ? "ball"
            : inHead || (alloy && !inCam)           ? "core"
                                                    : "cup";
        const double seat = roundedToStep(d + 2, 1);
        const std::string usual = stop.kind == StopKind::Gallery && d <= 14 ? "screw" : pressed;
        plug(usual, g, 0, seat);
        plug(usual == "screw" && plugStop ? "cup" : usual, g, g.l_mm, seat);
        if (plugStop)
            plug("screw", g, g.l_mm - hidden, std::max(d, 6.0), m_out.plugs.back().id,
                 plugStop->id);
    }

    void passagesOf(const Stop &s)
    {
        const StopKind k = s.kind;
        if (k == StopKind::Gallery || k == StopKind::Lifter)
            feedsOfGallery(s);
        if (k == StopKind::Gallery)
            gaugeDrilling(s);
        else if (k == StopKind::Lifter)
            lifters(s);
        else if (k == StopKind::Pickup)
            tube(s, "pickup", "Pickup tube", hole(s.id), hole(stopOf(StopKind::Pump)));
        else if (k == StopKind::Pump)
            pump(s);
        else if (k == StopKind::Relief)
            relief(s);
        else if (k == StopKind::Filter)
            filter(s);
        else if (k == StopKind::Line)
            tube(s, "lines", s.name, hole(s.id), hole(s.id));
        else if (k == StopKind::Cooler)
            cooler(s);
        else if (k == StopKind::BigEnd)
            crankDrilling(s);
        else if (k == StopKind::CamBearing)
            cams(s);
        else if (k == StopKind::Rocker)
            overhead(s);
        else if (k == StopKind::Turbo)
            turbo(s);
        else if (k == StopKind::Main || k == StopKind::Jet || k == StopKind::Chain
                 || k == StopKind::Tensioner || k == StopKind::BalanceShaft || k == StopKind::Idler
                 || k == StopKind::Phaser)
            branches(s);
    }

    /// From the filter to where a gallery begins.
    void feedsOfGallery(const Stop &s)
    {
        for (const Element *e : elements(s, ElementKind::Pipe))
            if (e->value("k") >= straightLoss && m_spots.contains(e->to)
                && !m_spots.contains(e->from))
                along(s, *e, e->id, "Filter to " + lower(s.name), "block",
                      hole(stopOf(StopKind::Filter)), from(e->to));
    }
    static std::string lower(std::string s)
    {
        if (!s.empty())
            s[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(s[0])));
        return s;
    }

    void gaugeDrilling(const Stop &s)
    {
        for (const auto &[tap, node] : m_build.circuit.taps)
            for (const Element *e : elements(s, ElementKind::Pipe))
                if (e->to == node && e->value("k") >= straightLoss && m_spots.contains(e->from)) {
                    const Passage p
                        = along(s, *e, e->id, "Gauge drilling", "block", from(e->from), plugged());
                    plug("screw", p, p.l_mm, 10);
                }
    }

    void lifters(const Stop &s)
    {
        if (!m_spots.contains(s.points.empty() ? "" : s.points.front().node) || chain(s).empty())
            return branches(s);
        // A riser drilled down through the gallery into the main one, closed above by a ball.
        for (const Element *e : elements(s, ElementKind::Orifice))
            if (m_spots.contains(e->from) && m_spots.contains(e->to)
                && m_spots.at(e->from).passage != s.id && m_spots.at(e->to).passage == s.id) {
                Passage &p = add(s, s.id + "_riser", "Riser to " + lower(s.name), "block", 6, 170,
                                 from(e->from), plugged());
                p.crossings.push_back({ 130, s.id, m_spots.at(e->to).at_mm });
                p.restrictors.push_back({ 20, e->value("d_mm") });
                const Passage copy = p;
                plug("ball", copy, copy.l_mm, 8);
            }
        for (size_t i = 0; i < s.points.size(); ++i)
            if (m_spots.contains(s.points[i].node))
                add(s, s.id + "_hole_" + std::to_string(i + 1), s.points[i].name + " hole", "block",
                    5, 12, from(s.points[i].node), hole(s.id));
    }

    /// Drillings from a gallery to a stop, one for each of its elements that starts at one.
    void branches(const Stop &s)
    {
        std::vector<const Element *> all;
        for (const std::string &id : s.elements)
            if (const Element *e = m_build.circuit.find(id); e && m_spots.contains(e->from))
                all.push_back(e);
        for (size_t i = 0; i < all.size(); ++i) {
            const Element &e = *all[i];
            const bool pipe = e.kind == ElementKind::Pipe;
            const Passage *in = findPassage(m_out.passages, m_spots.at(e.from).passage);
            const std::string number = all.size() > 1 ? std::to_string(i + 1) : "";
            const std::string id = s.id + "_feed" + (number.empty() ? "" : "_" + number);
            const std::string name = s.name + " feed" + (number.empty() ? "" : " " + number);
            const std::string part = in ? in->part : "block";
            if (pipe)
                along(s, e, id, name, part, from(e.from), hole(s.id));
            else
                add(s, id, name, part, 5, 30, from(e.from), hole(s.id));
        }
    }

    void tube(const Stop &s, const std::string &part, const std::string &name, PassageEnd a,
              PassageEnd b)
    {
        const Element *e = element(s, ElementKind::Pipe);
        const std::string id = s.id + "_tube";
        Passage &p = e ? along(s, *e, id, name, part, std::move(a), std::move(b))
                       : add(s, id, name, part, 12, 300, std::move(a), std::move(b));
        p.made = "tube";
        p.curved = true;
    }

    void pump(const Stop &s)
    {
        const Element *e = element(s, ElementKind::Pipe);
        if (!e)
            return;
        Passage &p = along(s, *e, s.id + "_passage", "Pump to filter", "block", hole(s.id),
                           hole(stopOf(StopKind::Filter)));
        p.made = "cast";
        p.curved = true;
    }

    void relief(const Stop &s)
    {
        const Passage p = add(s, s.id + "_bore", "Relief bore", "pump", s.value("plunger_d_mm", 12),
                              60, hole(s.id), plugged());
        plug("screw", p, p.l_mm, roundedToStep(p.d_mm + 4, 1));
    }

    void filter(const Stop &s)
    {
        add(s, s.id + "_in", "Filter head, in", "filter_head", 12, 60, hole(stopOf(StopKind::Pump)),
            hole(s.id));
        add(s, s.id + "_out", "Filter head, out", "filter_head", 12, 60, hole(s.id),
            hole(stopOf(StopKind::Gallery)));
    }

    void cooler(const Stop &s)
    {
        Passage &p
            = add(s, s.id + "_core", "Cooler matrix", "cooler", 8, 250, hole(s.id), hole(s.id));
        p.made = "tube";
        p.curved = true;
    }

    void crankDrilling(const Stop &s)
    {
        for (const Element *e : elements(s, ElementKind::Orifice))
            along(s, *e, e->id, s.name + " squirt hole", "rods", hole(s.id),
                  hole(stopOf(StopKind::SmallEnd)));
        const Element *e = element(s, ElementKind::CrankDrilling);
        if (!e)
            return;
        const double d = e->value("d_mm"), l = e->value("l_mm");
        const std::string id = s.id + "_drilling", name = s.name + " drilling";
        if (!m_cheekDrilled) {
            along(s, *e, id, name, "crank", hole(stopAt(e->from)), hole(s.id));
            return;
        }
        // Drilled from the cheek past the pin and closed there; the pin's own hole meets it.
        Passage &past = along(s, *e, id, name, "crank", hole(stopAt(e->from)), plugged());
        past.l_mm = roundedToStep(l + 15, 1);
        const Passage p = past;
        plug("screw", p, p.l_mm, 8);
        add(s, s.id + "_pin_hole", s.name + " pin hole", "crank", d, 22,
            { "joint", id, roundedToStep(l, 1), false, "", {} }, hole(s.id));
    }

    void cams(const Stop &s)
    {
        if (chain(s).empty()) {
            int i = 0;
            for (const Element *e : elements(s, ElementKind::Pipe))
                along(s, *e, e->id, "Cam feed " + std::to_string(++i), "block", from(e->from),
                      hole(s.id));
            return;
        }
        const std::string head = sideOf(s.id);
        if (isHollow(s))
            return hollowCam(s, head);
        for (const Element *e : elements(s, ElementKind::Orifice))
            if (m_spots.contains(e->from) && m_spots.contains(e->to))
                throughFace(s, head, e->from, joint(m_spots.at(e->to)), 8, 150, 60,
                            e->value("d_mm"));
        int i = 0;
        for (const StopPoint &p : s.points)
            add(s, s.id + "_feed_" + std::to_string(++i), p.name + " feed", head, 5, 20,
                from(p.node), hole(s.id));
    }

    /// Up to its first bearing, through that into the bore, out of it by a hole at each of the
    /// others.
    void hollowCam(const Stop &s, const std::string &head)
    {
        int count = 0;
        for (const Element *e : elements(s, ElementKind::Orifice)) {
            const bool in = m_spots.contains(e->to) && m_spots.at(e->to).passage == s.id;
            const bool out = m_spots.contains(e->from) && m_spots.at(e->from).passage == s.id;
            if (in || out) {
                const std::string number = std::to_string(++count);
                along(s, *e, s.id + "_hole_" + number, s.name + " hole " + number, "cam",
                      from(in ? e->to : e->from), hole(s.id));
            } else if (e->to != sumpNode) {
                throughFace(s, head, e->from, hole(s.id), 8, 150, 60, e->value("d_mm"));
            }
        }
    }

    /// From the block through the head's face; a restrictor sits in the head.
    void throughFace(const Stop &s, const std::string &head, const std::string &node,
                     PassageEnd end, double d_mm, double block_mm, double head_mm,
                     double restrictor_mm)
    {
        const std::string below = s.id + "_block_feed", above = s.id + "_head_feed";
        add(s, below, s.name + ", feed in the block", "block", d_mm, block_mm, from(node),
            { "hole", above, 0, false, s.id, {} });
        Passage &p
            = add(s, above, s.name + ", feed in the head", head, d_mm, head_mm,
                  { "hole", below, roundedToStep(block_mm, 1), false, s.id, {} }, std::move(end));
        if (restrictor_mm > 0 && restrictor_mm < d_mm)
            p.restrictors.push_back({ 15, restrictor_mm });
    }

    void overhead(const Stop &s)
    {
        const Element *e = element(s, ElementKind::Orifice);
        if (!e)
            return;
        throughFace(s, sideOf(s.id), e->from, hole(s.id), 5, 180, 90, 0);
        // Fed through a hole across the camshaft, which meets it for part of a turn.
        if (e->value("duty") < 1) {
            const std::string cam = stopAt(e->from);
            double journal_mm = 40;
            for (const Element &film : m_build.circuit.elements)
                if (film.from == e->from && film.kind == ElementKind::FilmBearing)
                    journal_mm = film.value("d_mm");
            add(s, s.id + "_cam_hole", "Camshaft cross hole", "cam", e->value("d_mm"), journal_mm,
                hole(cam), hole(cam));
        }
    }

    void turbo(const Stop &s)
    {
        const Element *e = element(s, ElementKind::Pipe);
        if (!e)
            return;
        const std::string line = s.id + "_tube", tap = s.id + "_tapping";
        add(s, tap, s.name + " tapping", "block", 6, 30, from(e->from),
            { "hole", line, 0, false, s.id, {} });
        tube(s, "lines", s.name + " line", { "hole", tap, 30, false, s.id, {} }, hole(s.id));
    }

    const Build &m_build;
    bool m_cheekDrilled;
    std::map<std::string, Spot> m_spots; ///< nodes of the circuit that lie on a gallery
    PassageSet m_out;
};

} // namespace

PassageSet usualPassages(const Build &build)
{
    return Drafter(build).run();
}

void putUsualPassages(Build &build)
{
    PassageSet set = usualPassages(build);
    build.passages = std::move(set.passages);
    build.plugs = std::move(set.plugs);
    for (Plug &p : build.plugs)
        for (Stop &stop : build.engine.stops)
            if (stop.id == p.stop && stop.has("plug_bore_mm")) {
                p.d_mm = stop.value("plug_bore_mm");
                stop.values.erase("plug_bore_mm");
            }
}

} // namespace mildpath
