// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/background.h"
#include "shell/openbuild.h"
#include "shell/panel.h"

#include <QTimer>
#include <QWidget>

class QLabel;
class QSlider;

namespace mildpath {

class CurveChart;

/// From cold start to hot: pressure at gauge and weakest stop at idle and at a chosen speed, the
/// parts' temperatures and what the clearances do meanwhile.
class WarmUpPage : public QWidget
{
    Q_OBJECT
public:
    explicit WarmUpPage(OpenBuild &open, QWidget *parent);
    void refresh();
    /// Another document: what is shown is of the one before.
    void forget();
    PanelContent panel() const;

Q_SIGNALS:
    void changed();

private:
    using Runs = std::pair<Result<WarmUpRun>, Result<WarmUpRun>>; ///< idle, chosen speed
    static Runs runs(const Build &build, const std::vector<GaugedSize> &sizes, double rpm,
                     int points);
    void computeCoarse();
    void computeFine();
    void take(Runs runs);
    void draw();
    void drawParts();
    void settingFields(PanelContent &out) const;

    OpenBuild &m_open;
    CurveChart *m_pressure, *m_temperatures, *m_clearances;
    QSlider *m_speed;
    QLabel *m_speedText, *m_problem;
    QTimer m_finer;
    std::optional<WarmUpRun> m_idle, m_fast;
    Background m_background;
};

} // namespace mildpath
