// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/operating.h"
#include "shell/bench.h"

#include <optional>

class QLabel;
class QSlider;

namespace mildpath {

class BallCard;
class FuelCard;
class OilChart;
class StribeckView;

/// The oil against heat and grades, and where each contact runs on it.
class FilmBench : public Bench
{
    Q_OBJECT
public:
    FilmBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    void reset() override;
    PanelContent panel() const override;

private:
    void solve();
    void verdicts(PanelContent &out) const;
    void oilFields(PanelContent &out) const;
    void ownOils(PanelContent &out) const;

    QLabel *m_title, *m_subtitle, *m_speedText, *m_oilText;
    QSlider *m_speed, *m_oil;
    OilChart *m_chart;
    StribeckView *m_stribeck;
    BallCard *m_ball;
    FuelCard *m_fuel;
    std::optional<OperatingResult> m_result;
};

} // namespace mildpath
