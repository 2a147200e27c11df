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

namespace {

constexpr double dial = 17; ///< radius of the gauge's

QFont nameFontOf(const RoutePoint &point)
{
    return textFont(point.small ? TextSize::Small : TextSize::Normal);
}

QFont figureFont()
{
    return textFont(TextSize::Normal, true);
}

/// "3" of "Lifter 3", where there is a number to know it by.
QString briefOf(const RoutePoint &point)
{
    if (!point.brief.isEmpty())
        return point.brief;
    const QString last = point.name.section(u' ', -1);
    const bool number = !last.isEmpty()
        && std::all_of(last.begin(), last.end(), [](QChar c) { return c.isDigit(); });
    return number && last != point.name ? last : QString();
}

} // namespace

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
    label();
    update();
}

QRectF RouteMap::captionArea(const QPointF &where, const QString &name) const
{
    const QFont font = textFont(TextSize::Small);
    const double width = std::min(150.0, widthOf(name, font)),
                 height = QFontMetricsF(font).height();
    return { where.x() - width, where.y() - height / 2, width, height };
}

QRectF RouteMap::galleryArea() const
{
    const QFont font = textFont(TextSize::Small);
    return { m_layout.galleryLabel + QPointF(0, 9),
             QSizeF(widthOf(tr("main gallery"), font), QFontMetricsF(font).height()) };
}

void RouteMap::label()
{
    std::vector<QRectF> taken;
    for (const auto &[where, name] : m_layout.captions)
        taken.push_back(captionArea(where, name));
    if (!m_layout.galleryLabel.isNull())
        taken.push_back(galleryArea());
    if (!m_layout.gaugeLine.isEmpty())
        taken.emplace_back(m_layout.gauge - QPointF(dial + 4, dial + 18),
                           QSizeF(2 * dial + 8, 2 * dial + 20));
    std::vector<RouteWords> words;
    for (const RoutePoint &point : m_layout.points)
        words.push_back(
            { point.name, briefOf(point), figures(point), nameFontOf(point), figureFont() });
    m_labels = placeLabels(m_layout, words, taken);
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
    label();
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
                // Of the build before, a result does not know the line.
                const auto flow = result.elementFlow_m3_s.find(line.element);
                if (flow == result.elementFlow_m3_s.end())
                    return {};
                const double q = flow->second;
                return q < 0.01 / litresPerMinute ? tr("shut") : Figure::flow(q).text();
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
    for (size_t i = 0; i < m_layout.points.size(); ++i)
        paintPoint(p, m_layout.points[i], m_labels[i]);
    paintKey(p);
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    if (m_result && !m_layout.galleryLabel.isNull())
        drawLine(p, galleryArea(), Qt::AlignVCenter, tr("main gallery"), small, t.muted);
    for (const auto &[where, name] : m_layout.captions)
        drawLine(p, captionArea(where, name), Qt::AlignVCenter | Qt::AlignRight, name, small,
                 t.muted);
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
    for (const QPolygonF &join : m_layout.joins)
        p.drawPolyline(join);
    if (m_layout.returns.size() > 5)
        drawLine(p, QRectF(m_layout.returns[5].x() + 60, m_layout.returns[5].y() + 3, 200, 16),
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

void RouteMap::paintPoint(QPainter &p, const RoutePoint &point, const RouteLabel &label) const
{
    const Theme &t = Theme::current();
    const bool selected = point.stop == m_open.selectedStop();
    const double r = radiusOf(point);
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

    const Qt::Alignment across = label.align | Qt::AlignVCenter;
    drawLine(p, label.nameArea, static_cast<int>(across), label.name, nameFontOf(point),
             selected          ? t.selection
                 : point.small ? t.muted
                               : t.ink);
    drawLine(p, label.figureArea, static_cast<int>(across), label.figure, figureFont(),
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
    p.drawEllipse(m_layout.gauge, dial, dial);
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
    word(tr("width: flow"), t.muted, 12);
    word(tr("figures: %1").arg(unitOf(Shows::Pressure)), t.muted, 18);
    for (const Mark mark :
         { Mark::Proven, Mark::LookAgain, Mark::Hold, Mark::NotDone, Mark::SignedOff }) {
        drawMark(p, QPointF(x + 5, y), 10, mark);
        x += 15;
        word(qs(markWord(mark)), t.muted, 14);
    }
    if (!m_layout.notDrawn.empty()) {
        QStringList names(m_layout.notDrawn.begin(), m_layout.notDrawn.end());
        word(tr("not drawn: %1").arg(names.join(QStringLiteral(", "))), t.muted, 0);
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
