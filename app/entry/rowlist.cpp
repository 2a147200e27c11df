// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/rowlist.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QScrollArea>
#include <QToolTip>

#include <algorithm>

namespace mildpath {

RowList::RowList(std::vector<double> starts, int bold, QWidget *parent)
    : QWidget(parent)
    , m_starts(std::move(starts))
    , m_bold(bold)
{
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

void RowList::setRows(std::vector<Row> rows)
{
    m_rows = std::move(rows);
    m_chosen = std::min(m_chosen, static_cast<int>(m_rows.size()) - 1);
    setFixedHeight(rowHeight * static_cast<int>(m_rows.size()) + 4);
    QStringList spoken;
    for (const Row &r : m_rows)
        spoken << (r.bare ? QString() : qs(markWord(r.mark)) + QStringLiteral(", "))
                + r.cells.join(QStringLiteral(", "));
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    update();
}

void RowList::choose(int row)
{
    m_chosen = row >= 0 && row < static_cast<int>(m_rows.size()) ? row : -1;
    update();
}

void RowList::showChosen()
{
    for (QWidget *w = parentWidget(); w && m_chosen >= 0; w = w->parentWidget())
        if (auto *area = qobject_cast<QScrollArea *>(w))
            area->ensureVisible(0, rowHeight * m_chosen + rowHeight / 2, 0, 3 * rowHeight);
}

int RowList::rowAt(double y) const
{
    const int i = static_cast<int>(y) / rowHeight;
    return y >= 0 && i < static_cast<int>(m_rows.size()) ? i : -1;
}

void RowList::mousePressEvent(QMouseEvent *event)
{
    if (const int row = rowAt(event->position().y()); row >= 0) {
        setFocus();
        Q_EMIT picked(row);
    }
}

void RowList::mouseMoveEvent(QMouseEvent *event)
{
    const int row = rowAt(event->position().y());
    if (row == m_pointed)
        return;
    m_pointed = row;
    update();
    Q_EMIT pointed(row);
}

void RowList::leaveEvent(QEvent *)
{
    m_pointed = -1;
    update();
    Q_EMIT pointed(-1);
}

void RowList::keyPressEvent(QKeyEvent *event)
{
    const int by = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (by == 0 || m_rows.empty())
        return QWidget::keyPressEvent(event);
    Q_EMIT picked(std::clamp(m_chosen + by, 0, static_cast<int>(m_rows.size()) - 1));
}

bool RowList::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip) {
        const auto *help = static_cast<QHelpEvent *>(event);
        const int row = rowAt(help->pos().y());
        const Row *r = row < 0 ? nullptr : &m_rows[static_cast<size_t>(row)];
        QToolTip::showText(help->globalPos(),
                           !r                     ? QString()
                               : r->tip.isEmpty() ? r->cells.join(QStringLiteral(", "))
                                                  : r->tip,
                           this);
        return true;
    }
    return QWidget::event(event);
}

void RowList::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme &t = Theme::current();
    const double left = 30, wide = width() - left - 8;
    for (int i = 0; i < static_cast<int>(m_rows.size()); ++i) {
        const Row &r = m_rows[static_cast<size_t>(i)];
        const QRectF row(0, rowHeight * i, width(), rowHeight);
        if (i == m_chosen || i == m_pointed) {
            p.setPen(i == m_chosen && hasFocus() ? QPen(t.selection, 1) : QPen(Qt::NoPen));
            p.setBrush(t.selectionFill);
            p.drawRoundedRect(row.adjusted(2.5, 1.5, -2.5, -1.5), 4, 4);
        }
        if (!r.bare)
            drawMark(p, QPointF(16, row.center().y()), 12, r.mark);
        for (int c = 0; c < r.cells.size(); ++c) {
            const double from = left + wide * m_starts[static_cast<size_t>(c)];
            const bool last = static_cast<size_t>(c) + 1 >= m_starts.size();
            const double to
                = last ? width() - 8 : left + wide * m_starts[static_cast<size_t>(c) + 1] - 8;
            drawLine(p, QRectF(from, row.top(), to - from, rowHeight), Qt::AlignVCenter, r.cells[c],
                     textFont(TextSize::Normal, c == m_bold),
                     c != m_bold         ? t.muted
                         : i == m_chosen ? t.selection
                                         : t.ink);
        }
    }
}

} // namespace mildpath
