// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "shell/bench.h"

#include <optional>

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;

namespace mildpath {

class RouteMap;

/// The oil's way at one speed and oil temperature, both on sliders.
class RouteBench : public Bench
{
    Q_OBJECT
public:
    RouteBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;

private:
    void takeUse();
    void solve();
    void chooseOil(int index);
    void stopFigures(const Stop &stop, PanelContent &out) const;
    void stopReasons(const Stop &stop, PanelContent &out) const;
    void stopFields(const Stop &stop, PanelContent &out) const;
    void stopProofs(const Stop &stop, PanelContent &out) const;
    void stopWorking(const Stop &stop, PanelContent &out) const;
    void stopFilm(const Stop &stop, PanelContent &out) const;

    RouteMap *m_map;
    QSlider *m_speed, *m_oil;
    QLabel *m_speedText, *m_oilText;
    QComboBox *m_grade;
    QPushButton *m_change;
    std::optional<OperatingResult> m_result;
};

} // namespace mildpath
