// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/rules.h"

#include <QStringList>
#include <QWidget>

#include <vector>

namespace mildpath {

/// Rows of many like things to look down and choose from: a mark, a name in bold, further columns.
class RowList : public QWidget
{
    Q_OBJECT
public:
    struct Row
    {
        Mark mark;
        QStringList cells; ///< as many as there are columns
        QString tip {};
        bool bare = false; ///< no mark is drawn or spoken
        bool operator==(const Row &) const = default;
    };
    /// @param starts  where each column begins, as shares of the width; the mark stands before them
    /// @param bold    which column is the name
    RowList(std::vector<double> starts, int bold, QWidget *parent);

    void setRows(std::vector<Row> rows);
    const std::vector<Row> &rows() const { return m_rows; }
    void choose(int row);
    /// Scrolls what it stands in so that the chosen row is seen.
    void showChosen(); ///< −1: none
    int chosen() const { return m_chosen; }
    static constexpr int rowHeight = 23;

Q_SIGNALS:
    void picked(int row); ///< clicked, or walked to by key
    void pointed(int row); ///< the pointer is over it; −1: over none

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void leaveEvent(QEvent *) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    int rowAt(double y) const;

    std::vector<double> m_starts;
    int m_bold;
    std::vector<Row> m_rows;
    int m_chosen = -1, m_pointed = -1;
};

} // namespace mildpath
