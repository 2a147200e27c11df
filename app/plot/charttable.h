// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/chart.h"

#include <QDialog>

class QTableWidget;

namespace mildpath {

/// The figures of a chart, to read, to have read aloud and to copy.
class ChartTableDialog : public QDialog
{
    Q_OBJECT
public:
    ChartTableDialog(const QString &title, const ChartTable &table, QWidget *parent = nullptr);
    /// Tab between cells, a line a row: what spreadsheets take.
    static QString asText(const ChartTable &table);
};

} // namespace mildpath
