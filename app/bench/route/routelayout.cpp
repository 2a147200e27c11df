// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routelayout.h"

#include "shell/figure.h"

#include <algorithm>
#include <set>

namespace mildpath {
namespace {

/// Heights of the rows as shares of the map.
constexpr double lifterRow = 0.10, galleryRow = 0.40, mainRow = 0.55, bigEndRow = 0.68,
                 camRow = 0.80, rockerRow = 0.88, returnRow = 0.955;
constexpr double trunkX = 0.09, galleryStart = 0.34, galleryEnd = 0.89;

class Layout
{
public:
    Layout(const Build &build, const QRectF &area)
        : m_build(build)
    {
        m_out.area = area;
        for (const Stop &stop : build.engine.stops)
            for (const std::string &id : stop.elements)
                m_stopOf[id] = qs(stop.id);
    }

    RouteLayout run()
    {
        trunk();
        gallery();
        mains();
        bigEnds();
        smallEnds();
        balanceShafts();
        cams();
        lifters();
        outlets();
        gaugeAndReturns();
        return std::move(m_out);
    }

private:
    QPointF at(double x, double y) const
    {
        return m_out.area.topLeft() + QPointF(x * m_out.area.width(), y * m_out.area.height());
    }
    const Element *into(const std::string &node) const
    {
        for (const Element &e : m_build.circuit.elements)
            if (e.to == node && e.from != sumpNode && e.type != "relief")
                return &e;
        return nullptr;
    }
    std::vector<const Stop *> ofKind(std::string_view kind) const
    {
        std::vector<const Stop *> out;
        for (const Stop &s : m_build.engine.stops)
            if (s.kind == kind)
                out.push_back(&s);
        return out;
    }
    void line(const Element &e, const QPolygonF &path, bool outlet = false)
    {
        m_out.lines.push_back({ m_stopOf[e.id], e.id, e.from, e.to, path, outlet });
    }
    void point(const Stop &stop, const StopPoint &p, QPointF where, RoutePoint::Label label,
               bool small = false)
    {
        m_out.points.push_back({ qs(stop.id), p.node, qs(p.name), where, label, small });
        m_place[p.node] = where;
    }
    /// As `point`, but named after the stop: for stops that are one place on the map.
    void stopAt(const Stop &stop, QPointF where, RoutePoint::Label label)
    {
        const std::string node = stop.points.empty() ? std::string() : stop.points.front().node;
        m_out.points.push_back({ qs(stop.id), node, qs(stop.name), where, label, false });
        if (!node.empty())
            m_place[node] = where;
    }

    /// Sump → pump → filter, upward on the left, with the relief looping back.
    void trunk()
    {
        const QPointF sump = at(trunkX, 0.86), pump = at(trunkX, 0.70), filter = at(trunkX, 0.54);
        const auto place = [&](std::string_view kind, QPointF where) {
            for (const Stop *s : ofKind(kind))
                stopAt(*s, where, RoutePoint::Right);
        };
        for (const Element &e : m_build.circuit.elements)
            if (const Element *suction = e.type == "pump" ? into(e.from) : nullptr)
                line(*suction, { { sump, pump } });
        place("pickup", sump);
        place("pump", pump);
        place("filter", filter);
        for (const Stop *s : ofKind("pump"))
            for (const std::string &id : s->elements)
                if (const Element *e = m_build.circuit.find(id); e && e->type == "pipe")
                    line(*e, { { pump, filter } });
        for (const Stop *s : ofKind("relief")) {
            const double out = 0.05 * m_out.area.width();
            const QPointF top = pump + QPointF(0, -26), bottom = pump + QPointF(0, 30);
            const QPointF valve(pump.x() - out, (top.y() + bottom.y()) / 2);
            if (!s->elements.empty())
                if (const Element *e = m_build.circuit.find(s->elements.front()))
                    line(*e,
                         { { top, QPointF(valve.x(), top.y()), QPointF(valve.x(), bottom.y()),
                             bottom } });
            m_out.points.push_back(
                { qs(s->id), {}, qs(s->name), valve, RoutePoint::AboveLoop, true });
        }
        m_filter = filter;
    }

