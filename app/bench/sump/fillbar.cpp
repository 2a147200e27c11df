// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/fillbar.h"

#include "paint/text.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

constexpr double step_l = 0.05;

QColor faint(QColor colour)
{
    colour.setAlphaF(Theme::current().dark ? 0.42F : 0.24F);
    return colour;
}

} // namespace

FillBar::FillBar(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("fillBar"));
    setFixedHeight(146);
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::SizeHorCursor);
}

void FillBar::set(const AirReport &air, std::optional<double> fill, const QString &advice)
{
    m_window = air.window;
    m_edge = air.edge;
    m_leastName = qs(air.leastName);
    m_mostName = qs(air.mostName);
    m_problem = air.problem ? qs(air.problem->message) : QString();
    m_advice = advice;
    m_fill = fill;
    // While the fill is dragged the scale stands still.
    if (!m_dragging && m_window && m_edge) {
        double from = std::min({ m_edge->least_m3, m_window->least_m3, m_window->most_m3 }) * 1e3;
        double to = std::max({ m_edge->most_m3, m_window->most_m3, m_window->least_m3 }) * 1e3;
        if (fill) {
            from = std::min(from, *fill);
            to = std::max(to, *fill);
        }
        const double margin = std::max(0.3, (to - from) * 0.12);
        m_from = std::max(0.0, from - margin);
        m_to = to + margin;
    }
    setAccessibleName(m_window && fill ? tr("fill %1; window %2 to %3")
                                             .arg(inWords(asVolume(*fill)),
                                                  inWords(asVolume(m_window->least_m3 * 1e3)),
                                                  inWords(asVolume(m_window->most_m3 * 1e3)))
                                       : tr("no fill window"));
    const QString how = m_window ? tr("Drag the fill, or nudge it with the arrow keys") : QString();
    setToolTip(advice.isEmpty() ? how : advice + u'\n' + how);
    update();
}

QRectF FillBar::bar() const
{
    return QRectF(20, 54, width() - 40.0, 18);
}

double FillBar::xOf(double litres) const
{
    return bar().left() + (litres - m_from) / (m_to - m_from) * bar().width();
}

double FillBar::litresAt(double x) const
{
    const double l = m_from + (x - bar().left()) / bar().width() * (m_to - m_from);
    return std::clamp(std::round(l / step_l) * step_l, std::max(step_l, m_from), m_to);
}

void FillBar::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    const QFont small = textFont(TextSize::Small), head = textFont(TextSize::Body, true);
    drawLine(p, QRectF(14, 6, 120, 20), Qt::AlignVCenter, tr("Fill window"), head, t.ink);
    const QString about = m_problem.isEmpty() ? m_advice : m_problem;
    drawLine(p, QRectF(120, 6, width() - 134.0, 20), Qt::AlignVCenter, about, small, t.muted);
    if (hasFocus()) {
        p.setPen(QPen(t.selection, 1));
        p.setBrush(Qt::NoBrush);
        p.drawRoundedRect(bar().adjusted(-4, -4, 4, 4), 4, 4);
    }
    if (!m_window || !m_edge) {
        drawLine(p, QRectF(14, 40, width() - 28.0, 20), Qt::AlignCenter,
                 m_problem.isEmpty() ? tr("Pickup to floor and a forecast make the window")
                                     : tr("No window yet"),
                 small, t.muted);
        return;
    }
    paintZones(p);
    const QRectF b = bar();
    if (!m_fill)
        return;
    const double x = std::clamp(xOf(*m_fill), b.left(), b.right());
    p.setPen(Qt::NoPen);
    p.setBrush(t.selection);
    p.drawPolygon(QPolygonF { { QPointF(x, b.bottom() + 1), QPointF(x - 8, b.bottom() + 13),
                                QPointF(x + 8, b.bottom() + 13) } });
    p.setPen(QPen(t.selection, 2));
    p.drawLine(QPointF(x, b.top()), QPointF(x, b.bottom()));
    drawLine(p, QRectF(x - 90, b.top() - 22, 180, 16), Qt::AlignCenter,
             tr("now %1").arg(inWords(asVolume(*m_fill))), textFont(TextSize::Normal, true),
             t.selection);
}

