// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "open/openbuild.h"
#include "study/heatlog.h"

#include <QWidget>

namespace mildpath {

/// Clearance against temperature: mains and big-ends with block and crank alike, the running point,
/// the floor, and the heated-block test as the gauge reads it and as it runs.
class GrowthChart : public QWidget
{
    Q_OBJECT
public:
    explicit GrowthChart(OpenBuild &open, QWidget *parent = nullptr);
    void setLog(const HeatLog &log);

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    struct Scale;
    Scale scale() const;
    void paintGrid(QPainter &p, const Scale &s) const;
    void paintFamily(QPainter &p, const Scale &s, const std::string &family,
                     const QColor &colour) const;
    void paintNames(QPainter &p, const Scale &s) const;
    /// Text on a breath of the chart's ground, so that lines do not cross it.
    void paintLabel(QPainter &p, const QRectF &box, const QString &text, const QFont &font,
                    const QColor &colour) const;
    void paintLog(QPainter &p, const Scale &s) const;

    OpenBuild &m_open;
    HeatLog m_log;
};

} // namespace mildpath
