// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/axis.h"

#include "quantity/rounding.h"
#include "surface/finish.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

double Axis::bent(double value) const
{
    switch (scale) {
    case Scale::Log:
        return std::log10(value);
    case Scale::Viscosity:
        return std::log10(std::log10(value * 1e6 + 0.7));
    case Scale::Quantile:
        return normalQuantile(value);
    case Scale::Kelvin:
        return std::log10(value + 273.15);
    case Scale::Linear:
        break;
    }
    return value;
}

double Axis::straight(double bent) const
{
    switch (scale) {
    case Scale::Log:
        return std::pow(10, bent);
    case Scale::Viscosity:
        return (std::pow(10, std::pow(10, bent)) - 0.7) * 1e-6;
    case Scale::Quantile:
        return 0.5 * std::erfc(-bent / std::sqrt(2.0));
    case Scale::Kelvin:
        return std::pow(10, bent) - 273.15;
    case Scale::Linear:
        break;
    }
    return bent;
}

double Axis::at(double value) const
{
    const double first = bent(from);
    return start + (bent(value) - first) / (bent(to) - first) * (end - start);
}

double Axis::valueAt(double pixel) const
{
    const double first = bent(from);
    return straight(first + (pixel - start) / (end - start) * (bent(to) - first));
}

std::vector<double> Axis::ticks() const
{
    if (!own.empty() || count <= 0)
        return own;
    if (scale != Scale::Log)
        return niceTicks(std::min(from, to), std::max(from, to), as, count);
    std::vector<double> out;
    for (double decade = std::pow(10, std::floor(std::log10(from))); decade <= to; decade *= 10)
        for (const double k : { 1.0, 2.0, 5.0 })
            if (decade * k >= from * (1 - 1e-9) && decade * k <= to * (1 + 1e-9))
                out.push_back(decade * k);
    return out;
}

QString Axis::tick(double value) const
{
    if (scale != Scale::Linear || !own.empty())
        return tickOf(value, as);
    // One count of decimals along the axis: 1.35, 1.40.
    int decimals = 0;
    for (const double v : ticks())
        decimals = std::max(decimals, decimalsOfTick(v, as));
    return qs(formatNumber(numberOf(value, as), decimals));
}

QString Axis::inWords(double value) const
{
    return mildpath::inWords(Quantity { value, as });
}

QString Axis::title() const
{
    return name.isEmpty() ? unitOf(as) : name;
}

void Axis::widen(double share)
{
    const double by
        = to > from ? share * (to - from) : std::max(1e-9, std::abs(to) * share + share);
    from -= by;
    to += by;
}

Axis Axis::between(double first, double last) const
{
    Axis out = *this;
    out.start = first;
    out.end = last;
    return out;
}

void drawAlong(QPainter &painter, const Axis &axis, const QRectF &area)
{
    const Theme &t = Theme::current();
    for (const double v : axis.ticks()) {
        const double x = axis.at(v);
        painter.setPen(QPen(t.line, 1));
        painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom() + 3));
        drawLine(painter, QRectF(x - 40, area.bottom() + 4, 80, 14), Qt::AlignHCenter, axis.tick(v),
                 textFont(TextSize::Small), t.muted);
    }
    drawLine(painter, QRectF(area.left(), area.bottom() + 18, area.width(), 14), Qt::AlignRight,
             axis.title(), textFont(TextSize::Small), t.muted);
}

void drawUpright(QPainter &painter, const Axis &axis, const QRectF &area)
{
    const Theme &t = Theme::current();
    for (const double v : axis.ticks()) {
        const double y = axis.at(v);
        painter.setPen(QPen(t.line, 1));
        painter.drawLine(QPointF(area.left() - 3, y), QPointF(area.right(), y));
        drawLine(painter, QRectF(area.left() - 60, y - 7, 54, 14),
                 Qt::AlignRight | Qt::AlignVCenter, axis.tick(v), textFont(TextSize::Small),
                 t.muted);
    }
    drawLine(painter, QRectF(area.left() - 34, area.top() - 18, area.width(), 14), Qt::AlignLeft,
             axis.title(), textFont(TextSize::Small), t.muted);
}

} // namespace mildpath