void FillBar::paintZones(QPainter &p) const
{
    const Theme &t = Theme::current();
    const QFont small = textFont(TextSize::Small);
    const QRectF b = bar();
    const double limits[] = { m_edge->least_m3 * 1e3, m_window->least_m3 * 1e3,
                              m_window->most_m3 * 1e3, m_edge->most_m3 * 1e3 };
    const auto zone = [&](double from, double to, const QColor &colour) {
        const double x0 = std::max(b.left(), xOf(from)), x1 = std::min(b.right(), xOf(to));
        if (x1 > x0)
            p.fillRect(QRectF(x0, b.top(), x1 - x0, b.height()), faint(colour));
    };
    p.fillRect(b, t.panel);
    const bool room = m_window->feasible();
    zone(m_from, limits[0], t.hold);
    zone(limits[0], room ? limits[1] : std::min(limits[1], limits[3]), t.lookAgain);
    if (room) {
        zone(limits[1], limits[2], t.proven);
        zone(limits[2], limits[3], t.lookAgain);
    }
    zone(limits[3], m_to, t.hold);
    const QString names[]
        = { tr("draws air below %1").arg(inWords(asVolume(limits[0]))),
            tr("%1: from %2").arg(m_leastName, inWords(asVolume(limits[1]))),
            tr("%1: up to %2").arg(m_mostName, inWords(asVolume(limits[2]))),
            m_edge->most_m3 > m_window->most_m3
                ? tr("crank touches oil above %1").arg(inWords(asVolume(limits[3])))
                : QString() };
    for (size_t i = 0; i < 4; ++i) {
        const double x = std::clamp(xOf(limits[i]), b.left(), b.right());
        p.setPen(QPen(t.ink, 1.4));
        p.drawLine(QPointF(x, b.top() - 4), QPointF(x, b.bottom() + 4));
        // Names in two rows, so that neighbours keep apart; each runs toward the middle.
        const double wide = width() / 2.0 - 24, y = b.bottom() + (i % 2 ? 30 : 16);
        const bool right = x > width() / 2.0;
        const double from
            = right ? std::max(x + 4 - wide, 14.0) : std::min(x - 4, width() - 14 - wide);
        drawLine(p, QRectF(from, y, wide, 15),
                 (right ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, names[i], small,
                 t.muted);
    }
    for (const double l : niceTicks(m_from * 1e-3, m_to * 1e-3, Shows::Volume, 6))
        drawLine(p, QRectF(xOf(l * 1e3) - 30, height() - 22.0, 60, 15), Qt::AlignCenter,
                 tickOf(l, Shows::Volume) + u' ' + unitOf(Shows::Volume), small, t.faint);
}

void FillBar::mousePressEvent(QMouseEvent *event)
{
    if (!m_window || !m_fill)
        return;
    m_dragging = true;
    Q_EMIT dragged(litresAt(event->position().x()));
}

void FillBar::mouseMoveEvent(QMouseEvent *event)
{
    if (m_dragging)
        Q_EMIT dragged(litresAt(event->position().x()));
}

void FillBar::mouseReleaseEvent(QMouseEvent *event)
{
    if (!m_dragging)
        return;
    m_dragging = false;
    Q_EMIT dropped(litresAt(event->position().x()));
}

void FillBar::keyPressEvent(QKeyEvent *event)
{
    const double by = event->key() == Qt::Key_Left ? -step_l
        : event->key() == Qt::Key_Right            ? step_l
                                                   : 0;
    if (by == 0 || !m_fill)
        QWidget::keyPressEvent(event);
    else
        Q_EMIT dropped(std::max(step_l, std::round((*m_fill + by) / step_l) * step_l));
}

} // namespace mildpath
