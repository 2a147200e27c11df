// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"

#include <QWidget>

namespace mildpath {

/// Viscosity against temperature on the double-log scale, on which an oil is a straight line, with
/// the grades' windows at 100 °C beside it.
class OilChart : public QWidget
{
public:
    explicit OilChart(OpenBuild &open, QWidget *parent = nullptr);
    /// Names of the oils drawn, the build's own first.
    QStringList oils() const;
    /// Share of petrol in the build's oil, drawn as a further line when above 0.
    void setFuel(double fraction);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    struct Line
    {
        QString name;
        Oil oil;
        QColor colour;
        bool thick, dashed;
    };
    std::vector<Line> lines() const;
    QPointF at(double celsius, double kv_mm2_s) const;
    void paintScale(QPainter &p) const;
    void paintWindows(QPainter &p) const;
    void paintLegend(QPainter &p, const std::vector<Line> &lines) const;

    OpenBuild &m_open;
    double m_fuel = 0;
    QRectF m_area;
};

} // namespace mildpath
