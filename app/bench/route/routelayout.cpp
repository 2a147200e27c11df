// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routelayout.h"

#include "bench/route/routeplaces.h"

#include <algorithm>

namespace mildpath {
namespace {

/// Heights as shares of the map.
constexpr double firstRow = 0.085, rowStep = 0.088, returnRow = 0.955;
constexpr double trunkX = 0.09, galleryEnd = 0.89;
constexpr double runStart = 0.135; ///< where stubs may begin on the way into the gallery
/// From this many points on a stop is a row of its own above the gallery.
constexpr size_t rowFrom = 3;

class Layout : RoutePlaces
{
public:
    using RoutePlaces::RoutePlaces;

    RouteLayout run()
    {
        sortStops();
        proportions();
        trunk();
        gallery();
        seriesRow();
        mains();
        bigEnds();
        bigEndCaption();
        smallEnds();
        rowsBelow();
        rowsAbove();
        stubs();
        plugs();
        jets();
        leftOvers();
        gaugeAndReturns();
        return std::move(m_out);
    }

private:
    /// Which stops stand in a row above, which under their mains, which on a stub.
    void sortStops()
    {
        std::set<std::string> mainNodes;
        for (const Stop *s : ofKind(StopKind::Main))
            for (const StopPoint &p : s->points)
                mainNodes.insert(p.node);
        std::set<std::string> below = mainNodes;
        for (const Stop &s : m_build.engine.stops) {
            const bool row = s.kind == StopKind::Lifter || s.kind == StopKind::CamBearing
                || s.kind == StopKind::Rocker || s.kind == StopKind::BalanceShaft;
            if (!row && s.kind != StopKind::Turbo && s.kind != StopKind::Phaser
                && s.kind != StopKind::Chain && s.kind != StopKind::Tensioner
                && s.kind != StopKind::Idler)
                continue;
            const std::string from = inletOf(s);
            if (below.contains(from)) {
                m_below.push_back(&s);
                for (const StopPoint &p : s.points)
                    below.insert(p.node);
            } else if (row && s.points.size() >= rowFrom) {
                m_rows.push_back(&s);
                for (const StopPoint &p : s.points)
                    m_rowNodes[p.node] = m_rows.size() - 1;
            } else if (const auto it = m_rowNodes.find(from); it != m_rowNodes.end()) {
                m_rowEnds[it->second].push_back(&s);
            } else {
                m_stubs.push_back(&s);
            }
        }
    }

    /// Mains may hang on a row: that one then stands where the main gallery would.
    void findSeries()
    {
        const auto main = ofKind(StopKind::Main);
        const Element *feed = main.empty() ? nullptr : into(main.front()->points.front().node);
        const auto row = feed ? m_rowNodes.find(feed->from) : m_rowNodes.end();
        if (row == m_rowNodes.end())
            return;
        m_series = m_rows[row->second];
        // What hangs on its end hangs on a gallery then.
        const auto &ends = m_rowEnds[row->second];
        m_stubs.insert(m_stubs.end(), ends.begin(), ends.end());
        std::map<size_t, std::vector<const Stop *>> others;
        for (const auto &[at, stops] : m_rowEnds)
            if (at != row->second)
                others[at > row->second ? at - 1 : at] = stops;
        m_rowEnds = std::move(others);
        m_rows.erase(m_rows.begin() + static_cast<long>(row->second));
        m_rowNodes.clear();
        for (size_t r = 0; r < m_rows.size(); ++r)
            for (const StopPoint &p : m_rows[r]->points)
                m_rowNodes[p.node] = r;
    }
    void seriesRow()
    {
        if (!m_series || m_galleryNodes.empty())
            return;
        const double first = m_galleryStart + 0.05,
                     count = static_cast<double>(m_series->points.size()) - 1;
        for (size_t i = 0; i < m_series->points.size(); ++i) {
            const double x = first + (galleryEnd - first) * static_cast<double>(i) / count;
            point(*m_series, m_series->points[i], at(x, m_galleryRow), RoutePoint::Above, true);
            m_galleryNodes.push_back(m_series->points[i].node);
        }
        pipesOf(*m_series);
        const double bays
            = std::max<double>(1, static_cast<double>(ofKind(StopKind::Main).size()) - 1);
        m_spacing = px(galleryEnd - first) / bays;
        m_out.captions.emplace_back(m_place[m_series->points.front().node] - QPointF(14, 24),
                                    qs(m_series->name));
    }
    /// Between places that are known.
    void pipesOf(const Stop &s)
    {
        for (const std::string &id : s.elements)
            if (const Element *e = element(id); e && e->kind == ElementKind::Pipe
                && m_place.contains(e->from) && m_place.contains(e->to) && !drawn(e->id))
                line(*e, { { m_place[e->from], m_place[e->to] } });
    }

