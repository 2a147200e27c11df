// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/air.h"

#include <QWidget>

#include <optional>

class QPainter;

namespace mildpath {

/// Litres from too little to too much: where gas is drawn, where the window is, where the crank
/// dips, and the fill there is. The fill is dragged, or nudged by key.
class FillBar : public QWidget
{
    Q_OBJECT
public:
    explicit FillBar(QWidget *parent = nullptr);
    void set(const AirReport &air, std::optional<double> fill_l, const QString &advice);
    double xOf(double litres) const; ///< for tests

Q_SIGNALS:
    void dragged(double litres);
    void dropped(double litres);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    QRectF bar() const;
    void paintZones(QPainter &p) const;
    double litresAt(double x) const;

    std::optional<FillWindow> m_window, m_edge;
    QString m_leastName, m_mostName, m_problem, m_advice;
    std::optional<double> m_fill;
    double m_from = 0, m_to = 1;
    bool m_dragging = false;
};

} // namespace mildpath
