// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/sampling.h"
#include "shell/background.h"
#include "shell/bench.h"

#include <optional>

class QLabel;
class QPushButton;
class QStackedWidget;
class QTimer;

namespace mildpath {

class CurveChart;
class DiagnosisPage;
class GasLayer;
class RemedyPage;
struct Curve;

/// Pressure against speed for three oil temperatures, where the oil goes, other oils, levers; what
/// would mend it; what readings say is wrong.
class ForecastBench : public Bench
{
    Q_OBJECT
public:
    ForecastBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    QStringList pages() const override;
    void showPage(int page) override;

private:
    enum Page { Pressure, Remedies, Fault };
    void verdict(PanelContent &out) const;
    void useFields(PanelContent &out) const;
    void crankVerdict(PanelContent &out) const;
    void draw(const std::vector<ForecastLine> &lines);
    void drawFiner();
    void sample();
    void takeSamples(Result<SampledForecast> answer);
    void showSamples();
    Curve ruleCurve(double from_rpm, double to_rpm) const;

    QLabel *m_title, *m_subtitle;
    QStackedWidget *m_stack;
    RemedyPage *m_remedies;
    DiagnosisPage *m_diagnosis;
    int m_page = Pressure;
    GasLayer *m_gas;
    CurveChart *m_chart;
    QWidget *m_shares, *m_oils, *m_levers;
    QTimer *m_finer; ///< more speeds once the keys rest
    QTimer *m_progress; ///< how far the draws are
    QPushButton *m_cancel;
    Background m_background;
    std::optional<SampledForecast> m_samples; ///< of this document; none while they are drawn
    std::vector<ForecastLine> m_lines; ///< as drawn last
};

} // namespace mildpath