    void proportions()
    {
        findSeries();
        const auto rows = static_cast<double>(m_rows.size());
        m_galleryRow
            = std::max(0.40, firstRow + rowStep * rows + (m_stubs.size() > 2 ? 0.19 : 0.14));
        const double left = 0.955 - m_galleryRow;
        m_mainRow = m_galleryRow + 0.27 * left;
        m_bigEndRow = m_galleryRow + 0.505 * left;
        m_camRow = m_galleryRow + 0.72 * left;
        m_rockerRow = m_galleryRow + 0.865 * left;
        m_twoABay = ofKind(StopKind::BigEnd).size()
            > std::max<size_t>(1, ofKind(StopKind::Main).size() - 1);
        if (m_twoABay && !m_below.empty()) {
            m_bigEndRow = m_galleryRow + 0.42 * left;
            m_camRow = m_galleryRow + 0.825 * left;
            m_rockerRow = m_galleryRow + 0.91 * left;
        }
        // More than a few stand at two heights, so that they may stand closer.
        m_stubStep = m_stubs.size() > 2 ? 0.058 : 0.085;
        const double stubWidth = m_stubStep * static_cast<double>(m_stubs.size());
        m_galleryStart = std::clamp(runStart + stubWidth + 0.026 * rows + 0.045,
                                    m_rows.empty() ? 0.28 : 0.34, 0.56);
    }

    /// Sump → pump → filter, upward on the left, with the relief looping back.
    void trunk()
    {
        std::vector<const Stop *> way;
        for (const Stop &s : m_build.engine.stops) {
            if (s.kind == StopKind::Gallery)
                break;
            if (s.kind == StopKind::Tank || s.kind == StopKind::Pickup || s.kind == StopKind::Pump
                || s.kind == StopKind::Line || s.kind == StopKind::Cooler
                || s.kind == StopKind::Filter)
                way.push_back(&s);
        }
        const double foot = way.size() > 4 ? 0.90 : 0.86;
        const double head = std::max(m_galleryRow + (way.size() > 4 ? 0.065 : 0.14), 0.45);
        const double step
            = way.size() > 1 ? (foot - head) / static_cast<double>(way.size() - 1) : 0;
        for (size_t i = 0; i < way.size(); ++i) {
            const QPointF here = at(trunkX, foot - step * static_cast<double>(i));
            if (i > 0)
                if (const Element *e = between(*way[i - 1], *way[i]))
                    line(*e, { { m_end, here } });
            // Oil that stands behind a stop on the way stands at its place on the map.
            for (const StopPoint &p : way[i]->points)
                m_place.try_emplace(p.node, here);
            for (const std::string &id : way[i]->elements)
                if (const Element *e = element(id); e && e->to != sumpNode)
                    m_place.try_emplace(e->to, here);
            stopAt(*way[i], here, RoutePoint::Right);
            if (way[i]->kind == StopKind::Line || way[i]->kind == StopKind::Pickup)
                m_out.points.back().brief = way[i]->kind == StopKind::Line
                    ? QStringLiteral("line")
                    : QStringLiteral("suction");
            if (way[i]->kind == StopKind::Pump)
                relief(here, step);
            if (i == 0)
                m_foot = here;
            m_end = here;
        }
    }

    /// A passage that leads from one stop on the way to the next.
    const Element *between(const Stop &before, const Stop &behind) const
    {
        const Element *any = nullptr;
        for (const Stop *s : { &before, &behind })
            for (const std::string &id : s->elements) {
                const Element *e = element(id);
                if (!e || e->to == sumpNode || e->kind == ElementKind::Pump)
                    continue;
                const bool passage
                    = e->kind == ElementKind::Pipe || e->kind == ElementKind::Orifice;
                if (passage && (s == &before) == (before.kind == StopKind::Pump)
                    && (before.kind == StopKind::Pump || s == &behind))
                    return e;
                if (!any)
                    any = e;
            }
        return any;
    }

