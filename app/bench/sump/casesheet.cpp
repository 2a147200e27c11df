// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/sump/casesheet.h"

#include "bench/sump/sectionpainter.h"
#include "paint/marks.h"
#include "paint/text.h"

#include <QMouseEvent>

#include <algorithm>

namespace mildpath {

CaseSheet::CaseSheet(OpenBuild &open, QWidget *parent)
    : QWidget(parent)
    , m_open(open)
{
    setObjectName(QStringLiteral("caseSheet"));
    setMouseTracking(true);
    setMinimumHeight(220);
    setAccessibleName(tr("every turn and slope in section; its figures stand in the list below"));
}

void CaseSheet::refresh()
{
    m_cases = m_open.air().cases;
    m_along = sectionOf(m_open.build(), PanWay::Along);
    m_across = sectionOf(m_open.build(), PanWay::Across);
    m_gap = pickupGap_m(m_open.build()).has_value();
    update();
}

void CaseSheet::point(int index)
{
    if (index == m_pointed)
        return;
    m_pointed = index;
    update();
}

int CaseSheet::columns() const
{
    const int n = static_cast<int>(m_cases.size());
    return n > 4 ? (n + 1) / 2 : std::max(1, n);
}

QRectF CaseSheet::areaOf(int i) const
{
    const int across = columns(), rows = (static_cast<int>(m_cases.size()) + across - 1) / across;
    const double w = static_cast<double>(width()) / across,
                 h = static_cast<double>(height()) / std::max(1, rows);
    return QRectF(i % across * w, i / across * h, w, h).adjusted(4, 4, -4, -4);
}

int CaseSheet::at(QPointF p) const
{
    for (int i = 0; i < static_cast<int>(m_cases.size()); ++i)
        if (areaOf(i).contains(p))
            return i;
    return -1;
}

void CaseSheet::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    if (m_cases.empty())
        drawLine(p, QRectF(rect()), Qt::AlignCenter,
                 tr("A pan, its fill and a forecast make the pictures"), textFont(TextSize::Body),
                 t.muted);
    for (int i = 0; i < static_cast<int>(m_cases.size()); ++i) {
        const AirCase &c = m_cases[static_cast<size_t>(i)];
        const QRectF area = areaOf(i);
        drawCard(p, area);
        if (i == m_pointed) {
            p.setPen(QPen(t.selection, 1.5));
            p.setBrush(Qt::NoBrush);
            p.drawRoundedRect(area, 5, 5);
        }
        drawMark(p, QPointF(area.left() + 14, area.top() + 14), 11, markOf(c, m_gap));
        drawLine(p, QRectF(area.left() + 24, area.top() + 5, area.width() - 30, 18),
                 Qt::AlignLeft | Qt::AlignVCenter, qs(c.name), textFont(TextSize::Small, true),
                 t.ink);
        const auto &section = c.way == PanWay::Along ? m_along : m_across;
        if (section)
            paintSmallSection(p, area.adjusted(14, 28, -14, -24), { *section, c.surface });
        drawLine(p, QRectF(area.left() + 6, area.bottom() - 20, area.width() - 12, 16),
                 Qt::AlignCenter,
                 m_gap ? tr("%1 over the mouth").arg(inWords(asLength(c.submergence_m * 1e3, 0)))
                       : tr("mouth to floor not measured"),
                 textFont(TextSize::Small), t.muted);
    }
}

void CaseSheet::mousePressEvent(QMouseEvent *event)
{
    if (const int i = at(event->position()); i >= 0)
        Q_EMIT picked(i);
}

void CaseSheet::mouseMoveEvent(QMouseEvent *event)
{
    const int i = at(event->position());
    setCursor(i >= 0 ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (i != m_pointed) {
        point(i);
        Q_EMIT pointed(i);
    }
}

void CaseSheet::leaveEvent(QEvent *)
{
    point(-1);
    Q_EMIT pointed(-1);
}

} // namespace mildpath
