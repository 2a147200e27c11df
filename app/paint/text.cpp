// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/text.h"

#include "quantity/rounding.h"

#include <QLabel>

#include <QFontMetricsF>

#include <algorithm>
#include <cmath>

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

double widthOf(const QString &text, const QFont &font)
{
    return QFontMetricsF(font).horizontalAdvance(text) + 6;
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

std::vector<double> niceTicks(double from, double to, Shows as, int count, UnitSystem system)
{
    const double first = inShownUnit(from, as, system), last = inShownUnit(to, as, system);
    const double rough = (last - first) / std::max(1, count);
    const double decade = std::pow(10, std::floor(std::log10(rough)));
    const double part = rough / decade;
    const double step = decade * (part > 5 ? 10 : part > 2 ? 5 : part > 1 ? 2 : 1);
    std::vector<double> out;
    for (double at = std::ceil(first / step - 1e-9) * step; at <= last + 1e-9 * step; at += step)
        out.push_back(fromShownUnit(std::abs(at) < 1e-9 * step ? 0 : at, as, system));
    return out;
}

int decimalsOfTick(double value, Shows as, UnitSystem system)
{
    double n = inShownUnit(value, as, system);
    int decimals = 0;
    for (; decimals < 3 && std::abs(n - std::round(n)) > 1e-6 * std::max(1.0, std::abs(n)); n *= 10)
        ++decimals;
    return decimals;
}

QString tickOf(double value, Shows as, UnitSystem system)
{
    return qs(formatNumber(inShownUnit(value, as, system), decimalsOfTick(value, as, system)));
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
