// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/text.h"

#include <QLabel>

#include <QFontMetricsF>

namespace mildpath {

void drawLine(QPainter &painter, const QRectF &area, int flags, const QString &text,
              const QFont &font, const QColor &colour)
{
    painter.setFont(font);
    painter.setPen(colour);
    const QFontMetricsF metrics(font);
    // Half a pixel of rounding must not cost the last letter.
    const QString fitting = metrics.elidedText(text, Qt::ElideRight, area.width() + 1);
    painter.drawText(area, flags | Qt::TextSingleLine, fitting);
}

double drawFigure(QPainter &painter, QPointF rightBaseline, const Shown &value, const QFont &font,
                  const QColor &colour, const QColor &unitColour)
{
    const QFont unitFont = textFont(TextSize::Small);
    const QString unit = value.unit.isEmpty() ? QString() : u' ' + value.unit;
    const double unitWidth = QFontMetricsF(unitFont).horizontalAdvance(unit);
    const double numberWidth = QFontMetricsF(font).horizontalAdvance(value.number);
    painter.setFont(font);
    painter.setPen(colour);
    painter.drawText(QPointF(rightBaseline.x() - unitWidth - numberWidth, rightBaseline.y()),
                     value.number);
    painter.setFont(unitFont);
    painter.setPen(unitColour);
    painter.drawText(QPointF(rightBaseline.x() - unitWidth, rightBaseline.y()), unit);
    return unitWidth + numberWidth;
}

void drawCard(QPainter &painter, const QRectF &area)
{
    const Theme &t = Theme::current();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(t.line, 1));
    painter.setBrush(t.panel);
    painter.drawRoundedRect(area.adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
    painter.restore();
}

void setTone(QLabel *label, const QColor &colour)
{
    QPalette palette = label->palette();
    palette.setColor(QPalette::WindowText, colour);
    label->setPalette(palette);
}

} // namespace mildpath