    /// The chain of gallery pipes, evenly spaced.
    void gallery()
    {
        const auto galleries = ofKind("gallery");
        if (galleries.empty())
            return;
        std::vector<const Element *> pipes;
        for (const std::string &id : galleries.front()->elements)
            if (const Element *e = m_build.circuit.find(id); e && e->type == "pipe")
                pipes.push_back(e);
        if (pipes.empty())
            return;
        std::string node = pipes.front()->to;
        std::vector<std::string> nodes { node };
        std::vector<const Element *> chain;
        for (size_t i = 1; i < pipes.size(); ++i)
            if (pipes[i]->from == node && feedsFurther(pipes[i]->to)) {
                chain.push_back(pipes[i]);
                nodes.push_back(node = pipes[i]->to);
            }
        const double count = std::max<double>(1, static_cast<double>(nodes.size()) - 1);
        for (size_t i = 0; i < nodes.size(); ++i)
            m_place[nodes[i]]
                = at(galleryStart + (galleryEnd - galleryStart) * static_cast<double>(i) / count,
                     galleryRow);
        m_spacing = (galleryEnd - galleryStart) * m_out.area.width() / count;
        const QPointF first = m_place[nodes.front()];
        const double bend = 26;
        line(*pipes.front(),
             { { m_filter, QPointF(m_filter.x(), first.y() + bend),
                 QPointF(m_filter.x() + bend, first.y()), first } });
        for (const Element *e : chain)
            line(*e, { { m_place[e->from], m_place[e->to] } });
        for (size_t i = 0; i < nodes.size(); ++i)
            m_galleryNodes.push_back(nodes[i]);
        m_out.galleryLabel = QPointF(m_filter.x() + bend + 6, first.y());
    }

    /// A pipe end that feeds something besides a gauge tap.
    bool feedsFurther(const std::string &node) const
    {
        for (const auto &[tap, tapNode] : m_build.circuit.taps)
            if (tapNode == node
                && std::none_of(
                    m_build.circuit.elements.begin(), m_build.circuit.elements.end(),
                    [&](const Element &e) { return e.from == node && e.to != sumpNode; }))
                return false;
        return true;
    }

    void mains()
    {
        for (const Stop *s : ofKind("main")) {
            const Element *feed = into(s->points.front().node);
            if (!feed || !m_place.contains(feed->from))
                continue;
            const QPointF from = m_place[feed->from];
            const QPointF here(from.x(), at(0, mainRow).y());
            line(*feed, { { from, here } });
            point(*s, s->points.front(), here, RoutePoint::Right);
        }
    }

    void bigEnds()
    {
        const double middle
            = (galleryStart + galleryEnd) / 2 * m_out.area.width() + m_out.area.left();
        for (const Stop *s : ofKind("big_end")) {
            const Element *feed = into(s->points.front().node);
            if (!feed || !m_place.contains(feed->from))
                continue;
            // Crank pins lie between their mains, toward the middle of the engine.
            const QPointF from = m_place[feed->from];
            const double side = from.x() < middle - 1 ? 0.5 : -0.5;
            const QPointF here(from.x() + side * m_spacing, at(0, bigEndRow).y());
            const QPointF knee(from.x() + side * 0.12 * m_spacing, from.y() + 26);
            line(*feed, { { from, QPointF(from.x(), from.y() + 14), knee, here } });
            point(*s, s->points.front(), here, RoutePoint::Below);
            m_drops.push_back(here);
        }
    }

    /// What is oiled by splash stands at the end of the row it belongs to.
    void smallEnds()
    {
        for (const Stop *s : ofKind("small_end"))
            m_out.points.push_back({ qs(s->id),
                                     {},
                                     qs(s->name),
                                     at(galleryEnd + 0.055, bigEndRow),
                                     RoutePoint::Below,
                                     true });
    }

    /// Short feeds up from the gallery, a little before each main's drop.
    void balanceShafts()
    {
        for (const Stop *s : ofKind("balance_shaft"))
            for (const StopPoint &p : s->points) {
                const Element *feed = into(p.node);
                if (!feed || !m_place.contains(feed->from))
                    continue;
                const QPointF from = m_place[feed->from] - QPointF(0.22 * m_spacing, 0);
                const QPointF here = from - QPointF(0, 0.10 * m_out.area.height());
                line(*feed, { { from, here } });
                point(*s, p, here, RoutePoint::Above, true);
            }
    }

    void cams()
    {
        for (const Stop *s : ofKind("cam_bearing"))
            for (const StopPoint &p : s->points) {
                const Element *feed = into(p.node);
                if (!feed || !m_place.contains(feed->from))
                    continue;
                const QPointF from = m_place[feed->from];
                const QPointF here(from.x(), at(0, camRow).y());
                line(*feed, { { from, here } });
                point(*s, p, here, RoutePoint::Left, true);
            }
        for (const Stop *s : ofKind("rocker"))
            for (const StopPoint &p : s->points) {
                const Element *feed = into(p.node);
                if (!feed || !m_place.contains(feed->from))
                    continue;
                const QPointF from = m_place[feed->from];
                const QPointF here(from.x() + m_spacing * 0.2, at(0, rockerRow).y());
                line(*feed, { { from, QPointF(from.x(), from.y() + 14), here } });
                point(*s, p, here, RoutePoint::Right, true);
            }
    }

