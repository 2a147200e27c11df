// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "kinds/origin.h"

#include <QWidget>

#include <vector>

namespace mildpath {

/// Numbers in rows and columns, each with where it comes from drawn as a dimension line under it;
/// neighbours of one source share a line. Arrows and Tab walk over what is there; typing asks for
/// an editor over the cell.
class ValueTable : public QWidget
{
    Q_OBJECT
public:
    struct Cell
    {
        bool there = false; ///< else there is no such number
        QString text; ///< empty: not entered
        Origin origin = Origin::Typical;
        bool faint = false; ///< as its family's: shown for orientation
        bool operator==(const Cell &) const = default;
    };
    struct Row
    {
        enum Kind { Heading, Family, Member, Entry } kind;
        QString name, note;
        std::vector<Cell> cells;
        bool operator==(const Row &) const = default;
    };
    struct Column
    {
        QString title, unit;
        bool operator==(const Column &) const = default;
    };
    explicit ValueTable(QWidget *parent);

    /// @param nameShare  of the width, for the names
    void setTable(double nameShare, std::vector<Column> columns, std::vector<Row> rows);
    int row() const { return m_row; }
    int column() const { return m_column; }
    /// The cell that is chosen; a place where nothing is leaves it as it was.
    void choose(int row, int column);
    /// To the next cell there is, down or to the right.
    void step(int rows, int columns);
    QRectF cellRect(int row, int column) const;
    const std::vector<Row> &rows() const { return m_rows; }

Q_SIGNALS:
    void chosen();
    /// @param event  what was typed; null: by Enter or a double click
    void editAsked(QKeyEvent *event);
    void deleteAsked();
    void openAsked(); ///< to see each part of the family, or no longer
    void alikeAsked(); ///< all of the family as this
    void sourceAsked(); ///< another source
    void copyAsked();
    void pasteAsked();

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseDoubleClickEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool focusNextPrevChild(bool) override { return false; } ///< Tab walks along the row

private:
    static int heightOf(const Row &row);
    double top(int row) const;
    bool isThere(int row, int column) const;
    bool cellAt(QPointF at, int &row, int &column) const;
    void paintRow(QPainter &p, int row) const;
    void paintSources(QPainter &p, int row) const;

    double m_nameShare = 0.22;
    std::vector<Column> m_columns;
    std::vector<Row> m_rows;
    int m_row = -1, m_column = -1;
};

/// "measured", "manufacturer", "shop", "typical": as it stands under a number.
QString originWord(Origin origin);

} // namespace mildpath
