// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/start/cardlist.h"

#include "paint/marks.h"
#include "paint/text.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QScrollArea>
#include <QToolTip>

namespace mildpath {
namespace {

constexpr double oneLine = 24, twoLines = 38, indent = 34;

} // namespace

CardList::CardList(QWidget *parent)
    : QWidget(parent)
{
    setObjectName(QStringLiteral("start.card"));
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("Start-up checklist"));
}

void CardList::setCard(const RunCard &card)
{
    m_rows.clear();
    for (const CardItem &i : card.items) {
        QString below = qs(i.said.empty() ? i.threshold : i.said);
        if (!i.why.empty() && (i.done || i.kind == CardKind::Start))
            below += (below.isEmpty() ? QString() : QStringLiteral("; ")) + qs(i.why);
        QString tip = qs(markWord(i.mark));
        for (const Phrase &more : { i.threshold, i.why, Phrase(i.caution) })
            if (!more.empty())
                tip += QStringLiteral("\n") + qs(more);
        m_rows.push_back({ qs(i.id), qs(i.text), below, tip, i.mark, i.locked });
    }
    setFixedHeight(static_cast<int>(rowTop(m_rows.size())) + 4);
    update();
}

void CardList::choose(const QString &step)
{
    m_chosen = step;
    for (size_t i = 0; i < m_rows.size(); ++i) {
        const Row &r = m_rows[i];
        if (r.step != step)
            continue;
        setAccessibleDescription(r.text + QStringLiteral(", ") + qs(markWord(r.mark))
                                 + QStringLiteral(", ") + r.below);
        // With a step before and behind it in sight.
        if (auto *scroll
            = qobject_cast<QScrollArea *>(parentWidget() && parentWidget()->parentWidget()
                                              ? parentWidget()->parentWidget()->parentWidget()
                                              : nullptr))
            scroll->ensureVisible(0, static_cast<int>(rowTop(i) + twoLines / 2), 0,
                                  static_cast<int>(2 * twoLines));
    }
    update();
}

double CardList::rowTop(size_t row) const
{
    double y = 0;
    for (size_t i = 0; i < row && i < m_rows.size(); ++i)
        y += m_rows[i].below.isEmpty() ? oneLine : twoLines;
    return y;
}

int CardList::rowAt(double y) const
{
    for (size_t i = 0; i < m_rows.size(); ++i)
        if (y >= rowTop(i) && y < rowTop(i + 1))
            return static_cast<int>(i);
    return -1;
}

void CardList::pick(int row)
{
    if (row < 0 || row >= static_cast<int>(m_rows.size()))
        return;
    choose(m_rows[static_cast<size_t>(row)].step);
    Q_EMIT picked(m_chosen);
}

void CardList::paintEvent(QPaintEvent *)
{
    const Theme &t = Theme::current();
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const double x = 14;
    for (size_t i = 0; i < m_rows.size(); ++i) {
        const Row &r = m_rows[i];
        const double top = rowTop(i), high = rowTop(i + 1) - top;
        if (r.step == m_chosen) {
            p.setPen(hasFocus() ? QPen(t.selection, 1) : QPen(Qt::NoPen));
            p.setBrush(t.selectionFill);
            p.drawRoundedRect(QRectF(0.5, top + 0.5, width() - 1, high - 1), 4, 4);
        }
        if (i + 1 < m_rows.size()) {
            p.setPen(QPen(t.line, 2));
            p.drawLine(QPointF(x, top + 20), QPointF(x, top + high + 4));
        }
        drawMark(p, { x, top + 12 }, 12, r.mark);
        const bool bold = r.mark == Mark::Hold || r.step == m_chosen;
        drawLine(p, QRectF(indent, top + 2, width() - indent - 4, 20),
                 Qt::AlignLeft | Qt::AlignVCenter, r.text, textFont(TextSize::Body, bold),
                 r.locked ? t.muted : t.ink);
        if (!r.below.isEmpty())
            drawLine(p, QRectF(indent, top + 19, width() - indent - 4, 16),
                     Qt::AlignLeft | Qt::AlignVCenter, r.below, textFont(TextSize::Small), t.muted);
    }
}

void CardList::mousePressEvent(QMouseEvent *event)
{
    pick(rowAt(event->position().y()));
}

void CardList::keyPressEvent(QKeyEvent *event)
{
    int row = 0;
    for (size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i].step == m_chosen)
            row = static_cast<int>(i);
    if (event->key() == Qt::Key_Down)
        pick(row + 1);
    else if (event->key() == Qt::Key_Up)
        pick(row - 1);
    else
        QWidget::keyPressEvent(event);
}

bool CardList::event(QEvent *event)
{
    if (event->type() == QEvent::ToolTip) {
        auto *help = static_cast<QHelpEvent *>(event);
        const int row = rowAt(help->pos().y());
        if (row >= 0)
            QToolTip::showText(help->globalPos(), m_rows[static_cast<size_t>(row)].tip, this);
        return true;
    }
    return QWidget::event(event);
}

} // namespace mildpath
