// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/forecast.h"
#include "shell/page.h"
#include "study/sampling.h"

#include <optional>

class QLabel;
class QPushButton;
class QTimer;

namespace mildpath {

class ChartView;
class GasLayer;
struct Chart;
struct ChartLine;

/// Pressure against speed for three oil temperatures, where the oil goes, other oils, levers; what
/// would mend it; what readings say is wrong.
class PressurePage : public Page
{
    Q_OBJECT
public:
    PressurePage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "pressure", tr("Pressure") } }; }
    QString title() const override { return tr("Pressure at the gauge"); }
    QString about() const override;
    void leave() override;
    QWidget *headWidget() override;
    void refresh() override;
    PanelContent panel() override;

private:
    void verdict(PanelContent &out) const;
    void useFields(PanelContent &out) const;
    void crankVerdict(PanelContent &out) const;
    void draw(const std::vector<ForecastLine> &lines);
    void drawNow();
    const SampledForecast *samples() const; ///< null: none yet
    void showSamples();
    ChartLine ruleLine(double from_rpm, double to_rpm) const;
    ChartLine lineOf(const ForecastLine &line, const QColor &colour) const;
    void addHot(const ForecastLine &line, Chart &chart) const;

    GasLayer *m_gas;
    ChartView *m_chart;
    QWidget *m_shares, *m_oils, *m_levers;
    QTimer *m_progress; ///< how far the draws are
    QPushButton *m_cancel;
};

} // namespace mildpath
