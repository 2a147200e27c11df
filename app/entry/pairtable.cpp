// SPDX-License-Identifier: GPL-3.0-or-later
#include "entry/pairtable.h"

#include "entry/quantityfield.h"
#include "paint/text.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QVBoxLayout>

#include <set>

namespace mildpath {

PairTable::PairTable(const QString &name, const QString &first, const QString &second,
                     QWidget *parent)
    : QWidget(parent)
    , m_table(new QTableWidget(0, 2, this))
    , m_reason(new QLabel(this))
{
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(2);
    m_table->setObjectName(name);
    m_table->setHorizontalHeaderLabels({ first, second });
    m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    m_table->verticalHeader()->setDefaultSectionSize(22);
    m_table->setFont(textFont(TextSize::Normal));
    m_table->horizontalHeader()->setFont(textFont(TextSize::Small));
    m_table->verticalHeader()->setFont(textFont(TextSize::Small));
    m_table->installEventFilter(this);
    column->addWidget(m_table, 1);
    m_reason->setWordWrap(true);
    m_reason->setObjectName(name + QStringLiteral(".reason"));
    m_reason->hide();
    column->addWidget(m_reason);
    connect(m_table, &QTableWidget::cellChanged, this, &PairTable::cellChanged);
}

void PairTable::setRows(const std::vector<std::pair<double, double>> &rows)
{
    m_rows = rows;
    show();
}

void PairTable::show()
{
    const QSignalBlocker block(m_table);
    m_table->setRowCount(static_cast<int>(m_rows.size()) + 1);
    for (int r = 0; r <= static_cast<int>(m_rows.size()); ++r)
        for (int c = 0; c < 2; ++c) {
            QString text;
            if (r < static_cast<int>(m_rows.size())) {
                const auto &[a, b] = m_rows[static_cast<size_t>(r)];
                text = QString::number(c == 0 ? a : b, 'g', 8);
            }
            auto *item = new QTableWidgetItem(text);
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            m_table->setItem(r, c, item);
        }
}

void PairTable::say(const QString &reason)
{
    m_reason->setText(reason);
    setTone(m_reason, Theme::current().hold);
    m_reason->setVisible(!reason.isEmpty());
}

void PairTable::cellChanged(int row, int column)
{
    const QString text = m_table->item(row, column)->text().trimmed();
    const auto plain = withoutComma(text, QLocale());
    bool good = false;
    const double value = plain ? plain->toDouble(&good) : 0;
    if (!good || !std::isfinite(value)) {
        if (!text.isEmpty() || row < static_cast<int>(m_rows.size())) {
            say(plain ? tr("Row %1: \"%2\" is not a number").arg(row + 1).arg(text)
                      : tr("Row %1: %2").arg(row + 1).arg(qs(plain.error().message)));
            show();
        }
        return;
    }
    auto rows = m_rows;
    if (row < static_cast<int>(rows.size())) {
        (column == 0 ? rows[static_cast<size_t>(row)].first : rows[static_cast<size_t>(row)].second)
            = value;
    } else {
        // The waiting row counts once both of its cells are filled.
        const QString other = m_table->item(row, 1 - column)->text().trimmed();
        bool both = false;
        const double second = other.toDouble(&both);
        if (!both)
            return;
        rows.push_back(column == 0 ? std::pair(value, second) : std::pair(second, value));
    }
    say({});
    Q_EMIT edited(rows);
}

bool PairTable::eventFilter(QObject *watched, QEvent *event)
{
    if (watched == m_table && event->type() == QEvent::KeyPress
        && static_cast<QKeyEvent *>(event)->key() == Qt::Key_Delete) {
        std::set<int, std::greater<>> chosen;
        for (const QTableWidgetItem *i : m_table->selectedItems())
            chosen.insert(i->row());
        auto rows = m_rows;
        for (const int r : chosen)
            if (r < static_cast<int>(rows.size()))
                rows.erase(rows.begin() + r);
        if (rows.size() != m_rows.size())
            Q_EMIT edited(rows);
        return true;
    }
    return QWidget::eventFilter(watched, event);
}

} // namespace mildpath
