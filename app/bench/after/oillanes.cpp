// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/after/oillanes.h"

#include "paint/marks.h"
#include "plot/axis.h"
#include "quantity/rounding.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>

namespace mildpath {
namespace {

constexpr double laneLabels = 150, laneFigures = 176, laneTopGap = 36, laneBottomGap = 4;

} // namespace

OilLanes::OilLanes(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("oilLanes"));
    setAccessibleName(tr("Elements against hours"));
    setFocusPolicy(Qt::StrongFocus);
}

void OilLanes::show(const Build &build, const OilReport &report, const std::string &sample,
                    const std::string &element)
{
    m_report = report;
    m_sample = sample;
    m_element = element;
    m_most_h = 1;
    m_fillFrom_h.clear();
    for (const OilSample &s : build.oilSamples)
        m_fillFrom_h[s.id] = s.engine_h - s.oil_h;
    for (const JudgedSample &s : report.samples)
        m_most_h = std::max(m_most_h, s.engine_h);
    m_first_h = *valueOf(build.after.values, afterKeys(), "first_hours_h");
    m_most_h *= 1.04;
    QStringList spoken;
    for (const JudgedSample &s : report.samples)
        spoken << tr("%1 h: %2").arg(qs(formatPlain(s.engine_h, 0)), qs(s.verdict));
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    setFixedHeight(static_cast<int>(laneTopGap + laneBottomGap)
                   + laneHeight * static_cast<int>(std::max<size_t>(1, report.symbols.size())));
    update();
}

QRectF OilLanes::area() const
{
    return QRectF(laneLabels, laneTopGap, width() - laneLabels - laneFigures,
                  height() - laneTopGap - laneBottomGap);
}

double OilLanes::x(double hours) const
{
    const QRectF r = area();
    return r.left() + hours / m_most_h * r.width();
}

void OilLanes::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (m_report.samples.empty()) {
        drawLine(p, QRectF(12, 8, width() - 24, 20), Qt::AlignLeft | Qt::AlignVCenter,
                 tr("No oil that ran was analysed yet. Send a sample of the new oil too."),
                 textFont(TextSize::Normal), t.muted);
        return;
    }
    const QRectF r = area();
    p.fillRect(QRectF(r.left(), r.top(), std::min(x(m_first_h), r.right()) - r.left(), r.height()),
               t.selectionFill);
    drawLine(p, QRectF(r.right() + 12, r.top() - 17, 70, 14), Qt::AlignLeft, tr("last, ppm"),
             textFont(TextSize::Small), t.muted);
    drawLine(p, QRectF(r.right() + 84, r.top() - 17, laneFigures - 90, 14), Qt::AlignLeft,
             tr("in 100 h (own)"), textFont(TextSize::Small), t.muted);
    // The hours stand over the lanes: below they would lie under the edge of the card.
    const Axis hours { 0, m_most_h, r.left(), r.right() };
    for (const double h : hours.ticks()) {
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(x(h), r.top() - 3), QPointF(x(h), r.bottom()));
        drawLine(p, QRectF(x(h) - 30, r.top() - 17, 60, 13), Qt::AlignHCenter, hours.tick(h),
                 textFont(TextSize::Small), t.muted);
    }
    drawLine(p, QRectF(12, r.top() - 17, laneLabels - 16, 13), Qt::AlignLeft,
             tr("hours of the engine"), textFont(TextSize::Small), t.muted);
    for (const JudgedSample &s : m_report.samples)
        if (s.id == m_sample) {
            p.setPen(QPen(t.selection, hasFocus() ? 2 : 1.2));
            p.drawLine(QPointF(x(s.engine_h), r.top() - 2), QPointF(x(s.engine_h), r.bottom()));
            drawLine(p, QRectF(x(s.engine_h) - 40, 3, 80, 14), Qt::AlignHCenter,
                     qs(formatNumber(s.engine_h, 0)) + QStringLiteral(" h"),
                     textFont(TextSize::Small, true), t.selection);
        }
    for (size_t i = 0; i < m_report.symbols.size(); ++i)
        paintLane(
            p, i,
            QRectF(r.left(), r.top() + laneHeight * static_cast<double>(i), r.width(), laneHeight));
}

