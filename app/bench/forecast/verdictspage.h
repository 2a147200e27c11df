// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "checks/verdicttable.h"
#include "shell/page.h"

#include <QWidget>

namespace mildpath {

/// What must be enough, or not too much, down; where the engine is judged, across. Each cell: the
/// figure, how many times its need, and on a ruler common to all where it stands from its limit.
class VerdictGrid : public QWidget
{
    Q_OBJECT
public:
    explicit VerdictGrid(QWidget *parent);
    void setTable(VerdictTable table);
    /// How sure the cells are; empty: not known yet.
    void setRanges(VerdictRanges ranges);
    /// Of a cell; null: none, or not known yet.
    const VerdictRange *rangeOf(int row, int column) const;
    const VerdictTable &table() const { return m_table; }
    const VerdictRanges &ranges() const { return m_ranges; }
    void choose(int row, int column);
    int row() const { return m_row; }
    int column() const { return m_column; }
    /// Middle of a cell, for clicks.
    QPointF placeOf(int row, int column) const { return cellArea(row, column).center(); }

Q_SIGNALS:
    void picked(int row, int column);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    QRectF cellArea(int row, int column) const;
    void paintHead(QPainter &p) const;
    void paintCell(QPainter &p, int row, int column) const;
    void paintRuler(QPainter &p, const QRectF &area, const VerdictCell &cell, bool upper,
                    const VerdictRange *range) const;
    void paintLegend(QPainter &p) const;

    VerdictTable m_table;
    VerdictRanges m_ranges;
    int m_row = -1, m_column = -1;
};

class VerdictsPage : public Page
{
    Q_OBJECT
public:
    VerdictsPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "verdicts", tr("Verdicts") } }; }
    QString title() const override { return tr("Every verdict at once"); }
    QString about() const override;
    void reset() override;
    void refresh() override;
    PanelContent panel() override;
    void takeFocus() override { m_grid->setFocus(Qt::OtherFocusReason); }

private:
    void pickWorst();
    void doubts(const VerdictRow &row, const VerdictRange &range, PanelContent &out) const;
    void wideRanges(PanelContent &out) const;

    VerdictGrid *m_grid;
};

} // namespace mildpath
