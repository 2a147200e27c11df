// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/findway.h"

#include "paint/text.h"

#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>
#include <map>

namespace mildpath {
namespace {

QColor toneOf(const std::string &colour, const Theme &t)
{
    if (colour == "copper")
        return t.oil[2];
    if (colour == "bright")
        return t.panel;
    if (colour == "black")
        return t.ink;
    if (colour == "brown")
        return t.oil[4];
    return t.faint;
}

double sizeOfGrain(const std::string &size)
{
    return size == "speck" ? 5
        : size == "grit"   ? 8
        : size == "flake"  ? 12
        : size == "curl"   ? 15
                           : 18;
}

} // namespace

FindWay::FindWay(const OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("findWay"));
    setFixedHeight(128);
}

void FindWay::setFinds(std::vector<const DebrisFind *> finds, int chosen)
{
    m_finds = std::move(finds);
    m_chosen = chosen;
    layOut();
    update();
}

void FindWay::layOut()
{
    m_grains.clear();
    m_stops.clear();
    const auto &stops = m_open.build().engine.stops;
    const double left = 14, right = width() - 14.0, y = height() - 42.0;
    std::map<double, double> heap; // x → how high it is already
    for (const DebrisFind *f : m_finds) {
        size_t i = 0;
        while (i < stops.size() && stops[i].id != f->stop)
            ++i;
        // What lay elsewhere stands at the very end.
        const double x = left
            + (right - left) * static_cast<double>(std::min(i, stops.size()))
                / static_cast<double>(std::max<size_t>(1, stops.size()));
        const QString where = i < stops.size() ? qs(stops[i].name) : tr("elsewhere");
        if (!heap.contains(x))
            m_stops.push_back({ x, where });
        const double size = sizeOfGrain(f->size);
        double &high = heap[x];
        m_grains.push_back(
            { QPointF(x, y - 10 - high - size / 2), size, f->colour, f->magnetic, where });
        high += size + 4;
    }
    std::sort(m_stops.begin(), m_stops.end(),
              [](const auto &a, const auto &b) { return a.first < b.first; });
}

void FindWay::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme &t = Theme::current();
    const auto count = m_open.build().engine.stops.size();
    const double left = 14, right = width() - 14.0, y = height() - 42.0;
    p.setPen(QPen(t.oil[2], 3));
    p.drawLine(QPointF(left, y), QPointF(right, y));
    p.setPen(QPen(t.oil[3], 1.4));
    p.setBrush(t.panel);
    for (size_t i = 0; i < count; ++i)
        p.drawEllipse(
            QPointF(left + (right - left) * static_cast<double>(i) / static_cast<double>(count), y),
            3, 3);
    double end = -1e9; // of the last name, so that none covers another
    for (const auto &[x, name] : m_stops) {
        const double w = QFontMetricsF(textFont(TextSize::Small)).horizontalAdvance(name) + 6;
        const double from = std::clamp(x - w / 2, 0.0, width() - w);
        const double line = from < end ? 21 : 7;
        drawLine(p, QRectF(from, y + line, w, 14), Qt::AlignCenter, name, textFont(TextSize::Small),
                 t.muted);
        end = line > 10 ? end : from + w;
    }
    for (size_t i = 0; i < m_grains.size(); ++i) {
        const Grain &g = m_grains[i];
        const bool chosen = static_cast<int>(i) == m_chosen;
        p.setPen(QPen(chosen ? t.selection : t.ink, chosen ? 2.4 : 1));
        p.setBrush(toneOf(g.colour, t));
        if (g.magnetic.empty())
            p.setBrush(Qt::NoBrush);
        const QRectF r(g.at - QPointF(g.size / 2, g.size / 2), QSizeF(g.size, g.size));
        if (g.magnetic == "yes")
            p.drawRect(r);
        else
            p.drawEllipse(r);
    }
    drawLine(p, QRectF(0, 0, width(), 14), Qt::AlignRight | Qt::AlignVCenter,
             m_finds.empty()
                 ? tr("nothing recorded yet")
                 : tr("square: a magnet takes it · round: it does not · open: not tried"),
             textFont(TextSize::Small), t.muted);
}

void FindWay::mousePressEvent(QMouseEvent *event)
{
    for (size_t i = 0; i < m_grains.size(); ++i) {
        const QPointF away = m_grains[i].at - event->position();
        if (std::hypot(away.x(), away.y()) < std::max(9.0, m_grains[i].size / 2 + 2))
            Q_EMIT picked(static_cast<int>(i));
    }
}

} // namespace mildpath
