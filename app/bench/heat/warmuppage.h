// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/page.h"
#include "study/room.h"

#include <QTimer>
#include <QWidget>

class QLabel;
class QSlider;

namespace mildpath {

class ChartView;

/// From cold start to hot: pressure at gauge and weakest stop at idle and at a chosen speed, the
/// parts' temperatures and what the clearances do meanwhile.
class WarmUpPage : public Page
{
    Q_OBJECT
public:
    explicit WarmUpPage(OpenBuild &open, QWidget *parent);
    std::vector<PageTab> tabs() const override { return { { "warm_up", tr("Warm-up") } }; }
    QString title() const override { return tr("From cold to hot"); }
    QString about() const override;
    void refresh() override;
    /// Another document: what is shown is of the one before.
    void reset() override;
    PanelContent panel() override;

private:
    void askRuns();
    void draw();
    void drawParts();
    void settingFields(PanelContent &out) const;

    ChartView *m_pressure, *m_temperatures, *m_clearances;
    QSlider *m_speed;
    QLabel *m_speedText, *m_problem;
    std::shared_ptr<const Answered<WarmUps>> m_runs; ///< shown
    const WarmUpRun *m_idle = nullptr, *m_fast = nullptr; ///< of them; null: no solution
    double m_rpm = 0; ///< asked last
};

} // namespace mildpath
