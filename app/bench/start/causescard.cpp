// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/causescard.h"

#include "paint/marks.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QToolTip>

namespace mildpath {
namespace {

constexpr double head = 30, row = 34, margin = 14;

} // namespace

CausesCard::CausesCard(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("start.causes"));
    setAccessibleName(tr("If no pressure comes"));
}

void CausesCard::setCauses(const std::vector<PrimeCause> &causes)
{
    m_causes = causes;
    settle();
    QString all;
    for (const PrimeCause &c : causes)
        all += qs(c.text) + QStringLiteral(", ") + qs(c.effort) + QStringLiteral(". ");
    setAccessibleDescription(all);
    update();
}

bool CausesCard::narrow() const
{
    return width() < 470;
}

/// Where there is no room for two columns each cause has one line.
double CausesCard::rowHigh() const
{
    return narrow() ? 18 : row;
}

void CausesCard::settle()
{
    const size_t rows = narrow() ? m_causes.size() : (m_causes.size() + 1) / 2;
    setFixedHeight(static_cast<int>(head + rowHigh() * static_cast<double>(rows) + 8));
}

QRectF CausesCard::cell(size_t i) const
{
    if (narrow())
        return { margin, head + rowHigh() * static_cast<double>(i), width() - 2 * margin,
                 rowHigh() };
    const size_t rows = (m_causes.size() + 1) / 2;
    const double wide = (width() - 2 * margin) / 2.0;
    return { margin + (i >= rows ? wide : 0), head + row * static_cast<double>(i % rows), wide - 8,
             row };
}

int CausesCard::cellAt(QPointF at) const
{
    for (size_t i = 0; i < m_causes.size(); ++i)
        if (cell(i).contains(at))
            return static_cast<int>(i);
    return -1;
}

void CausesCard::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    drawCard(p, QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    const QFont bold = textFont(TextSize::Body, true);
    drawLine(p, QRectF(margin, 7, 200, 18), Qt::AlignLeft | Qt::AlignVCenter,
             tr("If no pressure comes"), bold, t.ink);
    drawLine(p,
             QRectF(margin + QFontMetricsF(bold).horizontalAdvance(tr("If no pressure comes")) + 16,
                    8, width() - 220, 18),
             Qt::AlignLeft | Qt::AlignVCenter, tr("in the order worth looking, proven last"),
             textFont(TextSize::Small), t.muted);
    for (size_t i = 0; i < m_causes.size(); ++i) {
        const PrimeCause &c = m_causes[i];
        const QRectF r = cell(i);
        drawMark(p, { r.left() + 6, r.top() + 9 }, 10, c.mark());
        drawLine(p, QRectF(r.left() + 18, r.top(), r.width() - 18, 18),
                 Qt::AlignLeft | Qt::AlignVCenter, QStringLiteral("%1  ").arg(i + 1) + qs(c.name),
                 textFont(TextSize::Normal), c.proven ? t.muted : t.ink);
        if (narrow())
            continue;
        drawLine(p, QRectF(r.left() + 18, r.top() + 16, r.width() - 18, 14),
                 Qt::AlignLeft | Qt::AlignVCenter, qs(c.effort) + QStringLiteral(" · ") + qs(c.why),
                 textFont(TextSize::Small), t.muted);
    }
}

void CausesCard::mousePressEvent(QMouseEvent *event)
{
    const int i = cellAt(event->position());
    if (i >= 0 && !m_causes[static_cast<size_t>(i)].stop.empty())
        Q_EMIT picked(qs(m_causes[static_cast<size_t>(i)].stop));
}

bool CausesCard::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip) {
        auto *help = static_cast<QHelpEvent *>(event);
        const int i = cellAt(help->pos());
        if (i >= 0) {
            const PrimeCause &c = m_causes[static_cast<size_t>(i)];
            QToolTip::showText(help->globalPos(),
                               qs(c.text) + QStringLiteral("\n") + qs(c.effort)
                                   + QStringLiteral("; ") + qs(c.why),
                               this);
        }
        return true;
    }
    return QWidget::event(event);
}

} // namespace mildpath
