// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/marks.h"

#include "paint/theme.h"

#include <QPolygonF>

namespace mildpath {
namespace {

/// The strip is dark in both themes, so its marks take the light tones.
QColor onStripColour(Mark mark)
{
    switch (mark) {
    case Mark::Proven:
        return QColor::fromRgb(0x6CC0A0);
    case Mark::LookAgain:
        return QColor::fromRgb(0xE3A84A);
    case Mark::Hold:
        return QColor::fromRgb(0xEE8578);
    case Mark::Assumed:
        return QColor::fromRgb(0x6CC0A0);
    case Mark::SignedOff:
    case Mark::NotAsked:
    case Mark::NotDone:
        break;
    }
    return Theme::current().stripMuted;
}

} // namespace

void drawMark(QPainter &painter, QPointF centre, double size, Mark mark, bool onStrip)
{
    const Theme &t = Theme::current();
    const QColor colour = onStrip ? onStripColour(mark) : t.mark(mark);
    const QColor inside = onStrip ? t.strip : t.panel;
    const double r = size / 2;
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    switch (mark) {
    case Mark::Proven: {
        painter.drawEllipse(centre, r, r);
        painter.setPen(QPen(inside, size * 0.15, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        painter.setBrush(Qt::NoBrush);
        painter.drawPolyline(QPolygonF { { centre + QPointF(-0.45 * r, 0.05 * r),
                                           centre + QPointF(-0.1 * r, 0.42 * r),
                                           centre + QPointF(0.5 * r, -0.35 * r) } });
        break;
    }
    case Mark::LookAgain:
        painter.drawPolygon(
            QPolygonF { { centre + QPointF(0, -r * 1.1), centre + QPointF(r * 1.1, 0),
                          centre + QPointF(0, r * 1.1), centre + QPointF(-r * 1.1, 0) } });
        break;
    case Mark::Hold:
        painter.drawRoundedRect(QRectF(centre.x() - r, centre.y() - r, size, size), 1, 1);
        painter.setPen(QPen(inside, size * 0.18, Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(centre + QPointF(-0.5 * r, 0), centre + QPointF(0.5 * r, 0));
        break;
    case Mark::NotDone:
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(colour, size * 0.11));
        painter.drawEllipse(centre, r * 0.82, r * 0.82);
        break;
    case Mark::SignedOff: // a ring struck through
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(colour, size * 0.11));
        painter.drawEllipse(centre, r * 0.82, r * 0.82);
        painter.drawLine(centre + QPointF(-0.75 * r, 0.75 * r),
                         centre + QPointF(0.75 * r, -0.75 * r));
        break;
    case Mark::NotAsked:
        painter.setPen(QPen(colour, size * 0.11));
        painter.drawLine(centre - QPointF(0.5 * r, 0), centre + QPointF(0.5 * r, 0));
        break;
    case Mark::Assumed: // green, hollow: never the tick of what was measured
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(colour, size * 0.15));
        painter.drawEllipse(centre, r * 0.8, r * 0.8);
        painter.setPen(Qt::NoPen);
        painter.setBrush(colour);
        painter.drawEllipse(centre, r * 0.28, r * 0.28);
        break;
    }
    painter.restore();
}

} // namespace mildpath
