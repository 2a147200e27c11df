// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/livetrace.h"

#include "paint/text.h"
#include "quantity/rounding.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int bigPixels = 52;
constexpr double headHigh = 62; ///< of the digits, over the picture: a trace must not cross them
constexpr double headroom = 1.12;

} // namespace

LiveTrace::LiveTrace(QWidget *parent)
    : QWidget(parent)
{
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void LiveTrace::setScene(TraceScene scene)
{
    m_scene = std::move(scene);
    setAccessibleName(tr("Pressure against time"));
    setAccessibleDescription(
        (m_scene.big ? m_scene.big->text() + QStringLiteral(", ") : QString()) + m_scene.under
        + (m_scene.alarm.isEmpty() ? QString() : tr("; alarm: %1").arg(m_scene.alarm)));
    update();
}

QPointF LiveTrace::Axes::at(double time_s, double pressure_kpa) const
{
    return { area.left() + time_s / t_s * area.width(),
             area.bottom() - pressure_kpa / kpa * area.height() };
}

LiveTrace::Axes LiveTrace::axes() const
{
    double last = m_scene.least_s, most = 100;
    if (m_scene.trace) {
        last = std::max(last, m_scene.trace->last_s() * 1.04);
        most = std::max(most, static_cast<double>(m_scene.trace->most_kpa()));
    }
    if (m_scene.stopAt_s)
        last = std::max(last, *m_scene.stopAt_s * 1.1);
    if (m_scene.prime)
        most = std::max(most, m_scene.prime->steady.high_pa / 1e3);
    return { QRectF(rect()).adjusted(46, m_scene.big ? headHigh : 24, -12, -34), last,
             most * headroom };
}

void LiveTrace::paintEvent(QPaintEvent *)
{
    ++m_paints;
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Axes a = axes();
    drawBand(p, a);
    drawGrid(p, a);
    drawTrace(p, a);
    drawMarks(p, a);
    drawFigure(p, a);
    drawWords(p, a);
}

void LiveTrace::drawGrid(QPainter &p, const Axes &a) const
{
    const Theme &t = Theme::current();
    for (const double pa : niceTicks(0, a.kpa * 1e3, Shows::Pressure, 6)) {
        const double y = a.at(0, pa / 1e3).y();
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(a.area.left(), y), QPointF(a.area.right(), y));
        drawLine(p, QRectF(0, y - 9, a.area.left() - 6, 18), Qt::AlignRight | Qt::AlignVCenter,
                 tickOf(pa, Shows::Pressure), textFont(TextSize::Small), t.muted);
    }
    drawLine(p, QRectF(0, a.area.top() - 22, a.area.left() - 6, 14),
             Qt::AlignRight | Qt::AlignVCenter, unitOf(Shows::Pressure), textFont(TextSize::Small),
             t.muted);
    const bool minutes = m_scene.minutes && a.t_s > 180;
    const double per = minutes ? 60 : 1;
    const double rough = a.t_s / per / 8, ten = std::pow(10, std::floor(std::log10(rough)));
    const double step = ten
        * (rough / ten > 5       ? 10
               : rough / ten > 2 ? 5
               : rough / ten > 1 ? 2
                                 : 1);
    for (double v = 0; v * per <= a.t_s; v += step) {
        const double x = a.at(v * per, 0).x();
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x, a.area.top()), QPointF(x, a.area.bottom()));
        drawLine(p, QRectF(x - 30, a.area.bottom() + 3, 60, 16), Qt::AlignCenter,
                 qs(formatNumber(v, step < 1 ? 1 : 0)), textFont(TextSize::Small), t.muted);
    }
    drawLine(p, QRectF(a.area.right() - 100, a.area.bottom() + 17, 100, 16),
             Qt::AlignRight | Qt::AlignVCenter, minutes ? tr("minutes") : tr("seconds"),
             textFont(TextSize::Small), t.muted);
}

void LiveTrace::drawBand(QPainter &p, const Axes &a) const
{
    const Theme &t = Theme::current();
    QColor tone = t.oil[t.dark ? 3 : 0];
    tone.setAlphaF(t.dark ? 0.45F : 0.85F);
    QPolygonF upper, lower;
    double now = 0;
    if (m_scene.trace) {
        now = m_scene.trace->last_s();
        for (const TraceBucket &b : m_scene.trace->all())
            if (b.bandHigh >= 0) {
                upper << a.at(b.from_s, static_cast<double>(b.bandHigh));
                lower << a.at(b.from_s, static_cast<double>(b.bandLow));
            }
    }
    if (m_scene.prime && m_scene.prime->time.time_s)
        for (double x = a.at(now, 0).x(); x <= a.area.right(); x += 1) {
            const double ahead = (x - a.area.left()) / a.area.width() * a.t_s - now;
            const double s = m_scene.turned_s + ahead;
            upper << QPointF(x, a.at(0, m_scene.prime->upper_pa(s) / 1e3).y());
            lower << QPointF(x, a.at(0, m_scene.prime->lower_pa(s) / 1e3).y());
        }
    if (upper.isEmpty())
        return;
    QPolygonF band = upper;
    for (auto it = lower.rbegin(); it != lower.rend(); ++it)
        band << *it;
    p.setPen(Qt::NoPen);
    p.setBrush(tone);
    p.setClipRect(a.area);
    p.drawPolygon(band);
    p.setClipping(false);
    drawLine(p, QRectF(a.area.left() + 6, a.area.top() + 4, 146, 16),
             Qt::AlignLeft | Qt::AlignVCenter, tr("band: likely range"), textFont(TextSize::Small),
             t.warm);
}

