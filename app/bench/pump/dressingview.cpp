// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/pump/dressingview.h"

#include "paint/text.h"

#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mildpath {

DressingView::DressingView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("dressingView"));
    setMinimumHeight(120);
}

void DressingView::setPlan(std::optional<DressingPlan> plan)
{
    m_plan = std::move(plan);
    setAccessibleName(m_plan ? tr("hot idle %1 now, %2 when dressed to %3")
                                   .arg(Figure::pressure(m_plan->now.gauge_pa).text(),
                                        Figure::pressure(m_plan->stop.gauge_pa).text(),
                                        Figure::limit(std::round(m_plan->stop.end_um)).text())
                             : tr("no dressing plan"));
    update();
}

void DressingView::paintEvent(QPaintEvent *)
{
    if (!m_plan || m_plan->points.size() < 2)
        return;
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QRectF area(40, 18, width() - 56.0, height() - 52.0);
    const double from = m_plan->points.front().end_um, to = m_plan->points.back().end_um;
    double low = 1e300, high = 0;
    for (const DressingPoint &d : m_plan->points) {
        low = std::min(low, d.gauge_pa);
        high = std::max(high, d.gauge_pa);
    }
    // Steps of a twentieth of a bar at least, so that nothing looks like a cliff that is none.
    const double step = high - low > 0.25e5 ? 0.1e5 : 0.05e5;
    low = std::floor(low / step - 0.5) * step;
    high = std::ceil(high / step + 0.5) * step;
    const auto x
        = [&](double um) { return area.left() + (from - um) / (from - to) * area.width(); };
    const auto y
        = [&](double pa) { return area.bottom() - (pa - low) / (high - low) * area.height(); };
    const QFont small = textFont(TextSize::Small);

    const double bind = std::clamp(x(rotorsBind_um), area.left(), area.right());
    p.fillRect(QRectF(bind, area.top(), area.right() - bind, area.height()), t.holdFill);
    drawLine(p, QRectF(area.right() - 150, area.top() - 16, 150, 14),
             Qt::AlignRight | Qt::AlignVCenter, tr("rotors may bind"), small, t.hold);
    for (const double pa : niceTicks(low, high, Shows::Pressure, 5)) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(area.left(), y(pa)), QPointF(area.right(), y(pa)));
        drawLine(p, QRectF(0, y(pa) - 8, 34, 16), Qt::AlignRight | Qt::AlignVCenter,
                 tickOf(pa, Shows::Pressure), small, t.muted);
    }
    drawLine(p, QRectF(0, 0, 200, 14), Qt::AlignVCenter,
             tr("%1, hot idle").arg(Figure::pressure(low).unit), small, t.muted);
    for (const double m : niceTicks(to * 1e-6, from * 1e-6, Shows::Clearance, 5))
        drawLine(p, QRectF(x(m * 1e6) - 20, area.bottom() + 3, 40, 15), Qt::AlignCenter,
                 tickOf(m, Shows::Clearance), small, t.muted);
    drawLine(p, QRectF(area.right() - 200, area.bottom() + 18, 200, 15),
             Qt::AlignRight | Qt::AlignVCenter, tr("end clearance, %1").arg(Figure::limit(to).unit),
             small, t.muted);

    QPainterPath curve;
    for (size_t i = 0; i < m_plan->points.size(); ++i) {
        const QPointF at(x(m_plan->points[i].end_um), y(m_plan->points[i].gauge_pa));
        i == 0 ? curve.moveTo(at) : curve.lineTo(at);
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.warm, 2));
    p.drawPath(curve);
    const auto dot = [&](const DressingPoint &d, bool filled, const QString &text, int align) {
        const QPointF at(x(d.end_um), y(d.gauge_pa));
        p.setPen(QPen(t.selection, 2));
        p.setBrush(filled ? t.selection : t.panel);
        p.drawEllipse(at, 6, 6);
        drawLine(p,
                 QRectF(at.x() - (align == Qt::AlignLeft ? 0 : 150), at.y() + (filled ? -25 : 9),
                        150, 15),
                 align | Qt::AlignVCenter, text, textFont(TextSize::Normal, true), t.selection);
    };
    if (m_plan->take_um() > 0.5)
        dot(m_plan->stop, true, tr("stop here"), Qt::AlignRight);
    dot(m_plan->now, false, tr("now"), Qt::AlignLeft);
}

} // namespace mildpath