    void relief(QPointF pump, double step)
    {
        for (const Stop *s : ofKind(StopKind::Relief)) {
            const double out = px(0.05), reach = std::min(28.0, 0.45 * py(step) + 6);
            const QPointF top = pump + QPointF(0, -reach), bottom = pump + QPointF(0, reach);
            const QPointF valve(pump.x() - out, pump.y());
            if (!s->elements.empty())
                if (const Element *e = element(s->elements.front()))
                    line(*e,
                         { { top, QPointF(valve.x(), top.y()), QPointF(valve.x(), bottom.y()),
                             bottom } });
            m_out.points.push_back({ qs(s->id), {}, qs(s->name), valve, RoutePoint::Above, true });
            m_out.points.back().away = reach - 4;
            m_out.points.back().brief = QStringLiteral("relief");
            m_placed.insert(s->id);
        }
    }

    /// The chain of gallery pipes, evenly spaced.
    void gallery()
    {
        const auto galleries = ofKind(StopKind::Gallery);
        std::vector<const Element *> pipes;
        if (!galleries.empty())
            for (const std::string &id : galleries.front()->elements)
                if (const Element *e = element(id); e && e->kind == ElementKind::Pipe)
                    pipes.push_back(e);
        if (pipes.empty())
            return;
        std::string node = pipes.front()->to;
        m_galleryNodes = { node };
        std::vector<const Element *> chain;
        for (size_t i = 1; i < pipes.size(); ++i)
            if (pipes[i]->from == node && feedsFurther(pipes[i]->to)) {
                chain.push_back(pipes[i]);
                m_galleryNodes.push_back(node = pipes[i]->to);
            }
        const double count = std::max<double>(1, static_cast<double>(m_galleryNodes.size()) - 1);
        for (size_t i = 0; i < m_galleryNodes.size(); ++i)
            m_place[m_galleryNodes[i]] = at(
                m_galleryStart + (galleryEnd - m_galleryStart) * static_cast<double>(i) / count,
                m_galleryRow);
        m_spacing = px(galleryEnd - m_galleryStart) / count;
        const QPointF first = m_place[m_galleryNodes.front()];
        const double bend = std::min(26.0, m_end.y() - first.y());
        line(*pipes.front(),
             { { m_end, QPointF(m_end.x(), first.y() + bend), QPointF(m_end.x() + bend, first.y()),
                 first } });
        for (const Element *e : chain)
            line(*e, { { m_place[e->from], m_place[e->to] } });
        m_out.galleryLabel = QPointF(m_end.x() + bend + 6, first.y());
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
        for (const Stop *s : ofKind(StopKind::Main)) {
            const Element *feed = into(s->points.front().node);
            if (!feed || !m_place.contains(feed->from))
                continue;
            const QPointF from = m_place[feed->from];
            const QPointF here(from.x(), at(0, m_mainRow).y());
            line(*feed, { { from, here } });
            point(*s, s->points.front(), here, RoutePoint::Right);
        }
    }

    /// Crank pins lie between the mains, one row when there is one a bay, staggered when two.
    void bigEnds()
    {
        const auto rods = ofKind(StopKind::BigEnd);
        const size_t bays = std::max<size_t>(1, ofKind(StopKind::Main).size() - 1);
        const double mid = m_out.area.left() + px((m_galleryStart + galleryEnd) / 2);
        for (size_t i = 0; i < rods.size(); ++i) {
            const Stop *s = rods[i];
            const Element *feed = into(s->points.front().node);
            if (!feed || !m_place.contains(feed->from))
                continue;
            const QPointF from = m_place[feed->from];
            const double side = from.x() < mid - 1 ? 1 : -1;
            const bool second = m_twoABay && i * bays / rods.size() != (i + 1) * bays / rods.size();
            // The upper one stands further out: no line then passes it.
            const double away = !m_twoABay ? 0.5 : second ? 0.34 : 0.70;
            const double row = m_bigEndRow + (second ? 0.225 * (0.955 - m_galleryRow) : 0);
            const QPointF here(from.x() + side * away * m_spacing, at(0, row).y());
            const QPointF knee(from.x() + side * 0.12 * m_spacing, from.y() + 26);
            line(*feed, { { from, QPointF(from.x(), from.y() + 14), knee, here } });
            StopPoint p = s->points.front();
            if (m_twoABay && m_spacing < 105)
                p.name = std::to_string(i + 1); // the row's name stands before it
            point(*s, p, here, RoutePoint::Below, m_twoABay);
            m_drops.push_back(here);
        }
    }