void LiveTrace::drawTrace(QPainter &p, const Axes &a) const
{
    const Theme &t = Theme::current();
    if (m_scene.floor_kpa) {
        const double y = a.at(0, *m_scene.floor_kpa).y();
        p.setPen(QPen(t.hold, 1, Qt::DashLine));
        p.drawLine(QPointF(a.area.left(), y), QPointF(a.area.right(), y));
        drawLine(p, QRectF(a.area.right() - 60, y - 16, 56, 15), Qt::AlignRight | Qt::AlignVCenter,
                 tr("floor"), textFont(TextSize::Small), t.hold);
    }
    if (!m_scene.trace)
        return;
    // Lines up and down need no smoothing, and thousands of them smoothed would cost the frame.
    QPolygonF line;
    bool dense = false;
    for (const TraceBucket &b : m_scene.trace->all()) {
        if (b.high < 0)
            continue;
        const double x0 = a.at(b.from_s, 0).x(), x1 = a.at(b.to_s, 0).x();
        const auto y = [&](float kpa) { return a.at(0, static_cast<double>(kpa)).y(); };
        line << QPointF(x0, y(b.first));
        if (b.points > 1) {
            dense = true;
            const double middle = (x0 + x1) / 2;
            line << QPointF(middle, y(b.low)) << QPointF(middle, y(b.high))
                 << QPointF(x1, y(b.last));
        }
    }
    p.setRenderHint(QPainter::Antialiasing, !dense);
    p.setPen(QPen(t.ink, dense ? 1 : 1.5));
    p.drawPolyline(line);
    p.setRenderHint(QPainter::Antialiasing);
}

void LiveTrace::drawMarks(QPainter &p, const Axes &a) const
{
    const Theme &t = Theme::current();
    for (size_t i = 0; i < m_scene.marks.size(); ++i) {
        const RunMark &m = m_scene.marks[i];
        const double x = a.at(m.t_s, 0).x();
        p.setPen(QPen(t.selection, 1, Qt::DotLine));
        p.drawLine(QPointF(x, a.area.top()), QPointF(x, a.area.bottom()));
        const QString text = m.text.empty() ? QString::number(i + 1) : qs(m.text);
        drawLine(p, QRectF(x + 4, a.area.bottom() - 18 - 15 * static_cast<double>(i % 3), 130, 15),
                 Qt::AlignLeft | Qt::AlignVCenter, text, textFont(TextSize::Small), t.selection);
    }
    if (!m_scene.stopAt_s)
        return;
    const double x = a.at(*m_scene.stopAt_s, 0).x();
    p.setPen(QPen(t.hold, 1.4, Qt::DashLine));
    p.drawLine(QPointF(x, a.area.top()), QPointF(x, a.area.bottom()));
    const QString text = tr("time limit %1 s").arg(qs(formatNumber(*m_scene.stopAt_s, 0)));
    const QFont font = textFont(TextSize::Small);
    const double wide = QFontMetricsF(font).horizontalAdvance(text) + 2;
    const bool left = x + wide + 8 > a.area.right();
    drawLine(p, QRectF(left ? x - wide - 5 : x + 5, a.area.top() + 20, wide, 16),
             Qt::AlignLeft | Qt::AlignVCenter, text, font, t.hold);
}

void LiveTrace::drawFigure(QPainter &p, const Axes &a) const
{
    const Theme &t = Theme::current();
    if (!m_scene.big)
        return;
    QFont font = textFont(TextSize::Readout, true);
    font.setPixelSize(bigPixels);
    const QFontMetricsF metrics(font);
    double x = a.area.left();
    const double base = 4 + metrics.capHeight();
    const auto put = [&](const QString &text, const QFont &with, const QColor &colour) {
        p.setFont(with);
        p.setPen(colour);
        p.drawText(QPointF(x, base), text);
        x += QFontMetricsF(with).horizontalAdvance(text);
    };
    put(m_scene.big->number, font, m_scene.alarm.isEmpty() ? t.ink : t.hold);
    x += 8;
    put(m_scene.big->unit, textFont(TextSize::Readout), t.muted);
    x += 22;
    drawLine(p, QRectF(x, base - 17, a.area.right() - x, 20), Qt::AlignLeft | Qt::AlignVCenter,
             m_scene.under, textFont(TextSize::Title), t.muted);
}

void LiveTrace::drawWords(QPainter &p, const Axes &a) const
{
    const Theme &t = Theme::current();
    const bool alarm = !m_scene.alarm.isEmpty();
    const QString words = alarm ? m_scene.alarm : m_scene.say;
    if (words.isEmpty())
        return;
    const QFont font = textFont(alarm ? TextSize::Readout : TextSize::Title, true);
    const QRectF room(a.area.left() + 20, 0, a.area.width() - 40, 400);
    const QRectF need
        = QFontMetricsF(font).boundingRect(room, Qt::TextWordWrap | Qt::AlignLeft, words);
    const QRectF box(a.area.left() + 8, a.area.center().y() - need.height() / 2 - 12,
                     a.area.width() - 16, need.height() + 24);
    p.setPen(Qt::NoPen);
    p.setBrush(alarm ? t.hold : t.selectionFill);
    p.drawRoundedRect(box, 5, 5);
    p.setFont(font);
    p.setPen(alarm ? t.panel : t.ink);
    p.drawText(box.adjusted(14, 12, -14, -12), Qt::TextWordWrap | Qt::AlignLeft, words);
}

} // namespace mildpath
