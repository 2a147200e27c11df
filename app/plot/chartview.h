// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/chart.h"
#include "plot/labels.h"

#include <QWidget>

class QCustomPlot;

namespace mildpath {

class ChartCanvas;

/// A chart in the theme's colours; words find a free place beside curves and each other. The
/// pointer, or the arrow keys, read the lines off; Enter shows the figures as a table. Charts with
/// something of their own draw it in paintOver(). The only user of the plotting library.
class ChartView : public QWidget
{
    Q_OBJECT
public:
    explicit ChartView(QWidget *parent = nullptr);
    /// Pixels over the area where nothing else is asked for: the title of the upright axis.
    static constexpr double topGap = 22;

    void setChart(Chart chart);
    const Chart &chart() const { return m_chart; }
    int lineCount() const { return static_cast<int>(m_chart.lines.size()); }
    /// Where the numbers are drawn.
    const QRectF &area() const { return m_area; }
    QPointF at(double x, double y) const;
    /// What stands at x: the number of the axis, then every named line that reaches there.
    QStringList readAt(double x) const;
    /// Reads off at x; nothing: no longer.
    void pointAt(std::optional<double> x);
    std::optional<double> pointed() const { return m_pointed; }
    /// Draws at once what would be drawn with the next event: what takes the time of a repaint.
    void paintNow();
    /// Where the words stood when it was last painted.
    const std::vector<QRectF> &words() const { return m_words; }
    /// What they had to keep off: points, and marks a page drew of its own.
    const std::vector<QRectF> &blocked() const { return m_blocked; }
    QSize sizeHint() const override { return { 420, 260 }; }

public Q_SLOTS:
    void showTable();

protected:
    virtual void paintOver(QPainter &, LabelSpace &) { }

    void changeEvent(QEvent *event) override;
    void contextMenuEvent(QContextMenuEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void leaveEvent(QEvent *event) override;
    void focusInEvent(QFocusEvent *event) override;
    void focusOutEvent(QFocusEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    friend class ChartCanvas;
    void draw();
    void layOut();
    void addLine(const ChartLine &line);
    void addDots();
    void addZone(const ChartZone &zone);
    void paintWords(QPainter &painter);
    void paintTitles(QPainter &painter) const;
    void paintZoneNames(QPainter &painter, LabelSpace &space) const;
    void paintMarkNames(QPainter &painter, LabelSpace &space) const;
    void paintLineNames(QPainter &painter, LabelSpace &space) const;
    void paintDotNames(QPainter &painter, LabelSpace &space) const;
    void paintLegend(QPainter &painter, LabelSpace &space) const;
    void paintReading(QPainter &painter) const;
    QRectF roomFor() const;
    QColor ground() const;
    QPolygonF pixels(const ChartLine &line) const;

    ChartCanvas *m_plot;
    Chart m_chart;
    QRectF m_area;
    std::optional<double> m_pointed;
    std::vector<QRectF> m_words, m_blocked;
};

} // namespace mildpath
