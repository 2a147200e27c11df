// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "assess/assessment.h"
#include "diagnose/whatif.h"
#include "shell/bench.h"

#include <optional>

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;
class QStackedWidget;

namespace mildpath {

class FlowPage;
class LinesPage;
class RouteMap;

/// The oil's way at one speed and oil temperature, both on sliders; faults imagined on it; the
/// lines outside the engine; oil seen to flow.
class RouteBench : public Bench
{
    Q_OBJECT
public:
    RouteBench(OpenBuild &open, QWidget *parent);
    void refresh() override;
    PanelContent panel() const override;
    QStringList pages() const override;
    void showPage(int page) override;

private:
    enum Page { Map, Imagined, Lines, Flow };
    void makeMapPage();
    void takeUse();
    void solve();
    void chooseOil(int index);
    void stopFigures(const Stop &stop, PanelContent &out) const;
    void stopReasons(const Stop &stop, PanelContent &out) const;
    void stopFields(const Stop &stop, PanelContent &out) const;
    void stopProofs(const Stop &stop, PanelContent &out) const;
    void stopWorking(const Stop &stop, PanelContent &out) const;
    void stopFilm(const Stop &stop, PanelContent &out) const;

    QLabel *m_title, *m_subtitle;
    QStackedWidget *m_stack;
    QWidget *m_mapPage;
    LinesPage *m_lines;
    FlowPage *m_flow;
    int m_page = Map;
    RouteMap *m_map;
    QSlider *m_speed, *m_oil;
    QLabel *m_speedText, *m_oilText;
    QComboBox *m_grade;
    QPushButton *m_change;
    std::optional<OperatingResult> m_result;
    std::optional<WhatIf> m_whatIf; ///< of what is imagined
};

} // namespace mildpath
