// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/oilreport.h"

#include <QWidget>

namespace mildpath {

/// Elements against the engine's hours, a lane each, with what the new oil brings. Samples of one
/// fill are joined; a new fill begins at the new oil again.
class OilLanes : public QWidget
{
    Q_OBJECT
public:
    explicit OilLanes(QWidget *parent = nullptr);
    void show(const Build &build, const OilReport &report, const std::string &sample,
              const std::string &element);
    static constexpr int laneHeight = 35;

Q_SIGNALS:
    void picked(const QString &sample, const QString &element);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    QRectF area() const;
    double x(double hours) const;
    void paintLane(QPainter &p, size_t i, const QRectF &lane) const;
    void drawFigures(QPainter &p, const QRectF &lane, const JudgedElement &e) const;
    size_t nearest(double pixel) const;

    OilReport m_report;
    std::map<std::string, double> m_fillFrom_h; ///< sample id → hours at which its fill began
    double m_first_h = 0, m_most_h = 1;
    std::string m_sample, m_element;
};

} // namespace mildpath