    void bigEndCaption()
    {
        if (m_twoABay && m_spacing < 105)
            m_out.captions.emplace_back(at(m_galleryStart, m_bigEndRow) - QPointF(22, 0),
                                        QStringLiteral("Big-ends"));
    }

    /// What is oiled by splash stands at the end of the row it belongs to.
    void smallEnds()
    {
        for (const Stop *s : ofKind(StopKind::SmallEnd)) {
            const QPointF here = at(galleryEnd + 0.055, m_bigEndRow);
            stopAt(*s, here, RoutePoint::Below, true);
            const auto nearest = std::ranges::max_element(m_drops, {}, &QPointF::x);
            if (nearest != m_drops.end())
                m_out.joins.push_back({ { *nearest, here } });
        }
    }

    /// What the mains feed: cams straight below, rockers beside the cam that feeds them.
    void rowsBelow()
    {
        for (const Stop *s : m_below)
            for (const StopPoint &p : s->points) {
                const Element *feed = into(p.node);
                if (!feed || !m_place.contains(feed->from))
                    continue;
                const QPointF from = m_place[feed->from];
                if (s->kind == StopKind::Rocker || s->kind == StopKind::Phaser
                    || s->kind == StopKind::Turbo) {
                    const QPointF here(from.x() + 0.2 * m_spacing, at(0, m_rockerRow).y());
                    line(*feed, { { from, QPointF(from.x(), from.y() + 14), here } });
                    point(*s, p, here, RoutePoint::Right, true);
                } else {
                    const QPointF here(from.x(), at(0, m_camRow).y());
                    line(*feed, { { from, here } });
                    point(*s, p, here, RoutePoint::Left, true);
                }
            }
    }

    /// Rows above the gallery. Their risers stand side by side before the first main, the topmost
    /// leftmost, so that none passes through another's row.
    void rowsAbove()
    {
        for (size_t r = 0; r < m_rows.size(); ++r) {
            const Stop *s = m_rows[r];
            const double y = at(0, firstRow + rowStep * static_cast<double>(r)).y();
            const double aside = 0.026 * static_cast<double>(m_rows.size() - 1 - r) + 0.03;
            const double riser = m_out.area.left() + px(m_galleryStart - aside);
            const auto &ends = m_rowEnds[r];
            double first = riser + 34;
            double last = at(galleryEnd, 0).x() - 58 * static_cast<double>(ends.size());
            // Fed by the far end of another row, the oil comes back.
            const Element *feed = into(s->points.front().node);
            const bool back = feed && m_series && feed->from == m_series->points.back().node;
            if (back)
                std::swap(first, last);
            const double count = std::max<double>(1, static_cast<double>(s->points.size()) - 1);
            // Where names would touch, numbers do; the row's own name stands before it.
            const bool tight = std::abs(last - first) / count < 62;
            for (size_t i = 0; i < s->points.size(); ++i) {
                m_place.erase(s->points[i].node);
                StopPoint p = s->points[i];
                if (const auto space = p.name.rfind(' '); tight && space != std::string::npos)
                    p.name = p.name.substr(space + 1);
                point(*s, p, QPointF(first + (last - first) * static_cast<double>(i) / count, y),
                      RoutePoint::Above, true);
            }
            const double front
                = m_galleryStart - 0.026 * static_cast<double>(m_rows.size() - 1) - 0.03;
            m_out.captions.emplace_back(QPointF(m_out.area.left() + px(front) - 14, y),
                                        qs(s->name));
            const QPointF begin = m_place[s->points.front().node];
            const QPointF foot(riser, at(0, m_galleryRow).y());
            if (back)
                line(*feed, { { m_place[feed->from], begin } });
            else if (feed)
                line(*feed, { { foot, QPointF(riser, y + 20), QPointF(riser + 20, y), begin } });
            pipesOf(*s);
            const QPointF end = m_place[s->points.back().node];
            for (size_t k = 0; k < ends.size(); ++k)
                rowEnd(*ends[k], end, end + QPointF(58 * static_cast<double>(k + 1), 0));
        }
    }

