// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "bench/route/routelayout.h"
#include "paint/figure.h"

#include <QLineF>

#include <algorithm>
#include <map>
#include <set>

namespace mildpath {

/// What a layout of the map has placed so far, and what it asks of the circuit.
class RoutePlaces
{
public:
    RoutePlaces(const Build &build, const QRectF &area)
        : m_build(build)
    {
        m_out.area = area;
        for (const Stop &stop : build.engine.stops)
            for (const std::string &id : stop.elements)
                m_stopOf[id] = qs(stop.id);
    }

protected:
    double px(double share) const { return share * m_out.area.width(); }
    double py(double share) const { return share * m_out.area.height(); }
    QPointF at(double x, double y) const { return m_out.area.topLeft() + QPointF(px(x), py(y)); }

    const Element *into(const std::string &node) const
    {
        for (const Element &e : m_build.circuit.elements)
            if (e.to == node && e.from != sumpNode && e.kind != ElementKind::Relief)
                return &e;
        return nullptr;
    }
    const Element *element(const std::string &id) const { return m_build.circuit.find(id); }
    std::vector<const Stop *> ofKind(StopKind kind) const
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
        m_drawn.insert(e.id);
    }
    void point(const Stop &stop, const StopPoint &p, QPointF where, RoutePoint::Label label,
               bool small = false)
    {
        m_out.points.push_back({ qs(stop.id), p.node, qs(p.name), where, label, small });
        m_place.try_emplace(p.node, where);
        m_placed.insert(stop.id);
    }
    /// As `point`, but named after the stop: for stops that are one place on the map.
    void stopAt(const Stop &stop, QPointF where, RoutePoint::Label label, bool small = false)
    {
        const std::string node = stop.points.empty() ? std::string() : stop.points.front().node;
        m_out.points.push_back({ qs(stop.id), node, qs(stop.name), where, label, small });
        if (!node.empty())
            m_place.try_emplace(node, where);
        m_placed.insert(stop.id);
    }

    /// The node a stop's oil comes from: where its first element starts.
    std::string inletOf(const Stop &stop) const
    {
        if (stop.elements.empty())
            return stop.points.empty() ? std::string() : stop.points.front().node;
        const Element *e = element(stop.elements.front());
        return e ? e->from : std::string();
    }

    bool drawn(const std::string &id) const { return m_drawn.contains(id); }
    bool taken(QPointF where) const
    {
        return std::any_of(m_out.points.begin(), m_out.points.end(),
                           [&](const RoutePoint &p) { return QLineF(p.at, where).length() < 30; });
    }

    const Build &m_build;
    RouteLayout m_out;
    std::map<std::string, QString> m_stopOf;
    std::map<std::string, QPointF> m_place; ///< of nodes
    std::set<std::string> m_placed, m_drawn; ///< stops, elements
};

} // namespace mildpath