void OilLanes::paintLane(QPainter &p, size_t i, const QRectF &lane) const
{
    const Theme &t = Theme::current();
    const std::string &symbol = m_report.symbols[i];
    const OilElement *kind = findOilElement(symbol);
    if (symbol == m_element)
        p.fillRect(QRectF(4, lane.top() + 1, laneLabels - 8, lane.height() - 2), t.selectionFill);
    p.setPen(QPen(t.line, 1));
    p.drawLine(QPointF(8, lane.bottom()), QPointF(width() - 8.0, lane.bottom()));
    drawMark(p, { 18, lane.center().y() }, 12, m_report.lastMark(symbol));
    drawLine(p, QRectF(30, lane.top() + 3, laneLabels - 34, 17), Qt::AlignLeft, qs(symbol),
             textFont(TextSize::Body, true), t.ink);
    drawLine(p, QRectF(30, lane.top() + 20, laneLabels - 34, 15), Qt::AlignLeft,
             kind ? qs(kind->name) : QString(), textFont(TextSize::Small), t.muted);
    double most = 1;
    for (const JudgedSample &s : m_report.samples)
        if (const JudgedElement *e = s.element(symbol))
            most = std::max({ most, e->mg_kg, e->baseline_mg_kg.value_or(0) });
    const auto y = [&](double v) { return lane.bottom() - 3 - v / most * (lane.height() - 9); };
    const JudgedElement *last = nullptr;
    std::optional<QPointF> before;
    double beforeFill = -1;
    for (const JudgedSample &s : m_report.samples) {
        const JudgedElement *e = s.element(symbol);
        if (!e)
            continue;
        last = e;
        const double from = m_fillFrom_h.at(s.id), base = e->baseline_mg_kg.value_or(0);
        const QPointF at(x(s.engine_h), y(e->mg_kg));
        if (e->baseline_mg_kg) { // what the new oil brought, over this fill
            p.setPen(QPen(t.cold, 1.2, Qt::DashLine));
            p.drawLine(QPointF(x(from), y(base)), QPointF(at.x(), y(base)));
        }
        p.setPen(QPen(t.warm, 1.4));
        const bool sameFill = before && std::abs(from - beforeFill) <= 0.5;
        p.drawLine(sameFill ? *before : QPointF(x(from), y(base)), at);
        before = at;
        beforeFill = from;
    }
    for (const JudgedSample &s : m_report.samples)
        if (const JudgedElement *e = s.element(symbol)) {
            const QPointF at(x(s.engine_h), y(e->mg_kg));
            if (e->mark == Mark::LookAgain || e->mark == Mark::Hold)
                drawMark(p, at, 11, e->mark);
            else {
                p.setPen(QPen(t.panel, 1));
                p.setBrush(s.usable ? t.warm : t.faint);
                p.drawEllipse(at, 3.5, 3.5);
            }
        }
    if (last)
        drawFigures(p, lane, *last);
}

/// The last sample's figure, and its rate beside the engine's own.
void OilLanes::drawFigures(QPainter &p, const QRectF &lane, const JudgedElement &e) const
{
    const Theme &t = Theme::current();
    const OilElement *kind = findOilElement(e.symbol);
    drawLine(p, QRectF(lane.right() + 12, lane.top(), 64, lane.height()),
             Qt::AlignLeft | Qt::AlignVCenter, qs(formatNumber(e.mg_kg, e.mg_kg < 10)),
             textFont(TextSize::Normal, true), t.ink);
    const QString rate = !e.wear ? tr("not judged")
        : kind && !kind->wear    ? tr("the oil's own")
                                 : qs(formatNumber(e.wear->per100h_mg_kg, 1))
            + (e.pattern ? QStringLiteral(" (%1)").arg(qs(formatNumber(e.pattern->median, 1)))
                         : QString());
    drawLine(p, QRectF(lane.right() + 84, lane.top(), laneFigures - 90, lane.height()),
             Qt::AlignLeft | Qt::AlignVCenter, rate, textFont(TextSize::Normal),
             e.alarm ? t.mark(e.mark) : t.muted);
}

size_t OilLanes::nearest(double pixel) const
{
    size_t out = 0;
    for (size_t i = 1; i < m_report.samples.size(); ++i)
        if (std::abs(x(m_report.samples[i].engine_h) - pixel)
            < std::abs(x(m_report.samples[out].engine_h) - pixel))
            out = i;
    return out;
}

void OilLanes::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    if (m_report.samples.empty() || m_report.symbols.empty())
        return;
    const QRectF r = area();
    const auto lane
        = static_cast<size_t>(std::clamp((event->position().y() - r.top()) / laneHeight, 0.0,
                                         static_cast<double>(m_report.symbols.size() - 1)));
    const bool inside = event->position().x() >= r.left() && event->position().x() <= r.right();
    Q_EMIT picked(inside ? qs(m_report.samples[nearest(event->position().x())].id) : qs(m_sample),
                  qs(m_report.symbols[lane]));
}

void OilLanes::keyPressEvent(QKeyEvent *event)
{
    const auto &samples = m_report.samples;
    const auto &symbols = m_report.symbols;
    if (samples.empty() || symbols.empty())
        return QWidget::keyPressEvent(event);
    auto s = std::ranges::find(samples, m_sample, &JudgedSample::id) - samples.begin();
    auto e = std::ranges::find(symbols, m_element) - symbols.begin();
    switch (event->key()) {
    case Qt::Key_Left:
        --s;
        break;
    case Qt::Key_Right:
        ++s;
        break;
    case Qt::Key_Up:
        --e;
        break;
    case Qt::Key_Down:
        ++e;
        break;
    default:
        return QWidget::keyPressEvent(event);
    }
    s = std::clamp<std::ptrdiff_t>(s, 0, std::ssize(samples) - 1);
    e = std::clamp<std::ptrdiff_t>(e, 0, std::ssize(symbols) - 1);
    Q_EMIT picked(qs(samples[static_cast<size_t>(s)].id), qs(symbols[static_cast<size_t>(e)]));
}

} // namespace mildpath