    /// Plugs beyond what they close.
    void plugs()
    {
        for (const Stop *s : ofKind(StopKind::Plug))
            if (!s->points.empty() && m_place.contains(s->points.front().node)) {
                const QPointF end = m_place[s->points.front().node];
                const bool leftward = m_series && end.x() < m_out.area.center().x();
                QPointF here = end + QPointF(leftward ? -40 : 40, 0);
                while (taken(here))
                    here += QPointF(0, 30);
                m_out.joins.push_back({ { end, here } });
                m_out.points.push_back({ qs(s->id),
                                         {},
                                         qs(s->name),
                                         here,
                                         RoutePoint::Below,
                                         true,
                                         QStringLiteral("plug") });
                m_placed.insert(s->id);
            }
    }

    /// A branch fed from a row's far end: phaser, adjusters.
    void rowEnd(const Stop &s, QPointF from, QPointF here)
    {
        for (const std::string &id : s.elements)
            if (const Element *e = element(id); e && e->from == inletOf(s)) {
                line(*e, { { from, here } }, e->to == sumpNode);
                break;
            }
        const std::string node = s.points.empty() ? std::string() : s.points.front().node;
        const QString name = qs(s.kind == StopKind::Phaser       ? "Phaser"
                                    : s.kind == StopKind::Lifter ? "Adjusters"
                                                                 : s.name);
        m_out.points.push_back({ qs(s.id), node, name, here, RoutePoint::Above, true });
        m_placed.insert(s.id);
    }

    /// Single branches: stubs up from the way into the gallery.
    void stubs()
    {
        double x = runStart;
        int nth = 0;
        const bool many = m_stubs.size() > 2;
        for (const Stop *s : m_stubs) {
            std::vector<std::pair<const Element *, const StopPoint *>> feeds;
            if (s->points.size() > 1)
                for (const StopPoint &p : s->points)
                    feeds.emplace_back(into(p.node), &p);
            else if (!s->elements.empty())
                feeds.emplace_back(element(s->elements.front()),
                                   s->points.empty() ? nullptr : &s->points.front());
            for (const auto &[feed, p] : feeds) {
                if (!feed)
                    continue;
                // On the way into the gallery, unless it leaves from further along.
                const auto along
                    = std::find(m_galleryNodes.begin(), m_galleryNodes.end(), feed->from);
                const bool further
                    = along != m_galleryNodes.end() && along != m_galleryNodes.begin();
                QPointF foot = at(x + 0.03, m_galleryRow);
                bool high = false;
                if (further) {
                    foot = m_place[feed->from] - QPointF(0.22 * m_spacing, 0);
                } else {
                    x += m_stubStep;
                    high = many && nth++ % 2 == 1;
                }
                const QPointF top = foot - QPointF(0, py(high ? 0.165 : 0.10));
                line(*feed, { { foot, top } }, feed->to == sumpNode);
                m_out.points.push_back({ qs(s->id), p ? p->node : std::string(),
                                         p && feeds.size() > 1 ? qs(p->name) : qs(s->name), top,
                                         RoutePoint::Above, true });
                if (p)
                    m_place.try_emplace(p->node, top);
                m_placed.insert(s->id);
            }
        }
    }

    void jets()
    {
        for (const Stop *s : ofKind(StopKind::Jet)) {
            std::map<std::string, int> onNode;
            for (const std::string &id : s->elements)
                if (const Element *e = element(id))
                    ++onNode[e->from];
            std::map<std::string, int> placedOn;
            for (size_t i = 0; i < s->elements.size(); ++i) {
                const Element *e = element(s->elements[i]);
                if (!e || !m_place.contains(e->from))
                    continue;
                const int nth = placedOn[e->from]++;
                const bool pair = onNode[e->from] > 1;
                const double share = pair ? 0.28 + 0.42 * nth : 0.4;
                const bool tight = (pair ? 0.42 : 1) * m_spacing < 48;
                const QPointF foot = m_place[e->from] + QPointF(share * m_spacing, 0);
                const QPointF top = foot - QPointF(0, py(tight && nth == 1 ? 0.045 : 0.10));
                line(*e, { { foot, top } }, true);
                const QString name = s->elements.size() == 1 ? qs(s->name)
                    : tight                                  ? QString::number(i + 1)
                                                             : QStringLiteral("Jet %1").arg(i + 1);
                m_out.points.push_back({ qs(s->id), {}, name, top, RoutePoint::Above, true });
                m_placed.insert(s->id);
            }
        }
    }

