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
    : ChartView(parent)
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
    double last = m_scene.least_s, most_kpa = 100;
    if (m_scene.trace) {
        last = std::max(last, m_scene.trace->last_s() * 1.04);
        most_kpa = std::max(most_kpa, static_cast<double>(m_scene.trace->most_kpa()));
    }
    if (m_scene.stopAt_s)
        last = std::max(last, *m_scene.stopAt_s * 1.1);
    if (m_scene.prime)
        most_kpa = std::max(most_kpa, m_scene.prime->steady.high_pa / 1e3);
    const bool minutes = m_scene.minutes && last > 180;
    m_perUnit = minutes ? 60 : 1;
    Chart chart;
    chart.headRoom = m_scene.big ? headHigh - topGap : 0;
    chart.x = { 0, last / m_perUnit, 0, 1, minutes ? Shows::Minutes : Shows::Time };
    chart.x.name = minutes ? tr("minutes") : tr("seconds");
    chart.x.count = 8;
    chart.y = { 0, most_kpa * 1e3 * headroom, 0, 1, Shows::Pressure };
    addBand(chart);
    addTrace(chart);
    addMarks(chart);
    setChart(std::move(chart));
}

void LiveTrace::addBand(Chart &chart) const
{
    const Theme &t = Theme::current();
    ChartLine band { tr("likely range"), t.warm, {}, {} };
    band.width = 0;
    band.labelAt = 0.1;
    const auto add = [&](double at_s, double low_pa, double high_pa) {
        band.x.push_back(at_s / m_perUnit);
        band.y.push_back((low_pa + high_pa) / 2);
        band.low.push_back(low_pa);
        band.high.push_back(high_pa);
    };
    double now = 0;
    if (m_scene.trace) {
        now = m_scene.trace->last_s();
        for (const TraceBucket &b : m_scene.trace->all())
            if (b.bandHigh >= 0)
                add(b.from_s, 1e3 * static_cast<double>(b.bandLow),
                    1e3 * static_cast<double>(b.bandHigh));
    }
    if (m_scene.prime && m_scene.prime->time.time_s) {
        constexpr int steps = 300;
        const double ahead = chart.x.to * m_perUnit - now;
        for (int i = 0; i <= steps; ++i) {
            const double s = ahead * i / steps;
            add(now + s, m_scene.prime->lower_pa(m_scene.turned_s + s),
                m_scene.prime->upper_pa(m_scene.turned_s + s));
        }
    }
    if (!band.x.empty())
        chart.lines.push_back(std::move(band));
}

/// Lowest and highest of every stretch: no spike is lost however long it runs.
void LiveTrace::addTrace(Chart &chart) const
{
    if (!m_scene.trace)
        return;
    ChartLine line { {}, Theme::current().ink, {}, {} };
    line.width = 1.5;
    const auto add = [&](double at_s, float kpa) {
        line.x.push_back(at_s / m_perUnit);
        line.y.push_back(1e3 * static_cast<double>(kpa));
    };
    for (const TraceBucket &b : m_scene.trace->all()) {
        if (b.high < 0)
            continue;
        add(b.from_s, b.first);
        if (b.points <= 1)
            continue;
        line.width = 1;
        const double middle = (b.from_s + b.to_s) / 2;
        add(middle, b.low);
        add(middle, b.high);
        add(b.to_s, b.last);
    }
    if (!line.x.empty())
        chart.lines.push_back(std::move(line));
}

void LiveTrace::addMarks(Chart &chart) const
{
    const Theme &t = Theme::current();
    if (m_scene.floor_kpa)
        chart.marks.push_back(
            { Qt::Horizontal, *m_scene.floor_kpa * 1e3, tr("floor"), t.hold, Qt::DashLine });
    for (size_t i = 0; i < m_scene.marks.size(); ++i) {
        const RunMark &m = m_scene.marks[i];
        chart.marks.push_back({ Qt::Vertical, m.t_s / m_perUnit,
                                m.text.empty() ? QString::number(i + 1) : qs(m.text),
                                t.selection });
    }
    if (m_scene.stopAt_s)
        chart.marks.push_back(
            { Qt::Vertical, *m_scene.stopAt_s / m_perUnit,
              tr("time limit %1").arg(inWords(Quantity { *m_scene.stopAt_s, Shows::Time })), t.hold,
              Qt::DashLine });
}

void LiveTrace::paintOver(QPainter &p, LabelSpace &)
{
    ++m_paints;
    drawFigure(p);
    drawWords(p);
}

void LiveTrace::drawFigure(QPainter &p) const
{
    const Theme &t = Theme::current();
    if (!m_scene.big)
        return;
    QFont font = textFont(TextSize::Readout, true);
    font.setPixelSize(bigPixels);
    const QFontMetricsF metrics(font);
    double x = area().left();
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
    drawLine(p, QRectF(x, base - 17, area().right() - x, 20), Qt::AlignLeft | Qt::AlignVCenter,
             m_scene.under, textFont(TextSize::Title), t.muted);
}

void LiveTrace::drawWords(QPainter &p) const
{
    const Theme &t = Theme::current();
    const bool alarm = !m_scene.alarm.isEmpty();
    const QString words = alarm ? m_scene.alarm : m_scene.say;
    if (words.isEmpty())
        return;
    const QFont font = textFont(alarm ? TextSize::Readout : TextSize::Title, true);
    const QRectF room(area().left() + 20, 0, area().width() - 40, 400);
    const QRectF need
        = QFontMetricsF(font).boundingRect(room, Qt::TextWordWrap | Qt::AlignLeft, words);
    const QRectF box(area().left() + 8, area().center().y() - need.height() / 2 - 12,
                     area().width() - 16, need.height() + 24);
    p.setPen(Qt::NoPen);
    p.setBrush(alarm ? t.hold : t.selectionFill);
    p.drawRoundedRect(box, 5, 5);
    p.setFont(font);
    p.setPen(alarm ? t.panel : t.ink);
    p.drawText(box.adjusted(14, 12, -14, -12), Qt::TextWordWrap | Qt::AlignLeft, words);
}

} // namespace mildpath
