// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/charttable.h"

#include <QApplication>
#include <QClipboard>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace mildpath {

ChartTableDialog::ChartTableDialog(const QString &title, const ChartTable &table, QWidget *parent)
    : QDialog(parent)
{
    setWindowTitle(title);
    auto *column = new QVBoxLayout(this);
    auto *cells = new QTableWidget(static_cast<int>(table.rows.size()),
                                   static_cast<int>(table.head.size()), this);
    cells->setObjectName(QStringLiteral("chart.table"));
    cells->setHorizontalHeaderLabels(table.head);
    cells->verticalHeader()->hide();
    cells->setEditTriggers(QAbstractItemView::NoEditTriggers);
    for (int r = 0; r < cells->rowCount(); ++r)
        for (int c = 0; c < cells->columnCount(); ++c) {
            auto *item = new QTableWidgetItem(table.rows[static_cast<size_t>(r)].value(c));
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            cells->setItem(r, c, item);
        }
    cells->resizeColumnsToContents();
    column->addWidget(cells);
    auto *buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
    QPushButton *copy = buttons->addButton(tr("Copy"), QDialogButtonBox::ActionRole);
    connect(copy, &QPushButton::clicked, this,
            [table] { QApplication::clipboard()->setText(asText(table)); });
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    column->addWidget(buttons);
    resize(620, 420);
}

QString ChartTableDialog::asText(const ChartTable &table)
{
    QString out = table.head.join(u'\t');
    for (const QStringList &row : table.rows)
        out += u'\n' + row.join(u'\t');
    return out + u'\n';
}

} // namespace mildpath
