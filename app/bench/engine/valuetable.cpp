// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/engine/valuetable.h"

#include "paint/text.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QScrollArea>

#include <algorithm>

namespace mildpath {
namespace {

constexpr int columnHead = 36;

/// A dimension line in the manner of its source: ends, and a word in a gap where there is room.
void drawSource(QPainter &p, const QRectF &along, Origin origin)
{
    const Theme &t = Theme::current();
    const bool strong = origin == Origin::Measured, own = origin == Origin::Shop;
    const QColor colour = strong ? t.ink : own ? t.selection : t.muted;
    QPen pen(colour, strong ? 1.6 : 1);
    if (own)
        pen.setDashPattern({ 3, 2 });
    if (origin == Origin::Typical)
        pen.setDashPattern({ 1, 2.5 });
    const double y = along.center().y();
    const QFont font = textFont(TextSize::Small);
    const QString word = originWord(origin);
    const double wide = widthOf(word, font);
    const bool worded = wide < along.width() - 4;
    p.setPen(pen);
    const double gap = worded ? wide / 2 : 0;
    if (!worded || along.width() - wide > 10) {
        p.drawLine(QPointF(along.left(), y), QPointF(along.center().x() - gap, y));
        p.drawLine(QPointF(along.center().x() + gap, y), QPointF(along.right(), y));
        p.setPen(QPen(colour, strong ? 1.6 : 1));
        for (const double x : { along.left(), along.right() })
            p.drawLine(QPointF(x, y - 3), QPointF(x, y + 3));
    }
    if (worded)
        drawLine(p, along, Qt::AlignCenter, word, font, colour);
}

} // namespace

QString originWord(Origin origin)
{
    switch (origin) {
    case Origin::Typical:
        return ValueTable::tr("typical");
    case Origin::Shop:
        return ValueTable::tr("shop");
    case Origin::Manufacturer:
        return ValueTable::tr("manufacturer");
    case Origin::Measured:
        return ValueTable::tr("measured");
    }
    return {};
}

ValueTable::ValueTable(QWidget *parent)
    : QWidget(parent)
{
    setFocusPolicy(Qt::StrongFocus);
}

int ValueTable::heightOf(const Row &row)
{
    return row.kind == Row::Family ? 40 : row.kind == Row::Heading ? 32 : 26;
}

double ValueTable::top(int row) const
{
    double y = columnHead;
    for (int i = 0; i < row; ++i)
        y += heightOf(m_rows[static_cast<size_t>(i)]);
    return y;
}

void ValueTable::setTable(double nameShare, std::vector<Column> columns, std::vector<Row> rows)
{
    m_nameShare = nameShare;
    m_columns = std::move(columns);
    m_rows = std::move(rows);
    if (!isThere(m_row, m_column)) {
        m_row = m_column = -1;
        for (int r = 0; r < static_cast<int>(m_rows.size()) && m_row < 0; ++r)
            for (int c = 0; c < static_cast<int>(m_columns.size()) && m_row < 0; ++c)
                if (isThere(r, c)) {
                    m_row = r;
                    m_column = c;
                }
    }
    setFixedHeight(static_cast<int>(top(static_cast<int>(m_rows.size()))) + 8);
    QStringList spoken;
    for (const Row &r : m_rows) {
        QStringList cells { r.name };
        for (size_t c = 0; c < r.cells.size(); ++c)
            if (r.cells[c].there && !r.cells[c].faint)
                cells << m_columns[c].title + u' '
                        + (r.cells[c].text.isEmpty() ? tr("not entered") : r.cells[c].text) + u' '
                        + originWord(r.cells[c].origin);
        spoken << cells.join(QStringLiteral(", "));
    }
    setAccessibleDescription(spoken.join(QStringLiteral("; ")));
    update();
}

bool ValueTable::isThere(int row, int column) const
{
    if (row < 0 || row >= static_cast<int>(m_rows.size()) || column < 0)
        return false;
    const auto &cells = m_rows[static_cast<size_t>(row)].cells;
    return column < static_cast<int>(cells.size()) && cells[static_cast<size_t>(column)].there;
}

void ValueTable::choose(int row, int column)
{
    if (!isThere(row, column))
        return;
    m_row = row;
    m_column = column;
    for (QWidget *w = parentWidget(); w; w = w->parentWidget())
        if (auto *area = qobject_cast<QScrollArea *>(w))
            area->ensureVisible(0, static_cast<int>(cellRect(row, column).center().y()), 0, 60);
    update();
    Q_EMIT chosen();
}

void ValueTable::step(int rows, int columns)
{
    int row = m_row, column = m_column;
    while (true) {
        row += rows;
        column += columns;
        if (columns != 0 && (column < 0 || column >= static_cast<int>(m_columns.size()))) {
            // Along the row, then on in the next.
            row += columns;
            column = columns > 0 ? 0 : static_cast<int>(m_columns.size()) - 1;
        }
        if (row < 0 || row >= static_cast<int>(m_rows.size()))
            return;
        if (isThere(row, column))
            return choose(row, column);
    }
}

QRectF ValueTable::cellRect(int row, int column) const
{
    const double left = m_nameShare * width();
    // A single column leaves room for its sources beside it.
    const double wide = m_columns.size() == 1
        ? 120
        : (width() - left - 8) / static_cast<double>(m_columns.size());
    return { left + wide * column, top(row), wide,
             static_cast<double>(heightOf(m_rows[static_cast<size_t>(row)])) };
}

bool ValueTable::cellAt(QPointF at, int &row, int &column) const
{
    for (row = 0; row < static_cast<int>(m_rows.size()); ++row)
        for (column = 0; column < static_cast<int>(m_columns.size()); ++column)
            if (cellRect(row, column).contains(at))
                return true;
    return false;
}

void ValueTable::mousePressEvent(QMouseEvent *event)
{
    setFocus();
    int row, column;
    if (cellAt(event->position(), row, column))
        choose(row, column);
}

void ValueTable::mouseDoubleClickEvent(QMouseEvent *event)
{
    int row, column;
    if (cellAt(event->position(), row, column) && isThere(row, column))
        Q_EMIT editAsked(nullptr);
}

void ValueTable::keyPressEvent(QKeyEvent *event)
{
    const bool control = event->modifiers().testFlag(Qt::ControlModifier);
    switch (event->key()) {
    case Qt::Key_Down:
        if (event->modifiers().testFlag(Qt::AltModifier))
            Q_EMIT sourceAsked();
        else
            step(1, 0);
        return;
    case Qt::Key_Up:
        return step(-1, 0);
    case Qt::Key_Left:
    case Qt::Key_Backtab:
        return step(0, -1);
    case Qt::Key_Right:
    case Qt::Key_Tab:
        return step(0, 1);
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_F2:
        Q_EMIT editAsked(nullptr);
        return;
    case Qt::Key_Delete:
        Q_EMIT deleteAsked();
        return;
    case Qt::Key_Space:
        Q_EMIT openAsked();
        return;
    case Qt::Key_D:
        if (control)
            Q_EMIT alikeAsked();
        return;
    default:
        break;
    }
    if (event->matches(QKeySequence::Copy))
        Q_EMIT copyAsked();
    else if (event->matches(QKeySequence::Paste))
        Q_EMIT pasteAsked();
    else if (!event->text().isEmpty() && event->text().at(0).isDigit())
        Q_EMIT editAsked(event);
    else
        QWidget::keyPressEvent(event);
}

void ValueTable::paintRow(QPainter &p, int row) const
{
    const Theme &t = Theme::current();
    const Row &r = m_rows[static_cast<size_t>(row)];
    const double y = top(row), left = m_nameShare * width();
    if (row == m_row) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.selectionFill);
        p.drawRect(QRectF(0, y, width(), heightOf(r)));
    }
    p.setPen(QPen(t.line, r.kind == Row::Heading ? 1.2 : 0.7));
    if (r.kind != Row::Member)
        p.drawLine(QPointF(0, y), QPointF(width(), y));
    const double indent = r.kind == Row::Member ? 22 : 8;
    const bool bold = r.kind == Row::Family || r.kind == Row::Heading;
    const QRectF name(indent, y + (r.kind == Row::Heading ? 8 : 3), left - indent - 4, 18);
    drawLine(p, name, Qt::AlignVCenter, r.name, textFont(TextSize::Normal, bold),
             r.kind == Row::Member ? t.muted : t.ink);
    if (!r.note.isEmpty())
        drawLine(p, QRectF(indent, y + 20, left - indent - 4, 16), Qt::AlignVCenter, r.note,
                 textFont(TextSize::Small), t.muted);
    for (int c = 0; c < static_cast<int>(r.cells.size()); ++c) {
        const Cell &cell = r.cells[static_cast<size_t>(c)];
        if (!cell.there)
            continue;
        const QRectF box = cellRect(row, c).adjusted(2, 2, -2, -2);
        if (row == m_row && c == m_column) {
            p.setPen(QPen(t.selection, hasFocus() ? 2 : 1));
            p.setBrush(t.panel);
            p.drawRoundedRect(QRectF(box.left(), box.top(), box.width(), 20), 4, 4);
        }
        const bool strong = r.kind == Row::Family || (r.kind == Row::Member && !cell.faint);
        drawLine(p, QRectF(box.left(), box.top(), box.width() - 6, 20),
                 Qt::AlignRight | Qt::AlignVCenter,
                 cell.text.isEmpty() ? QStringLiteral("–") : cell.text,
                 textFont(TextSize::Normal, strong && cell.origin != Origin::Typical),
                 cell.faint || cell.origin == Origin::Typical ? t.muted : t.ink);
    }
}

