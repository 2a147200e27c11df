// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/shellview.h"

#include "bearing/clearance.h"
#include "document/document.h"
#include "paint/text.h"

#include <QCoreApplication>
#include <QPainterPath>

#include <cmath>
#include <set>

namespace mildpath {
namespace {

QPainterPath ringPiece(QPointF centre, double outer, double inner, double from_deg, double span_deg)
{
    QPainterPath path;
    const QRectF big(centre.x() - outer, centre.y() - outer, 2 * outer, 2 * outer);
    const QRectF small(centre.x() - inner, centre.y() - inner, 2 * inner, 2 * inner);
    path.arcMoveTo(big, from_deg);
    path.arcTo(big, from_deg, span_deg);
    path.arcTo(small, from_deg + span_deg, -span_deg);
    path.closeSubpath();
    return path;
}

} // namespace

ShellView::ShellView(QWidget *parent)
    : QWidget(parent)
{
    setFixedSize(158, 170);
    setAccessibleName(QCoreApplication::translate(
        "ShellView", "Shell from the end; do not gauge within 30 degrees of the parting line"));
}

void ShellView::setCurrent(double angle_deg)
{
    m_angle = angle_deg;
    update();
}

void ShellView::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const QPointF c(width() / 2.0, 78);
    const double outer = 58, inner = 48;
    p.setPen(Qt::NoPen);
    p.setBrush(t.line);
    p.drawPath(ringPiece(c, outer, inner, 0, 360));
    p.setBrush(t.holdFill);
    for (const double side : { -neverWithin_deg, 180 - neverWithin_deg })
        p.drawPath(ringPiece(c, outer, inner, side, 2 * neverWithin_deg));
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(t.ink, 1.6));
    p.drawEllipse(c, outer, outer);
    p.drawEllipse(c, inner, inner);
    p.setPen(QPen(t.muted, 1, Qt::DashLine));
    p.drawLine(c - QPointF(outer + 14, 0), c + QPointF(outer + 14, 0));

    std::set<double> drawn;
    for (const ReadingPosition &position : readingPlan(*findFamily("main"), Stop {})) {
        if (!drawn.insert(position.angle_deg).second)
            continue;
        const double a = position.angle_deg * 3.14159265358979 / 180;
        const QPointF along(std::cos(a), -std::sin(a));
        const bool current = position.angle_deg == m_angle;
        p.setPen(QPen(current ? t.selection : t.muted, current ? 3.2 : 1.4, Qt::SolidLine,
                      Qt::RoundCap));
        p.drawLine(c - along * (inner - 3), c + along * (inner - 3));
        drawLine(p, QRectF(c + along * (outer + 11) - QPointF(10, 9), QSizeF(20, 18)),
                 Qt::AlignCenter, qs(position.name).left(1), textFont(TextSize::Normal, current),
                 current ? t.selection : t.muted);
    }
    drawLine(p, QRectF(0, 151, width(), 16), Qt::AlignCenter,
             QCoreApplication::translate("ShellView", "never near the parting line"),
             textFont(TextSize::Small), t.hold);
}

} // namespace mildpath
