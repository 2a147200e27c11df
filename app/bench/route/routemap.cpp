// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/route/routemap.h"

#include "assess/figuremarks.h"
#include "assess/finding.h"
#include "checks/judgement.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mildpath {

RouteMap::RouteMap(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("routeMap"));
    setMinimumSize(560, 420);
    setAccessibleName(tr("Map of the oil's way; the same figures stand in the side panel"));
    connect(&open, &OpenBuild::opened, this, &RouteMap::relayout);
}

void RouteMap::relayout()
{
    m_layout = layoutRoute(m_open.build(), QRectF(rect()).adjusted(8, 2, -4, -22));
    update();
}

void RouteMap::resizeEvent(QResizeEvent *)
{
    relayout();
}

void RouteMap::setResult(std::optional<OperatingResult> result,
                         std::optional<OperatingResult> before)
{
    m_result = std::move(result);
    m_before = std::move(before);
    m_mostFlow = m_result ? std::max(1e-9, m_result->pumpFlow_m3_s) : 1;
    update();
}

QPointF RouteMap::placeOf(const QString &stop) const
{
    for (const RoutePoint &p : m_layout.points)
        if (p.stop == stop)
            return p.at;
    return {};
}

Mark RouteMap::markOf(const QString &stop) const
{
    return worstMark(m_open.judgement().marksOf(stop.toStdString()));
}

QString RouteMap::figureOf(const RoutePoint &point, const OperatingResult &result) const
{
    if (point.node.empty()) {
        // Outlets have no pressure of their own; what they pass is what one wants to know.
        for (const RouteLine &line : m_layout.lines)
            if (line.outlet && line.path.back() == point.at) {
                const double q = result.elementFlow_m3_s.at(line.element);
                return q < 0.01 / litresPerMinute ? tr("shut") : Figure::flow(q).number;
            }
        return {};
    }
    for (const PointPressure &p : result.points)
        if (p.node == point.node && qs(p.stop) == point.stop)
            return Figure::pressure(p.pressure_pa).number;
    return {};
}

/// The figure of a point; with faults imagined before and after, where they differ by more than
/// what all the others differ by.
QString RouteMap::figures(const RoutePoint &point) const
{
    if (!m_result)
        return {};
    const QString now = figureOf(point, *m_result);
    // On a narrow map two figures would run into the neighbour's; the panel tells both.
    constexpr int roomForTwo = 760;
    if (!m_before || point.small || width() < roomForTwo || !suffers(point, 0.95))
        return now;
    return figureOf(point, *m_before) + QStringLiteral(" → ") + now;
}

/// Whether what is imagined leaves a point less than this share of its pressure.
bool RouteMap::suffers(const RoutePoint &point, double share) const
{
    if (!m_before || !m_result)
        return false;
    const auto at = [&](const OperatingResult &r) {
        const auto it = r.nodePressure_pa.find(point.node);
        return it == r.nodePressure_pa.end() ? 0.0 : it->second;
    };
    return at(*m_before) > 1e3 && at(*m_result) < share * at(*m_before);
}

/// Whether what is imagined takes from a point what it needs.
bool RouteMap::starves(const RoutePoint &point) const
{
    if (!m_before || !m_result)
        return false;
    for (const PointPressure &p : m_result->points)
        if (p.node == point.node && qs(p.stop) == point.stop)
            return p.need_pa > 0 && p.ratio() < 1;
    return false;
}

void RouteMap::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    paintReturns(p);
    for (const RouteLine &line : m_layout.lines)
        paintLine(p, line);
    paintGauge(p);
    for (const RoutePoint &point : m_layout.points)
        paintPoint(p, point);
    paintKey(p);
    const Theme &t = Theme::current();
    if (m_result && !m_layout.galleryLabel.isNull())
        drawLine(p, QRectF(m_layout.galleryLabel + QPointF(0, 9), QSizeF(150, 16)),
                 Qt::AlignVCenter, tr("main gallery"), textFont(TextSize::Small), t.muted);
    for (const auto &[where, name] : m_layout.captions)
        drawLine(p, QRectF(where - QPointF(150, 8), QSizeF(150, 16)),
                 Qt::AlignVCenter | Qt::AlignRight, name, textFont(TextSize::Small), t.muted);
    if (!m_result)
        drawLine(p, rect(), Qt::AlignCenter, tr("no solution at this speed and temperature"),
                 textFont(TextSize::Title), t.hold);
}

