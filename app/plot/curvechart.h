// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QColor>
#include <QString>
#include <QWidget>

#include <vector>

class QCustomPlot;

namespace mildpath {

/// A curve with its band. `low` and `high` are as long as `x`, or empty for no band.
struct Curve
{
    QString name; ///< written at the curve
    QColor colour;
    std::vector<double> x, y, low, high;
    bool dashed = false;
    double labelAt = 0.4; ///< share of the x range where the name stands
};

/// A dotted upright with a word at its foot.
struct ChartMark
{
    double x;
    QString text;
};

/// Curves over one axis pair in the theme's colours. The only user of the plotting library.
class CurveChart : public QWidget
{
    Q_OBJECT
public:
    explicit CurveChart(QWidget *parent = nullptr);
    void setAxes(const QString &xName, const QString &yName);
    void setContent(const std::vector<Curve> &curves, const std::vector<ChartMark> &marks,
                    double mostY, double leastY = 0);
    int curveCount() const { return m_curveCount; }

private:
    void applyColours();

    QCustomPlot *m_plot;
    int m_curveCount = 0;
};

} // namespace mildpath
