// SPDX-License-Identifier: GPL-3.0-or-later
#include "paint/axes.h"

#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

double Axis::at(double value) const
{
    const double part
        = log ? std::log(value / from) / std::log(to / from) : (value - from) / (to - from);
    return start + part * (end - start);
}

double Axis::valueAt(double pixel) const
{
    const double part = (pixel - start) / (end - start);
    return log ? from * std::pow(to / from, part) : from + part * (to - from);
}

std::vector<double> Axis::ticks(int count) const
{
    if (!log)
        return niceTicks(from, to, Shows::Number, count);
    std::vector<double> out;
    for (double decade = std::pow(10, std::floor(std::log10(from))); decade <= to; decade *= 10)
        for (const double k : { 1.0, 2.0, 5.0 })
            if (decade * k >= from * (1 - 1e-9) && decade * k <= to * (1 + 1e-9))
                out.push_back(decade * k);
    return out;
}

void Axis::widen(double share)
{
    const double by
        = to > from ? share * (to - from) : std::max(1e-9, std::abs(to) * share + share);
    from -= by;
    to += by;
}

QString tickText(double value, double step)
{
    int decimals = 0;
    for (double s = std::abs(step); decimals < 4 && std::abs(s - std::round(s)) > 1e-6 * s; s *= 10)
        ++decimals;
    return qs(formatNumber(value, decimals));
}

void drawAlong(QPainter &painter, const Axis &axis, const QRectF &area, const QString &name,
               int count)
{
    const Theme &t = Theme::current();
    const std::vector<double> ticks = axis.ticks(count);
    const double step = ticks.size() > 1 ? ticks[1] - ticks[0] : 1;
    for (const double v : ticks) {
        const double x = axis.at(v);
        painter.setPen(QPen(t.line, 1));
        painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom() + 3));
        drawLine(painter, QRectF(x - 40, area.bottom() + 4, 80, 14), Qt::AlignHCenter,
                 axis.log ? tickText(v, v) : tickText(v, step), textFont(TextSize::Small), t.muted);
    }
    drawLine(painter, QRectF(area.left(), area.bottom() + 18, area.width(), 14), Qt::AlignRight,
             name, textFont(TextSize::Small), t.muted);
}

void drawUpright(QPainter &painter, const Axis &axis, const QRectF &area, const QString &name,
                 int count)
{
    const Theme &t = Theme::current();
    const std::vector<double> ticks = axis.ticks(count);
    const double step = ticks.size() > 1 ? ticks[1] - ticks[0] : 1;
    for (const double v : ticks) {
        const double y = axis.at(v);
        painter.setPen(QPen(t.line, 1));
        painter.drawLine(QPointF(area.left() - 3, y), QPointF(area.right(), y));
        drawLine(painter, QRectF(area.left() - 60, y - 7, 54, 14),
                 Qt::AlignRight | Qt::AlignVCenter, axis.log ? tickText(v, v) : tickText(v, step),
                 textFont(TextSize::Small), t.muted);
    }
    drawLine(painter, QRectF(area.left() - 34, area.top() - 18, area.width(), 14), Qt::AlignLeft,
             name, textFont(TextSize::Small), t.muted);
}

} // namespace mildpath
