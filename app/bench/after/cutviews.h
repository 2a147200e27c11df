// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/cutreport.h"

#include <QWidget>

namespace mildpath {

/// Particles by kind against the engine's hours: a lane for each kind, a bar over the hours each
/// filter saw. The first hours stand apart.
class CutChart : public QWidget
{
    Q_OBJECT
public:
    explicit CutChart(QWidget *parent = nullptr);
    void show(const Build &build, const CutReport &report, const std::string &chosen);

Q_SIGNALS:
    void picked(const QString &id);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    struct Bar
    {
        double from_h, to_h;
    };
    QRectF area() const;
    double x(double hours) const;
    void paintLane(QPainter &p, size_t kind, const QRectF &lane) const;

    CutReport m_report;
    std::vector<Bar> m_bars; ///< of the report's cuts
    double m_first_h = 0, m_most_h = 1;
    std::string m_chosen;
};

/// One cut against the earlier one it is like: how many times the rate, with its interval.
class CutComparison : public QWidget
{
    Q_OBJECT
public:
    explicit CutComparison(QWidget *parent = nullptr);
    /// @param cut  null: none chosen
    void show(const JudgedCut *cut);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    std::vector<JudgedKind> m_kinds;
};

} // namespace mildpath