void RouteMap::paintReturns(QPainter &p) const
{
    const Theme &t = Theme::current();
    p.setPen(QPen(t.returns, 1.6, Qt::DotLine));
    p.setBrush(Qt::NoBrush);
    p.drawPolyline(m_layout.returns);
    for (const QPolygonF &drop : m_layout.drops)
        p.drawPolyline(drop);
    if (m_layout.returns.size() > 3)
        drawLine(p, QRectF(m_layout.returns[3].x() + 180, m_layout.returns[3].y() + 3, 200, 16),
                 Qt::AlignVCenter, tr("drain-back to sump"), textFont(TextSize::Small), t.muted);
}

void RouteMap::paintLine(QPainter &p, const RouteLine &line) const
{
    const Theme &t = Theme::current();
    double width = 4, pressure = 0;
    bool still = true;
    if (m_result) {
        const auto flow = m_result->elementFlow_m3_s.find(line.element);
        const double q = flow == m_result->elementFlow_m3_s.end() ? 0 : std::abs(flow->second);
        width = 2.5 + 10.5 * std::sqrt(std::min(1.0, q / m_mostFlow));
        still = q < 1e-4 * m_mostFlow;
        const auto at = [&](const std::string &node) {
            const auto it = m_result->nodePressure_pa.find(node);
            return it == m_result->nodePressure_pa.end() ? 0.0 : it->second;
        };
        // An outlet shows what stands before it; a passage the mean of its ends.
        pressure = line.outlet ? at(line.fromNode) : (at(line.fromNode) + at(line.toNode)) / 2;
    }
    QPainterPath path;
    path.addPolygon(line.path);
    const QColor tone = still ? t.line : t.pressure(pressure);
    const QColor casing = t.dark ? t.bench : tone.darker(118);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(casing, width + 2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPath(path);
    p.setPen(QPen(tone, width, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.drawPath(path);
    if (line.outlet) {
        p.setPen(QPen(t.muted, 1.4));
        const QPointF end = line.path.back();
        p.drawLine(end + QPointF(-5, 0), end + QPointF(5, 0));
    }
}

void RouteMap::paintPoint(QPainter &p, const RoutePoint &point) const
{
    const Theme &t = Theme::current();
    const bool selected = point.stop == m_open.selectedStop();
    const double r = point.small ? 7 : 10;
    if (selected) {
        p.setPen(QPen(t.selection, 2.5));
        p.setBrush(Qt::NoBrush);
        p.drawEllipse(point.at, r + 4, r + 4);
    }
    p.setPen(QPen(t.ink, point.small ? 1.5 : 2));
    p.setBrush(t.panel);
    p.drawEllipse(point.at, r, r);
    const Mark mark = markOf(point.stop);
    if (mark != Mark::NotDone)
        drawMark(p, point.at, point.small ? 9 : 12, mark);

    const QString figure = figures(point);
    const QFont nameFont = textFont(point.small ? TextSize::Small : TextSize::Normal);
    const QFont figureFont = textFont(TextSize::Normal, true);
    const QColor nameColour = selected ? t.selection : point.small ? t.muted : t.ink;
    const double gap = r + 6;
    QRectF nameArea, figureArea;
    int flags = Qt::AlignVCenter;
    switch (point.label) {
    case RoutePoint::Right:
        nameArea = QRectF(point.at + QPointF(gap, -16), QSizeF(120, 16));
        figureArea = nameArea.translated(0, 16);
        break;
    case RoutePoint::Left:
        nameArea = QRectF(point.at + QPointF(-gap - 90, -16), QSizeF(90, 16));
        figureArea = nameArea.translated(0, 15);
        flags |= Qt::AlignRight;
        break;
    case RoutePoint::AboveLoop:
        nameArea = QRectF(point.at + QPointF(-45, -46), QSizeF(90, 15));
        flags |= Qt::AlignHCenter;
        break;
    case RoutePoint::Above:
        nameArea = QRectF(point.at + QPointF(-50, -gap - 30), QSizeF(100, 15));
        figureArea = nameArea.translated(0, 15);
        flags |= Qt::AlignHCenter;
        break;
    case RoutePoint::Below:
        nameArea = QRectF(point.at + QPointF(-50, gap - 3), QSizeF(100, 16));
        figureArea = nameArea.translated(0, 16);
        flags |= Qt::AlignHCenter;
        break;
    }
    drawLine(p, nameArea, flags, point.name, nameFont, nameColour);
    drawLine(p, figureArea, flags, figure, figureFont,
             starves(point)            ? t.hold
                 : suffers(point, 0.8) ? t.lookAgain
                                       : t.ink);
}

void RouteMap::paintGauge(QPainter &p) const
{
    if (m_layout.gaugeLine.isEmpty())
        return;
    const Theme &t = Theme::current();
    p.setPen(QPen(t.ink, 1.5));
    p.drawPolyline(m_layout.gaugeLine);
    p.setPen(QPen(t.dark ? t.line : t.strip, 1.5));
    p.setBrush(t.strip);
    p.drawEllipse(m_layout.gauge, 17, 17);
    const QString figure = m_result ? Figure::pressure(m_result->gauge.value_pa).number : QString();
    drawLine(p, QRectF(m_layout.gauge - QPointF(17, 9), QSizeF(34, 18)), Qt::AlignCenter, figure,
             textFont(TextSize::Normal, true), t.stripInk);
    drawLine(p, QRectF(m_layout.gauge + QPointF(-60, -35), QSizeF(120, 16)), Qt::AlignCenter,
             m_before ? tr("was %1").arg(Figure::pressure(m_before->gauge.value_pa).number)
                      : tr("gauge"),
             textFont(TextSize::Small), t.muted);
}

void RouteMap::paintKey(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont font = textFont(TextSize::Small);
    const double y = height() - 12;
    double x = m_layout.area.left();
    const auto word = [&](const QString &text, const QColor &colour, double gap) {
        const double w = QFontMetricsF(font).horizontalAdvance(text);
        drawLine(p, QRectF(x, y - 8, w + 2, 16), Qt::AlignVCenter, text, font, colour);
        x += w + gap;
    };
    word(QStringLiteral("0"), t.muted, 5);
    const double ramp = 96;
    for (int i = 0; i < static_cast<int>(ramp); ++i)
        p.fillRect(QRectF(x + i, y - 4, 1.5, 8), t.pressure(5e5 * i / ramp));
    x += ramp + 5;
    word(inWords(asPressure(5e5, 0)), t.muted, 12);
    word(tr("width: flow"), t.muted, 18);
    for (const Mark mark :
         { Mark::Proven, Mark::LookAgain, Mark::Hold, Mark::NotDone, Mark::SignedOff }) {
        drawMark(p, QPointF(x + 5, y), 10, mark);
        x += 15;
        word(qs(markWord(mark)), t.muted, 14);
    }
}

const RoutePoint *RouteMap::pointAt(QPointF where) const
{
    const RoutePoint *best = nullptr;
    double nearest = 26;
    for (const RoutePoint &p : m_layout.points) {
        const double distance = std::hypot(p.at.x() - where.x(), p.at.y() - where.y());
        if (distance < nearest) {
            nearest = distance;
            best = &p;
        }
    }
    return best;
}

void RouteMap::mousePressEvent(QMouseEvent *event)
{
    if (const RoutePoint *p = pointAt(event->position()))
        m_open.selectStop(p->stop);
}

bool RouteMap::event(QEvent *event)
{
    if (event->type() != QEvent::ToolTip)
        return QWidget::event(event);
    auto *help = static_cast<QHelpEvent *>(event);
    const RoutePoint *p = pointAt(help->pos());
    const StopMarks *m = p ? m_open.judgement().marksOf(p->stop.toStdString()) : nullptr;
    if (!m) {
        QToolTip::hideText();
        return true;
    }
    QToolTip::showText(
        help->globalPos(),
        tr("%1\nsize: %2\nclean: %3\nflow: %4")
            .arg(p->name, qs(markWord(m->size)), qs(markWord(m->clean)), qs(markWord(m->flow))),
        this);
    return true;
}

} // namespace mildpath