    void lifters()
    {
        for (const Stop *s : ofKind("lifter")) {
            if (s->points.empty())
                continue;
            const Element *feed = into(s->points.front().node);
            if (!feed || !m_place.contains(feed->from))
                continue;
            // The branch leaves the gallery where it is fed; drawn a little before, so that it does
            // not stand on a main's drop.
            const QPointF from = m_place[feed->from] - QPointF(0.075 * m_out.area.width(), 0);
            const double row = at(0, lifterRow).y();
            const double first = from.x() + 44, last = at(galleryEnd, 0).x();
            const double count = std::max<double>(1, static_cast<double>(s->points.size()) - 1);
            for (size_t i = 0; i < s->points.size(); ++i)
                point(*s, s->points[i],
                      QPointF(first + (last - first) * static_cast<double>(i) / count, row),
                      RoutePoint::Above, true);
            line(*feed,
                 { { from, QPointF(from.x(), row + 24), QPointF(from.x() + 24, row),
                     m_place[s->points.front().node] } });
            for (const std::string &id : s->elements)
                if (const Element *e = m_build.circuit.find(id);
                    e && e->type == "pipe" && m_place.contains(e->from) && m_place.contains(e->to))
                    line(*e, { { m_place[e->from], m_place[e->to] } });
        }
        for (const Stop *s : ofKind("plug"))
            if (!s->points.empty() && m_place.contains(s->points.front().node)) {
                const QPointF end = m_place[s->points.front().node];
                m_out.points.push_back(
                    { qs(s->id), {}, qs(s->name), end + QPointF(40, 0), RoutePoint::Below, false });
            }
    }

    /// Jets and squirters: short stubs up from the gallery.
    void outlets()
    {
        const double height = 0.10 * m_out.area.height();
        double leftOf = 0.145;
        for (const auto kind : { "chain", "tensioner" })
            for (const Stop *s : ofKind(kind))
                for (const std::string &id : s->elements) {
                    const Element *e = m_build.circuit.find(id);
                    if (!e || !m_place.contains(e->from))
                        continue;
                    const QPointF from = m_place[e->from] - QPointF(leftOf * m_out.area.width(), 0);
                    leftOf += 0.085;
                    stub(*s, *e, from, height, QString());
                }
        for (const Stop *s : ofKind("jet"))
            for (size_t i = 0; i < s->elements.size(); ++i)
                if (const Element *e = m_build.circuit.find(s->elements[i]);
                    e && m_place.contains(e->from))
                    stub(*s, *e, m_place[e->from] + QPointF(0.4 * m_spacing, 0), height,
                         QStringLiteral("Jet %1").arg(i + 1));
    }

    void stub(const Stop &stop, const Element &e, QPointF from, double height, const QString &name)
    {
        const QPointF top = from - QPointF(0, height);
        line(e, { { from, top } }, true);
        m_out.points.push_back({ qs(stop.id),
                                 {},
                                 name.isEmpty() ? qs(stop.name) : name,
                                 top,
                                 RoutePoint::Above,
                                 true });
    }

    void gaugeAndReturns()
    {
        const auto tap = m_build.circuit.taps.find(m_build.gaugeTap);
        if (tap != m_build.circuit.taps.end()) {
            std::string node = tap->second;
            if (!m_place.contains(node))
                if (const Element *e = into(node))
                    node = e->from;
            if (m_place.contains(node)) {
                const QPointF on = m_place[node];
                m_out.gauge = on
                    + QPointF(node == m_galleryNodes.back() ? 36 : -30,
                              -0.14 * m_out.area.height());
                m_out.gaugeLine = { { on, QPointF(m_out.gauge.x(), on.y()), m_out.gauge } };
            }
        }
        const double y = at(0, returnRow).y();
        const double right = m_out.area.right() - 6;
        const QPointF sump = at(trunkX, 0.86);
        m_out.returns = { { QPointF(right, at(0, lifterRow).y() + 44), QPointF(right, y - 10),
                            QPointF(right - 10, y), QPointF(sump.x() + 20, y),
                            QPointF(sump.x(), sump.y() + 16) } };
        for (const QPointF &p : m_drops)
            m_out.drops.push_back(
                { { QPointF(p.x(), at(0, rockerRow).y() + 24), QPointF(p.x(), y - 3) } });
    }

    const Build &m_build;
    RouteLayout m_out;
    std::map<std::string, QString> m_stopOf;
    std::map<std::string, QPointF> m_place;
    std::vector<std::string> m_galleryNodes;
    std::vector<QPointF> m_drops;
    QPointF m_filter;
    double m_spacing = 100;
};

} // namespace

RouteLayout layoutRoute(const Build &build, const QRectF &area)
{
    return Layout(build, area).run();
}

} // namespace mildpath
