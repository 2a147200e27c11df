// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

class QLabel;
class QTimer;

namespace mildpath {

class CurveChart;

/// Pressure against speed for three oil temperatures, where the oil goes, other oils, levers.
class ForecastBench : public Bench
{
    Q_OBJECT
public:
    ForecastBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;

private:
    void useFields(PanelContent &out) const;
    void draw(const std::vector<ForecastLine> &lines);
    void drawFiner();

    QLabel *m_title, *m_subtitle;
    CurveChart *m_chart;
    QWidget *m_shares, *m_oils, *m_levers;
    QTimer *m_finer; ///< more speeds once the keys rest
};

} // namespace mildpath