void ValueTable::paintSources(QPainter &p, int row) const
{
    const Row &r = m_rows[static_cast<size_t>(row)];
    if (r.kind == Row::Heading || r.kind == Row::Member)
        return;
    const auto counts = [&](size_t c) { return r.cells[c].there && !r.cells[c].text.isEmpty(); };
    for (size_t c = 0; c < r.cells.size(); ++c) {
        if (!counts(c))
            continue;
        size_t last = c;
        while (last + 1 < r.cells.size() && counts(last + 1)
               && r.cells[last + 1].origin == r.cells[c].origin)
            ++last;
        const QRectF from = cellRect(row, static_cast<int>(c)),
                     to = cellRect(row, static_cast<int>(last));
        const double y = r.kind == Row::Family ? from.top() + 24 : from.top() + 5;
        // Of a list the source stands beside the number.
        const double begin = r.kind == Row::Entry ? to.right() + 10 : from.left() + 8;
        const double end
            = r.kind == Row::Entry ? std::min(width() - 12.0, begin + 170) : to.right() - 6;
        drawSource(p, QRectF(begin, y, end - begin, 14), r.cells[c].origin);
        c = last;
    }
}

void ValueTable::paintEvent(QPaintEvent *)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const Theme &t = Theme::current();
    for (int c = 0; c < static_cast<int>(m_columns.size()) && !m_rows.empty(); ++c) {
        const QRectF cell = cellRect(0, c);
        const Column &column = m_columns[static_cast<size_t>(c)];
        drawLine(p, QRectF(cell.left() - 4, 16, cell.width() - 4, 16),
                 Qt::AlignRight | Qt::AlignVCenter, column.title, textFont(TextSize::Small),
                 t.muted);
        // One unit over the columns that share it.
        const bool begins = c == 0 || m_columns[static_cast<size_t>(c) - 1].unit != column.unit;
        if (!begins || column.unit.isEmpty())
            continue;
        int last = c;
        while (last + 1 < static_cast<int>(m_columns.size())
               && m_columns[static_cast<size_t>(last) + 1].unit == column.unit)
            ++last;
        const QRectF span(cell.left() + 12, 1, cellRect(0, last).right() - cell.left() - 18, 14);
        p.setPen(QPen(t.line, 1));
        p.drawLine(QPointF(span.left(), 15), QPointF(span.right(), 15));
        drawLine(p, span, Qt::AlignCenter, column.unit, textFont(TextSize::Small), t.muted);
    }
    for (int row = 0; row < static_cast<int>(m_rows.size()); ++row) {
        paintRow(p, row);
        paintSources(p, row);
    }
}

} // namespace mildpath
