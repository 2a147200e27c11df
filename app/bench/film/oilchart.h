// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "plot/chartview.h"

namespace mildpath {

/// Viscosity against temperature on the double-log scale, on which an oil is a straight line, with
/// the grades' windows at 100 °C beside it.
class OilChart : public ChartView
{
    Q_OBJECT
public:
    explicit OilChart(OpenBuild &open, QWidget *parent = nullptr);
    /// Names of the oils drawn, the build's own first.
    QStringList oils() const;
    /// Share of petrol in the build's oil, drawn as a further line when above 0.
    void setFuel(double fraction);

    void redraw();

protected:
    void paintOver(QPainter &p, LabelSpace &space) override;

private:
    struct Line
    {
        QString name;
        Oil oil;
        QColor colour;
        bool thick, dashed;
    };
    std::vector<Line> lines() const;

    OpenBuild &m_open;
    double m_fuel = 0;
};

} // namespace mildpath
