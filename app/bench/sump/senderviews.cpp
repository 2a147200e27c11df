// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/senderviews.h"

#include "paint/marks.h"
#include "paint/text.h"
#include "quantity/types.h"

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr int turns = 6;
constexpr double rowHeight = 34;

/// Flanks of a thread along its axis; `y` is where its crests lie, `down` its teeth's direction.
QPolygonF teeth(const Thread &t, double scale, double x0, double y, double down)
{
    QPolygonF out;
    // As deep as five eighths of the sharp triangle, as threads are cut.
    const double depth = 0.625 * t.pitch_mm / 2 / std::tan(t.flank_deg / 2 * pi / 180) * scale;
    const double pitch = t.pitch_mm * scale, flat = pitch / 8;
    const double slope = (pitch - 2 * flat) / 2;
    for (int i = 0; i < turns; ++i) {
        const double x = x0 + i * pitch;
        out << QPointF(x, y) << QPointF(x + flat, y) << QPointF(x + flat + slope, y + down * depth)
            << QPointF(x + 2 * flat + slope, y + down * depth);
    }
    out << QPointF(x0 + turns * pitch, y);
    return out;
}

} // namespace

ThreadView::ThreadView(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("threadView"));
    setFixedHeight(104);
}

void ThreadView::setThreads(const Thread *male, const Thread *female)
{
    m_male = male;
    m_female = female;
    setAccessibleName(
        male && female
            ? tr("thread %1 in a hole %2, six turns").arg(qs(male->name), qs(female->name))
            : QString());
    update();
}

void ThreadView::paintEvent(QPaintEvent *)
{
    if (!m_male || !m_female)
        return;
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double longest = turns * std::max(m_male->pitch_mm, m_female->pitch_mm);
    const double scale = std::min((width() - 150.0) / longest, 62.0);
    const double x0 = 8, top = 34;
    // The hole's metal lies above, the sender's below; crests of the sender reach up by half the
    // difference of the major diameters.
    const double apart = (m_male->major_mm - m_female->major_mm) / 2 * scale;
    QPolygonF hole = teeth(*m_female, scale, x0, top, 1);
    hole << QPointF(hole.back().x(), 4) << QPointF(x0, 4);
    QPolygonF sender = teeth(*m_male, scale, x0, top - apart, 1);
    sender << QPointF(sender.back().x(), height() - 4.0) << QPointF(x0, height() - 4.0);
    p.setPen(QPen(t.ink, 1.2));
    p.setBrush(t.line);
    p.drawPolygon(hole);
    QColor metal = t.selectionFill;
    metal.setAlphaF(0.75F);
    p.setBrush(metal);
    p.setPen(QPen(t.selection, 1.4));
    p.drawPolygon(sender);
    const double right = x0 + longest * scale + 12;
    drawLine(p, QRectF(right, 10, 140, 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("hole, %1").arg(qs(m_female->name)), textFont(TextSize::Small), t.ink);
    drawLine(p, QRectF(right, height() - 30.0, 140, 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("sender, %1").arg(qs(m_male->name)), textFont(TextSize::Small), t.selection);
}

SenderBars::SenderBars(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("sender.places"));
}

void SenderBars::setPlaces(std::vector<SenderPlace> places, double fast_rpm)
{
    m_places = std::move(places);
    m_fast_rpm = fast_rpm;
    setMinimumHeight(static_cast<int>(26 + rowHeight * static_cast<double>(m_places.size())));
    QStringList spoken;
    for (const SenderPlace &s : m_places)
        spoken << tr("%1: %2, %3")
                      .arg(qs(s.name), qs(markWord(s.mark)), Figure::flow(s.idle_m3_s).text());
    setAccessibleName(spoken.join(QStringLiteral("; ")));
    update();
}

void SenderBars::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    double most = 1e-9;
    for (const SenderPlace &s : m_places)
        most = std::max(most, s.fast_m3_s);
    const double name = 210, left = name + 16, right = width() - 200.0;
    const QFont small = textFont(TextSize::Small);
    drawLine(p, QRectF(left, 0, right - left, 16), Qt::AlignLeft | Qt::AlignVCenter,
             tr("oil passing: hot idle, and at %1").arg(Figure::speed(m_fast_rpm).text()), small,
             t.muted);
    double y = 24;
    for (const SenderPlace &s : m_places) {
        drawMark(p, QPointF(12, y + 10), 11, s.mark);
        drawLine(p, QRectF(26, y, name - 26, 20), Qt::AlignLeft | Qt::AlignVCenter, qs(s.name),
                 textFont(TextSize::Normal, true), t.ink);
        const auto bar = [&](double flow, double h, const QColor &colour) {
            const double w = std::max(1.0, flow / most * (right - left));
            p.fillRect(QRectF(left, y + 10 - h / 2, w, h), colour);
        };
        bar(s.fast_m3_s, 14, t.oil[0]);
        bar(s.idle_m3_s, 14, s.filtered ? t.oil[2] : t.returns);
        drawLine(p, QRectF(right + 12, y, 186, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("%1, %2").arg(Figure::flow(s.idle_m3_s).text(),
                                  s.filtered ? tr("filtered") : tr("not filtered")),
                 small, t.muted);
        y += rowHeight;
    }
}

} // namespace mildpath
