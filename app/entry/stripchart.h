// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

namespace mildpath {

/// The chart of a plastic strip: how wide it is crushed at each clearance. A click takes that step.
class StripChart : public QWidget
{
    Q_OBJECT
public:
    explicit StripChart(QWidget *parent = nullptr);

Q_SIGNALS:
    void chosen(double clearance_um);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;

private:
    double stepAt(int row) const;
    QRectF rowArea(int row) const;
};

} // namespace mildpath
