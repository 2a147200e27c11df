// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

class QLabel;

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

    QLabel *m_title, *m_subtitle;
    CurveChart *m_chart;
    QWidget *m_shares, *m_oils, *m_levers;
};

} // namespace mildpath
