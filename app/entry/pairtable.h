// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include <utility>
#include <vector>

class QLabel;
class QTableWidget;

namespace mildpath {

/// Rows of two numbers, typed in place: corners of a section, litres against height. Enter stores
/// and moves down; a row at the end waits for more; Delete takes rows out.
class PairTable : public QWidget
{
    Q_OBJECT
public:
    /// @param name  object name of the table
    PairTable(const QString &name, const QString &first, const QString &second,
              QWidget *parent = nullptr);
    void setRows(const std::vector<std::pair<double, double>> &rows);
    const std::vector<std::pair<double, double>> &rows() const { return m_rows; }
    /// Says what was wrong with the rows; empty: nothing.
    void say(const QString &reason);

Q_SIGNALS:
    void edited(const std::vector<std::pair<double, double>> &rows);

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void cellChanged(int row, int column);
    void show();

    QTableWidget *m_table;
    QLabel *m_reason;
    std::vector<std::pair<double, double>> m_rows;
};

} // namespace mildpath