    /// What none of the rules above knows: beside what feeds it, scavenge stages on the drain-back
    /// they bring home; the rest is named below the map.
    void leftOvers()
    {
        double x = 0.55;
        for (const Stop &s : m_build.engine.stops) {
            if (m_placed.contains(s.id) || s.kind == StopKind::Gallery)
                continue;
            const std::string from = inletOf(s);
            QPointF here;
            if (const auto it = m_place.find(from); !from.empty() && it != m_place.end()) {
                here = it->second + QPointF(30, 30);
                while (taken(here))
                    here += QPointF(26, 12);
                if (const Element *e = s.elements.empty() ? nullptr : element(s.elements.front()))
                    line(*e, { { it->second, here } }, e->to == sumpNode && s.points.empty());
            } else if (s.kind == StopKind::Scavenge) {
                here = at(x, returnRow);
                x += 0.14;
            } else {
                m_out.notDrawn.push_back(qs(s.name));
                continue;
            }
            stopAt(s, here, RoutePoint::Above, true);
        }
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
                const bool last = !m_galleryNodes.empty() && node == m_galleryNodes.back();
                m_out.gauge = on + QPointF(last ? 36 : -30, -py(last ? 0.12 : 0.10));
                m_out.gauge.setY(std::max(m_out.gauge.y(), m_out.area.top() + 36));
                m_out.gaugeLine = { { on, QPointF(m_out.gauge.x(), on.y()), m_out.gauge } };
            }
        }
        const double y = at(0, returnRow).y();
        const double right = m_out.area.right() - 6;
        // From the end of the topmost row, or of the gallery, down the side.
        QPointF from = !m_rows.empty() ? m_place[m_rows.front()->points.back().node]
            : m_galleryNodes.empty()   ? at(galleryEnd, m_galleryRow)
                                       : m_place[m_galleryNodes.back()];
        for (const RoutePoint &p : m_out.points)
            if (std::abs(p.at.y() - from.y()) < 1)
                from.setX(std::max(from.x(), p.at.x()));
        m_out.returns = { { from, QPointF(right - 10, from.y()), QPointF(right, from.y() + 10),
                            QPointF(right, y - 10), QPointF(right - 10, y),
                            QPointF(m_foot.x() + 20, y), QPointF(m_foot.x(), m_foot.y() + 16) } };
        double lowest = at(0, m_rockerRow).y() + 24;
        for (const RoutePoint &p : m_out.points)
            if (p.label == RoutePoint::Below && p.at.y() > at(0, m_bigEndRow + 0.02).y())
                lowest = std::max(lowest, p.at.y() + 46);
        if (lowest < y - 8)
            for (const QPointF &p : m_drops)
                m_out.drops.push_back({ { QPointF(p.x(), lowest), QPointF(p.x(), y - 3) } });
    }

    std::vector<std::string> m_galleryNodes;
    std::vector<const Stop *> m_rows, m_below, m_stubs;
    const Stop *m_series = nullptr; ///< the row the mains hang on
    std::map<std::string, size_t> m_rowNodes;
    std::map<size_t, std::vector<const Stop *>> m_rowEnds;
    std::vector<QPointF> m_drops;
    QPointF m_end, m_foot;
    double m_galleryRow = 0.4, m_mainRow = 0.55, m_bigEndRow = 0.68, m_camRow = 0.8,
           m_rockerRow = 0.88, m_galleryStart = 0.34;
    double m_spacing = 100, m_stubStep = 0.085;
    bool m_twoABay = false;
};

} // namespace

RouteLayout layoutRoute(const Build &build, const QRectF &area)
{
    return Layout(build, area).run();
}

} // namespace mildpath
