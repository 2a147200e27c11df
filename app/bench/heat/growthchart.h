// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "plot/chartview.h"
#include "study/heatlog.h"

namespace mildpath {

/// Clearance against temperature: mains and big-ends with block and crank alike, the running point,
/// the floor, and the heated-block test as the gauge reads it and as it runs.
class GrowthChart : public ChartView
{
    Q_OBJECT
public:
    explicit GrowthChart(OpenBuild &open, QWidget *parent = nullptr);
    void setLog(const HeatLog &log);

protected:
    void paintOver(QPainter &p, LabelSpace &space) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    void redraw();
    void addFamily(Chart &chart, const std::string &family, const QColor &colour) const;
    void addLog(Chart &chart) const;
    void paintNames(QPainter &p) const;
    void paintKey(QPainter &p) const;

    OpenBuild &m_open;
    HeatLog m_log;
};

} // namespace mildpath
