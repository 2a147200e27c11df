// SPDX-License-Identifier: GPL-3.0-or-later
// What is written on a chart, and where.
#include "plot/chartview.h"

#include <algorithm>
#include <cmath>

namespace mildpath {

void ChartView::paintWords(QPainter &painter)
{
    LabelSpace space(area().adjusted(1, 1, 2, -1));
    for (const ChartLine &l : m_chart.lines)
        if (l.width > 0)
            space.avoid(pixels(l));
    const QRectF r = area();
    for (const ChartMark &m : m_chart.marks) {
        const QPointF here
            = m.along == Qt::Vertical ? at(m.value, m_chart.y.from) : at(m_chart.x.from, m.value);
        space.avoid(
            m.along == Qt::Vertical
                ? QPolygonF { { QPointF(here.x(), r.top()), QPointF(here.x(), r.bottom()) } }
                : QPolygonF { { QPointF(r.left(), here.y()), QPointF(r.right(), here.y()) } });
    }
    for (const ChartDot &d : m_chart.dots)
        space.block(QRectF(at(d.x, d.y) - QPointF(6, 6), QSizeF(12, 12)));
    paintTitles(painter);
    if (m_chart.legend)
        paintLegend(painter, space);
    paintZoneNames(painter, space);
    paintOver(painter, space);
    paintDotNames(painter, space);
    paintMarkNames(painter, space);
    if (!m_chart.legend)
        paintLineNames(painter, space);
    m_words = space.words();
    m_blocked = space.blocked();
    paintReading(painter);
    if (hasFocus()) {
        painter.setPen(QPen(Theme::current().selection, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    }
}

void ChartView::paintTitles(QPainter &painter) const
{
    const QRectF r = area();
    const QFont small = textFont(TextSize::Small);
    const QColor muted = Theme::current().muted;
    const bool card = !m_chart.title.isEmpty();
    if (card) {
        painter.setPen(QPen(Theme::current().line, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 6, 6);
        drawLine(painter, QRectF(14, 6, width() - 28.0, 18), Qt::AlignVCenter, m_chart.title,
                 textFont(TextSize::Normal, true), Theme::current().ink);
    }
    drawLine(painter, QRectF(card ? 14 : 2, (card ? 26 : 2) + m_chart.headRoom, width() - 16.0, 15),
             Qt::AlignVCenter, m_chart.y.title(), small, muted);
    drawLine(
        painter,
        QRectF(r.left(), r.bottom() + 19, r.width() + std::min(m_chart.rightRoom, 10.0) - 4, 15),
        Qt::AlignRight | Qt::AlignVCenter, m_chart.x.title(), small, muted);
}

void ChartView::paintZoneNames(QPainter &painter, LabelSpace &space) const
{
    const QFont small = textFont(TextSize::Small);
    for (const ChartZone &z : m_chart.zones) {
        if (z.name.isEmpty())
            continue;
        const auto &x = m_chart.x, &y = m_chart.y;
        const QRectF r = QRectF(at(z.fromX.value_or(x.from), z.toY.value_or(y.to)),
                                at(z.toX.value_or(x.to), z.fromY.value_or(y.from)))
                             .intersected(area());
        const double w = std::min(widthOf(z.name, small), r.width());
        std::vector<QRectF> places;
        for (const double up : { 0.0, 1.0, 0.5, 0.25, 0.75 })
            for (const double across : { 0.5, 0.0, 1.0 })
                places.push_back({ r.left() + across * (r.width() - w),
                                   r.bottom() - 16 - up * std::max(0.0, r.height() - 16), w, 16 });
        drawLine(painter, space.findPlace(places), Qt::AlignCenter, z.name, small, z.ink);
    }
}

void ChartView::paintMarkNames(QPainter &painter, LabelSpace &space) const
{
    const QFont small = textFont(TextSize::Small);
    const QRectF r = area();
    LabelSpace head(QRectF(r.left(), r.top() - 17, r.width() + m_chart.rightRoom - 2, 16));
    for (const ChartMark &m : m_chart.marks) {
        if (m.text.isEmpty())
            continue;
        const double w = widthOf(m.text, small);
        std::vector<QRectF> places;
        if (m.along == Qt::Vertical) {
            const double x = at(m.value, m_chart.y.from).x();
            for (double up = 0; up < r.height() - 16; up += 16) {
                const double y = m.top ? r.top() - 17 : r.bottom() - 17 - up;
                for (const double left : { x + 3, x - w - 3 })
                    if (left >= r.left() && left + w <= r.right() + m_chart.rightRoom)
                        places.push_back({ left, y, w, 16 });
            }
        } else {
            const double y = at(m_chart.x.from, m.value).y();
            for (const double across : { 1.0, 0.0, 0.5, 0.75, 0.25 })
                for (const double top : { y - 17, y + 1 })
                    places.push_back({ r.left() + 4 + across * (r.width() - w - 8), top, w, 16 });
        }
        if (!places.empty())
            drawLine(painter, (m.top ? head : space).findPlace(places), Qt::AlignCenter, m.text,
                     small, m.colour);
    }
}

/// Near where it would like to stand, above or below the curve, then farther along.
void ChartView::paintLineNames(QPainter &painter, LabelSpace &space) const
{
    const QRectF r = area();
    for (const ChartLine &l : m_chart.lines) {
        if (l.name.isEmpty() || l.x.empty())
            continue;
        const bool main = l.pen == Qt::SolidLine;
        const QFont font = textFont(main ? TextSize::Normal : TextSize::Small, main);
        const double w = widthOf(l.name, font), h = 17;
        std::vector<QRectF> places;
        for (const double away :
             { 0.0, 0.06, -0.06, 0.12, -0.12, 0.2, -0.2, 0.3, -0.3, 0.45, -0.45 })
            for (const double gap : { 3.0, 12.0 }) {
                const double pixel = r.left() + (l.labelAt + away) * r.width();
                const auto y = heightAt(l, m_chart.x.between(r.left(), r.right()).valueAt(pixel));
                if (!y || !std::isfinite(*y))
                    continue;
                const double py = at(m_chart.x.from, *y).y();
                if (py < r.top() || py > r.bottom())
                    continue;
                for (const double top : { py - h - gap, py + gap })
                    for (const double left : { pixel - w, pixel, pixel - w / 2 })
                        places.push_back({ left, top, w, h });
            }
        if (!places.empty())
            drawLine(painter, space.findPlace(places), Qt::AlignCenter, l.name, font, l.colour);
    }
}

void ChartView::paintDotNames(QPainter &painter, LabelSpace &space) const
{
    const QFont bold = textFont(TextSize::Normal, true);
    for (const ChartDot &d : m_chart.dots) {
        if (d.name.isEmpty())
            continue;
        const QPointF here = at(d.x, d.y);
        const double w = widthOf(d.name, bold), h = 16;
        std::vector<QRectF> places;
        for (const double away : { 0.0, 12.0, 26.0 })
            for (const double top : { here.y() - h - 8 - away, here.y() + 8 + away })
                for (const double left : { here.x() - w / 2, here.x() + 2, here.x() - w - 2 })
                    places.push_back({ left, top, w, h });
        drawLine(painter, space.findPlace(places), Qt::AlignCenter, d.name, bold, d.colour);
    }
}

void ChartView::paintLegend(QPainter &painter, LabelSpace &space) const
{
    const QFont small = textFont(TextSize::Small);
    const QRectF r = area();
    double w = 0, rows = 0;
    for (const ChartLine &l : m_chart.lines)
        if (!l.name.isEmpty()) {
            w = std::max(w, widthOf(l.name, small) + 40);
            ++rows;
        }
    const double h = 15 * rows + 6;
    w = std::min(w, r.width() - 4);
    std::vector<QRectF> places;
    for (const double up : { 0.0, 1.0 })
        for (const double across : { 0.0, 1.0, 0.5 })
            places.push_back({ r.left() + 4 + across * (r.width() - w - 8),
                               r.bottom() - 4 - h - up * (r.height() - h - 8), w, h });
    const QRectF box = space.findPlace(places);
    QColor back = ground();
    back.setAlpha(225);
    painter.fillRect(box, back);
    double y = box.top() + 3;
    for (const ChartLine &l : m_chart.lines) {
        if (l.name.isEmpty())
            continue;
        painter.setPen(QPen(l.colour, l.width, l.pen));
        painter.drawLine(QPointF(box.left() + 4, y + 8), QPointF(box.left() + 28, y + 8));
        drawLine(painter, QRectF(box.left() + 34, y, w - 36, 15), Qt::AlignVCenter, l.name, small,
                 Theme::current().ink);
        y += 15;
    }
}

void ChartView::paintReading(QPainter &painter) const
{
    if (!m_pointed)
        return;
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    const QRectF r = area();
    QStringList lines = readAt(*m_pointed);
    lines << tr("click, Enter: as a table");
    const double x = at(*m_pointed, m_chart.y.from).x();
    painter.setPen(QPen(t.muted, 1));
    painter.drawLine(QPointF(x, r.top()), QPointF(x, r.bottom()));
    double w = 0;
    for (const QString &l : lines)
        w = std::max(w, widthOf(l, small) + 6);
    const bool left = x + w + 10 > r.right();
    QRectF box(left ? x - w - 6 : x + 6, r.top() + 4, w,
               15.0 * static_cast<double>(lines.size()) + 6);
    drawCard(painter, box);
    box.adjust(5, 3, -3, -3);
    for (const QString &l : lines) {
        drawLine(painter, QRectF(box.left(), box.top(), box.width(), 15), Qt::AlignVCenter, l,
                 small, &l == &lines.back() ? t.muted : t.ink);
        box.setTop(box.top() + 15);
    }
}

} // namespace mildpath
